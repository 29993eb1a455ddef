import type { Orientation } from '../paper/orientation';
import { mmToPoints, saySize } from '../paper/sizes';
import type { Ticket, TilesLayout } from '../ticket/ticket';
import { TicketError } from '../ticket/ticket-error';
import { inset, marginsOf, placeOf, sideBox } from './area';
import { fitScale, SAME_SCALE, type Place, type Placement } from './place';
import type { Box, Extent } from '../paper/box';
import { marginAt, type Printer } from '../printer/printer';
import type { Mark, Side } from '../plan/plan';
import { joinMarks } from '../marks/join-marks';
import type { Stretch } from './route';
import type { Run } from './run';

/** A page no more than this many points larger than so many sides is not given another row or column of them. */
const SLACK = 1;

/** Sides and how a page lies over all of them. */
interface Tiling {
  readonly orientation: Orientation;
  /** What of a side is printed on. */
  readonly area: Box;
  readonly columns: number;
  readonly rows: number;
  readonly scale: number;
}

/**
 * Each page of a run over several sides, row by row from the upper left (model, Pages and pieces, Tiles). Neighbours have
 * the overlap in common; the page lies in the middle of what they make together:
 *
 *     +---------+--+
 *     | side 1  |  +---------+      |<- overlap ->|
 *     |         |  | side 2  |
 *     +--+------+--+         |
 *        ...       +---------+
 *
 * @throws TicketError where the overlap or the scale make no sense
 */
export function tiledSides(
  run: Run,
  layout: TilesLayout,
  ticket: Ticket,
  printer: Printer,
): { readonly faces: Side[]; readonly places: Place[][] } {
  const places: Place[][] = [];
  const overlap = mmToPoints(layout.overlap);
  const faces = run.stretches.flatMap((stretch) => {
    const tiling = tilingOf(run, stretch, layout, overlap, ticket, printer);
    const sides = placementsOf(stretch, tiling, overlap);
    places.push(sides.map(({ placement }) => ({ orientation: tiling.orientation, placement })));
    const marked = sides.map(({ placement, column, row }) => {
      const has = (right: number, down: number): boolean =>
        sides.some((other) => other.column === column + right && other.row === row + down);
      const marks =
        layout.marks === 'join' ? joinMarks(tiling.area, overlap, { right: has(1, 0), below: has(0, 1) }) : [];
      return { placement, marks };
    });
    return stretch.pages.flatMap((page) => marked.map((one) => sideOf(stretch, page, tiling, one)));
  });
  return { faces, places };
}

function sideOf(
  { document }: Stretch,
  page: number,
  { orientation }: Tiling,
  { placement, marks }: { readonly placement: Placement; readonly marks: Mark[] },
): Side {
  const cells = [{ document, page, ...placement }];
  return marks.length > 0 ? { orientation, cells, marks } : { orientation, cells };
}

function tilingOf(
  run: Run,
  stretch: Stretch,
  layout: TilesLayout,
  overlap: number,
  ticket: Ticket,
  printer: Printer,
): Tiling {
  const { size, settings } = stretch;
  const { kept } = marginsOf({ ...run, settings }, ticket, marginAt(printer, run.tray));
  const wanted = settings.paper.orientation;
  const orientations: Orientation[] = wanted === 'auto' ? ['portrait', 'landscape'] : [wanted];
  const tilings = orientations.map((orientation): Tiling => {
    const area = inset(sideBox(run.paper, orientation), kept);
    requireSteps(area, run, layout, overlap, ticket);
    const { columns, rows } = layout;
    if (columns !== null && rows !== null) {
      const joined = {
        width: joinedLength(columns, area.width, overlap),
        height: joinedLength(rows, area.height, overlap),
      };
      return { orientation, area, columns, rows, scale: fitScale(size, joined) };
    }
    const scale = scaleOf(stretch, area, ticket);
    const across = sidesFor(size.width * scale, area.width, overlap);
    return { orientation, area, columns: across, rows: sidesFor(size.height * scale, area.height, overlap), scale };
  });
  const isGiven = layout.columns !== null;
  return tilings.reduce((best, one) => {
    const isBetter = isGiven
      ? one.scale > best.scale * (1 + SAME_SCALE)
      : one.columns * one.rows < best.columns * best.rows;
    return isBetter ? one : best;
  });
}

/** What so many sides make together. */
const joinedLength = (count: number, length: number, overlap: number): number => count * length - (count - 1) * overlap;

/** How many sides a length needs. */
const sidesFor = (length: number, side: number, overlap: number): number =>
  Math.max(1, Math.ceil((length - SLACK - overlap) / (side - overlap)));

function scaleOf({ size, settings, route }: Stretch, area: Extent, ticket: Ticket): number {
  const { mode, percent } = settings.scale;
  switch (mode) {
    case 'none':
    case 'auto-fit':
      return 1;
    case 'percent':
      return percent / 100;
    case 'fit-width':
      return area.width / size.width;
    case 'fit':
    case 'fill': {
      const place = ticket.routes[route]?.scale?.mode === undefined ? 'scale.mode' : `routes[${route}].scale.mode`;
      const problem = 'a page that goes over several sheets is not made to fit one of them';
      throw new TicketError(place, problem, 'give columns and rows, a percentage, or its own size');
    }
  }
}

/** @throws TicketError where the sides would have half of themselves or more in common */
function requireSteps(area: Extent, run: Run, { overlap: mm }: TilesLayout, overlap: number, ticket: Ticket): void {
  if (2 * overlap < Math.min(area.width, area.height)) return;
  const place = placeOf(run, ticket, 'layout.overlap', ({ layout }) =>
    layout?.kind === 'tiles' ? layout.overlap : undefined,
  );
  const problem = `an overlap of ${mm} mm is half of what ${saySize(run.paper.name)} has or more`;
  throw new TicketError(place, problem, 'write a smaller one or take larger paper');
}

/** The page as it lies on each of its sides; sides that it does not reach are left out. */
function placementsOf({ size, source }: Stretch, { area, columns, rows, scale }: Tiling, overlap: number) {
  const [width, height] = [size.width * scale, size.height * scale];
  const left = (joinedLength(columns, area.width, overlap) - width) / 2;
  const top = (joinedLength(rows, area.height, overlap) - height) / 2;
  const clip: Placement['clip'] = [area.x, area.y, area.width, area.height];
  return Array.from({ length: rows * columns }, (_, index) => {
    const [column, row] = [index % columns, Math.floor(index / columns)];
    const x = area.x + left - column * (area.width - overlap);
    const y = area.y + area.height - top - height + row * (area.height - overlap);
    const placement: Placement = { x, y, width, height, scale, turn: 0, clip, source };
    return { column, row, placement };
  }).filter(({ placement: { x, y } }) => meets(x, width, area.x, area.width) && meets(y, height, area.y, area.height));
}

const meets = (start: number, length: number, from: number, extent: number): boolean =>
  start + length > from + SAME_SCALE && start < from + extent - SAME_SCALE;
