import { orientationOf } from '../paper/orientation';
import { marginAt, type Printer } from '../printer/printer';
import type { GridLayout, Ticket } from '../ticket/ticket';
import { TicketError } from '../ticket/ticket-error';
import { areasOf, marginsOf, placeOf, requireRoom, sideBox, type Margins } from './area';
import { liesBehind } from './behind';
import { bindingOf, inwardFrom, isBackOf, turnsOnLongEdge, type Binding, type BoundEdge } from './binding';
import { bookletSides } from './booklet';
import { cardSides } from './cards';
import { cutMarks, frames } from '../marks/cut-marks';
import { cellCount, commonestSize, gridOf, gridOver, type Grid } from './grid';
import type { Box, Extent } from '../paper/box';
import { placePage, type Place, type Placement, type Turn } from './place';
import type { Cell, Mark, Side } from '../plan/plan';
import { visibleBox } from '../plan/whole-page';
import type { Stretch } from './route';
import type { Run } from './run';
import { BLANK } from './select';
import { tiledSides } from './tiles';

/** A run with its sides in order. */
export interface LaidOutRun {
  readonly run: Run;
  readonly faces: readonly Side[];
  /** Of a booklet: for each sheet, the signature it is folded in, counted from 1; otherwise null. */
  readonly signatures: readonly number[] | null;
  /** For each stretch, every place where its pages may land: few, where the pages are many. */
  readonly places: readonly (readonly Place[])[];
}

/** Step 5. Imposes each run on sides. @throws TicketError where margin or gutter leave no room */
export function layOut(runs: readonly Run[], ticket: Ticket, printer: Printer): LaidOutRun[] {
  const unbound = sidesOf(runs, ticket, printer, { binding: null, onLongEdge: true });
  // How the set is held decides which edges are bound and what lies behind what, and is seen only once all sides are laid;
  // in most jobs nothing hangs on it, and they are not looked through.
  if (ticket.bindingMargin === 0 && !runs.some(({ settings }) => liesBehind(settings))) return unbound;
  const held = { binding: bindingOf(ticket, unbound), onLongEdge: turnsOnLongEdge(unbound, ticket.bind) };
  return sidesOf(runs, ticket, printer, held);
}

/** How the set is held, as far as it decides what lies where. */
interface Held {
  readonly binding: Binding | null;
  readonly onLongEdge: boolean;
}

function sidesOf(runs: readonly Run[], ticket: Ticket, printer: Printer, { binding, onLongEdge }: Held): LaidOutRun[] {
  const dividedFor = divider(ticket, binding);
  return runs.map((run) => {
    const { layout } = run.settings;
    const margins = marginsOf(run, ticket, marginAt(printer, run.tray));
    if (layout.kind === 'booklet') return { run, ...bookletSides(run, layout, margins, ticket) };
    if (layout.kind === 'tiles') return { run, signatures: null, ...tiledSides(run, layout, ticket, printer) };
    const bound = (orientation: Side['orientation'], isBack: boolean): BoundEdge | null =>
      binding?.(orientation, isBack) ?? null;
    requireInOrder(run, layout, ticket);
    if (cellCount(layout) === 1) return { run, signatures: null, ...onePageSides(run, layout, margins, bound, ticket) };
    const divided = dividedFor(run, layout, margins);
    const places = run.stretches.map((stretch) => landingsOf(divided, run, binding, stretch));
    const repeated = ticket.pieces === null;
    const faces =
      liesBehind(run.settings) || layout.stack === 'cut'
        ? pieceSides(run, layout, divided, onLongEdge, repeated)
        : gridSides(run, layout, divided, repeated);
    return { run, faces, signatures: null, places };
  });
}

/** Every place where pages of a stretch may land: on backs others than on fronts, where an edge is bound. */
function landingsOf(
  { placesFor }: Divided,
  { sides }: Run,
  binding: Binding | null,
  stretch: Stretch,
): readonly Place[] {
  if (stretch.isBack) return [...placesFor(stretch, true, 'upright'), ...placesFor(stretch, true, 90)];
  const fronts = placesFor(stretch, false);
  return binding && sides === 'two-sided' ? [...fronts, ...placesFor(stretch, true)] : fronts;
}

