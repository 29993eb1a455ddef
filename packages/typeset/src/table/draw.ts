import type { Pen } from '../type/pen';
import type { Measure } from './measure';
import { isFirstOf, type Merges } from './merges';
import { setText, type Beside, type Box } from './set-text';
import { HEADING, type Strip, type TablePage } from './pages';
import { EDGES, type Area, type Border, type Cell, type CellStyle, type Row, type Table } from './table';

/** Lines between cells that no border draws. */
const GRID: Border = { width: 0.5, color: '#c0c0c0', dash: null };

const HEADING_STYLE: CellStyle = {
  font: { family: 'carlito', size: 8, bold: false, italic: false, underline: false, strike: false, color: '#555555' },
  fill: '#f2f2f2',
  across: 'center',
  down: 'middle',
  wrap: false,
  indent: 0,
  borders: {},
};

/** A cell where it stands on a page; its box spans what of a merged cell is on this page. */
interface Placed {
  readonly cell: Cell;
  /** Its row's number. */
  readonly row: number;
  readonly box: Box;
  readonly isMerged: boolean;
}

/** A table, and where in it what is. */
export interface Indexed {
  readonly table: Table;
  readonly merges: Merges;
  /** By their numbers. */
  readonly rows: ReadonlyMap<number, Row>;
  /** Where texts are cut, "A1"; noted as they are drawn. */
  readonly cut: Set<string>;
}

/** Draws one page of a table; the pen's origin is the upper left corner of the paper. */
export function drawPage(pen: Pen, { table, merges, rows, cut }: Indexed, page: TablePage, measure: Measure): void {
  const { setup } = table;
  const shown = setup.rightToLeft ? { ...page, columns: mirrored(page.columns) } : page;
  const [width, height] = [endOf(page.columns), endOf(page.rows)];
  const room = {
    width: setup.page.width - setup.margins.left - setup.margins.right,
    height: setup.page.height - setup.margins.top - setup.margins.bottom,
  };
  const spare = { across: room.width - width * page.scale, down: room.height - height * page.scale };
  const x = setup.margins.left + (setup.centered.across ? spare.across / 2 : setup.rightToLeft ? spare.across : 0);
  const y = setup.margins.top + (setup.centered.down ? spare.down / 2 : 0);
  pen.save();
  pen.transform(page.scale, x, y);
  const placed = placeCells(merges, shown, rows);
  for (const { cell, box } of placed)
    if (cell.style.fill) pen.fill(box.x, box.y, box.width, box.height, cell.style.fill);
  if (setup.gridLines) drawGrid(pen, shown, placed);
  for (const { cell, box } of placed) drawBorders(pen, cell, box);
  placed.forEach((one, at) => {
    const isWhole = drawText(pen, one, roomBeside(placed, at, width), measure);
    if (!isWhole) cut.add(`${columnName(one.cell.column)}${one.row}`);
  });
  if (setup.headings) drawHeadings(pen, shown, measure);
  pen.restore();
}

const endOf = (strips: readonly Strip[]): number =>
  strips.reduce((most, { start, size }) => Math.max(most, start + size), 0);

/** Columns from right to left; the row's numbers then stand at the right. */
function mirrored(columns: readonly Strip[]): Strip[] {
  const end = endOf(columns);
  return columns.map((one) => ({ ...one, start: end - one.start - one.size }));
}

function placeCells(merges: Merges, page: TablePage, rows: ReadonlyMap<number, Row>): Placed[] {
  const columns = new Map(page.columns.map((strip) => [strip.at, strip]));
  return page.rows.flatMap((strip) => {
    const cells = rows.get(strip.at)?.cells ?? [];
    return cells.flatMap((cell): Placed[] => {
      const column = columns.get(cell.column);
      if (!column) return [];
      const area = merges.at(strip.at, cell.column);
      const own = { x: column.start, y: strip.start, width: column.size, height: strip.size };
      if (!area) return [{ cell, row: strip.at, box: own, isMerged: false }];
      // What a merged cell's others hold is not shown.
      return isFirstOf(area, strip.at, cell.column)
        ? [{ cell, row: strip.at, box: boxOf(area, page), isMerged: true }]
        : [];
    });
  });
}

/** What of an area stands on a page. */
function boxOf({ top, bottom, left, right }: Area, page: TablePage): Box {
  const rows = page.rows.filter(({ at }) => at >= top && at <= bottom);
  const columns = page.columns.filter(({ at }) => at >= left && at <= right);
  const [x, y] = [Math.min(...columns.map(({ start }) => start)), Math.min(...rows.map(({ start }) => start))];
  return {
    x,
    y,
    width: columns.reduce((sum, { size }) => sum + size, 0),
    height: rows.reduce((sum, { size }) => sum + size, 0),
  };
}

