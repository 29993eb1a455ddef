import type { SendingRecord } from '@foglio/api';
import { aSending } from '../../stubs/records';
import { ALL_OF_LATE, findSendings, placeAt, placeBy, type Search } from './find-sendings';
import type { Move } from '../state/queue.state';

const NOW = Date.parse('2026-11-25T10:00:00Z');

const sending = (id: string, title: string, change: Partial<SendingRecord> = {}): SendingRecord =>
  aSending({ id, title, printerId: 'p', updatedAt: '2026-11-25T09:00:00Z', ...change });

const ALL = [
  sending('asks', 'Season contract', { state: 'proofed' }),
  sending('prints', 'Flyer for the season', { state: 'printing' }),
  sending('waits', '', { state: 'queued', printerId: 'q' }),
  sending('done', 'Autumn programme', { state: 'completed' }),
  sending('old', 'Season contract of last year', { state: 'completed', updatedAt: '2026-11-24T09:59:59Z' }),
  sending('held', 'Old, and still held', { state: 'held', updatedAt: '2026-10-01T09:00:00Z' }),
];

const found = (search: Partial<Search>, all: readonly SendingRecord[] = ALL) => {
  const { groups, old } = findSendings(all, { ...ALL_OF_LATE, ...search }, NOW);
  return [groups.map(({ name, sendings }) => `${name}: ${sendings.map(({ id }) => id).join(' ')}`).join('; '), old];
};

test.each<[Partial<Search>, string, number]>([
  [{}, 'Asks for you: asks; At the printers: prints held; Waiting here, the next first: waits; Done: done', 1],
  [
    { withOld: true },
    'Asks for you: asks; At the printers: prints held; Waiting here, the next first: waits; Done: done old',
    0,
  ],
  [{ text: 'SEASON ' }, 'Asks for you: asks; At the printers: prints; Done: old', 0],
  [{ text: 'season flyer' }, 'At the printers: prints', 0],
  [{ text: 'untitled' }, 'Waiting here, the next first: waits', 0],
  [{ printerId: 'q' }, 'Waiting here, the next first: waits', 0],
  [{ text: 'no such title' }, 'At the printers: ', 0],
])('%j finds %s, and %i that left the list', (search, groups, old) => {
  expect(found(search)).toEqual([groups, old]);
});

test('nothing at all is said where the printers have nothing', () => {
  expect(found({}, [])).toEqual(['At the printers: ', 0]);
});

/** At two printers, in their turns. */
const WAITS = ['p1', 'q1', 'p2', 'p3', 'q2'].map((id, at) =>
  sending(id, id, { state: 'queued', printerId: id[0]!, turnAt: `2026-11-25T09:00:0${at}Z` }),
);
const [p1, q1, p2, p3] = WAITS as [SendingRecord, SendingRecord, SendingRecord, SendingRecord];

test('what waits stands in the order in which it is sent, however it is listed', () => {
  const [group] = findSendings(WAITS.toReversed(), ALL_OF_LATE, NOW).groups;
  expect(group!.sendings.map(({ id }) => id)).toEqual(['p1', 'q1', 'p2', 'p3', 'q2']);
});

test.each<[Move[], string]>([
  [[{ id: 'p3', before: 'p1' }], 'p3 p1 q1 p2 q2'],
  // One press after another, before the first is answered.
  [
    [
      { id: 'p1', before: 'p3' },
      { id: 'p1', before: null },
    ],
    'q1 p2 p3 p1 q2',
  ],
  // Either of them is being sent by now.
  [[{ id: 'gone', before: 'p1' }], 'p1 q1 p2 p3 q2'],
  [[{ id: 'p2', before: 'gone' }], 'p1 q1 p2 p3 q2'],
])('what is being moved, %j, stands where it will', (moves, order) => {
  const [group] = findSendings(WAITS, ALL_OF_LATE, NOW, moves).groups;
  expect(group!.sendings.map(({ id }) => id).join(' ')).toBe(order);
  const ofPrinter = findSendings(WAITS, { ...ALL_OF_LATE, printerId: 'p' }, NOW, moves).groups[0]!;
  expect(ofPrinter.sendings.map(({ id }) => id)).toEqual(order.split(' ').filter((id) => id.startsWith('p')));
});

test.each([
  // Put first, it comes before the first of its printer; put between others, before the next one.
  [p3, 0, 'p1'],
  [p3, 1, 'p2'],
  [p1, 4, null],
  [p1, 2, 'p3'],
  // Past one of another printer, or where it stands: nothing changes.
  [p1, 1, undefined],
  [q1, 0, undefined],
  [p2, 2, undefined],
])('put elsewhere in the list by hand', (moved, to, before) => expect(placeAt(WAITS, moved, to)).toBe(before));

test('by one place among those of its printer, as far as there is one', () => {
  expect([p1, p2, p3].map((one) => placeBy(WAITS, one, -1))).toEqual([undefined, 'p1', 'p2']);
  expect([p1, p2, p3].map((one) => placeBy(WAITS, one, 1))).toEqual(['p3', null, undefined]);
});
