import type { Orientation } from '../paper/orientation';
import { mmToPoints, saySize } from '../paper/sizes';
import type { GridLayout, Ticket } from '../ticket/ticket';
import { TicketError } from '../ticket/ticket-error';
import { inset, placeOf, sideBox, type Margins } from './area';
import { isBlank } from './behind';
import { gridCells } from './flow';
import type { Box, Extent } from '../paper/box';
import { fitScale, quarterOf, SAME_SCALE } from './place';
import type { Stretch } from './route';
import type { Run } from './run';

/** A way to divide a side. */
export interface Grid {
  readonly orientation: Orientation;
  readonly columns: number;
  readonly rows: number;
  readonly gutter: number;
  /** In the order in which pages fill them. */
  readonly cells: readonly Box[];
}

/** Cells on a side; columns and rows rule where they are given. */
export const cellCount = ({ columns, rows, pagesPerSide }: GridLayout): number =>
  columns !== null && rows !== null ? columns * rows : pagesPerSide;

/**
 * The grid of a run: of all that its layout allows, the one at which the run's commonest page comes out largest. Scales
 * equal within one in a million: portrait first, then fewer columns (model, Geometry). What is compared is always the
 * scale at which the whole page fits.
 *
 * @param page the run's commonest page
 * @throws TicketError where the gutter leaves nothing for the pages
 */
export function gridOf(run: Run, page: Extent, layout: GridLayout, margins: Margins, ticket: Ticket): Grid {
  const gutter = mmToPoints(layout.gutter);
  const { orientation } = run.settings.paper;
  const orientations: Orientation[] = orientation === 'auto' ? ['portrait', 'landscape'] : [orientation];
  let best: (Pick<Grid, 'orientation' | 'columns' | 'rows'> & { area: Box; scale: number }) | null = null;
  for (const turned of orientations) {
    const area = inset(sideBox(run.paper, turned), margins.kept);
    for (const [columns, rows] of divisions(layout)) {
      const cell = {
        width: (area.width - gutter * (columns - 1)) / columns,
        height: (area.height - gutter * (rows - 1)) / rows,
      };
      if (cell.width <= 0 || cell.height <= 0) continue;
      const scale = layout.turn === 'best' ? betterScale(page, cell) : fitScale(page, cell);
      if (best && scale <= best.scale * (1 + SAME_SCALE)) continue;
      best = { orientation: turned, columns, rows, area, scale };
    }
  }
  if (!best) {
    const problem = `a gutter of ${layout.gutter} mm leaves nothing of ${saySize(run.paper.name)}`;
    const place = placeOf(run, ticket, 'layout.gutter', (route) =>
      route.layout?.kind === 'grid' ? route.layout.gutter : undefined,
    );
    throw new TicketError(place, problem, 'write a narrower gutter or fewer pages a side');
  }
  const { columns, rows, area } = best;
  return {
    orientation: best.orientation,
    columns,
    rows,
    gutter,
    cells: gridCells(area, columns, rows, gutter, layout.flow),
  };
}

/** The same grid over another area. */
export const gridOver = (area: Box, grid: Grid, { flow }: GridLayout): Grid => ({
  ...grid,
  cells: gridCells(area, grid.columns, grid.rows, grid.gutter, flow),
});

/** The columns and rows given, otherwise every pair of factors, fewer columns first. */
function divisions(layout: GridLayout): [number, number][] {
  if (layout.columns !== null && layout.rows !== null) return [[layout.columns, layout.rows]];
  const count = layout.pagesPerSide;
  return Array.from({ length: count }, (_, index) => index + 1)
    .filter((columns) => count % columns === 0)
    .map((columns) => [columns, count / columns]);
}

const betterScale = (page: Extent, cell: Extent): number =>
  Math.max(fitScale(page, cell), fitScale(quarterOf(page), cell));

/** The size most pages have as read, portrait and landscape apart; of as many the first met. */
export function commonestSize(stretches: readonly Stretch[]): Extent {
  const first = (stretches[0] as Stretch).size;
  if (stretches.every(({ size }) => size === first)) return first;
  const counts = new Map<Extent, number>();
  for (const stretch of stretches) {
    if (!isBlank(stretch)) counts.set(stretch.size, (counts.get(stretch.size) ?? 0) + stretch.pages.length);
  }
  return [...counts].reduce((best, one) => (one[1] > best[1] ? one : best))[0];
}
