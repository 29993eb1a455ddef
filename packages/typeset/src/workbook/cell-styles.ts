import type { Style } from 'exceljs';
import { EDGES, type Border, type CellStyle } from '../table/table';
import { familyFor } from '../type/typeface';
import { colorOf, type FileColor } from './colors';

/** Width in points and dashes of the lines that cells have (ECMA-376, 18.18.3; how wide: common practice). */
const LINES: Readonly<Record<string, readonly [width: number, dash: readonly number[] | null]>> = {
  hair: [0.25, null],
  thin: [0.5, null],
  medium: [1.25, null],
  thick: [2, null],
  double: [1.25, null],
  dotted: [0.5, [0.5, 1.5]],
  dashed: [0.5, [3, 1.5]],
  dashDot: [0.5, [4, 1.5, 1, 1.5]],
  dashDotDot: [0.5, [4, 1.5, 1, 1.5, 1, 1.5]],
  mediumDashed: [1.25, [4, 2]],
  mediumDashDot: [1.25, [5, 2, 1, 2]],
  mediumDashDotDot: [1.25, [5, 2, 1, 2, 1, 2]],
  slantDashDot: [1.25, [5, 2, 1, 2]],
};

/** One step of indentation: three letters of the usual font (ECMA-376, 18.8.1). */
const INDENT = 7;

/** What rules how a cell looks, and how its number is written. */
export interface ReadStyle {
  readonly style: CellStyle;
  /** Its number format. */
  readonly format: string;
  /** Whether its text is turned, which is printed level. */
  readonly isTurned: boolean;
}

/** A style of the library as we have it. */
export function readStyle(given: Partial<Style> | undefined, theme: readonly string[]): ReadStyle {
  const { font, fill, alignment, border, numFmt } = given ?? {};
  const color = (one: FileColor | undefined): string | null => colorOf(one, theme, null);
  const borders = Object.fromEntries(
    EDGES.flatMap((edge): [string, Border][] => {
      const line = border?.[edge];
      const known = line?.style ? LINES[line.style] : undefined;
      if (!known) return [];
      return [[edge, { width: known[0], dash: known[1], color: color(line!.color) ?? '#000000' }]];
    }),
  );
  return {
    style: {
      font: {
        family: familyFor(font?.name),
        size: font?.size ?? 11,
        bold: font?.bold ?? false,
        italic: font?.italic ?? false,
        underline: Boolean(font?.underline) && font?.underline !== 'none',
        strike: font?.strike ?? false,
        color: color(font?.color) ?? '#000000',
      },
      fill: fill?.type === 'pattern' && fill.pattern !== 'none' ? fillOf(fill, color) : null,
      across: acrossOf(alignment?.horizontal),
      down: alignment?.vertical === 'top' ? 'top' : alignment?.vertical === 'middle' ? 'middle' : 'bottom',
      wrap: alignment?.wrapText ?? false,
      indent: (alignment?.indent ?? 0) * INDENT,
      borders,
    },
    format: numFmt ?? 'General',
    isTurned: (alignment?.textRotation ?? 0) !== 0,
  };
}

/** Of a pattern its ground; a light one is not worth its ink. */
function fillOf(
  { pattern, fgColor, bgColor }: { pattern: string; fgColor?: FileColor; bgColor?: FileColor },
  color: (one: FileColor | undefined) => string | null,
): string | null {
  return pattern === 'solid' ? color(fgColor) : color(bgColor);
}

function acrossOf(horizontal: string | undefined): CellStyle['across'] {
  switch (horizontal) {
    case 'left':
    case 'fill':
    case 'justify':
      return 'left';
    case 'center':
    case 'centerContinuous':
    case 'distributed':
      return 'center';
    case 'right':
      return 'right';
    default:
      return 'general';
  }
}