/** @throws TicketError where piles would be cut from sheets whose backs hold other pages than those behind the fronts */
function requireInOrder(run: Run, { stack, repeat }: GridLayout, ticket: Ticket): void {
  if (stack !== 'cut' || repeat === 'fill-side' || run.sides === 'one-sided' || liesBehind(run.settings)) return;
  const place = placeOf(run, ticket, 'layout.stack', ({ layout }) =>
    layout?.kind === 'grid' ? layout.stack : undefined,
  );
  const problem = 'piles that are cut from sheets printed on both sides are not in order';
  throw new TicketError(place, problem, 'print on one side, or lay each back behind its front');
}

/** Sides of pieces. A landscape side of a sheet that turns on its short edge turns like a book, on its long edge like a pad. */
function pieceSides(run: Run, layout: GridLayout, divided: Divided, onLongEdge: boolean, repeated: boolean): Side[] {
  const { side, grid, placesFor } = divided;
  const likeBook = (grid.orientation === 'portrait') === onLongEdge;
  return cardSides(run, layout, { ...grid, placesFor, likeBook }, repeated).map((cells) =>
    sideOf(grid.orientation, cells, marksOf(cells, side, layout)),
  );
}

/**
 * Sides with one page on each, every side turned like its page (model, Geometry).
 *
 *     +---------------------+
 *     |  +---------------+  |  side: the paper, turned as it is read
 *     |  | area          |  |  area: the side less the larger of the ticket's and the printer's margin;
 *     |  |     page      |  |        the whole side where the scale is none or percent
 *     |  +---------------+  |
 *     +---------------------+
 */
function onePageSides(
  run: Run,
  layout: GridLayout,
  margins: Margins,
  bound: Bound,
  ticket: Ticket,
): Pick<LaidOutRun, 'faces' | 'places'> {
  const places: Place[][] = [];
  let before = 0;
  let turnOfFront: Placement['turn'] = 0;
  const faces = run.stretches.flatMap(({ document, pages, size, settings, source, isBack: liesBack }) => {
    const { scale, paper } = settings;
    const orientation = paper.orientation === 'auto' ? orientationOf(size.width, size.height) : paper.orientation;
    const side = sideBox(run.paper, orientation);
    const landing = (isBack: boolean) => {
      const edge = bound(orientation, isBack);
      const areas = areasOf(side, margins, edge);
      const onWholeSide = scale.mode === 'none' || scale.mode === 'percent';
      requireRoom(areas.kept, run, ticket);
      const turn = liesBack ? (turnOfFront === 270 ? 90 : 'upright') : layout.turn;
      const own = placePage(size, onWholeSide ? side : areas.kept, areas.own, scale, turn);
      const placed = { ...own, source };
      const placement = onWholeSide && edge ? moved(placed, side, edge) : placed;
      return { placement, marks: marksOf([placement], side, layout) };
    };
    const front = landing(false);
    if (!liesBack) turnOfFront = pages[0] === BLANK ? 0 : front.placement.turn;
    const back = run.sides === 'two-sided' && bound(orientation, true) ? landing(true) : front;
    places.push((back === front ? [front] : [front, back]).map(({ placement }) => ({ orientation, placement })));
    const first = before;
    before += pages.length;
    if (pages[0] === BLANK) return [sideOf(orientation, [], null)];
    if (back === front)
      return pages.map((page) => sideOf(orientation, [cellOf(document, page, front.placement)], front.marks));
    return pages.map((page, index) => {
      const { placement, marks } = isBackOf(run, first + index) ? back : front;
      return sideOf(orientation, [cellOf(document, page, placement)], marks);
    });
  });
  return { faces, places };
}

/** A page at its own scale moves away from the bound edge, and is cut off only where the paper ends. */
function moved(placed: Placement, side: Box, bound: BoundEdge): Placement {
  const [across, up] = inwardFrom(bound);
  const [x, y] = [placed.x + across, placed.y + up];
  const ends = x < side.x || y < side.y || x + placed.width > side.width || y + placed.height > side.height;
  return { ...placed, x, y, clip: ends ? [side.x, side.y, side.width, side.height] : null };
}

type Bound = (orientation: Side['orientation'], isBack: boolean) => BoundEdge | null;

/** A divided side, and where the pages of a stretch land in its cells. */
interface Divided {
  readonly side: Box;
  readonly grid: Grid;
  readonly placesFor: (stretch: Stretch, isBack: boolean, turn?: Turn) => readonly Place[];
}

