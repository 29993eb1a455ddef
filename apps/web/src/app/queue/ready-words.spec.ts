import { TestBed } from '@angular/core/testing';
import type { NewsRecord, PrinterRecord, SendingRecord } from '@foglio/api';
import { readyTimes } from '@foglio/core';
import { Subject } from 'rxjs';
import { aPrinter, aSending } from '../../stubs/records';
import { Api } from '../api/api';
import { News } from '../news/news';
import { SendingsNow } from '../news/sendings-now';
import { clock, sayBefore, sayReady, toBeSent, waitingIn } from './ready-words';

const START = Date.parse('2026-11-25T10:00:00Z');

const sending = (id: string, change: Partial<SendingRecord> = {}): SendingRecord =>
  aSending({ id, seconds: 100, createdAt: `2026-11-25T09:00:0${id}Z`, turnAt: `2026-11-25T09:00:0${id}Z`, ...change });

const office = (change: Partial<PrinterRecord> = {}): PrinterRecord =>
  aPrinter({ name: 'Upper office', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] }, { pace: 1.5, ...change });

/** Seconds from the start until each is ready. */
function inSeconds(sendings: readonly SendingRecord[], printer = office(), now = START): Record<string, number | null> {
  const times = readyTimes(
    waitingIn(sendings, (id) => (id === 'p' ? printer : null)),
    now,
  );
  return Object.fromEntries([...times].map(([id, { at }]) => [id, at === null ? null : (at - START) / 1000]));
}

test('one after the other, by the pace of the printer; what it has comes before what waits', () => {
  const those = [
    sending('1'),
    sending('2', { state: 'printing', sheetsDone: 5 }),
    sending('3', { state: 'completed' }),
  ];
  expect(inSeconds(those)).toEqual({ 2: 75, 1: 225 });
});

test('as time goes by it stays the same moment, and is never one that has gone', () => {
  const those = [sending('2', { state: 'printing', sheetsDone: 5 })];
  expect(inSeconds(those, office(), START + 60_000)).toEqual({ 2: 75 });
  expect(inSeconds(those, office(), START + 120_000)).toEqual({ 2: 120 });
});

test('it cannot be told behind what a person must see to, nor of a printer that stands still or is not known', () => {
  expect(inSeconds([sending('1', { state: 'turning', pass: 1 }), sending('2')])).toEqual({ 1: null, 2: null });
  expect(inSeconds([sending('1', { state: 'printing' })], office({ state: 'stopped' }))).toEqual({ 1: null });
  expect(inSeconds([sending('1', { printerId: 'elsewhere' })])).toEqual({ 1: null });
});

test('what is held back for its printer is ready when somebody says so; what that has already goes on', () => {
  const those = [sending('1'), sending('2', { state: 'printing', sheetsDone: 5 })];
  expect(inSeconds(those, office({ heldBack: true }))).toEqual({ 2: 75, 1: null });
});

test('in words: to the minute, with what comes before', () => {
  const at = new Date(2026, 10, 25, 16, 7).getTime();
  expect([0, 1, 3].map((before) => [sayReady({ at, before }), sayBefore({ at, before })])).toEqual([
    ['about 16:07', null],
    ['about 16:07', 'one job before it'],
    ['about 16:07', '3 jobs before it'],
  ]);
  expect(sayReady({ at: null, before: 1 })).toBeNull();
});

test('what would be sent now comes last', () => {
  const own = toBeSent(office(), 20, START);
  const waiting = waitingIn([sending('1'), sending('2', { state: 'printing', sheetsDone: 5 })], () => office());
  expect(readyTimes([...waiting, own], START).get(own.id)).toEqual({ at: START + 255_000, before: 2 });
});

test('the clock is looked at every while', () => {
  jest.useFakeTimers({ now: START });
  const now = TestBed.runInInjectionContext(clock);
  jest.advanceTimersByTime(9_000);
  expect(now()).toBe(START);
  jest.advanceTimersByTime(1_000);
  expect(now()).toBe(START + 10_000);
  jest.useRealTimers();
});

test('of what was sent the later word counts, however list and news cross; nothing is known before the list is', () => {
  const news = new Subject<Extract<NewsRecord, { topic: 'sending' }>>();
  const answers: Subject<SendingRecord[]>[] = [];
  const asking = new Subject<void>();
  const sendings = () => {
    const answer = new Subject<SendingRecord[]>();
    answers.push(answer);
    return answer;
  };
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: { sendings } },
      { provide: News, useValue: { of: () => news, asking: () => asking } },
    ],
  });
  const now = TestBed.inject(SendingsNow);
  now.keepListed().subscribe();
  asking.next();
  const later = sending('1', { state: 'printing', updatedAt: '2026-11-25T10:00:05Z' });
  news.next({ topic: 'sending', sending: later });
  expect(now.all()).toBeNull();
  answers[0]!.next([sending('1'), sending('2')]);
  expect(now.all()!.map(({ id, state }) => `${id} ${state}`)).toEqual(['2 queued', '1 printing']);
  news.next({ topic: 'sending', sending: sending('2', { state: 'sending', updatedAt: '2026-11-25T09:59:00Z' }) });
  expect(now.all()![0]!.state).toBe('queued');
});
