import { type PDFDict, PDFName, PDFObjectCopier, type PDFContext, type PDFRef } from '@cantoo/pdf-lib';
import {
  everySheet,
  pageRules,
  type Cell,
  type DocumentFacts,
  type Line,
  type Plan,
  type Sheet,
  type Side,
  type Ticket,
} from '@foglio/core';
import { catalogObject, describeFile, type ImposedPage } from './catalog';
import { drawFormFields } from './form-fields';
import { convertToGrey } from './grey';
import { decimal } from './number';
import { openPdf, type OpenPdf } from './open';
import { layersOf, type Layers } from './optional-content';
import { multiply, turning, type Matrix } from './page-box';
import { makePageForm, type PageForm } from './page-form';
import { listPages, type PageNode } from './page-tree';
import { damaged } from './pdf-error';
import { savePdf } from './save';

export interface ImposeInput {
  readonly plan: Plan;
  readonly ticket: Ticket;
  /** Facts and bytes of each of the ticket's documents, in its order. */
  readonly documents: readonly (DocumentFacts & { readonly bytes: Uint8Array })[];
  /**
   * "every-sheet": a one-sided sheet among two-sided ones is followed by a blank page, so that the file prints rightly
   * on any duplex printer. "none": it is not, for a file sent with `sides` of its own for each page.
   */
  readonly blanks: 'every-sheet' | 'none';
  /** "one" unless given; "all": every set in the order the plan's `collate` says, with the slips between them. */
  readonly sets?: 'one' | 'all';
  /** Whether every colour is turned to grey, for a file that is kept; a printer does so by itself. */
  readonly grey?: boolean;
}

/** A source opened once, its pages made into forms as they are first placed. */
interface Source {
  readonly pdf: OpenPdf;
  readonly pages: readonly PageNode[];
  readonly forms: Map<number, PageForm>;
  /** Brings objects into the target, each once; null for the source whose context is the target. */
  readonly copier: PDFObjectCopier | null;
}

/**
 * Writes one set of a plan, or every set, as an imposed PDF: a page a side in sheet order, each at its paper's size, turned as read
 * (model, Command line). The ticket is attached as `ticket.json`.
 *
 * @throws PdfError where a source cannot be read, or the program for grey is missing
 */
export async function impose({
  plan,
  ticket,
  documents,
  blanks,
  sets = 'one',
  grey = false,
}: ImposeInput): Promise<Uint8Array> {
  const sources = await openSources(documents.map((document) => document.bytes));
  const target = (sources[0] as Source).pdf.context;
  const { rotationOf } = pageRules(ticket, documents);
  const sheets = sets === 'all' ? [...everySheet(plan, plan.sheets)].map(({ sheet }) => sheet) : plan.sheets;
  const pagesRef = target.nextRef();
  const pages = imposedPages(sheets, blanks);
  const kids = pages.map(({ sheet, which }) =>
    target.register(
      pageObject(sheet, sheet[which], pagesRef, target, (cell) => drawCell(cell, sources, target, rotationOf)),
    ),
  );
  target.assign(pagesRef, target.obj({ Type: 'Pages', Kids: kids, Count: kids.length }));
  const catalog = catalogObject(pagesRef, layersOfAll(sources), target);
  target.trailerInfo.Root = target.register(catalog);
  describeFile(target, catalog, pages, ticket);
  const written = await savePdf(target);
  if (!grey) return written;
  // The other program leaves out what it does not draw.
  const turned = await openPdf(await convertToGrey(written));
  describeFile(turned.context, turned.catalog, pages, ticket);
  return savePdf(turned.context);
}

/** The pages of the file, in order; the back of a one-sided sheet is a blank page. */
function imposedPages(sheets: readonly Sheet[], blanks: ImposeInput['blanks']): ImposedPage[] {
  const fillUp = blanks === 'every-sheet' && sheets.some((sheet) => sheet.back !== null);
  return sheets.flatMap((sheet): ImposedPage[] => {
    const front = { sheet, which: 'front' } as const;
    return sheet.back || fillUp ? [front, { sheet, which: 'back' }] : [front];
  });
}

