import type { Orientation } from '../paper/orientation';
import { mmToPoints, saySize, type Size } from '../paper/sizes';
import type { Route, Ticket } from '../ticket/ticket';
import { TicketError } from '../ticket/ticket-error';
import type { Box, Extent } from '../paper/box';
import type { BoundEdge, Edge } from './binding';
import type { Run } from './run';

/** The whole of a side as it is read, its lower left corner at the origin. */
export function sideBox({ width, height }: Size, orientation: Orientation): Box {
  return orientation === 'portrait' ? { x: 0, y: 0, width, height } : { x: 0, y: 0, width: height, height: width };
}

/**
 * A side less a margin on every edge.
 *
 * @param margin in points; more than half of the side leaves a point, so that a printer whose margin is larger than a
 *   small paper shows as a tiny page and not as a crash
 */
export function inset(box: Box, margin: number): Box {
  const most = Math.min(box.width, box.height) / 2 - 0.5;
  const kept = Math.max(0, Math.min(margin, most));
  return { x: box.x + kept, y: box.y + kept, width: box.width - 2 * kept, height: box.height - 2 * kept };
}

/** A box with one edge moved inward. */
export function without({ x, y, width, height }: Box, edge: Edge, by: number): Box {
  switch (edge) {
    case 'left':
      return { x: x + by, y, width: width - by, height };
    case 'right':
      return { x, y, width: width - by, height };
    case 'bottom':
      return { x, y: y + by, width, height: height - by };
    case 'top':
      return { x, y, width, height: height - by };
  }
}

/** The margins of a run, in points: its own, and the larger of its own and the printer's, outside which nothing is laid. */
export interface Margins {
  readonly own: number;
  readonly kept: number;
  /** The printer's. */
  readonly printer: number;
}

/** A side less its own margin, and less what outside the printer's cannot be laid. */
interface Areas {
  readonly own: Box;
  readonly kept: Box;
}

/**
 * The areas of a side; at the bound edge the margin and the binding margin together stay free.
 *
 * @param bound null where there is no binding margin
 */
export function areasOf(side: Box, { own, kept, printer }: Margins, bound: BoundEdge | null): Areas {
  const areas = { own: inset(side, own), kept: inset(side, kept) };
  if (!bound) return areas;
  return {
    own: without(areas.own, bound.edge, bound.free),
    kept: without(areas.kept, bound.edge, Math.max(own + bound.free, printer) - kept),
  };
}

/** @throws TicketError where the ticket's margins leave nothing of the paper */
export function marginsOf(run: Run, ticket: Ticket, printerMarginMm: number): Margins {
  const marginMm = run.settings.margin;
  const own = mmToPoints(marginMm);
  const kept = mmToPoints(Math.max(marginMm, printerMarginMm));
  if (2 * own >= run.paper.width) {
    const place = placeOf(run, ticket, 'margin', (route) => route.margin);
    const problem = `a margin of ${marginMm} mm leaves nothing of ${saySize(run.paper.name)}`;
    throw new TicketError(place, problem, 'write a smaller margin or take larger paper');
  }
  return { own, kept, printer: mmToPoints(printerMarginMm) };
}

/** @throws TicketError where the binding margin leaves nothing of what pages are laid on */
export function requireRoom(
  { width, height }: Extent,
  run: Run,
  { bindingMargin }: Pick<Ticket, 'bindingMargin'>,
): void {
  if (bindingMargin === 0 || (width > 0 && height > 0)) return;
  const problem = `a binding margin of ${bindingMargin} mm leaves nothing of ${saySize(run.paper.name)}`;
  throw new TicketError('bindingMargin', problem, 'write a smaller one or take larger paper');
}

/** Where in the ticket a setting of a run stands: in its route where that says it, otherwise in the ticket itself. */
export function placeOf(run: Run, ticket: Ticket, place: string, setting: (route: Route) => unknown): string {
  const index = run.stretches[0]?.route ?? -1;
  const route = ticket.routes[index];
  return route && setting(route) !== undefined ? `routes[${index}].${place}` : place;
}
