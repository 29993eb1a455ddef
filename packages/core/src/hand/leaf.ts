import type { Ticket } from '../ticket/ticket';
import type { Cell, Sheet } from '../plan/plan';
import type { DeliveredSheet, Face } from './deliver';

/** What a person has before the eyes at one moment: a face of a sheet, or half of one in a folded booklet. */
export interface ReadPage {
  readonly set: number;
  readonly sheet: Sheet;
  readonly which: 'front' | 'back';
  readonly half: 'left' | 'right' | null;
  readonly cells: readonly Cell[];
  /** Degrees clockwise by which the set must be turned from the way it is held for this face to read upright. */
  readonly turn: 0 | 90 | 180 | 270;
}

/**
 * Yields the pages of a stack as a person turns them who picks it up, turns it front side up, and leafs through it with
 * one edge held. Booklets are folded first, each signature by itself.
 *
 * @param stack as `deliver` yields it: the first sheet lies at the bottom
 * @param bind the edge that is held, seen as the set is read
 */
export function* leaf(stack: Iterable<DeliveredSheet>, bind: Ticket['bind']): Generator<ReadPage> {
  const picked = pickUp([...stack]);
  const heldLandscape = isHeldLandscape(picked);
  for (let at = 0; at < picked.length;) {
    const first = picked[at] as DeliveredSheet;
    const signature = signatureFrom(picked, at);
    if (signature.length > 0) yield* foldedPages(signature, bind);
    else yield* facesOf(first, bind, heldLandscape);
    at += Math.max(1, signature.length);
  }
}

/** From the top: with the fronts up as it lay, otherwise turned over as a whole. */
function pickUp(stack: readonly DeliveredSheet[]): DeliveredSheet[] {
  const fronts = stack.filter((sheet) => sheet.up === 'front').length;
  if (fronts * 2 > stack.length) return [...stack].reverse();
  return stack.map((one) => ({
    ...one,
    up: one.up === 'front' ? 'back' : 'front',
    upper: one.lower,
    lower: one.upper,
  }));
}

/** The way most printed sides are read; booklets are held by themselves. */
function isHeldLandscape(sheets: readonly DeliveredSheet[]): boolean {
  let landscape = 0;
  for (const { sheet, upper, lower } of sheets) {
    if (sheet.signature !== undefined) continue;
    for (const face of [upper, lower]) {
      if (face && face.side.cells.length > 0) landscape += face.side.orientation === 'landscape' ? 1 : -1;
    }
  }
  return landscape > 0;
}

function* facesOf(
  { set, upper, lower }: DeliveredSheet,
  bind: Ticket['bind'],
  landscape: boolean,
): Generator<ReadPage> {
  for (const [face, turnedOver] of [
    [upper, false],
    [lower, true],
  ] as const) {
    if (!face) continue;
    const { sheet, which, side } = face;
    yield { set, sheet, which, half: null, cells: side.cells, turn: turnOf(face, turnedOver, bind, landscape) };
  }
}

/** The sheets of one signature from a place in the pile on. */
function signatureFrom(sheets: readonly DeliveredSheet[], at: number): DeliveredSheet[] {
  const { sheet: first, set } = sheets[at] as DeliveredSheet;
  if (first.signature === undefined) return [];
  let end = at;
  for (let next = sheets[end]; next; next = sheets[(end += 1)]) {
    const { sheet } = next;
    if (sheet.signature !== first.signature || sheet.run !== first.run || next.set !== set) break;
  }
  return sheets.slice(at, end);
}

/**
 * A pile laid front side up and folded once, so that the first sheet is the outermost: through the front halves of the
 * leaves inward, then outward again. Bound left, the fold opens to the right.
 */
function* foldedPages(pile: readonly DeliveredSheet[], bind: Ticket['bind']): Generator<ReadPage> {
  const [near, far] = bind === 'right' ? (['left', 'right'] as const) : (['right', 'left'] as const);
  for (const sheet of pile) {
    yield halfOf(sheet, sheet.upper, near, false);
    yield halfOf(sheet, sheet.lower, far, true);
  }
  for (const sheet of [...pile].reverse()) {
    yield halfOf(sheet, sheet.lower, near, true);
    yield halfOf(sheet, sheet.upper, far, false);
  }
}

function halfOf({ set, sheet }: DeliveredSheet, face: Face | null, half: 'left' | 'right', over: boolean): ReadPage {
  const which = face?.which ?? (over ? 'back' : 'front');
  if (!face) return { set, sheet, which, half, cells: [], turn: 0 };
  const middle = face.sheet.paper.height / 2;
  const cells = face.side.cells.filter(({ x, width }) => x + width / 2 < middle === (half === 'left'));
  // The fold stands upright, so a booklet is turned over like a landscape page held at its left edge.
  return { set, sheet: face.sheet, which, half, cells, turn: turnOf(face, over, 'left', true) };
}

/** A direction on paper: x to the right, y upward. */
type Direction = readonly [number, number];

/**
 * Which way the upper edge of a face points when the set is held and the leaf lies before the reader, and so how far the
 * set must be turned. On the medium, landscape is portrait turned 90 degrees anticlockwise (RFC 8011, 5.2.10): its upper
 * edge is the medium's left edge.
 */
function turnOf(face: Face, turnedOver: boolean, bind: Ticket['bind'], heldLandscape: boolean): ReadPage['turn'] {
  const seen: Direction = face.side.orientation === 'portrait' ? [0, 1] : [-1, 0];
  // From the face's own view to the front's: a back is seen mirrored, upright or upside down by its turning edge.
  const onFront: Direction = !turnedOver ? seen : face.turned ? [seen[0], -seen[1]] : [-seen[0], seen[1]];
  // A landscape set is held turned clockwise, so that the medium's left edge is up.
  const held: Direction = heldLandscape ? [onFront[1], -onFront[0]] : onFront;
  // The leaf is turned about the edge held: an upright one mirrors left and right, the upper one mirrors up and down.
  const [x, y] = !turnedOver ? held : bind === 'top' ? [held[0], -held[1]] : [-held[0], held[1]];
  if (Math.abs(y) === 1) return y > 0 ? 0 : 180;
  return x < 0 ? 90 : 270;
}
