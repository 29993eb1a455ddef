import type { SendingRecord } from '@foglio/api';
import { aSending } from '../../stubs/records';
import { ALL_OF_LATE, findSendings, type Search } from './find-sendings';

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
  [{}, 'Asks for you: asks; At the printers: prints waits held; Done: done', 1],
  [{ withOld: true }, 'Asks for you: asks; At the printers: prints waits held; Done: done old', 0],
  [{ text: 'SEASON ' }, 'Asks for you: asks; At the printers: prints; Done: old', 0],
  [{ text: 'season flyer' }, 'At the printers: prints', 0],
  [{ text: 'untitled' }, 'At the printers: waits', 0],
  [{ printerId: 'q' }, 'At the printers: waits', 0],
  [{ text: 'no such title' }, 'At the printers: ', 0],
])('%j finds %s, and %i that left the list', (search, groups, old) => {
  expect(found(search)).toEqual([groups, old]);
});

test('nothing at all is said where the printers have nothing', () => {
  expect(found({}, [])).toEqual(['At the printers: ', 0]);
});
