import type { Orientation } from '../paper/orientation';
import { mmToPoints } from '../paper/sizes';
import type { Side } from '../plan/plan';
import type { Ticket } from '../ticket/ticket';
import type { Run } from './run';

export type Edge = 'left' | 'top' | 'right' | 'bottom';

/** The edge by which a side is bound, and what stays free there beside the margin, in points. */
export interface BoundEdge {
  readonly edge: Edge;
  readonly free: number;
}

const OPPOSITE: Readonly<Record<Edge, Edge>> = { left: 'right', right: 'left', top: 'bottom', bottom: 'top' };

/** Landscape's edges where portrait's are: landscape is portrait turned a quarter anticlockwise (RFC 8011, 5.2.10). */
const OF_LANDSCAPE: Readonly<Record<Edge, Edge>> = { left: 'top', top: 'right', right: 'bottom', bottom: 'left' };
const OF_PORTRAIT: Readonly<Record<Edge, Edge>> = { top: 'left', right: 'top', bottom: 'right', left: 'bottom' };

/** What of a run tells how its sides are read. */
export interface Faced {
  readonly faces: readonly Pick<Side, 'orientation' | 'cells'>[];
  /** Of a booklet: it is held as its fold has it, whatever the rest of the job. */
  readonly signatures: readonly number[] | null;
}

/** The way a set is held: as most of its printed sides are read, booklets left out; a tie is portrait (model, Geometry). */
export function heldAs(runs: readonly Faced[]): Orientation {
  let [portrait, landscape] = [0, 0];
  for (const { faces, signatures } of runs) {
    if (signatures) continue;
    for (const { orientation, cells } of faces) {
      if (cells.length === 0) continue;
      if (orientation === 'portrait') portrait += 1;
      else landscape += 1;
    }
  }
  return portrait >= landscape ? 'portrait' : 'landscape';
}

/**
 * Whether all two-sided sheets of a job turn on their long edge, so that the set can be leafed through in one hand (model,
 * Geometry, Turning over); otherwise on the short one. Keywords: RFC 8011, 5.2.8.
 */
export const turnsOnLongEdge = (runs: readonly Faced[], bind: Ticket['bind']): boolean =>
  heldAs(runs) === 'portrait' ? bind !== 'top' : bind === 'top';

/** Tells by which edge a side is bound (model, Pages and pieces, Binding margin). */
export type Binding = (orientation: Orientation, isBack: boolean) => BoundEdge;

/** @returns null where the job has no binding margin: most have none, and are not looked through for how they are held */
export function bindingOf({ bind, bindingMargin }: Ticket, runs: readonly Faced[]): Binding | null {
  if (bindingMargin === 0) return null;
  const held = heldAs(runs);
  const free = mmToPoints(bindingMargin);
  return (orientation, isBack) => {
    const edge = isBack ? OPPOSITE[bind] : bind;
    if (orientation === held) return { edge, free };
    return { edge: (orientation === 'landscape' ? OF_LANDSCAPE : OF_PORTRAIT)[edge], free };
  };
}

/** Whether a run's face, counted from 0, lies on the back of its sheet. */
export const isBackOf = ({ sides }: Pick<Run, 'sides'>, face: number): boolean =>
  sides === 'two-sided' && face % 2 === 1;

/** How far what lies on a side moves away from its bound edge: across and up. */
export function inwardFrom({ edge, free }: BoundEdge): readonly [number, number] {
  const [across, up] = { left: [1, 0], right: [-1, 0], bottom: [0, 1], top: [0, -1] }[edge] as [number, number];
  return [across * free, up * free];
}
