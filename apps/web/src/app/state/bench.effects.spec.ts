import { HttpErrorResponse } from '@angular/common/http';
import type { Router } from '@angular/router';
import type { DeliveryRecord, PrinterRecord } from '@foglio/api';
import { plan } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import type { Actions } from '@ngrx/effects';
import type { Action, Store } from '@ngrx/store';
import { BehaviorSubject, map, NEVER, of, Subject, type Observable } from 'rxjs';
import { aDocument, aPrinter } from '../../stubs/records';
import type { Api, Sending } from '../api/api';
import type { Sendings } from '../api/sendings';
import { BenchActions } from './bench.actions';
import { load, save, send, showQueue, watchPrinter } from './bench.effects';
import { benchFeature, type BenchState } from './bench.state';
import type { Change, Changed } from './change-line';
import type { Changes } from './changes';
import { sealSeen } from './seen';

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

describe('the printer is asked again while one works', () => {
  const TEN_SECONDS = 10_000;

  test('the one that is chosen now, not the one the Bench began with', () => {
    const asked: string[] = [];
    const api = { printer: (id: string) => (asked.push(id), of(id === 'library' ? library : upper)) } as unknown as Api;
    const { store, dispatch } = storeOf();
    const actions = heard(watchPrinter(store, api));
    jest.advanceTimersByTime(TEN_SECONDS);
    dispatch(BenchActions.printerWanted({ printer: library }));
    jest.advanceTimersByTime(2 * TEN_SECONDS);
    expect(asked).toEqual(['upper-office', 'library', 'library']);
    expect(actions.at(-1)).toEqual(BenchActions.printerSeen({ printer: library }));
  });

  test('an answer about the printer of before, however late, is not heard', () => {
    const answer = new Subject<PrinterRecord>();
    const { store, dispatch } = storeOf();
    const actions = heard(watchPrinter(store, { printer: () => answer } as unknown as Api));
    jest.advanceTimersByTime(TEN_SECONDS);
    dispatch(BenchActions.printerWanted({ printer: library }));
    answer.next(upper);
    expect(actions).toEqual([]);
  });

  test('nor does the Bench take it, if it came all the same', () => {
    const opened = reducer(undefined, BenchActions.opened({ jobId: 'j' }));
    const loaded = reducer(opened, BenchActions.loaded({ job, printer: upper, setups: [] }));
    const changed = reducer(loaded, BenchActions.printerWanted({ printer: library }));
    expect(reducer(changed, BenchActions.printerSeen({ printer: upper }))).toBe(changed);
    const paused = { ...library, reasons: ['paused'] };
    expect(reducer(changed, BenchActions.printerSeen({ printer: paused })).printer).toBe(paused);
  });

  test('not any more once the job is closed', () => {
    const asked: string[] = [];
    const api = { printer: (id: string) => (asked.push(id), NEVER) } as unknown as Api;
    const { store, dispatch } = storeOf();
    heard(watchPrinter(store, api));
    dispatch(BenchActions.opened({ jobId: 'other' }));
    jest.advanceTimersByTime(3 * TEN_SECONDS);
    expect(asked).toEqual([]);
  });
});

const here: Changed = { kind: 'job', id: 'j' };
const change = BenchActions.ticketChanged({ ticket: { ...ticket, copies: 2 } });
const saved = (of: Change, revision: number) =>
  BenchActions.saved({ of: here, news: { kind: 'saved', change: of, revision, setup: null } });

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
    const sent: Sending[] = [];
    const answer = new Subject<DeliveryRecord>();
    const sendings = { send: (one: Sending) => (sent.push(one), answer) } as unknown as Sendings;
    const asked: string[] = [];
    const api = { printer: (id: string) => (asked.push(id), of({ ...upper, reasons: ['paused'] })) } as unknown as Api;
    const wanted = BenchActions.sendingWanted({ seen: now().seen!, confirmed: [] });
    dispatch(wanted);
    const said = heard(send(of(wanted) as never, store, sendings, api));
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
  const sent = of(BenchActions.sent({ delivery: { id: 'd', jobId: 'j' } as DeliveryRecord })) as unknown as Actions;

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
