import type { GridLayout } from '../ticket/ticket';
import type { Cell } from '../plan/plan';
import { liesBehind } from './behind';
import { mirroredCells } from './flow';
import type { Place, Placement } from './place';
import type { Stretch } from './route';
import type { Run } from './run';
import { BLANK } from './select';

/** A page, or a blank, of a run. */
interface Entry {
  readonly stretch: Stretch;
  readonly page: number;
}

/** What is cut out as one: a page, and what lies behind it. */
interface Piece {
  readonly front: Entry;
  readonly back: Entry | null;
}

/** Where pages of a stretch land in the cells of a side, in the order of flow; 90: turned so, whatever the layout says. */
type PlacesFor = (stretch: Stretch, isBack: boolean, turn?: 90 | 'upright') => readonly Place[];

/** What a run of pieces is laid on. */
export interface CardGrid {
  readonly columns: number;
  readonly rows: number;
  readonly placesFor: PlacesFor;
  /** Whether its sides turn over like pages of a book, otherwise like those of a pad. */
  readonly likeBook: boolean;
}

/**
 * The cells of each side of a run whose pages are cut into pieces (model, Pages and pieces: Backs behind, Stack cut).
 * Seen from the front, with four cells and each back behind its front:
 *
 *     front         back, turned     back, turned
 *                   like a book      like a pad
 *     +---+---+     +----+----+      +----+----+
 *     | 1 | 2 |     | 2b | 1b |      | 3b | 4b |
 *     | 3 | 4 |     | 4b | 3b |      | 1b | 2b |
 *     +---+---+     +----+----+      +----+----+
 *
 * @param repeated pages of `fill-side` are still to be repeated
 */
export function cardSides(run: Run, layout: GridLayout, grid: CardGrid, repeated: boolean): Cell[][] {
  const { columns, rows, placesFor, likeBook } = grid;
  const count = columns * rows;
  const behind = liesBehind(run.settings);
  const filling = layout.repeat === 'fill-side';
  const single = piecesOf(run);
  const pieces = filling && repeated ? single.flatMap((piece) => new Array<Piece>(count).fill(piece)) : single;
  const sheets = Math.ceil(pieces.length / count);
  const mirrored = mirroredCells(columns, rows, layout.flow, likeBook);
  // Where each page fills a side, the piles hold the same whatever their order.
  const inPiles = layout.stack === 'cut' && !filling;
  const sides: Cell[][] = [];
  for (let sheet = 0; sheet < sheets; sheet += 1) {
    const fronts: Cell[] = [];
    const backs: Cell[] = [];
    for (let at = 0; at < count; at += 1) {
      const piece = pieces[inPiles ? at * sheets + sheet : sheet * count + at];
      if (!piece) continue;
      const { placement } = placesFor(piece.front.stretch, false)[at] as Place;
      if (piece.front.page !== BLANK) fronts.push(cellOf(piece.front, placement));
      if (!piece.back || piece.back.page === BLANK) continue;
      const turn = placement.turn === 270 && piece.front.page !== BLANK ? 90 : 'upright';
      const place = placesFor(piece.back.stretch, true, turn)[mirrored[at] as number] as Place;
      backs.push(cellOf(piece.back, place.placement));
    }
    sides.push(fronts);
    if (behind) sides.push(backs);
  }
  return sides;
}

function piecesOf({ stretches }: Run): Piece[] {
  const pieces: Piece[] = [];
  stretches.forEach((stretch, at) => {
    if (stretch.isBack) return;
    const next = stretches[at + 1];
    const back = next?.isBack ? { stretch: next, page: next.pages[0] as number } : null;
    for (const page of stretch.pages) pieces.push({ front: { stretch, page }, back });
  });
  return pieces;
}

const cellOf = ({ stretch: { document }, page }: Entry, placement: Placement): Cell => ({
  document,
  page,
  ...placement,
});
