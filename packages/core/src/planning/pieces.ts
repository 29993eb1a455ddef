import { MOST_LAID } from '../settings/pieces';
import type { GridLayout, Ticket } from '../ticket/ticket';
import { TicketError } from '../ticket/ticket-error';
import { isBlank, liesBehind } from './behind';
import { cellCount } from './grid';
import type { Stretch } from './route';
import type { Run } from './run';

/** Runs, and how many pieces they come to where the ticket counts pieces. */
export interface LaidPieces {
  readonly runs: readonly Run[];
  /** How many lie in a set, and how many of them were added to fill the last sheet; null without pieces. */
  readonly pieces: { readonly laid: number; readonly over: number } | null;
}

/** One piece: a page, or a page and its back. */
type Piece = readonly Stretch[];

/**
 * As many pieces as are asked for: all pages are one round, and rounds follow until so many are laid (model, Pages and
 * pieces). With `fill`, more are added until the last sheet is full, or the next one would start a run.
 *
 * @param round what is printed once
 * @param divide steps 3 and 4
 * @throws TicketError where something is folded, or too many pages would be laid
 */
export function layPieces(
  round: readonly Stretch[],
  { pieces: wanted }: Pick<Ticket, 'pieces'>,
  divide: (stretches: readonly Stretch[]) => Run[],
): LaidPieces {
  if (!wanted) return { runs: divide(round), pieces: null };
  const pieces = round.some(({ settings }) => settings.layout.kind !== 'grid') ? null : piecesOf(round);
  if (!pieces) {
    throw new TicketError(
      'pieces',
      'only pages in a grid are cut into pieces',
      'leave the pieces out, or print no booklet and no page over several sheets',
    );
  }
  const { count, fill } = wanted;
  const laid = (many: number): Run[] => divide(roundsOf(pieces, many));
  const runs = laid(count);
  const more = fill ? roomLeft(runs.at(-1) as Run) : 0;
  if (more === 0) return { runs, pieces: { laid: count, over: 0 } };
  // How many of those that follow would share the last run is seen by laying them.
  const last = laid(count + more)[runs.length - 1] as Run;
  const over = piecesIn(last) - piecesIn(runs.at(-1) as Run);
  return { runs: laid(count + over), pieces: { laid: count + over, over } };
}

/** The pieces of one round. A page that fills a side, or a pair that fills a sheet, is as many pieces as there are cells. */
function piecesOf(round: readonly Stretch[]): Piece[] {
  const pieces: Piece[] = [];
  round.forEach((stretch, at) => {
    if (stretch.isBack) return;
    const back = round[at + 1];
    const { repeat } = stretch.settings.layout as GridLayout;
    const times = repeat === 'fill-side' ? cellCount(stretch.settings.layout as GridLayout) : 1;
    for (const page of stretch.pages) {
      const front = stretch.pages.length === 1 ? stretch : { ...stretch, pages: [page] };
      const piece = back?.isBack ? [front, back] : [front];
      for (let time = 0; time < times; time += 1) pieces.push(piece);
    }
  });
  return pieces;
}

function roundsOf(pieces: readonly Piece[], count: number): Stretch[] {
  const stretches: Stretch[] = [];
  let pages = 0;
  for (let laid = 0; laid < count; laid += 1) {
    for (const one of pieces[laid % pieces.length] as Piece) {
      stretches.push(one);
      if (!isBlank(one)) pages += 1;
    }
    if (pages <= MOST_LAID) continue;
    const problem = `${count} pieces lay more than ${MOST_LAID} pages in a set`;
    throw new TicketError('pieces.count', problem, 'ask for fewer pieces and more copies');
  }
  return stretches;
}

const piecesIn = ({ stretches }: Run): number => stretches.filter(({ isBack }) => !isBack).length;

/** How many more pieces the last sheet of a run has room for. */
function roomLeft(run: Run): number {
  const cells = cellCount(run.settings.layout as GridLayout);
  const onSheet = run.sides === 'two-sided' && !liesBehind(run.settings) ? 2 * cells : cells;
  return (onSheet - (piecesIn(run) % onSheet)) % onSheet;
}