/** The layers of every source as the target knows them. */
function layersOfAll(sources: readonly Source[]): Layers[] {
  return [...new Set(sources)].map(({ pdf, copier }) => {
    const { all, off } = layersOf(pdf);
    return copier ? { all: all.map((ref) => copier.copy(ref)), off: off.map((ref) => copier.copy(ref)) } : { all, off };
  });
}

/** The same bytes given twice (one file under two documents) are opened once, so fonts and images stand once. */
async function openSources(files: readonly Uint8Array[]): Promise<Source[]> {
  const opened = new Map<Uint8Array, Source>();
  let target: PDFContext | null = null;
  for (const bytes of files) {
    if (opened.has(bytes)) continue;
    const pdf = await openPdf(bytes);
    await drawFormFields(pdf);
    const copier = target ? PDFObjectCopier.for(pdf.context, target) : null;
    target ??= pdf.context;
    opened.set(bytes, { pdf, pages: listPages(pdf), forms: new Map(), copier });
  }
  return files.map((bytes) => opened.get(bytes) as Source);
}

interface Drawing {
  readonly name: string;
  readonly form: PDFRef;
  readonly operators: string;
}

function pageObject(
  sheet: Sheet,
  side: Side | null,
  parent: PDFRef,
  target: PDFContext,
  draw: (cell: Cell) => Drawing,
): PDFDict {
  const orientation = side?.orientation ?? sheet.front.orientation;
  const { width, height } = sheet.paper;
  const box = orientation === 'portrait' ? [0, 0, width, height] : [0, 0, height, width];
  const drawings = (side?.cells ?? []).map(draw);
  const page = target.obj({
    Type: 'Page',
    Parent: parent,
    MediaBox: box,
    Resources: { XObject: Object.fromEntries(drawings.map(({ name, form }) => [name, form])) },
  });
  const operators = [...drawings.map((drawing) => drawing.operators), ...drawLines(side?.lines ?? [])];
  if (operators.length > 0) {
    const content = operators.join('\n');
    page.set(PDFName.of('Contents'), target.register(target.stream(content)));
  }
  return page;
}

/** The operators that put a page into its cell: clip, then one transformation, then the form. */
function drawCell(
  cell: Cell,
  sources: readonly Source[],
  target: PDFContext,
  rotationOf: (document: number, page: number) => number,
): Drawing {
  const source = sources[cell.document - 1] as Source;
  const form = formOf(source, cell.page, target);
  const degrees = rotationOf(cell.document, cell.page) + cell.turn;
  const { width, height } = form.box;
  const place: Matrix = [cell.scale, 0, 0, cell.scale, cell.x, cell.y];
  const matrix = multiply(turning(degrees, width, height), place);
  const clip = cell.clip ? `${cell.clip.map(decimal).join(' ')} re W n ` : '';
  const name = `D${cell.document}P${cell.page}`;
  return { name, form: form.ref, operators: `q ${clip}${matrix.map(decimal).join(' ')} cm /${name} Do Q` };
}

/** Frames and cut marks are hairlines in black (common practice: a quarter of a point). */
function drawLines(lines: readonly Line[]): string[] {
  if (lines.length === 0) return [];
  const paths = lines.map(([x1, y1, x2, y2]) => {
    const [a, b, c, d] = [x1, y1, x2, y2].map(decimal);
    return `${a} ${b} m ${c} ${d} l`;
  });
  return ['q 0.25 w 0 G', ...paths, 'S Q'];
}

function formOf(source: Source, page: number, target: PDFContext): PageForm {
  let form = source.forms.get(page);
  if (!form) {
    const node = source.pages[page - 1];
    if (!node) throw damaged(`page ${page} is missing from the file`);
    form = makePageForm(node, source.pdf.context, page);
    if (source.copier) form = { ...form, ref: source.copier.copy(form.ref) };
    source.forms.set(page, form);
  }
  if (target.lookup(form.ref) === undefined) throw damaged(`page ${page} could not be copied`);
  return form;
}
