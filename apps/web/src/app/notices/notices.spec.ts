import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import type { NewsRecord, SendingRecord } from '@foglio/api';
import { filter, of, Subject } from 'rxjs';
import { aPrinter, aSending } from '../../stubs/records';
import { Api } from '../api/api';
import { News } from '../news/news';
import { SendingsNow } from '../news/sendings-now';
import { PrintersNow } from '../news/printers-now';
import { BrowserNotices } from './browser-notices';
import { NoticeList } from './notice-list';
import { noticeOf } from './notice-of';
import { Notices } from './notices';

const told = new Subject<NewsRecord>();
let asked: Subject<readonly SendingRecord[]>[];
let second = 0;

/** As the server gives it now: later than all before. */
function sending(change: Partial<SendingRecord> = {}): SendingRecord {
  second += 1;
  const updatedAt = new Date(Date.parse('2026-11-25T10:00:00Z') + second * 1000).toISOString();
  return aSending({ id: 's', title: 'Season contract', updatedAt, ...change });
}

function begin(): Notices {
  const topic = (name: string) => told.pipe(filter((one) => one.topic === name));
  const news = { of: topic, asking: () => of(null), opened: of(null) };
  const printers = [aPrinter({ name: 'Upper office', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] })];
  const sendings = () => {
    asked.push(new Subject());
    return asked.at(-1)!;
  };
  TestBed.configureTestingModule({
    providers: [
      provideRouter([{ path: '**', children: [] }]),
      { provide: News, useValue: news },
      { provide: Api, useValue: { sendings, printers: () => of(printers) } },
    ],
  });
  const notices = TestBed.inject(Notices);
  TestBed.inject(SendingsNow).keepListed().subscribe();
  return notices;
}

const tell = (one: SendingRecord): void => {
  told.next({ topic: 'sending', sending: one });
  TestBed.tick();
};
const answer = (...sendings: SendingRecord[]): void => {
  asked.at(-1)!.next(sendings);
  TestBed.tick();
};
const texts = (notices: Notices): string[] => notices.shown().map(({ text }) => text);

beforeEach(() => {
  jest.useFakeTimers();
  localStorage.clear();
  asked = [];
});
afterEach(() => jest.useRealTimers());

test('what stands there already is no news; what becomes of it is, once', () => {
  const notices = begin();
  const done = sending({ id: 'd', state: 'completed' });
  answer(done, sending({ state: 'printing' }));
  expect(texts(notices)).toEqual([]);
  const ready = sending({ state: 'completed' });
  tell(ready);
  tell(ready);
  answer(done, ready);
  expect(texts(notices)).toEqual(['“Season contract” is ready.']);
  jest.advanceTimersByTime(14_999);
  expect(texts(notices)).toHaveLength(1);
  jest.advanceTimersByTime(1);
  expect(texts(notices)).toEqual([]);
});

test('a list that comes three seconds late, and older than the news before it, takes nothing back', () => {
  const notices = begin();
  const old = sending({ state: 'printing' });
  tell(sending({ state: 'proofed', copies: 24 }));
  expect(texts(notices)).toEqual([]);
  jest.advanceTimersByTime(3000);
  answer(old);
  // It was so before anything was known: it stands in the Queue.
  expect(texts(notices)).toEqual([]);
  tell(sending({ state: 'proofed', copies: 24, message: 'It has waited for 2 hours.' }));
  expect(texts(notices)).toEqual(['One set of “Season contract” is out: look at it. It has waited for 2 hours.']);
  answer(old);
  expect(texts(notices)).toHaveLength(1);
});

test('what asks for somebody stays until it is done; closed, it comes again only when there is something new', () => {
  const notices = begin();
  answer(sending({ state: 'printing' }));
  tell(sending({ state: 'printing', message: 'Tray 2 is empty.' }));
  jest.advanceTimersByTime(3_600_000);
  expect(texts(notices)).toEqual(['“Season contract” waits. Tray 2 is empty.']);
  notices.close(notices.shown());
  tell(sending({ state: 'printing', message: 'Tray 2 is empty.', sheetsDone: 3 }));
  expect(texts(notices)).toEqual([]);
  tell(sending({ state: 'printing', message: 'A cover is open.', sheetsDone: 3 }));
  expect(texts(notices)).toEqual(['“Season contract” waits. A cover is open.']);
  tell(sending({ state: 'printing', sheetsDone: 4 }));
  expect(texts(notices)).toEqual([]);
});

test('after a connection was lost, what became of it meanwhile is told; old ones for which there was no room are not', () => {
  const notices = begin();
  const ancient = sending({ id: 'ancient', state: 'failed' });
  answer(sending({ state: 'printing' }));
  answer(
    sending({ state: 'aborted', message: 'Jammed.' }),
    sending({ id: 'n', title: '', state: 'completed' }),
    ancient,
  );
  expect(texts(notices)).toEqual(['“Season contract” was aborted by the printer: Jammed.', '“Untitled job” is ready.']);
});

