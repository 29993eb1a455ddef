import type { Plan, Sheet } from '@foglio/core';

/** A column of the lanes: one sheet, or a long stretch of like sheets folded into one block; both ends counted from 1. */
export interface Column {
  readonly from: number;
  readonly to: number;
}

/** As many like sheets as are worth folding; the first and the last of a stretch are always drawn. */
const LEAST_FOLDED = 20;

const isAlike = (one: Sheet, other: Sheet): boolean =>
  one.run === other.run &&
  one.tray === other.tray &&
  !one.slip &&
  !other.slip &&
  one.paper.size === other.paper.size &&
  one.front.orientation === other.front.orientation;

/**
 * The columns of a plan, in order. Of a stretch of like sheets the first and the last stand by themselves and those
 * between are one block, unless it was opened.
 *
 * @param opened the first sheet of each block that stands open
 */
export function foldColumns({ sheets }: Pick<Plan, 'sheets'>, opened: ReadonlySet<number>): Column[] {
  const columns: Column[] = [];
  const single = (index: number): void => void columns.push({ from: index, to: index });
  for (let start = 0; start < sheets.length;) {
    let end = start + 1;
    while (end < sheets.length && isAlike(sheets[start] as Sheet, sheets[end] as Sheet)) end += 1;
    // Between the first and the last of the stretch; sheets are counted from 1.
    const [from, to] = [start + 2, end - 1];
    if (to - from + 1 >= LEAST_FOLDED && !opened.has(from)) {
      single(start + 1);
      columns.push({ from, to });
      single(end);
    } else {
      for (let index = start; index < end; index += 1) single(index + 1);
    }
    start = end;
  }
  return columns;
}

/** The place, from 0, of the column that a sheet is in. */
export function columnOf(columns: readonly Column[], sheet: number): number {
  let low = 0;
  let high = columns.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((columns[middle] as Column).from <= sheet) low = middle;
    else high = middle - 1;
  }
  return low;
}