/** A text that is longer than its cell goes on over empty ones beside it, as it does on a screen. */
function roomBeside(placed: readonly Placed[], at: number, width: number): Beside {
  const { box } = placed[at]!;
  const next = placed.slice(at + 1, at + 40).find((one) => one.cell.text !== '');
  const before = placed.slice(Math.max(0, at - 40), at).findLast((one) => one.cell.text !== '');
  const isBeside = (one: Placed | undefined): one is Placed => one !== undefined && one.box.y === box.y;
  const others = [next, before].filter(isBeside);
  const right = Math.min(width, ...others.filter((one) => one.box.x > box.x).map((one) => one.box.x));
  const left = Math.max(0, ...others.filter((one) => one.box.x < box.x).map((one) => one.box.x + one.box.width));
  return { left, right };
}

function drawGrid(pen: Pen, { rows, columns }: TablePage, placed: readonly Placed[]): void {
  const [width, height] = [endOf(columns), endOf(rows)];
  const [left, top] = [Math.min(...columns.map(({ start }) => start)), rows[0]?.start ?? 0];
  const ends = [left, ...columns.map(({ start, size }) => start + size)];
  for (const x of ends) pen.line([x, top], [x, height], GRID.width, GRID.color);
  for (const y of [top, ...rows.map(({ start, size }) => start + size)]) {
    pen.line([left, y], [width, y], GRID.width, GRID.color);
  }
  // Through a merged cell no line goes.
  for (const { cell, box, isMerged } of placed) {
    if (isMerged) pen.fill(box.x + 0.3, box.y + 0.3, box.width - 0.6, box.height - 0.6, cell.style.fill ?? '#ffffff');
  }
}

function drawBorders(pen: Pen, { style: { borders } }: Cell, { x, y, width, height }: Box): void {
  const corners = {
    left: [x, y, x, y + height],
    top: [x, y, x + width, y],
    right: [x + width, y, x + width, y + height],
    bottom: [x, y + height, x + width, y + height],
  } as const;
  for (const edge of EDGES) {
    const border = borders[edge];
    const [fromX, fromY, toX, toY] = corners[edge];
    if (border) pen.line([fromX, fromY], [toX, toY], border.width, border.color, border.dash?.join(' '));
  }
}

/** @returns whether all of it is seen */
function drawText(pen: Pen, { cell, box, isMerged }: Placed, beside: Beside, measure: Measure): boolean {
  if (cell.text === '') return true;
  const set = setText(cell, box, isMerged ? null : beside, measure);
  const { font } = cell.style;
  const color = cell.color ?? font.color;
  if (set.clip) {
    pen.save();
    pen.clip(set.clip.x, set.clip.y, set.clip.width, set.clip.height);
  }
  for (const { text, x, y, width } of set.lines) {
    pen.text(text, measure.typefaceOf(cell), set.size, x, y, color);
    if (font.underline) pen.line([x, y + set.size * 0.12], [x + width, y + set.size * 0.12], set.size / 15, color);
    if (font.strike) pen.line([x, y - set.size * 0.28], [x + width, y - set.size * 0.28], set.size / 15, color);
  }
  if (set.clip) pen.restore();
  return set.isWhole;
}

/** "A", "B", … "Z", "AA" */
function columnName(at: number): string {
  const letter = String.fromCharCode(65 + (at % 26));
  return at < 26 ? letter : columnName(Math.floor(at / 26) - 1) + letter;
}

function drawHeadings(pen: Pen, { rows, columns }: TablePage, measure: Measure): void {
  const write = (text: string, box: Box): void => {
    pen.fill(box.x, box.y, box.width, box.height, HEADING_STYLE.fill!);
    const cell = { column: 0, text, style: HEADING_STYLE, isNumber: false };
    drawText(pen, { cell, row: 0, box, isMerged: true }, { left: 0, right: 0 }, measure);
  };
  const first = Math.min(...columns.map(({ start }) => start));
  const x = first >= HEADING.width ? 0 : endOf(columns);
  for (const { at, start, size } of columns)
    write(columnName(at), { x: start, y: 0, width: size, height: HEADING.height });
  for (const { at, start, size } of rows) write(String(at), { x, y: start, width: HEADING.width, height: size });
}
