import { HttpErrorResponse } from '@angular/common/http';
import type { Router } from '@angular/router';
import type { SendingRecord, FactsRecord, JobRecord, NewsRecord, PrinterRecord } from '@foglio/api';
import { plan } from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import type { Actions } from '@ngrx/effects';
import type { Action, Store } from '@ngrx/store';
import { BehaviorSubject, filter, map, merge, NEVER, of, Subject, type Observable } from 'rxjs';
import { aDocument, aPrinter } from '../../stubs/records';
import type { Api, ToSend } from '../api/api';
import type { Outbox } from '../api/outbox';
import type { News } from '../news/news';
import type { PrintersNow } from '../news/printers-now';
import type { Planner } from '../workers/planner';
import { BenchActions } from './bench.actions';
import { followReading, hearOfJob, load, plan as planned, save, send, showQueue, watchPrinter } from './bench.effects';
import { benchFeature, type BenchState } from './bench.state';
import type { Change, Changed } from './change-line';
import type { Changes } from './changes';
import { sealSeen } from './seen';
import { sendable } from './sendable';

const profile = { name: 'P', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] };
const [upper, library] = ['upper-office', 'library'].map((id) => aPrinter(profile, { id })) as [
  PrinterRecord,
  PrinterRecord,
];
const ticket = readTicket({ version: 1, documents: [{ file: 'f' }] });
const job = {
  id: 'j',
  ticket,
  revision: 1,
  printerId: upper.id,
  updatedAt: '2026-11-25T10:00:00Z',
  lastSentAt: null,
  came: null,
  documents: [aDocument([{ width: 595.276, height: 841.89 }])],
};

const { reducer } = benchFeature;
/** The Bench as it stands after some actions, as a store that effects can look into. */
function storeOf(...actions: Action[]) {
  const opened = reducer(undefined, BenchActions.opened({ jobId: 'j' }));
  const before = reducer(opened, BenchActions.loaded({ job, printer: upper, setups: [] }));
  const state = new BehaviorSubject<BenchState>(actions.reduce(reducer, before));
  const store = {
    select: <T>(selector: (root: object) => T) => state.pipe(map((bench) => selector({ bench }))),
  } as unknown as Store;
  return { store, dispatch: (action: Action) => state.next(reducer(state.value, action)), now: () => state.value };
}

