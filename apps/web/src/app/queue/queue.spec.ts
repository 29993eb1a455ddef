import type { DeliveryRecord, DeliveryState, PrinterRecord } from '@foglio/api';
import { aPrinter } from '../../stubs/records';
import { QueueActions, queueFeature } from '../state/queue.state';
import { isOver, percentDone, sayState } from './delivery-words';

const delivery = (
  id: string,
  state: DeliveryState,
  updatedAt = '2026-11-25T10:00:00Z',
  sheetsDone = 0,
): DeliveryRecord => ({
  id,
  jobId: 'j',
  printerId: 'p',
  title: 'Contract',
  copies: 2,
  state,
  message: null,
  sheets: 18,
  sheetsDone,
  printerJobs: [],
  pass: null,
  handling: null,
  reason: null,
  createdAt: updatedAt,
  updatedAt,
});

const { reducer } = queueFeature;
const after = (...actions: Parameters<typeof reducer>[1][]) =>
  actions.reduce(reducer, reducer(undefined, { type: 'begin' }));

test('a sending stands in the queue as soon as it is accepted, the latest first', () => {
  const state = after(
    QueueActions.listed({ deliveries: [delivery('a', 'completed')] }),
    QueueActions.changed({ delivery: delivery('b', 'queued', '2026-11-25T10:00:01Z') }),
  );
  expect(state.deliveries?.map(({ id }) => id)).toEqual(['b', 'a']);
});

test('a change takes the place of what was known', () => {
  const state = after(
    QueueActions.listed({ deliveries: [delivery('a', 'queued'), delivery('b', 'completed')] }),
    QueueActions.changed({ delivery: delivery('a', 'printing', '2026-11-25T10:00:01Z', 4) }),
  );
  expect(state.deliveries?.map(({ state: how, sheetsDone }) => [how, sheetsDone])).toEqual([
    ['printing', 4],
    ['completed', 0],
  ]);
});

test('an answer that comes late does not turn time back', () => {
  const state = after(
    QueueActions.changed({ delivery: delivery('a', 'completed', '2026-11-25T10:00:09Z') }),
    QueueActions.changed({ delivery: delivery('a', 'queued', '2026-11-25T10:00:01Z') }),
  );
  expect(state.deliveries?.[0]?.state).toBe('completed');
});

test('nor does a list that was on its way, which knows nothing yet of what came meanwhile', () => {
  const state = after(
    QueueActions.changed({ delivery: delivery('b', 'queued', '2026-11-25T10:00:05Z') }),
    QueueActions.changed({ delivery: delivery('a', 'completed', '2026-11-25T10:00:09Z') }),
    QueueActions.listed({ deliveries: [delivery('a', 'printing', '2026-11-25T10:00:01Z'), delivery('c', 'failed')] }),
  );
  expect(state.deliveries?.map(({ id, state: how }) => `${id} ${how}`)).toEqual([
    'a completed',
    'b queued',
    'c failed',
  ]);
});

test('a refusal is shown until something happens', () => {
  const refused = after(QueueActions.refused({ message: 'There is nothing left to cancel.' }));
  expect(refused.message).toBe('There is nothing left to cancel.');
  expect(reducer(refused, QueueActions.changed({ delivery: delivery('a', 'queued') })).message).toBeNull();
});

test.each<[DeliveryState, string, boolean]>([
  ['queued', 'waiting to be sent', false],
  ['sending', 'being sent', false],
  ['printing', 'printing', false],
  ['held', 'held at the printer', false],
  ['turning', 'fronts printed, the stack is to go back in', false],
  ['completed', 'completed', true],
  ['canceled', 'cancelled', true],
  ['aborted', 'aborted by the printer', true],
  ['failed', 'not sent', true],
  ['interrupted', 'interrupted while being sent', true],
])('%s in words', (state, said, over) => {
  expect([sayState(delivery('a', state)), isOver(delivery('a', state))]).toEqual([said, over]);
});

test('percent of the sheets that came out', () => {
  expect(percentDone(delivery('a', 'printing', undefined, 9))).toBe(50);
});

test('a printer that does not go on is said where its sending is told', () => {
  const profile = { name: 'P', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] };
  const at = (change: Partial<PrinterRecord>) => aPrinter(profile, { state: 'processing', ...change });
  const printing = delivery('a', 'printing');
  expect(sayState(printing, at({}))).toBe('printing');
  expect(sayState(printing, at({ state: 'stopped', reasons: ['paused'] }))).toBe('waiting: the printer is paused');
  expect(sayState(printing, at({ state: 'stopped', reasons: ['media-jam'] }))).toBe('waiting: the printer has stopped');
  expect(sayState(printing, at({ answers: false }))).toBe('sent; the printer does not answer');
  expect(sayState(delivery('a', 'completed'), at({ answers: false }))).toBe('completed');
});
