import type { SendingRecord } from '@foglio/api';
import type { Move } from '../state/queue.state';
import { isAsking, isOver } from './sending-words';

/** What is looked for in the Queue. */
export interface Search {
  /** Words of the title, in any order. */
  readonly text: string;
  /** The id of a printer; empty: all of them. */
  readonly printerId: string;
  /** Also what was over long ago. */
  readonly withOld: boolean;
}

export const ALL_OF_LATE: Search = { text: '', printerId: '', withOld: false };

/** What is over leaves the list after a day, in milliseconds; it is found again by its words, or by asking for all. */
const LEAVES_MS = 24 * 60 * 60 * 1000;

/** What the printers have not got yet, in the order in which they get it. */
export const WAITING = 'Waiting here, the next first';

const isWaiting = ({ state }: SendingRecord): boolean => state === 'queued';

const byTurn = (one: SendingRecord, other: SendingRecord): number => one.turnAt.localeCompare(other.turnAt);

/** What waits, each where it is sent once all that is being moved has been. */
function inTurn(all: readonly SendingRecord[], moves: readonly Move[]): SendingRecord[] {
  return moves.reduce((order, { id, before }) => {
    const moved = order.find((one) => one.id === id);
    const others = order.filter((one) => one !== moved);
    const at =
      before === null
        ? others.findLastIndex(({ printerId }) => printerId === moved?.printerId) + 1
        : others.findIndex((one) => one.id === before);
    // One of the two is being sent by now.
    return moved && at >= 0 ? others.toSpliced(at, 0, moved) : order;
  }, all.filter(isWaiting).sort(byTurn));
}

export interface Group {
  readonly name: string;
  readonly sendings: readonly SendingRecord[];
}

/**
 * The sendings that are looked for, in groups: what asks for somebody first. A group that is empty is not named, but for the one that
 * then says so.
 *
 * @param now milliseconds since 1970
 * @param moves what the server was asked to put elsewhere and has not answered yet
 * @returns how many are left out because they were over long ago, beside the groups
 */
export function findSendings(
  all: readonly SendingRecord[],
  search: Search,
  now: number,
  moves: readonly Move[] = [],
): { groups: Group[]; old: number } {
  const words = search.text
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== '');
  const matching = all.filter(({ title, printerId }) => {
    const isThere = words.every((word) => (title || 'Untitled job').toLowerCase().includes(word));
    return isThere && (search.printerId === '' || search.printerId === printerId);
  });
  const isOld = (sending: SendingRecord): boolean => isOver(sending) && now - Date.parse(sending.updatedAt) > LEAVES_MS;
  // Who types a title looks for that, however old.
  const shown = search.withOld || words.length > 0 ? matching : matching.filter((one) => !isOld(one));
  const asking = shown.filter(isAsking);
  const rest = shown.filter((one) => !isAsking(one));
  const groups = [
    { name: 'Asks for you', sendings: asking },
    { name: 'At the printers', sendings: rest.filter((one) => !isOver(one) && !isWaiting(one)) },
    { name: WAITING, sendings: inTurn(all, moves).filter((one) => rest.includes(one)) },
    { name: 'Done', sendings: rest.filter(isOver) },
  ].filter(
    ({ name, sendings }) =>
      sendings.length > 0 || (name === 'At the printers' && asking.length === 0 && !rest.some(isWaiting)),
  );
  return { groups, old: matching.length - shown.length };
}

/**
 * What one comes before once it is put elsewhere in a list of those that wait: the next one there of the same printer.
 *
 * @param to where it then stands in the list, from 0
 * @returns an id, or null where it then comes after all; undefined where nothing changes
 */
export function placeAt(
  waiting: readonly SendingRecord[],
  moved: SendingRecord,
  to: number,
): string | null | undefined {
  const followed = (list: readonly SendingRecord[]): string | null => {
    const at = list.findIndex(({ id }) => id === moved.id);
    return list.slice(at + 1).find(({ printerId }) => printerId === moved.printerId)?.id ?? null;
  };
  const without = waiting.filter(({ id }) => id !== moved.id);
  const before = followed(without.toSpliced(to, 0, moved));
  return before === followed(waiting) ? undefined : before;
}

/** The same, by one place among those of its printer; undefined where it is the first or the last there. */
export function placeBy(
  waiting: readonly SendingRecord[],
  moved: SendingRecord,
  by: -1 | 1,
): string | null | undefined {
  const same = waiting.filter(({ printerId }) => printerId === moved.printerId);
  const to = same.findIndex(({ id }) => id === moved.id) + by;
  return to < 0 || to >= same.length ? undefined : placeAt(same, moved, to);
}
