import { breakLines } from '../type/break-lines';
import type { Typefaces } from '../type/typeface';
import { isFirstOf, type Merges } from './merges';
import type { Cell, Row } from './table';

/** Points between a cell's edge and its text (ECMA-376, 18.3.1.13: two pixels and one for the line, at 96 an inch). */
export const PADDING = 2.25;

/** Of the height of letters, from line to line (common practice). */
const LEADING = 1.2;

/** How text stands in its cell. */
export class Measure {
  constructor(private readonly typefaces: Typefaces) {}

  typefaceOf({ style: { font } }: Pick<Cell, 'style'>) {
    return this.typefaces.of(font);
  }

  width(cell: Cell, text = cell.text): number {
    return this.typefaceOf(cell).width(text) * cell.style.font.size;
  }

  leading({ style: { font } }: Cell): number {
    return font.size * LEADING;
  }

  /** @param width of its column, or of those it spans */
  lines(cell: Cell, width: number): string[] {
    const isOneLine = !cell.text.includes('\n') && !cell.text.includes('\r');
    if (!cell.style.wrap) return isOneLine ? [cell.text] : cell.text.split(/\r\n?|\n/);
    const room = width - 2 * PADDING - cell.style.indent;
    if (isOneLine && this.width(cell) <= room) return [cell.text];
    return breakLines(cell.text, (text) => this.width(cell, text), Math.max(room, cell.style.font.size));
  }

  /** The height that a row's text needs; cells over several rows need none. */
  needed(row: Row, columns: readonly number[], merges: Merges, least: number): number {
    return row.cells.reduce((most, cell) => {
      if (cell.text === '') return most;
      const area = merges.at(row.number, cell.column);
      if (area && (area.bottom > area.top || !isFirstOf(area, row.number, cell.column))) return most;
      const width = area ? sumOf(columns, area.left, area.right) : (columns[cell.column] ?? 0);
      const isOneLine = !cell.style.wrap && !cell.text.includes('\n');
      const count = isOneLine ? 1 : this.lines(cell, width).length;
      return Math.max(most, count * this.leading(cell) + 1.5);
    }, least);
  }
}

/** Both ends within. */
function sumOf(widths: readonly number[], from: number, to: number): number {
  let sum = 0;
  for (let at = from; at <= to; at += 1) sum += widths[at] ?? 0;
  return sum;
}