test.each<[Partial<SendingRecord>, string | null]>([
  [{ state: 'completed', portion: 'other-sets', copies: 24 }, '“Season contract” is ready: the other 23 sets.'],
  [{ state: 'turning', pass: 1 }, 'The fronts of “Season contract” are out: put the stack back in.'],
  [{ state: 'uncertain' }, '“Season contract” may have been printed: look whether it was.'],
  [{ state: 'failed', message: 'No such paper.' }, '“Season contract” was not sent: No such paper.'],
  [{ state: 'interrupted', message: null }, '“Season contract” broke off.'],
  [{ state: 'canceled' }, null],
  [{ state: 'held', message: 'It is held at the printer until it is released.' }, null],
])('of %j is heard %s', (change, text) => {
  expect(noticeOf(sending(change))?.text ?? null).toBe(text);
});

test('on the page: at the printer’s name, those that are ready as one; in the Queue nothing, and what was there is seen', async () => {
  const notices = begin();
  const fixture = TestBed.createComponent(NoticeList);
  const cards = (): string[] => {
    TestBed.tick();
    return [...(fixture.nativeElement as HTMLElement).querySelectorAll('article')].map((element) =>
      [...element.children].map(({ textContent }) => textContent.trim()).join(' '),
    );
  };
  for (const question of asked) question.next([]);
  TestBed.tick();
  tell(sending({ id: 'a', title: 'Flyer', state: 'completed' }));
  tell(sending({ id: 'b', state: 'completed' }));
  tell(sending({ id: 'c', state: 'failed', message: 'No such paper.' }));
  expect(cards()).toEqual([
    'Upper office 2 jobs are ready. The last: “Season contract” is ready. Show close',
    'Upper office “Season contract” was not sent: No such paper. Show close',
  ]);
  (fixture.nativeElement as HTMLElement).querySelector<HTMLButtonElement>('article button')!.click();
  expect(cards()).toHaveLength(1);
  // By keyboard one goes on to the next.
  expect(document.activeElement).toBe((fixture.nativeElement as HTMLElement).querySelector('article button'));
  await TestBed.inject(Router).navigateByUrl('/queue/c');
  expect([cards(), notices.shown()]).toEqual([[], []]);
});

describe('by the browser', () => {
  const said: { title: string; body: string; tag: string; onclick?: () => void }[] = [];
  let answerTo: NotificationPermission;
  class Notification {
    static permission: NotificationPermission = 'default';
    static requestPermission = (): Promise<NotificationPermission> =>
      Promise.resolve((Notification.permission = answerTo));
    readonly close = jest.fn();
    constructor(title: string, { body, tag }: { body: string; tag: string }) {
      said.push(Object.assign(this, { title, body, tag }));
    }
  }
  const inFront = jest.spyOn(document, 'hasFocus');
  beforeEach(() => {
    said.length = 0;
    Notification.permission = 'default';
    Object.assign(window, { Notification });
    inFront.mockReturnValue(false);
    window.focus = jest.fn();
  });

  test('where it is allowed and wanted, and another window is in front; a click leads to the Queue', async () => {
    begin();
    const browser = TestBed.inject(BrowserNotices);
    TestBed.inject(PrintersNow).keepListed().subscribe();
    answer(sending({ state: 'printing' }));
    tell(sending({ state: 'printing', message: 'Tray 2 is empty.' }));
    expect(said).toEqual([]);
    answerTo = 'granted';
    await browser.switch();
    expect([browser.isOn(), browser.refused()]).toEqual([true, null]);
    inFront.mockReturnValue(true);
    tell(sending({ state: 'printing', message: 'A cover is open.' }));
    expect(said).toEqual([]);
    inFront.mockReturnValue(false);
    tell(sending({ state: 'completed' }));
    expect(said).toMatchObject([{ title: 'Upper office', body: '“Season contract” is ready.', tag: 'ready at p' }]);
    const go = jest.spyOn(TestBed.inject(Router), 'navigate').mockResolvedValue(true);
    said[0]!.onclick!();
    expect(go).toHaveBeenCalledWith(['/queue', 's']);
    await browser.switch();
    tell(sending({ id: 'n', state: 'completed' }));
    expect(said).toHaveLength(1);
  });

  test('refused, it says why, and is not shown as chosen', async () => {
    begin();
    const browser = TestBed.inject(BrowserNotices);
    answerTo = 'denied';
    await browser.switch();
    expect([browser.isOn(), browser.refused()]).toEqual([
      false,
      'The browser does not allow it: allow notifications for this page in its settings.',
    ]);
  });
});
