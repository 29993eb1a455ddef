import { mmToPoints } from '../paper/sizes';
import { FINISHINGS, placeOnMedium, type Finishing, type FinishingPlace } from '../settings/finishing-words';
import type { Plan, Sheet } from './plan';

/** What a finisher leaves on a side, in points as the side is read, the origin at its lower left corner. */
export interface FinishedMark {
  readonly kind: 'staple' | 'hole' | 'fold';
  readonly from: Point;
  /** Of a hole the same point: its middle. */
  readonly to: Point;
}

type Point = readonly [x: number, y: number];

/** Holes of ISO 838: 6 mm wide, their middles 12 mm from the edge and 80 mm apart; three as in North America (common practice). */
export const HOLE_WIDTH = mmToPoints(6);
const HOLE_INSET = mmToPoints(12);
const HOLES_APART: Readonly<Record<number, number>> = { 2: mmToPoints(80), 3: mmToPoints(108), 4: mmToPoints(80) };

/** Staples are about 12 mm long and lie about 6 mm from an edge (common practice). */
const STAPLE = mmToPoints(12);
const STAPLE_INSET = mmToPoints(6);

/** What is seen of the finishing on a side of a sheet; nothing on sheets that pass the finisher by. */
export function finishedSide(
  { finishing }: Pick<Plan, 'finishing'>,
  sheet: Sheet,
  which: 'front' | 'back',
): FinishedMark[] {
  if (!finishing || sheet.index === 0 || (sheet.slip && finishing.starts.length > 1)) return [];
  const seen = asRead(sheet, which);
  return finishing.finishings.flatMap((name) =>
    onMedium(name, finishing.held, sheet.paper).map(({ kind, from, to }) => ({ kind, from: seen(from), to: seen(to) })),
  );
}

type Extent = Sheet['paper'];

/** On the front of the paper upright. */
function onMedium(name: Finishing, held: 'portrait' | 'landscape', paper: Extent): FinishedMark[] {
  const { kind, at, count } = FINISHINGS[name];
  const { width, height } = paper;
  if (kind === 'fold') return foldsOf(name, paper);
  if (kind === 'stitch')
    return apart(count, width).map((x) => staple([x - STAPLE / 2, height / 2], [x + STAPLE / 2, height / 2]));
  if (at === null) return [];
  const place = placeOnMedium(at, held);
  if (place.includes('-')) return [cornerStaple(place, paper)];
  const length = place === 'left' || place === 'right' ? height : width;
  if (kind === 'holes') {
    const step = HOLES_APART[count] ?? 0;
    const first = length / 2 - (step * (count - 1)) / 2;
    return Array.from({ length: count }, (_, hole) => {
      const middle = alongEdge(place, paper, HOLE_INSET, first + hole * step);
      return { kind: 'hole', from: middle, to: middle };
    });
  }
  return apart(count, length).map((middle) =>
    staple(
      alongEdge(place, paper, STAPLE_INSET, middle - STAPLE / 2),
      alongEdge(place, paper, STAPLE_INSET, middle + STAPLE / 2),
    ),
  );
}

const staple = (from: Point, to: Point): FinishedMark => ({ kind: 'staple', from, to });

/** So many places along a length, as far from each other as twice from its ends. */
const apart = (count: number, length: number): number[] =>
  Array.from({ length: count }, (_, place) => (length * (place + 0.5)) / count);

/** So far along an edge and so far in from it. */
function alongEdge(edge: FinishingPlace, { width, height }: Extent, inset: number, along: number): Point {
  if (edge === 'left') return [inset, along];
  if (edge === 'right') return [width - inset, along];
  return [along, edge === 'top' ? height - inset : inset];
}

/** Aslant across the corner. */
function cornerStaple(corner: FinishingPlace, { width, height }: Extent): FinishedMark {
  const [near, far] = [STAPLE_INSET, STAPLE_INSET + STAPLE / Math.SQRT2];
  const across = (inset: number): number => (corner.endsWith('left') ? inset : width - inset);
  const up = (inset: number): number => (corner.startsWith('bottom') ? inset : height - inset);
  return staple([across(near), up(far)], [across(far), up(near)]);
}

/** Across the longer edge, as a letter is folded; of a fold that only the printer knows nothing is seen. */
function foldsOf(name: Finishing, { width, height }: Extent): FinishedMark[] {
  const parts = name === 'fold-half' ? 2 : name === 'fold-letter' || name === 'fold-z' ? 3 : 1;
  return Array.from({ length: parts - 1 }, (_, fold) => {
    const y = (height * (fold + 1)) / parts;
    return { kind: 'fold', from: [0, y], to: [width, y] };
  });
}

/** From the front of the paper upright to a side as it is read: a back is seen mirrored, upright or upside down by its edge. */
function asRead({ paper, sides, front, back }: Sheet, which: 'front' | 'back'): (point: Point) => Point {
  const { width, height } = paper;
  const side = which === 'front' ? front : (back ?? front);
  return ([x, y]) => {
    const [across, up] =
      which === 'front' ? [x, y] : sides === 'two-sided-short-edge' ? [x, height - y] : [width - x, y];
    // A landscape side's upper edge is the medium's left edge.
    return side.orientation === 'landscape' ? [up, width - across] : [across, up];
  };
}
