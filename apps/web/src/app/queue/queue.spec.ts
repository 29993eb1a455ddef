import type { SendingRecord, SendingState, PrinterRecord } from '@foglio/api';
import { aPrinter, aSending } from '../../stubs/records';
import { QueueActions, queueFeature } from '../state/queue.state';
import { isAsking, isMoving, isOver, percentDone, sayPortion, sayState } from './sending-words';

const sending = (id: string, state: SendingState, updatedAt = '2026-11-25T10:00:00Z', sheetsDone = 0): SendingRecord =>
  aSending({ id, copies: 2, state, sheets: 18, sheetsDone, createdAt: updatedAt, updatedAt });

const { reducer } = queueFeature;
const after = (...actions: Parameters<typeof reducer>[1][]) =>
  actions.reduce(reducer, reducer(undefined, { type: 'begin' }));

test('a sending stands in the queue as soon as it is accepted, the latest first', () => {
  const state = after(
    QueueActions.listed({ sendings: [sending('a', 'completed')] }),
    QueueActions.changed({ sending: sending('b', 'queued', '2026-11-25T10:00:01Z') }),
  );
  expect(state.sendings?.map(({ id }) => id)).toEqual(['b', 'a']);
});

test('a change takes the place of what was known', () => {
  const state = after(
    QueueActions.listed({ sendings: [sending('a', 'queued'), sending('b', 'completed')] }),
    QueueActions.changed({ sending: sending('a', 'printing', '2026-11-25T10:00:01Z', 4) }),
  );
  expect(state.sendings?.map(({ state: how, sheetsDone }) => [how, sheetsDone])).toEqual([
    ['printing', 4],
    ['completed', 0],
  ]);
});

test('an answer that comes late does not turn time back', () => {
  const state = after(
    QueueActions.changed({ sending: sending('a', 'completed', '2026-11-25T10:00:09Z') }),
    QueueActions.changed({ sending: sending('a', 'queued', '2026-11-25T10:00:01Z') }),
  );
  expect(state.sendings?.[0]?.state).toBe('completed');
});

test('nor does a list that was on its way, which knows nothing yet of what came meanwhile', () => {
  const state = after(
    QueueActions.changed({ sending: sending('b', 'queued', '2026-11-25T10:00:05Z') }),
    QueueActions.changed({ sending: sending('a', 'completed', '2026-11-25T10:00:09Z') }),
    QueueActions.listed({ sendings: [sending('a', 'printing', '2026-11-25T10:00:01Z'), sending('c', 'failed')] }),
  );
  expect(state.sendings?.map(({ id, state: how }) => `${id} ${how}`)).toEqual(['a completed', 'b queued', 'c failed']);
});

test('a refusal is shown until something happens', () => {
  const refused = after(QueueActions.refused({ message: 'There is nothing left to cancel.' }));
  expect(refused.message).toBe('There is nothing left to cancel.');
  expect(reducer(refused, QueueActions.changed({ sending: sending('a', 'queued') })).message).toBeNull();
});

test.each<[SendingState, string, boolean]>([
  ['queued', 'waiting to be sent', false],
  ['sending', 'being sent', false],
  ['printing', 'printing', false],
  ['held', 'held at the printer', false],
  ['turning', 'fronts printed, the stack is to go back in', false],
  ['proofed', 'one set is out: look at it', false],
  ['completed', 'completed', true],
  ['canceled', 'cancelled', true],
  ['aborted', 'aborted by the printer', true],
  ['failed', 'not sent', true],
  ['interrupted', 'interrupted while being sent', true],
  ['uncertain', 'it may have been printed', true],
])('%s in words', (state, said, over) => {
  expect([sayState(sending('a', state)), isOver(sending('a', state))]).toEqual([said, over]);
});

test('what waits while sending is paused here does not go on by itself', () => {
  const profile = { name: 'P', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] };
  const [goesOn, paused] = [aPrinter(profile), aPrinter(profile, { heldBack: true })];
  expect([goesOn, paused, null].map((printer) => isMoving(sending('a', 'queued'), printer))).toEqual([
    true,
    false,
    true,
  ]);
  expect(isMoving(sending('a', 'printing'), paused)).toBe(true);
});

test('percent of the sheets that came out', () => {
  expect(percentDone(sending('a', 'printing', undefined, 9))).toBe(50);
});

test('a printer that does not go on is said where its sending is told', () => {
  const profile = { name: 'P', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] };
  const at = (change: Partial<PrinterRecord>) => aPrinter(profile, { state: 'processing', ...change });
  const printing = sending('a', 'printing');
  expect(sayState(printing, at({}))).toBe('printing');
  expect(sayState(printing, at({ queued: 9 }))).toBe('at the printer, one of 9 jobs there');
  expect(sayState(sending('a', 'printing', undefined, 2), at({ queued: 9 }))).toBe('printing');
  expect(sayState(printing, at({ state: 'stopped', reasons: ['paused'] }))).toBe('waiting: the printer is paused');
  expect(sayState(printing, at({ state: 'stopped', reasons: ['media-jam'] }))).toBe('waiting: the printer has stopped');
  expect(sayState(printing, at({ answers: false }))).toBe('sent; the printer does not answer');
  expect(sayState(sending('a', 'completed'), at({ answers: false }))).toBe('completed');
});

test('what a sending prints of its job is said', () => {
  const one = sending('a', 'printing');
  const of = (portion: SendingRecord['portion'], copies = 24, sheets = 1) =>
    sayPortion({ ...one, portion, copies, sheets });
  expect(of(null)).toBeNull();
  expect(of('first-set')).toBe('the first of 24 sets');
  expect(of('other-sets')).toBe('the other 23 sets');
  expect(of('other-sets', 2)).toBe('the other set');
  expect(of([{ sets: [1, 1], sheets: [[7, 8]] }], 2, 2)).toBe('sheets 7 and 8 of set 1 again');
  expect(of([{ sets: [1, 1], sheets: [[7, 7]] }], 1)).toBe('sheet 7 again');
});

test('what goes on only by a person asks for one', () => {
  expect(['proofed', 'turning', 'uncertain'].every((state) => isAsking(sending('a', state as SendingState)))).toBe(
    true,
  );
  expect(isAsking(sending('a', 'printing'))).toBe(false);
  expect(isAsking({ ...sending('a', 'printing'), message: 'Tray 1 is empty.' })).toBe(true);
  expect(isAsking({ ...sending('a', 'failed'), message: 'Nothing was printed.' })).toBe(false);
});

test('what is tried again is not told by why it was refused before', () => {
  const refused = QueueActions.refused({ message: 'The server does not answer.' });
  expect(after(refused).message).toBe('The server does not answer.');
  expect(after(refused, QueueActions.act({ id: 'a', how: 'again' })).message).toBeNull();
});
