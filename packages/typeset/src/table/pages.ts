import type { Measure } from './measure';
import type { Merges } from './merges';
import { READABLE, type Area, type Row, type Table, type TableScale } from './table';

/** A row or a column where it stands on a page, before the page is scaled. */
export interface Strip {
  /** A row's number from 1, a column's from 0. */
  readonly at: number;
  readonly start: number;
  readonly size: number;
}

/** One page of a table. */
export interface TablePage {
  readonly scale: number;
  readonly rows: readonly Strip[];
  readonly columns: readonly Strip[];
}

/** What stands before the first column and above the first row where columns and rows are named, in points. */
export const HEADING = { width: 30, height: 13.5 } as const;

/** The least and the most that a sheet is scaled by (ECMA-376, 18.3.1.63: 10 to 400 %). */
const LEAST = 0.1;

/** Steps of halving, after which nobody sees a difference. */
const HALVINGS = 12;

interface Sized {
  readonly at: readonly number[];
  readonly sizes: readonly number[];
}

/** Rows or columns in a line, with their sizes; hidden ones are left out. */
interface Line extends Sized {
  /** Those that are repeated on every page that begins behind them. */
  readonly titles: Sized;
  /** What stands before them on every page: the names of rows or columns. */
  readonly heading: number;
  readonly breaks: ReadonlySet<number>;
}

/** What of a table is printed: its areas, or all that holds anything. */
export function areasOf({ setup, rows, columns }: Table): readonly Area[] {
  const last = rows.at(-1);
  if (!last) return [];
  const widest = rows.reduce((most, { cells }) => Math.max(most, cells.at(-1)?.column ?? 0), 0);
  const held = { top: 1, bottom: last.number, left: 0, right: Math.min(widest, columns.length - 1) };
  return (setup.areas ?? [held]).map((area) => ({
    ...area,
    right: area.right === Infinity ? held.right : area.right,
    bottom: area.bottom === Infinity ? held.bottom : area.bottom,
  }));
}

/** The pages of one area, in the order in which they are printed. */
export function pagesOfArea(table: Table, area: Area, merges: Merges, measure: Measure): TablePage[] {
  const { setup } = table;
  const rows = rowLine(table, area, merges, measure);
  const columns = columnLine(table, area);
  const room = roomOf(table);
  const scale = scaleOf(table, rows, columns, room);
  const down = parted(rows, room.height / scale);
  const across = parted(columns, room.width / scale);
  const page = (rowPart: Part, columnPart: Part): TablePage => ({
    scale,
    rows: strips(rows, rowPart),
    columns: strips(columns, columnPart),
  });
  return setup.downFirst
    ? across.flatMap((columnPart) => down.map((rowPart) => page(rowPart, columnPart)))
    : down.flatMap((rowPart) => across.map((columnPart) => page(rowPart, columnPart)));
}

function rowLine({ rows, columns, setup }: Table, area: Area, merges: Merges, measure: Measure): Line {
  const known = new Map(rows.map((row) => [row.number, row]));
  const heightOf = (row: Row | undefined): number => {
    if (!row) return setup.rowHeight;
    if (row.height === 0 || (row.height !== null && row.isFixed)) return row.height;
    return measure.needed(row, columns, merges, row.height ?? setup.rowHeight);
  };
  const sized = sizer((number) => heightOf(known.get(number)));
  const heading = setup.headings ? HEADING.height : 0;
  return {
    ...sized(area.top, area.bottom),
    titles: sized(...titles(setup.titleRows)),
    heading,
    breaks: setup.rowBreaks,
  };
}

function columnLine({ columns, setup }: Table, area: Area): Line {
  const sized = sizer((at) => columns[at] ?? 0);
  const heading = setup.headings ? HEADING.width : 0;
  const repeated = sized(...titles(setup.titleColumns));
  return { ...sized(area.left, area.right), titles: repeated, heading, breaks: setup.columnBreaks };
}

const titles = (range: readonly [number, number] | null): readonly [number, number] => range ?? [0, -1];

const sizer =
  (sizeOf: (at: number) => number) =>
  (from: number, to: number): Sized => {
    const at: number[] = [];
    const sizes: number[] = [];
    for (let one = from; one <= to; one += 1) {
      const size = sizeOf(one);
      if (size <= 0) continue;
      at.push(one);
      sizes.push(size);
    }
    return { at, sizes };
  };

