import { PADDING, type Measure } from './measure';
import type { Cell } from './table';

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** How far a text may go on over empty cells beside its own. */
export interface Beside {
  readonly left: number;
  readonly right: number;
}

/** A text where it stands in its cell. */
export interface SetText {
  readonly size: number;
  /** Each with where it begins, on the line that the letters stand on. */
  readonly lines: readonly { readonly text: string; readonly x: number; readonly y: number; readonly width: number }[];
  /** Beyond which nothing of it is drawn; null where all of it is within. */
  readonly clip: Box | null;
  readonly isWhole: boolean;
}

/** Smaller than that nobody reads a number: it is cut. */
const LEAST_NUMBER = 0.4;

/** Our typefaces are alike in width, but not the same: what is only a little too long is set a little smaller. */
const LEAST_TEXT = 0.9;

/** Points that nobody sees. */
const TOLERANCE = 0.5;

/** Above and below the lines of a cell. */
const ABOVE = 0.75;

/** Sets a text in its cell. @param beside null where it has to stay within its own */
export function setText(cell: Cell, box: Box, beside: Beside | null, measure: Measure): SetText {
  const { style, isNumber } = cell;
  const lines = measure.lines(cell, box.width);
  const widths = lines.map((line) => measure.width(cell, line));
  const widest = Math.max(...widths);
  const across = style.across === 'general' ? (isNumber ? 'right' : 'left') : style.across;
  const mayGoOn = beside !== null && !isNumber && !style.wrap;
  const [left, right] = mayGoOn ? [beside.left, beside.right] : [box.x, box.x + box.width];
  const inner = box.width - 2 * PADDING - style.indent;
  const room = mayGoOn ? roomFor(across, box, style.indent, left, right) : inner;
  const shrink = shrinkOf(widest, room, isNumber);
  const size = style.font.size * shrink;
  const leading = measure.leading(cell) * shrink;
  const height = lines.length * leading;
  const isHigh = height > box.height + leading / 2;
  const isWhole = !isHigh && widest * shrink <= room + TOLERANCE;
  const isWithin = widest * shrink <= inner && height <= box.height + 1;
  const top = {
    top: box.y + ABOVE,
    middle: box.y + (box.height - height) / 2,
    bottom: box.y + box.height - ABOVE - height,
  }[style.down];
  // Of what is too high the beginning is seen.
  const start = isHigh ? Math.max(top, box.y) : top;
  const { ascent, descent } = measure.typefaceOf(cell);
  const baseline = (leading - (ascent + descent) * size) / 2 + ascent * size;
  return {
    size,
    lines: lines.map((text, at) => {
      const width = widths[at]! * shrink;
      const x = {
        left: box.x + PADDING + style.indent,
        center: box.x + (box.width - width) / 2,
        right: box.x + box.width - PADDING - style.indent - width,
      }[across];
      return { text, x, y: start + at * leading + baseline, width };
    }),
    clip: isWithin ? null : { x: left, y: box.y, width: right - left, height: box.height },
    isWhole,
  };
}

/** How long a text may be that goes on beyond its cell: to one side, to the other, or to both alike. */
function roomFor(across: 'left' | 'center' | 'right', box: Box, indent: number, left: number, right: number): number {
  const middle = box.x + box.width / 2;
  switch (across) {
    case 'left':
      return right - box.x - PADDING - indent;
    case 'right':
      return box.x + box.width - PADDING - indent - left;
    case 'center':
      return 2 * Math.min(right - middle, middle - left);
  }
}

/** A number that is cut is another number. */
function shrinkOf(widest: number, room: number, isNumber: boolean): number {
  if (widest <= room) return 1;
  const wanted = room / widest;
  if (isNumber) return Math.max(LEAST_NUMBER, wanted);
  return wanted >= LEAST_TEXT ? wanted : 1;
}
