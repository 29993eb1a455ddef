import type { Router } from '@angular/router';
import type { DeliveryRecord, PrinterRecord } from '@foglio/api';
import { readTicket } from '@foglio/core/validate';
import type { Actions } from '@ngrx/effects';
import type { Action, Store } from '@ngrx/store';
import { BehaviorSubject, map, NEVER, of, Subject, type Observable } from 'rxjs';
import { aDocument, aPrinter } from '../../stubs/records';
import type { Api } from '../api/api';
import { BenchActions } from './bench.actions';
import { send, showQueue, watchPrinter } from './bench.effects';
import { benchFeature, type BenchState } from './bench.state';

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
  const before = reducer(undefined, BenchActions.loaded({ job, printer: upper, setups: [] }));
  const state = new BehaviorSubject<BenchState>(actions.reduce(reducer, before));
  const store = {
    select: <T>(selector: (root: object) => T) => state.pipe(map((bench) => selector({ bench }))),
  } as unknown as Store;
  return { store, dispatch: (action: Action) => state.next(reducer(state.value, action)) };
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
    dispatch(BenchActions.printerChanged({ jobId: 'j', printer: library, revision: 2 }));
    jest.advanceTimersByTime(2 * TEN_SECONDS);
    expect(asked).toEqual(['upper-office', 'library', 'library']);
    expect(actions.at(-1)).toEqual(BenchActions.printerSeen({ printer: library }));
  });

  test('an answer about the printer of before, however late, is not heard', () => {
    const answer = new Subject<PrinterRecord>();
    const { store, dispatch } = storeOf();
    const actions = heard(watchPrinter(store, { printer: () => answer } as unknown as Api));
    jest.advanceTimersByTime(TEN_SECONDS);
    dispatch(BenchActions.printerChanged({ jobId: 'j', printer: library, revision: 2 }));
    answer.next(upper);
    expect(actions).toEqual([]);
  });

  test('nor does the Bench take it, if it came all the same', () => {
    const loaded = reducer(undefined, BenchActions.loaded({ job, printer: upper, setups: [] }));
    const changed = reducer(loaded, BenchActions.printerChanged({ jobId: 'j', printer: library, revision: 2 }));
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

describe('sending', () => {
  const wanted = BenchActions.sendingWanted({ sheets: 1, confirmed: [] });
  const change = BenchActions.ticketChanged({ ticket: { ...ticket, copies: 2 } });

  test.each([
    ['failed', false, 'could not be saved'],
    ['met another window’s', true, 'another window changed this job'],
  ])('is refused where the last change’s saving %s: the ticket of before is never sent', (_what, conflict, said) => {
    const sent: unknown[] = [];
    const api = { send: (...call: unknown[]) => (sent.push(call), NEVER) } as unknown as Api;
    const { store } = storeOf(change, BenchActions.saveFailed({ jobId: 'j', message: 'No.', conflict }));
    const actions = heard(send(of(wanted) as never, store, api));
    expect(sent).toEqual([]);
    const message = expect.stringContaining(said) as string;
    expect(actions).toMatchObject([{ type: BenchActions.sendingRefused.type, message }]);
  });

  test('waits for the saving, and goes with its revision', () => {
    const sent: unknown[][] = [];
    const api = { send: (...call: unknown[]) => (sent.push(call), NEVER) } as unknown as Api;
    const { store, dispatch } = storeOf(change);
    heard(send(of(wanted) as never, store, api));
    expect(sent).toEqual([]);
    dispatch(BenchActions.saved({ jobId: 'j', ticket: change.ticket, revision: 2 }));
    expect(sent).toEqual([['j', 2, 1, []]]);
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
