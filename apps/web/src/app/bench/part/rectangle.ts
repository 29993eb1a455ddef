/** A part of a page, in whole millimetres from its upper left corner. */
export interface Rectangle {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** A point or a step on a page, in millimetres: to the right and down. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** A page's measure, in millimetres. */
export interface Measure {
  readonly width: number;
  readonly height: number;
}

/** A corner or an edge by which a rectangle is drawn larger or smaller: n, ne, e … as on a compass. */
export type Grip = 'nw' | 'n' | 'ne' | 'e' | 'se' | 's' | 'sw' | 'w';
export const GRIPS: readonly Grip[] = ['nw', 'n', 'ne', 'e', 'se', 's', 'sw', 'w'];

/** What is smaller is a slip of the hand. */
const LEAST = 2;

const within = (value: number, least: number, most: number): number => Math.min(Math.max(value, least), most);

/** Edges in order and within the page, in whole millimetres. */
function between(x1: number, y1: number, x2: number, y2: number, page: Measure): Rectangle {
  const [left, right] = span(x1, x2, Math.floor(page.width));
  const [top, bottom] = span(y1, y2, Math.floor(page.height));
  return { left, top, width: right - left, height: bottom - top };
}

function span(one: number, other: number, end: number): readonly [number, number] {
  const from = within(Math.round(Math.min(one, other)), 0, end - LEAST);
  return [from, within(Math.round(Math.max(one, other)), from + LEAST, end)];
}

/** From one point to another, whichever way it was drawn. */
export const drawn = (from: Point, to: Point, page: Measure): Rectangle => between(from.x, from.y, to.x, to.y, page);

/** Moved as a whole; it stays on the page. */
export function moved({ left, top, width, height }: Rectangle, by: Point, page: Measure): Rectangle {
  return {
    left: within(Math.round(left + by.x), 0, Math.max(0, Math.floor(page.width) - width)),
    top: within(Math.round(top + by.y), 0, Math.max(0, Math.floor(page.height) - height)),
    width,
    height,
  };
}

/** With a corner or an edge moved. */
export function resized({ left, top, width, height }: Rectangle, grip: Grip, by: Point, page: Measure): Rectangle {
  const [right, bottom] = [left + width, top + height];
  return between(
    grip.includes('w') ? Math.min(left + by.x, right - LEAST) : left,
    grip.includes('n') ? Math.min(top + by.y, bottom - LEAST) : top,
    grip.includes('e') ? Math.max(right + by.x, left + LEAST) : right,
    grip.includes('s') ? Math.max(bottom + by.y, top + LEAST) : bottom,
    page,
  );
}

const STEPS: Readonly<Record<string, Point>> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
};

/** By the arrow keys a millimetre, with Alt ten; with Shift the lower right corner alone moves. Null: another key. */
export function byKey(
  rectangle: Rectangle,
  { key, shiftKey, altKey }: Pick<KeyboardEvent, 'key' | 'shiftKey' | 'altKey'>,
  page: Measure,
): Rectangle | null {
  const step = STEPS[key];
  if (!step) return null;
  const by = { x: step.x * (altKey ? 10 : 1), y: step.y * (altKey ? 10 : 1) };
  return shiftKey ? resized(rectangle, 'se', by, page) : moved(rectangle, by, page);
}
