import { TestBed } from '@angular/core/testing';
import type { PrinterRecord } from '@foglio/api';
import { of, Subject } from 'rxjs';
import { aPrinter } from '../../stubs/records';
import { Api } from '../api/api';
import { News } from '../news/news';
import { PrintersNow } from '../news/printers-now';
import { HoldBack } from './hold-back';

const printer = (id: string, name: string, change: Partial<PrinterRecord> = {}): PrinterRecord =>
  aPrinter({ name, trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] }, { id, ...change });

interface Asked {
  readonly id: string;
  readonly held: boolean;
  readonly answer: Subject<PrinterRecord>;
}

function begin() {
  const asked: Asked[] = [];
  const holdBack = (id: string, held: boolean) => {
    const answer = new Subject<PrinterRecord>();
    asked.push({ id, held, answer });
    return answer;
  };
  const all = [printer('p', 'Upper office'), printer('q', 'Library')];
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: { holdBack, printers: () => of(all) } },
      { provide: News, useValue: { of: () => new Subject(), asking: () => of(null) } },
    ],
  });
  TestBed.inject(PrintersNow).keepListed().subscribe();
  const fixture = TestBed.createComponent(HoldBack);
  const element = fixture.nativeElement as HTMLElement;
  const buttons = (): HTMLButtonElement[] => {
    TestBed.tick();
    return [...element.querySelectorAll('button')];
  };
  const says = (): string[] =>
    buttons().map(
      (one) => one.textContent.trim() + ((one.ariaDisabled ?? one.getAttribute('aria-disabled')) ? ' …' : ''),
    );
  const press = (word: string, place = 0): void =>
    buttons()
      .filter(({ textContent }) => textContent.trim() === word)
      [place]!.click();
  const summary = (): string => {
    TestBed.tick();
    return element.querySelector('summary')!.textContent;
  };
  return { asked, says, press, summary, element };
}

const later = (id: string, name: string, heldBack: boolean): PrinterRecord =>
  printer(id, name, { heldBack, askedAt: heldBack ? '2026-11-25T10:00:05Z' : '2026-11-25T10:00:09Z' });

test('one is paused and sent on; while the answer is on its way it is not asked twice', () => {
  const { asked, says, press, summary } = begin();
  expect(says()).toEqual(['Pause', 'Pause', 'Pause all']);
  press('Pause');
  expect(says()).toEqual(['Pause …', 'Pause', 'Pause all']);
  press('Pause all');
  expect(asked.map(({ id, held }) => [id, held])).toEqual([
    ['p', true],
    ['q', true],
  ]);
  // The later answer comes first.
  asked[1]!.answer.next(later('q', 'Library', true));
  asked[0]!.answer.next(later('p', 'Upper office', true));
  expect(says()).toEqual(['Send on', 'Send on', 'Send on to all']);
  expect(summary()).toBe('Sending is paused');
  press('Send on');
  asked[2]!.answer.next(later('p', 'Upper office', false));
  expect([says(), summary()]).toEqual([['Pause', 'Send on', 'Pause all'], 'Paused: Library']);
});

test('refused, it says why, and can be asked again', () => {
  const { asked, says, press, element } = begin();
  press('Pause', 1);
  asked[0]!.answer.error(new Error('away'));
  expect(says()).toEqual(['Pause', 'Pause', 'Pause all']);
  expect(element.querySelector('[role=alert]')?.textContent).not.toBe('');
});
