import type { Box, Extent } from '../paper/box';
import type { GridLayout, Ticket } from '../ticket/ticket';
import type { Cell, Side } from '../plan/plan';

/** What a cell of a plan says of its page's place, and of what of the page lies there. */
export type Placement = Omit<Cell, 'document' | 'page'>;

/** Where pages land on a side of that orientation. */
export interface Place {
  readonly orientation: Side['orientation'];
  readonly placement: Placement;
}

/** A page no more than this many points larger than its place still prints at actual size under `auto-fit`. */
const AUTO_FIT_SLACK = 1;

/** Scales nearer to each other than this part count as equal (model, Geometry: one in a million). */
export const SAME_SCALE = 1e-6;

/** A page is clipped where it is larger than its cell by more than what floating point adds. */
const CLIP_SLACK = 1e-6;

/** The largest scale at which a page is wholly inside a cell. */
export const fitScale = (page: Extent, cell: Extent): number =>
  Math.min(cell.width / page.width, cell.height / page.height);

/** A page turned a quarter. */
export const quarterOf = ({ width, height }: Extent): Extent => ({ width: height, height: width });

/** Upright, whichever way is larger, or the one way given, as for what lies behind a page that was turned. */
export type Turn = GridLayout['turn'] | 90;

/**
 * Where a page lands in its cell: scaled, turned, centred, and clipped to the cell where it is larger.
 *
 * @param page width and height as read, in points
 * @param cell the place the page is given
 * @param actual the place that decides whether `auto-fit` leaves the page at actual size: the side less the ticket's own
 *   margin with one page a side, otherwise the cell
 */
export function placePage(
  page: Extent,
  cell: Box,
  actual: Extent,
  scaleWanted: Ticket['scale'],
  turnWanted: Turn,
): Omit<Placement, 'source'> {
  const quarter = quarterOf(page);
  const better = turnWanted === 'best' && fitScale(quarter, cell) > fitScale(page, cell) * (1 + SAME_SCALE);
  const turned = better || turnWanted === 90;
  const laid = turned ? quarter : page;
  const scale = scaleOf(laid, cell, actual, scaleWanted);
  const width = laid.width * scale;
  const height = laid.height * scale;
  const x = cell.x + (cell.width - width) / 2;
  const atTop = scaleWanted.mode === 'fit-width';
  const y = atTop ? cell.y + cell.height - height : cell.y + (cell.height - height) / 2;
  const larger = width > cell.width + CLIP_SLACK || height > cell.height + CLIP_SLACK;
  const clip: Cell['clip'] = larger ? [cell.x, cell.y, cell.width, cell.height] : null;
  return { x, y, width, height, scale, turn: better ? 270 : turned ? 90 : 0, clip };
}

function scaleOf(page: Extent, cell: Extent, actual: Extent, { mode, percent }: Ticket['scale']): number {
  switch (mode) {
    case 'none':
      return 1;
    case 'percent':
      return percent / 100;
    case 'fit':
      return fitScale(page, cell);
    case 'fit-width':
      return cell.width / page.width;
    case 'fill':
      return Math.max(cell.width / page.width, cell.height / page.height);
    case 'auto-fit': {
      const asItIs = page.width <= actual.width + AUTO_FIT_SLACK && page.height <= actual.height + AUTO_FIT_SLACK;
      return asItIs ? 1 : fitScale(page, cell);
    }
  }
}
