import type { Plan, Printer, Sheet, Tray } from '@foglio/core';
import { sheetAt, shownSheets } from '../shown-sheets';
import { foldColumns, type Column } from './columns';

export interface Lane {
  readonly id: string;
  /** Null where the plan names a tray that the printer lacks, or no tray at all. */
  readonly tray: Tray | null;
  /** In the printer's order, from 0; -1 without a tray. */
  readonly place: number;
  readonly needed: number;
  readonly top: number;
  readonly height: number;
}

export interface LanesLayout {
  readonly lanes: readonly Lane[];
  /** CSS pixels a point, the same for all sheets, so that they are drawn in proportion. */
  readonly scale: number;
  readonly columns: readonly Column[];
  /** Left edge of each column, and at the end the right edge of the last. */
  readonly edges: Float64Array;
  readonly height: number;
  /** Whether every side has a line over it that tells of its pass. */
  readonly inPasses: boolean;
}

const UNUSED = 36;
const LEAST_USED = 92;
const PADDING = 24;
/** Between a sheet's front and its back. */
export const FACE_GAP = 6;
export const COLUMN_GAP = 10;
/** Over each side of a job in two passes. */
export const PASS_LINE = 20;
const LEAST_COLUMN = 40;

/** A folded block, in CSS pixels. */
export const BLOCK_WIDTH = 136;

/** Heights an A4 sheet is drawn at, in CSS pixels: never too small for its number, nor larger than helps. */
const LEAST_SHEET = 52;
const LEAST_WHOLE = 64;
const MOST_SHEET = 200;
const A4_HEIGHT = 841.89;

const NONE: ReadonlySet<number> = new Set();

/** What a sheet without any tray lies in. */
export const NO_TRAY = 'no tray';

const laneOf = (sheet: Sheet): string => sheet.tray ?? NO_TRAY;

/**
 * Lanes and columns of a plan in a given height and width, in CSS pixels: used lanes grow to the height there is, a tray that is not used is one
 * thin line, and the sheets are as large as all lanes together allow.
 */
export function layOutLanes(
  plan: Plan,
  printer: Printer,
  available: number,
  width: number,
  opened: ReadonlySet<number> = NONE,
): LanesLayout {
  const sheets = shownSheets(plan);
  const extents = measure(sheets);
  const known = printer.trays.map((tray, place) => ({ id: tray.id, tray, place }));
  const lost = [...extents.keys()].filter((id) => !printer.trays.some((tray) => tray.id === id));
  const all = [...known, ...lost.map((id) => ({ id, tray: null, place: -1 }))];
  const used = [...extents.values()];
  const inPasses = plan.passes !== null;
  const between = ({ faces }: Extent): number => (faces - 1) * FACE_GAP + (inPasses ? faces * PASS_LINE : 0);
  const gaps = used.reduce((sum, extent) => sum + between(extent), 0);
  const free = available - (all.length - used.length) * UNUSED - used.length * PADDING - gaps;
  const points = used.reduce((sum, { height, faces }) => sum + height * faces, 0);
  const byHeight = Math.min(Math.max(free / Math.max(points, 1), LEAST_SHEET / A4_HEIGHT), MOST_SHEET / A4_HEIGHT);
  const whole = scaleToShowAll(sheets, width);
  const scale = Math.min(byHeight, whole ?? Infinity);
  // What can be seen whole need not be folded.
  const single = ({ index }: Sheet): Column => ({ from: index, to: index });
  const before = sheets.filter(({ index }) => index === 0).map(single);
  const columns = [...before, ...(whole === null ? foldColumns(plan, opened) : plan.sheets.map(single))];
  // With the slips between sets, which have no column.
  const neededOf = (id: string): number => plan.tally.byTray[id] ?? (extents.get(id)?.count ?? 0) * plan.sets;
  const heightOf = (id: string): number => {
    const extent = extents.get(id);
    return extent
      ? Math.max(LEAST_USED, extent.height * extent.faces * scale + between(extent) + PADDING)
      : neededOf(id) > 0
        ? LEAST_USED
        : UNUSED;
  };
  const spare = Math.max(0, available - all.reduce((sum, { id }) => sum + heightOf(id), 0)) / Math.max(used.length, 1);
  let top = 0;
  const lanes = all.map(({ id, tray, place }): Lane => {
    const extent = extents.get(id);
    const height = heightOf(id) + (extent ? spare : 0);
    const lane = { id, tray, place, needed: neededOf(id), top, height };
    top += height;
    return lane;
  });
  return { lanes, scale, columns, edges: edgesOf(columns, plan, scale), height: top, inPasses };
}

/** A short job is drawn small enough to be seen whole, as long as its pages can still be told apart; null: it cannot. */
function scaleToShowAll(sheets: readonly Sheet[], width: number): number | null {
  const points = sheets.reduce((sum, sheet) => sum + sideSize(sheet).width, 0);
  const scale = (width - sheets.length * COLUMN_GAP) / points;
  return scale >= LEAST_WHOLE / A4_HEIGHT ? scale : null;
}

interface Extent {
  height: number;
  faces: number;
  count: number;
}

/** For each lane in use the tallest side, in points, and whether any sheet has a back. */
function measure(sheets: readonly Sheet[]): Map<string, Extent> {
  const extents = new Map<string, Extent>();
  for (const sheet of sheets) {
    const id = laneOf(sheet);
    const extent = extents.get(id) ?? { height: 0, faces: 1, count: 0 };
    extent.height = Math.max(extent.height, sideSize(sheet).height);
    if (sheet.back) extent.faces = 2;
    extent.count += 1;
    extents.set(id, extent);
  }
  return extents;
}

function edgesOf(columns: readonly Column[], plan: Plan, scale: number): Float64Array {
  const edges = new Float64Array(columns.length + 1);
  columns.forEach(({ from, to }, index) => {
    const sheet = sheetAt(plan, from) as Sheet;
    const width = to > from ? BLOCK_WIDTH : Math.max(LEAST_COLUMN, sideSize(sheet).width * scale);
    edges[index + 1] = (edges[index] as number) + width + COLUMN_GAP;
  });
  return edges;
}

/** Room for either side as it is read, in points: a portrait front may have a landscape back. */
function sideSize({ paper, front, back }: Sheet): { width: number; height: number } {
  const turned = [front, ...(back ? [back] : [])].map(({ orientation }) => orientation === 'landscape');
  const across = turned.map((landscape) => (landscape ? paper.height : paper.width));
  const up = turned.map((landscape) => (landscape ? paper.width : paper.height));
  return { width: Math.max(...across), height: Math.max(...up) };
}

/** The columns that lie in a stretch of the scroll: the first, and the one after the last. */
export function visibleRange(edges: Float64Array, left: number, width: number): readonly [number, number] {
  const last = edges.length - 1;
  return [Math.max(0, columnAt(edges, left) - 2), Math.min(last, columnAt(edges, left + width) + 3)];
}

/** The column a place lies in, found by halving. */
function columnAt(edges: Float64Array, x: number): number {
  let low = 0;
  let high = edges.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((edges[middle] as number) <= x) low = middle;
    else high = middle - 1;
  }
  return low;
}
