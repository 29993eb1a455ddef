import { Pen } from '../type/pen';
import { remarksOnLetters } from '../type/remarks';
import { Typefaces, type Typeface } from '../type/typeface';
import { drawPage, type Indexed } from './draw';
import { Measure } from './measure';
import { Merges } from './merges';
import { areasOf, pagesOfArea, type TablePage } from './pages';
import { READABLE, type Band, type Table } from './table';

/** Points. */
const BAND_SIZE = 9;

/** What comes of tables. */
export interface LaidTables {
  readonly pages: number;
  /** What a person should know of how they came out, in sentences. */
  readonly remarks: readonly string[];
}

/** How tables are laid out. */
export interface LayingOut {
  /** As the lines at head and foot name it. */
  readonly file: string;
  /** Whether the tables are sections by their names. */
  readonly outlined: boolean;
  /** Pages that are drawn, of tables that are not all there: how many there will be nobody knows yet. */
  readonly most?: number;
  /** Told now and then how many pages are drawn, of how many. */
  readonly progress?: (done: number, of: number) => void;
}

/** Pages from one word on how far it is to the next. */
const TOLD_EVERY = 50;

/** More than anybody prints; a table that takes more is not what was meant. */
const MOST_PAGES = 20_000;

/** More pages than may be. */
export class TooManyPages extends Error {
  override readonly name = 'TooManyPages';

  constructor(readonly pages: number) {
    super(`${pages} pages`);
  }
}

/**
 * Lays tables out one after the other, each on pages of its own and under its name in the outline.
 *
 * Of long tables the rows are given up as soon as they are drawn: what was drawn takes room itself.
 *
 * @param document without pages; it is left open
 * @throws TooManyPages
 */
export function layOutTables(
  document: PDFKit.PDFDocument,
  tables: readonly Table[],
  { file, outlined, most = Infinity, progress = () => undefined }: LayingOut,
): LaidTables {
  const typefaces = new Typefaces();
  const measure = new Measure(typefaces);
  const pen = new Pen(document);
  const parted = tables.map((table): Parted[number] => part(table, measure));
  const count = parted.reduce((sum, { pages }) => sum + pages.length, 0);
  if (count > MOST_PAGES) throw new TooManyPages(count);
  const small = remarksOnSize(parted);
  let number = 0;
  for (const { indexed, pages } of parted) {
    const { table } = indexed;
    for (const [at, page] of pages.entries()) {
      if (number === most) break;
      number += 1;
      const { width, height } = table.setup.page;
      document.addPage({ size: [width, height], margin: 0 });
      if (outlined && at === 0) document.outline.addItem(table.name);
      drawPage(pen, indexed, page, measure);
      drawBands(pen, table, measure, typefaces, {
        '&P': number,
        '&N': most === Infinity ? count : '…',
        '&A': table.name,
        '&F': file,
      });
      pen.flush();
      giveUpRows(indexed, page, pages[at + 1]);
      if (number % TOLD_EVERY === 0) progress(number, count);
    }
  }
  return {
    pages: count,
    remarks: [...small, ...remarksOnCut(parted), ...remarksOnLetters(typefaces.missing)],
  };
}

/** Where the fewest pages on which it can be read are wanted, and it may be turned, the way that takes fewer. */
function part(table: Table, measure: Measure): Parted[number] {
  const merges = new Merges(table.merges);
  const rows = new Map(table.rows.map((row) => [row.number, row]));
  const cut = new Set<string>();
  const { scale, mayTurn, page } = table.setup;
  const turned = { ...table, setup: { ...table.setup, page: { width: page.height, height: page.width } } };
  const ways = scale.kind === 'readable' && mayTurn ? [table, turned] : [table];
  return ways
    .map((way) => ({
      indexed: { table: way, merges, rows, cut },
      pages: areasOf(way).flatMap((area) => pagesOfArea(way, area, merges, measure)),
    }))
    .reduce((best, one) => (one.pages.length < best.pages.length ? one : best));
}

/** What stands on a page, and on no later one. */
function giveUpRows({ table, rows }: Indexed, page: TablePage, next: TablePage | undefined): void {
  const [from, to] = table.setup.titleRows ?? [0, -1];
  const last = page.rows.at(-1)?.at ?? 0;
  // A page that begins further up shows rows again, with other columns.
  const goesOn = next?.rows.every(({ at }) => at > last || (at >= from && at <= to));
  if (next && (!goesOn || table.setup.downFirst)) return;
  for (const { at } of page.rows) if (at < from || at > to) rows.get(at)?.cells.splice(0);
}

type Fields = Readonly<Record<string, string | number>>;

function drawBands(pen: Pen, { setup }: Table, measure: Measure, typefaces: Typefaces, fields: Fields): void {
  const typeface = typefaces.of({ family: 'carlito', bold: false, italic: false });
  const { margins, page } = setup;
  if (setup.head) drawBand(pen, setup.head, setup, typeface, margins.header + BAND_SIZE, fields);
  if (setup.foot) drawBand(pen, setup.foot, setup, typeface, page.height - margins.footer - 2, fields);
}

function drawBand(
  pen: Pen,
  band: Band,
  { page, margins }: Pick<Table['setup'], 'page' | 'margins'>,
  typeface: Typeface,
  y: number,
  fields: Fields,
): void {
  for (const place of ['left', 'center', 'right'] as const) {
    const text = band[place].replace(/&[PNAF&]/g, (field) => String(fields[field] ?? '&'));
    if (text === '') continue;
    const width = typeface.width(text) * BAND_SIZE;
    const x = {
      left: margins.left,
      center: (page.width - width) / 2,
      right: page.width - margins.right - width,
    }[place];
    pen.text(text, typeface, BAND_SIZE, x, y, '#000000');
  }
}

type Parted = readonly { readonly indexed: Indexed; readonly pages: readonly TablePage[] }[];

/** Cells that are named where texts are cut. */
const MOST_NAMED = 3;

/** Which texts are cut. */
function remarksOnCut(parted: Parted): string[] {
  const cut = parted.flatMap(({ indexed: { table, cut: cells } }) =>
    [...cells].map((cell) => `${cell} of “${table.name}”`),
  );
  if (cut.length === 0) return [];
  const named = `${cut.slice(0, MOST_NAMED).join(', ')}${cut.length > MOST_NAMED ? ' and others' : ''}`;
  return [
    cut.length === 1
      ? `One text is longer than its cell and cut, as it is on a screen: ${named}.`
      : `${cut.length} texts are longer than their cells and cut, as they are on a screen: ${named}.`,
  ];
}

/** Which tables come out too small to be read. */
function remarksOnSize(parted: Parted): string[] {
  const small = parted.flatMap(({ indexed: { table }, pages }) => {
    const scale = pages[0]?.scale ?? 1;
    const sizes = table.rows.flatMap(({ cells }) =>
      cells.filter(({ text }) => text !== '').map((one) => one.style.font.size),
    );
    const least = sizes.reduce((smallest, one) => Math.min(smallest, one), Infinity) * scale;
    return least < READABLE - 0.05 ? [`“${table.name}”: text from ${least.toFixed(1)} pt`] : [];
  });
  return small.length === 0 ? [] : [`Small to read: ${small.join('; ')}. Choose “as large as can be read”.`];
}
