import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { finish, newDocument } from './intake/made-pages';

/** A4 landscape, in points (ISO 216). */
const PAGE: [number, number] = [841.89, 595.276];
const MARGIN = 40;
const SIZE = 9;
const TITLE_SIZE = 16;
const GAP = 10;
const PADDING = 4;
const INK = '#22303A';
const SOFT = '#5C6A72';
const RULE = '#D3CBBB';

export interface Report {
  readonly title: string;
  /** Said under the title, each a line. */
  readonly lines: readonly string[];
  readonly head: readonly string[];
  readonly rows: readonly (readonly string[])[];
  /** Columns that take what room there is left, their text broken into lines; all others are as wide as their widest entry. */
  readonly wide: readonly string[];
}

const font = (style: string): Promise<Buffer> =>
  readFile(createRequire(import.meta.url).resolve(`dejavu-fonts-ttf/ttf/DejaVuSans${style}.ttf`));

/** A table to be printed: A4 landscape, its head on every page, pages numbered; no row is torn between two. */
export async function writeReport({ title, lines, head, rows, wide }: Report): Promise<Uint8Array> {
  const document = await newDocument();
  document.options.bufferPages = true;
  document.registerFont('text', await font(''));
  document.registerFont('bold', await font('-Bold'));
  document.info.Title = title;
  const widths = columnWidths(document, head, rows, wide);
  let y = beginPage(document);
  document.font('bold').fontSize(TITLE_SIZE).fillColor(INK).text(title, MARGIN, y);
  document.font('text').fontSize(SIZE).fillColor(SOFT);
  for (const line of lines) document.text(line, MARGIN);
  y = document.y + 12;
  y = drawRow(document, head, widths, y, 'bold');
  for (const row of rows) {
    if (y + rowHeight(document, row, widths) > PAGE[1] - MARGIN - SIZE) {
      y = drawRow(document, head, widths, beginPage(document), 'bold');
    }
    y = drawRow(document, row, widths, y, 'text');
  }
  numberPages(document, title);
  return finish(document);
}

function beginPage(document: PDFKit.PDFDocument): number {
  document.addPage({ size: PAGE, margin: MARGIN });
  return MARGIN;
}

function columnWidths(
  document: PDFKit.PDFDocument,
  head: readonly string[],
  rows: Report['rows'],
  wide: readonly string[],
): number[] {
  const widest = (at: number): number =>
    Math.max(
      document
        .font('bold')
        .fontSize(SIZE)
        .widthOfString(head[at] ?? ''),
      ...rows.map((row) => document.font('text').widthOfString(row[at] ?? '')),
    ) + GAP;
  const own = head.map((name, at) => (wide.includes(name) ? 0 : widest(at)));
  const left = PAGE[0] - 2 * MARGIN - own.reduce((sum, width) => sum + width, 0);
  return own.map((width) => (width === 0 ? left / wide.length : width));
}

function rowHeight(document: PDFKit.PDFDocument, row: readonly string[], widths: readonly number[]): number {
  document.font('text').fontSize(SIZE);
  const heights = row.map((text, at) => document.heightOfString(text || ' ', { width: (widths[at] ?? GAP) - GAP }));
  return Math.max(...heights) + 2 * PADDING;
}

/** @returns where the next row begins */
function drawRow(
  document: PDFKit.PDFDocument,
  row: readonly string[],
  widths: readonly number[],
  y: number,
  face: 'bold' | 'text',
): number {
  const height = rowHeight(document, row, widths);
  let x = MARGIN;
  row.forEach((text, at) => {
    const width = widths[at] ?? 0;
    document.font(face).fontSize(SIZE).fillColor(INK);
    document.text(text, x, y + PADDING, { width: width - GAP });
    x += width;
  });
  const bottom = y + height;
  document
    .moveTo(MARGIN, bottom)
    .lineTo(PAGE[0] - MARGIN, bottom)
    .lineWidth(0.5)
    .strokeColor(RULE)
    .stroke();
  return bottom;
}

function numberPages(document: PDFKit.PDFDocument, title: string): void {
  const { start, count } = document.bufferedPageRange();
  for (let at = 0; at < count; at += 1) {
    document.switchToPage(start + at);
    const text = `${title}, page ${at + 1} of ${count}`;
    document.font('text').fontSize(8).fillColor(SOFT);
    document.text(text, MARGIN, PAGE[1] - MARGIN + 6, { width: PAGE[0] - 2 * MARGIN, height: 12, lineBreak: false });
  }
}
