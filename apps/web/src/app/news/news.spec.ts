import { HttpErrorResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import type { NewsRecord, PrinterRecord } from '@foglio/api';
import { Observable, Subject } from 'rxjs';
import { aPrinter } from '../../stubs/records';
import { Api } from '../api/api';
import { News } from './news';
import { PrintersNow } from './printers-now';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

/** A server whose connections and answers are in a test's hands. */
function begin() {
  const connections: Subject<NewsRecord | 'opened'>[] = [];
  let open = 0;
  const lists: Subject<PrinterRecord[]>[] = [];
  const asked: Subject<PrinterRecord>[] = [];
  const put = <T>(questions: Subject<T>[]): Observable<T> => {
    const question = new Subject<T>();
    questions.push(question);
    return question;
  };
  const api = {
    news: () =>
      new Observable<NewsRecord | 'opened'>((subscriber) => {
        open += 1;
        const one = new Subject<NewsRecord | 'opened'>();
        connections.push(one);
        const listening = one.subscribe(subscriber);
        return () => {
          open -= 1;
          listening.unsubscribe();
        };
      }),
    printers: () => put(lists),
    printer: () => put(asked),
  };
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }] });
  const news = TestBed.inject(News);
  return { news, connections, lists, asked, open: () => open };
}

const beat: NewsRecord = { topic: 'beat' };

describe('the connection', () => {
  test('is said to be lost when it has been away for a while, and not at once', () => {
    const { news, connections } = begin();
    connections[0]!.next('opened');
    connections[0]!.complete();
    jest.advanceTimersByTime(1_900);
    expect(news.isLost()).toBe(false);
    jest.advanceTimersByTime(200);
    expect(news.isLost()).toBe(true);
    connections.at(-1)!.next('opened');
    expect(news.isLost()).toBe(false);
  });

  test('tells that the database is away, until there is a connection after it', () => {
    const { news, connections } = begin();
    connections[0]!.next('opened');
    expect(news.isDatabaseAway()).toBe(false);
    connections[0]!.next({ topic: 'database away' });
    jest.advanceTimersByTime(30_000);
    expect(news.isDatabaseAway()).toBe(true);
    connections[0]!.complete();
    jest.advanceTimersByTime(1_000);
    expect(news.isDatabaseAway()).toBe(true);
    connections[1]!.next('opened');
    expect([news.isDatabaseAway(), news.isLost()]).toEqual([false, false]);
  });

  test('is tried again every second, whether it ended or broke', () => {
    const { connections, open } = begin();
    connections[0]!.error(new Error('no'));
    jest.advanceTimersByTime(1_000);
    connections[1]!.complete();
    jest.advanceTimersByTime(1_000);
    expect([connections.length, open()]).toEqual([3, 1]);
  });

  test('on which nothing comes any more is dead, though nobody closed it', () => {
    const { news, connections, open } = begin();
    connections[0]!.next('opened');
    for (let time = 0; time < 4; time += 1) {
      jest.advanceTimersByTime(15_000);
      connections[0]!.next(beat);
    }
    expect(connections).toHaveLength(1);
    jest.advanceTimersByTime(43_000);
    expect([connections.length, open(), news.isLost()]).toEqual([2, 1, true]);
  });

  test('each new one is told of, since what changed before it was not', () => {
    const { news, connections } = begin();
    let asks = 0;
    news.asking(news.of('job')).subscribe(() => (asks += 1));
    connections[0]!.next('opened');
    connections[0]!.next({ topic: 'job', id: 'j', revision: 2 });
    connections[0]!.next({ topic: 'file', id: 'f' });
    connections[0]!.complete();
    jest.advanceTimersByTime(1_000);
    connections[1]!.next('opened');
    // At once, with the connection, with the news of a job, and with the connection after.
    expect(asks).toBe(4);
  });
});

describe('the printers as they are now', () => {
  const at = (second: number): string => `2026-11-25T10:00:0${second}Z`;
  const profile = { name: 'P', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] };
  const printer = (askedAt: number, change: Partial<PrinterRecord> = {}): PrinterRecord =>
    aPrinter(profile, { askedAt: at(askedAt), ...change });

  function listening() {
    const server = begin();
    const now = TestBed.inject(PrintersNow);
    now.keepListed().subscribe();
    const told = (one: PrinterRecord): void => server.connections[0]!.next({ topic: 'printer', printer: one });
    const answer = (at: number, all: PrinterRecord[]): void => {
      server.lists[at]!.next(all);
      server.lists[at]!.complete();
    };
    return { ...server, now, told, answer };
  }

  test('an answer to an earlier question does not take a later one’s place, by whichever way it comes', () => {
    const { now, told, answer } = listening();
    told(printer(5, { state: 'stopped' }));
    answer(0, [printer(3)]);
    expect(now.all()).toMatchObject([{ state: 'stopped' }]);
    now.see(printer(4));
    expect(now.of('p')).toMatchObject({ state: 'stopped' });
    now.see(printer(6));
    expect([now.of('p')?.state, now.all()?.[0]?.state]).toEqual(['idle', 'idle']);
  });

  test('what says the same stays the very same, and its profile stays where only its state changes', () => {
    const { now, told, answer } = listening();
    answer(0, [printer(1)]);
    const before = now.of('p');
    told(printer(2));
    expect(now.of('p')).toBe(before);
    told(printer(3, { state: 'stopped' }));
    expect(now.of('p')).not.toBe(before);
    expect(now.of('p')!.profile).toBe(before!.profile);
  });

  test('one that is new is in the list, and one that is removed is not', () => {
    const { now, told, answer, connections } = listening();
    answer(0, [printer(1)]);
    told(printer(2, { id: 'q' }));
    expect(now.all()?.map(({ id }) => id)).toEqual(['p', 'q']);
    connections[0]!.next({ topic: 'no printer', id: 'p' });
    expect(now.all()?.map(({ id }) => id)).toEqual(['q']);
  });

  test('the list is asked for again after every new connection, and why it could not be is said until it could', () => {
    const { now, lists, answer, connections } = listening();
    lists[0]!.error(new HttpErrorResponse({ status: 0 }));
    expect(now.away()).toContain('does not answer');
    jest.advanceTimersByTime(1_000);
    answer(1, [printer(1)]);
    expect(now.away()).toBeNull();
    connections.at(-1)!.next('opened');
    expect(lists).toHaveLength(3);
  });

  test('one that is followed is heard of as it changes, and asked for after a new connection', () => {
    const { now, told, asked, connections, answer } = listening();
    answer(0, [printer(1)]);
    const heard: string[] = [];
    now.follow('p').subscribe(({ state }) => heard.push(state));
    told(printer(2, { state: 'processing' }));
    told(printer(2, { id: 'q', state: 'stopped' }));
    connections[0]!.next('opened');
    asked[0]!.next(printer(3, { state: 'stopped' }));
    asked[0]!.complete();
    expect(heard).toEqual(['processing', 'stopped']);
  });
});
