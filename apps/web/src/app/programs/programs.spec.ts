import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { IncomingRecord, QueueRecord } from '@foglio/api';
import { of, Subject } from 'rxjs';
import { Api } from '../api/api';
import { News } from '../news/news';
import { Programs } from './programs';

const DESK: QueueRecord = {
  name: 'desk',
  title: 'Foglio Desk',
  address: 'ipp://127.0.0.1:8632/ipp/print/desk',
  setupId: null,
};

/** Answers that come when the test gives them. */
function open() {
  const asked: Subject<QueueRecord[]>[] = [];
  const told = { incoming: new Subject<{ id: string }>(), setup: new Subject(), sending: new Subject() };
  const api = {
    queues: () => {
      const answer = new Subject<QueueRecord[]>();
      asked.push(answer);
      return answer;
    },
    incoming: () => of<IncomingRecord[]>([]),
  };
  const news = {
    of: (topic: keyof typeof told) => told[topic],
    asking: (word: Subject<unknown>) => {
      const all = new Subject<unknown>();
      word.subscribe(all);
      queueMicrotask(() => all.next(null));
      return all;
    },
  };
  TestBed.configureTestingModule({
    providers: [provideRouter([]), { provide: Api, useValue: api }, { provide: News, useValue: news }],
  });
  const fixture = TestBed.createComponent(Programs);
  const text = (): string => {
    fixture.detectChanges();
    return (fixture.nativeElement as HTMLElement).textContent.replaceAll(/\s+/g, ' ');
  };
  const answer = (at: number, queues: QueueRecord[]): void => {
    asked[at]!.next(queues);
    asked[at]!.complete();
  };
  return { asked, told, text, answer };
}

test('until the addresses are known it says that it looks for them; with each word it asks once more', async () => {
  const { asked, told, text, answer } = open();
  await Promise.resolve();
  expect(text()).toContain('Looking for the addresses');
  // Words that come while an answer is on its way are asked for once, after it.
  told.setup.next(null);
  told.incoming.next({ id: '1' });
  expect(asked).toHaveLength(1);
  answer(0, []);
  expect(text()).toContain('Add a printer first');
  expect(asked).toHaveLength(2);
  answer(1, [DESK]);
  expect(text()).toContain(DESK.address);
  expect(asked).toHaveLength(2);
});

test('what cannot be asked for is said, and what was known stays', async () => {
  const { asked, told, text, answer } = open();
  await Promise.resolve();
  answer(0, [DESK]);
  told.incoming.next({ id: '2' });
  asked[1]!.error(new Error('no connection'));
  expect(text()).toContain(DESK.address);
});