/** Sides of several cells; the last side of a run may have empty ones. */
function gridSides(run: Run, layout: GridLayout, { side, grid, placesFor }: Divided, repeated: boolean): Side[] {
  const { orientation, cells } = grid;
  const makeSide = (placed: Cell[]): Side => sideOf(orientation, placed, marksOf(placed, side, layout));
  if (layout.repeat === 'fill-side' && repeated) {
    let face = 0;
    return run.stretches.flatMap((stretch) =>
      stretch.pages.map((page) => {
        const places = placesFor(stretch, isBackOf(run, face));
        face += 1;
        return makeSide(places.map(({ placement }) => cellOf(stretch.document, page, placement)));
      }),
    );
  }
  let left = run.stretches.reduce((count, { pages }) => count + pages.length, 0);
  const sides = new Array<Side>(Math.ceil(left / cells.length));
  let made = 0;
  let placed: Cell[] = [];
  let next = 0;
  for (const stretch of run.stretches) {
    let places = placesFor(stretch, isBackOf(run, made));
    for (const page of stretch.pages) {
      // Arrays are made as long as they will be: one that grows takes room for far more than a side has.
      if (next === 0) placed = new Array<Cell>(Math.min(cells.length, left));
      placed[next] = cellOf(stretch.document, page, (places[next] as Place).placement);
      next += 1;
      if (next < placed.length) continue;
      sides[made] = makeSide(placed);
      made += 1;
      left -= next;
      next = 0;
      places = placesFor(stretch, isBackOf(run, made));
    }
  }
  return sides;
}

/** Divides sides for runs; runs alike in all that decides it share one division, since a job has many runs of few kinds. */
function divider(ticket: Ticket, binding: Binding | null): (run: Run, layout: GridLayout, margins: Margins) => Divided {
  const known: { run: Run; page: Extent; divided: Divided }[] = [];
  return (run, layout, margins) => {
    const page = commonestSize(run.stretches);
    const alike = known.find(
      (one) =>
        one.run.settings.layout === layout &&
        one.run.settings.margin === run.settings.margin &&
        one.run.settings.paper.orientation === run.settings.paper.orientation &&
        one.run.paper.width === run.paper.width &&
        one.run.paper.height === run.paper.height &&
        one.page === page,
    );
    if (alike) return alike.divided;
    const grid = gridOf(run, page, layout, margins, ticket);
    const side = sideBox(run.paper, grid.orientation);
    const over = (isBack: boolean) => {
      const bound = binding?.(grid.orientation, isBack) ?? null;
      if (!bound) return placer(grid, layout);
      const own = gridOver(areasOf(side, margins, bound).kept, grid, layout);
      requireRoom(own.cells[0] as Box, run, ticket);
      return placer(own, layout);
    };
    const front = over(false);
    const back = binding ? over(true) : front;
    const divided: Divided = {
      side,
      grid,
      placesFor: (stretch, isBack, turn) => (isBack ? back : front)(stretch, turn),
    };
    known.push({ run, page, divided });
    return divided;
  };
}

/** Finds where pages land in the cells, reckoning only where a stretch is not like the one before it. */
function placer({ orientation, cells }: Grid, layout: GridLayout): (stretch: Stretch, turn?: Turn) => readonly Place[] {
  let last: { stretch: Stretch; turn: Turn; places: readonly Place[] } | null = null;
  const isAlike = (one: Stretch, other: Stretch): boolean =>
    one.size === other.size && one.settings.scale === other.settings.scale && one.source === other.source;
  return (stretch, turn = layout.turn) => {
    if (last && last.turn === turn && isAlike(last.stretch, stretch)) return last.places;
    const { size, settings, source } = stretch;
    const places = cells.map((cell) => {
      const placement = { ...placePage(size, cell, cell, settings.scale, turn), source };
      return { orientation, placement };
    });
    last = { stretch, turn, places };
    return places;
  };
}

const cellOf = (
  document: number,
  page: number,
  { x, y, width, height, scale, turn, clip, source }: Placement,
): Cell => ({
  document,
  page,
  x,
  y,
  width,
  height,
  scale,
  turn,
  clip,
  source,
});

/** A side without marks says nothing of them. */
const sideOf = (orientation: Side['orientation'], cells: Cell[], marks: Mark[] | null): Side =>
  marks ? { orientation, cells, marks } : { orientation, cells };

/** Frames and cut marks go round what can be seen of each page. */
function marksOf(placed: readonly Placement[], side: Box, { frame, marks: wanted }: GridLayout): Mark[] | null {
  if (!frame && wanted === 'none') return null;
  const boxes = placed.map(visibleBox);
  return [...(frame ? frames(boxes) : []), ...(wanted === 'cut' ? cutMarks(boxes, side) : [])];
}