/** What an effect gives, as it comes. */
function heard(effect: Observable<Action>): Action[] {
  const actions: Action[] = [];
  effect.subscribe((action) => actions.push(action));
  return actions;
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

const here: Changed = { kind: 'job', id: 'j' };
const change = BenchActions.ticketChanged({ ticket: { ...ticket, copies: 2 } });
const saved = (of: Change, revision: number) =>
  BenchActions.saved({ of: here, news: { kind: 'saved', change: of, revision, setup: null } });

/** News that a test tells. */
function newsOf() {
  const [told, opened] = [new Subject<NewsRecord>(), new Subject<void>()];
  const topicOf = (topic: string) => told.pipe(filter((one) => one.topic === topic));
  const asking = (...words: Observable<unknown>[]) => merge(of(null), opened, ...words);
  return { told, opened, news: { of: topicOf, opened, asking } as unknown as News };
}

describe('the printer is followed while one works', () => {
  test('the one that is chosen now, not the one the Bench began with, nor what comes late of that', () => {
    const followed = new Map<string, Subject<PrinterRecord>>();
    const follow = (id: string) => followed.set(id, new Subject()).get(id)!;
    const { store, dispatch } = storeOf();
    const actions = heard(watchPrinter(store, { follow } as unknown as PrintersNow));
    followed.get('upper-office')!.next(upper);
    dispatch(BenchActions.printerWanted({ printer: library }));
    followed.get('upper-office')!.next(upper);
    followed.get('library')!.next(library);
    expect(actions).toEqual([upper, library].map((printer) => BenchActions.printerSeen({ printer })));
    dispatch(BenchActions.opened({ jobId: 'other' }));
    followed.get('library')!.next(library);
    expect(actions).toHaveLength(2);
  });

  test('nor does the Bench take what comes late, if it came all the same', () => {
    const { dispatch, now } = storeOf(BenchActions.printerWanted({ printer: library }));
    const before = now();
    dispatch(BenchActions.printerSeen({ printer: upper }));
    expect(now()).toBe(before);
    const paused = { ...library, reasons: ['paused'] };
    dispatch(BenchActions.printerSeen({ printer: paused }));
    expect(now().printer).toEqual(paused);
    // Of two answers of one printer that cross, the one that was asked for later holds.
    dispatch(BenchActions.printerSeen({ printer: { ...library, askedAt: '2026-11-25T09:59:59Z' } }));
    expect(now().printer).toEqual(paused);
  });

  test('what only tells that it stands otherwise is not planned anew', () => {
    const { store, dispatch } = storeOf();
    let plans = 0;
    const ask = () => ((plans += 1), NEVER);
    heard(planned(store, { ask } as unknown as Planner));
    dispatch(BenchActions.printerSeen({ printer: { ...upper, profile: { ...upper.profile }, state: 'stopped' } }));
    expect(plans).toBe(1);
    const empty = { ...upper, profile: readPrinter({ ...profile, color: false }) };
    dispatch(BenchActions.printerSeen({ printer: empty }));
    expect(plans).toBe(2);
  });
});

describe('another window’s change is heard of', () => {
  const changedAt = (revision: number): NewsRecord => ({ topic: 'job', id: 'j', revision });

  /** The Bench, with its effect at work. */
  function listening(...actions: Action[]) {
    const bench = storeOf(...actions);
    const heardOf = newsOf();
    const asked: Subject<JobRecord>[] = [];
    const api = { job: () => (asked.push(new Subject()), asked.at(-1)!) } as unknown as Api;
    hearOfJob(bench.store, api, heardOf.news).subscribe(bench.dispatch);
    return { ...bench, ...heardOf, asked };
  }

  test('at once, and then nothing is sent until it is looked at', () => {
    const { told, now } = listening();
    told.next(changedAt(2));
    expect(now()).toMatchObject({ saving: 'conflict', message: 'Another window changed this job.' });
    expect(sendable(now()).why).toContain('another window changed this job');
  });

  test('and after a time without a connection', () => {
    const { opened, asked, now } = listening();
    opened.next();
    asked[0]!.next({ ...job, revision: 2 });
    expect(now().saving).toBe('conflict');
  });

  test('a removal too', () => {
    const { told, now } = listening();
    told.next(changedAt(0));
    expect(now()).toMatchObject({ saving: 'conflict', message: 'Another window removed this job.' });
  });

  test.each([
    ['before', [changedAt(2)], []],
    ['after', [], [changedAt(2)]],
  ])('one’s own is not, whether the news comes %s its answer', (_when, before, after) => {
    const { told, dispatch, now } = listening(change);
    before.forEach((one) => told.next(one));
    expect(now().saving).toBe('unsaved');
    dispatch(saved({ ticket: change.ticket }, 2));
    after.forEach((one) => told.next(one));
    expect(now().saving).toBe('saved');
  });

  test('another’s that came between is, once one’s own is answered', () => {
    const { told, dispatch, now } = listening(change);
    told.next(changedAt(3));
    dispatch(saved({ ticket: change.ticket }, 2));
    expect(now().saving).toBe('conflict');
  });

  test('nor is another job’s, nor one that comes when the job is closed', () => {
    const { told, dispatch, now } = listening();
    told.next({ topic: 'job', id: 'k', revision: 9 });
    expect(now().saving).toBe('saved');
    dispatch(BenchActions.opened({ jobId: 'other' }));
    told.next(changedAt(2));
    expect(now()).toMatchObject({ saving: 'saved', newest: 0 });
  });
});

describe('what is on the pages is asked for as it becomes known', () => {
  const page = { width: 595.276, height: 841.89 };
  const unread = aDocument([page, page, page]);
  const told: NewsRecord = { topic: 'file', id: unread.sha256 };

  function reading() {
    const whole = { ...job, documents: [unread] };
    const bench = storeOf(BenchActions.loaded({ job: whole, printer: upper, setups: [] }));
    const heardOf = newsOf();
    const asked: { from: number; look: number | undefined; answer: Subject<FactsRecord> }[] = [];
    const facts = (_file: string, from: number, look?: number) => {
      asked.push({ from, look, answer: new Subject() });
      return asked.at(-1)!.answer;
    };
    followReading(bench.store, { facts } as unknown as Api, heardOf.news).subscribe(bench.dispatch);
    const answer = (at: number, read: number): void => {
      const { from, answer: given } = asked[at]!;
      given.next({ read, pages: Array.from({ length: read - from }, () => page), outline: [] });
      given.complete();
    };
    return { ...bench, ...heardOf, asked, answer, read: () => bench.now().documents[0]!.read };
  }

  test('at once, and with every news of that document, from where it is known to', () => {
    const { told: news, asked, answer, read } = reading();
    answer(0, 1);
    news.next({ topic: 'file', id: 'another' });
    expect(asked).toHaveLength(1);
    news.next(told);
    news.next(told);
    answer(1, 2);
    // News that came while the answer was on its way is asked after, so that the last page is never waited for in vain.
    answer(2, 3);
    expect([asked.map(({ from }) => from), read()]).toEqual([[0, 1, 2], 3]);
    news.next(told);
    expect(asked).toHaveLength(3);
  });

  test('the page that is looked at is asked for before those before it, as soon as it is, and once', () => {
    const known = { ...page, smallestText: 9 };
    const { dispatch, now, asked, told: news } = reading();
    const answer = (at: number, facts: Partial<FactsRecord>): void => {
      asked[at]!.answer.next({ read: 0, pages: [], ...facts });
      asked[at]!.answer.complete();
    };
    const looks = () => asked.map(({ look }) => look);
    answer(0, { outline: [] });
    dispatch(planOf(now()));
    dispatch(BenchActions.sheetChosen({ sheet: 3, extend: false }));
    // Another sheet is shown while the answer is on its way: it is asked for after it.
    expect(looks()).toEqual([undefined, 1]);
    answer(1, {});
    expect(looks()).toEqual([undefined, 1, 3]);
    answer(2, { ahead: { from: 3, pages: [known] } });
    expect(now().documents[0]!.pages).toEqual([page, page, known]);
    // Known by now, only the rest is asked for.
    news.next(told);
    expect(looks().slice(3).at(-1)).toBeUndefined();
  });

  test('an answer that was lost is asked for again', () => {
    const { asked, answer, read } = reading();
    asked[0]!.answer.error(new HttpErrorResponse({ status: 0 }));
    jest.advanceTimersByTime(1_000);
    answer(1, 3);
    expect(read()).toBe(3);
  });
});

/** The planning worker's answer to the Bench as it stands. */
function planOf({ ticket: of, documents, printer }: BenchState) {
  const made = plan(of!, documents, printer!.profile);
  const answer = { milliseconds: 1, plan: made, moment: '2026-09-01T14:05', trouble: null } as const;
  return BenchActions.planned({ answer, of: { ticket: of!, documents, printer: printer! } });
}

describe('sending', () => {
  /** Presses Send on the Bench as it stands after some actions, with its plan there. */
  function press(...actions: Action[]) {
    const { store, dispatch, now } = storeOf(...actions);
    dispatch(planOf(now()));
    const sent: ToSend[] = [];
    const answer = new Subject<SendingRecord>();
    const outbox = { send: (one: ToSend) => (sent.push(one), answer) } as unknown as Outbox;
    const asked: string[] = [];
    const api = { printer: (id: string) => (asked.push(id), of({ ...upper, reasons: ['paused'] })) } as unknown as Api;
    const wanted = BenchActions.sendingWanted({ seen: now().seen!, confirmed: [] });
    dispatch(wanted);
    const said = heard(send(of(wanted) as never, store, outbox, api));
    return { sent, said, answer, asked, dispatch, now };
  }

  test.each([
    ['failed', false, 'could not be saved'],
    ['met another window’s', true, 'another window changed this job'],
  ])('is refused where the last change’s saving %s: the ticket of before is never sent', (_what, conflict, said) => {
    const pressed = press(change, BenchActions.saveFailed({ of: here, message: 'No.', conflict }));
    expect(pressed.sent).toEqual([]);
    const message = expect.stringContaining(said) as string;
    expect(pressed.said).toMatchObject([{ type: BenchActions.sendingRefused.type, message }]);
  });

  test('waits for the saving, and goes with its revision and the seal of what was seen', () => {
    const { sent, dispatch, now } = press(change);
    expect(sent).toEqual([]);
    const seal = sealSeen(now().seen!);
    dispatch(saved({ ticket: change.ticket }, 2));
    expect(sent).toEqual([{ jobId: 'j', title: 'a.pdf', revision: 2, sheets: 2, seal, confirmed: [] }]);
  });

  test('where the screen is left before all is saved, it is said that nothing was sent', () => {
    const told: string[] = [];
    const { store, dispatch, now } = storeOf(change);
    dispatch(planOf(now()));
    const outbox = { leftUnsaved: (title: string) => told.push(title) } as unknown as Outbox;
    const wanted = BenchActions.sendingWanted({ seen: now().seen!, confirmed: [] });
    const screen = send(of(wanted) as never, store, outbox, {} as Api).subscribe();
    expect(told).toEqual([]);
    screen.unsubscribe();
    expect(told).toEqual(['a.pdf']);
  });

  test('is refused where the ticket or the printer is another by the time that all is saved', () => {
    const later = BenchActions.ticketChanged({ ticket: { ...ticket, copies: 3 } });
    for (const [action, news] of [
      [later, { ticket: later.ticket }],
      [BenchActions.printerWanted({ printer: library }), { ticket: change.ticket, printerId: 'library' }],
    ] as const) {
      const { sent, said, dispatch } = press(change);
      dispatch(action);
      dispatch(saved(news, 2));
      expect(sent).toEqual([]);
      const message = expect.stringContaining('changed after Send was pressed') as string;
      expect(said).toMatchObject([{ type: BenchActions.sendingRefused.type, message }]);
    }
  });

  test('that the server refuses, since it knows more of the printer, shows what it knows', () => {
    const { said, answer, asked } = press();
    const error = { code: 'plan-changed', detail: 'Since you looked, this changed: the paper.' };
    answer.error(new HttpErrorResponse({ status: 409, error }));
    expect(said).toEqual([
      BenchActions.sendingRefused({ message: error.detail }),
      BenchActions.printerSeen({ printer: { ...upper, reasons: ['paused'] } }),
    ]);
    expect(asked).toEqual(['upper-office']);
  });
});

describe('what is changed goes to the server, whatever becomes of the screen', () => {
  test('the ticket and the printer, with every change and whatever the server has', () => {
    const put: unknown[] = [];
    const changes = { put: (...call: unknown[]) => put.push(call) } as unknown as Changes;
    const actions = new Subject<Action>();
    const { store, dispatch } = storeOf();
    save(actions as never, store, changes).subscribe();
    const act = (action: Action): void => {
      dispatch(action);
      actions.next(action);
    };
    act(change);
    act(BenchActions.printerWanted({ printer: library }));
    dispatch(saved({ ticket: change.ticket, printerId: 'library' }, 3));
    act(BenchActions.undone());
    expect(put).toEqual([
      [here, { ticket: change.ticket, printerId: 'upper-office' }],
      [here, { ticket: change.ticket, printerId: 'library' }],
      [here, { ticket, printerId: 'library' }],
    ]);
  });

  test('and a job is loaded only when the server has all that was changed of it', () => {
    const settled = new Subject<void>();
    const begun: unknown[] = [];
    const changes = {
      settled: () => settled,
      begin: (...call: unknown[]) => begun.push(call),
    } as unknown as Changes;
    const asked: string[] = [];
    const api = {
      job: (id: string) => (asked.push(id), of(job)),
      printer: () => of(upper),
      setups: () => of([]),
    } as unknown as Api;
    const said = heard(load(of(BenchActions.opened({ jobId: 'j' })) as never, api, changes));
    expect(asked).toEqual([]);
    settled.next();
    expect(asked).toEqual(['j']);
    expect(begun).toEqual([[here, 1, { ticket, printerId: 'upper-office' }]]);
    expect(said).toEqual([BenchActions.loaded({ job, printer: upper, setups: [] })]);
  });
});

describe('what was sent is shown in the Queue', () => {
  const sent = of(BenchActions.sent({ sending: { id: 'd', jobId: 'j' } as SendingRecord })) as unknown as Actions;

  test.each([
    ['to whoever is still at the job', '/jobs/j', [['/queue', 'd']]],
    ['and not to whoever went to the Desk meanwhile', '/', []],
    ['nor to another job', '/jobs/k', []],
  ])('%s', (_who, url, shown) => {
    const went: unknown[] = [];
    const router = { url, navigate: (to: unknown) => (went.push(to), Promise.resolve(true)) } as unknown as Router;
    showQueue(sent, router).subscribe();
    expect(went).toEqual(shown);
  });
});