/** Within the margins. */
const roomOf = ({ setup: { page, margins } }: Table) => ({
  width: page.width - margins.left - margins.right,
  height: page.height - margins.top - margins.bottom,
});

type Room = ReturnType<typeof roomOf>;

function scaleOf({ setup, rows: all }: Table, rows: Line, columns: Line, room: Room): number {
  const count = (scale: number): { wide: number; tall: number } => ({
    wide: parted(columns, room.width / scale).length,
    tall: parted(rows, room.height / scale).length,
  });
  const wanted = wantedScale(setup.scale, count, () => smallestOf(all));
  // What is wider or higher than a whole page would be cut.
  return Math.max(LEAST, Math.min(wanted, room.width / mostOf(columns), room.height / mostOf(rows)));
}

/** The room that the largest of a line needs on a page. Not by spreading: there may be a million. */
const mostOf = ({ sizes, titles: repeated, heading }: Line): number =>
  sizes.reduce((most, one) => Math.max(most, one), 1) + sumOf(repeated.sizes) + heading;

const sumOf = (sizes: readonly number[]): number => sizes.reduce((sum, one) => sum + one, 0);

function wantedScale(
  scale: TableScale,
  count: (scale: number) => { readonly wide: number; readonly tall: number },
  smallest: () => number,
): number {
  switch (scale.kind) {
    case 'percent':
      return scale.percent / 100;
    case 'pages':
      return largest(1, (at) => {
        const { wide, tall } = count(at);
        return wide <= (scale.wide ?? Infinity) && tall <= (scale.tall ?? Infinity);
      });
    case 'readable': {
      const least = READABLE / smallest();
      const pages = (at: number): number => count(at).wide * count(at).tall;
      const fewest = pages(least);
      return largest(Math.max(1, least), (at) => at <= least || pages(at) <= fewest, least);
    }
  }
}

/** The largest scale up to `most` at which something holds that holds at all smaller ones. */
function largest(most: number, holds: (scale: number) => boolean, least = LEAST): number {
  if (holds(most)) return most;
  let [low, high] = [least, most];
  for (let step = 0; step < HALVINGS; step += 1) {
    const middle = (low + high) / 2;
    if (holds(middle)) low = middle;
    else high = middle;
  }
  return low;
}

/** Of all that is written in a table; 11, as office programs begin with, where nothing is. */
function smallestOf(rows: readonly Row[]): number {
  let smallest = Infinity;
  for (const { cells } of rows) {
    for (const { text, style } of cells) if (text !== '') smallest = Math.min(smallest, style.font.size);
  }
  return smallest === Infinity ? 11 : smallest;
}

/** Places in a line, both ends within. */
type Part = readonly [from: number, to: number];

/**
 * A line parted into pages: as many on each as there is room for, at least one; a page begins after a break. Those that are
 * repeated take their room on each page but the ones on which they stand themselves.
 */
function parted(line: Line, room: number): Part[] {
  const { at, sizes, heading, breaks } = line;
  const repeated = sumOf(line.titles.sizes);
  const parts: Part[] = [];
  let from = 0;
  let taken = 0;
  sizes.forEach((size, index) => {
    const kept = heading + (repeats(line, from) ? repeated : 0);
    // A hundredth of a point is no reason for a page.
    const isFull = taken + size + kept > room + 0.01;
    if (index > from && (isFull || breaks.has(at[index - 1]!))) {
      parts.push([from, index - 1]);
      from = index;
      taken = 0;
    }
    taken += size;
  });
  return sizes.length === 0 ? [] : [...parts, [from, sizes.length - 1]];
}

/** Whether a page that begins there repeats the titles. */
const repeats = ({ at, titles: repeated }: Line, from: number): boolean => at[from]! > (repeated.at.at(-1) ?? Infinity);

function strips(line: Line, [from, to]: Part): Strip[] {
  const places: Strip[] = [];
  let reached = line.heading;
  const add = ({ at, sizes }: Sized, place: number): void => {
    places.push({ at: at[place]!, start: reached, size: sizes[place]! });
    reached += sizes[place]!;
  };
  if (repeats(line, from)) line.titles.at.forEach((_, place) => add(line.titles, place));
  for (let place = from; place <= to; place += 1) add(line, place);
  return places;
}
