import { type PDFDict, PDFName, type PDFContext, type PDFRef } from '@cantoo/pdf-lib';
import {
  everySheet,
  pageRules,
  type Cell,
  type DocumentFacts,
  type Mark,
  type PageRules,
  type Plan,
  type Sheet,
  type Side,
  type Ticket,
  visibleBox,
  wholePage,
} from '@foglio/core';
import { catalogObject, describeFile, type ImposedPage } from './catalog';
import { greyPages, type GreyPages, type PageOfDocument } from './grey-pages';
import { linePages, type LinedSide } from './line-pages';
import { decimal } from './number';
import { multiply, turning, type Matrix } from './page-box';
import { packedStream } from './objects/flate';
import { writeFile } from './objects/write-file';
import { joined } from './save';
import { formOf, layersOfAll, openSources, type Source } from './source';
import { newTarget, type Target } from './target';

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
  /**
   * "one" unless given; "all": every set in the order the plan's `collate` says, with the slips between them. Either way
   * after the information sheet, if there is one.
   */
  readonly sets?: 'one' | 'all';
  /**
   * Whether the pages that the ticket wants in monochrome are left no colour; otherwise it is left to the printer, which
   * can do so for a whole job.
   */
  readonly grey?: boolean;
}

/**
 * Writes one set of a plan, or every set, as an imposed PDF: a page a side in sheet order, each at its paper's size, turned as read
 * (model, Command line). The ticket is attached as `ticket.json`.
 *
 * @throws PdfError where a source cannot be read, or the program for grey is missing
 */
export async function impose({ plan, ...input }: ImposeInput): Promise<Uint8Array> {
  for await (const pieces of imposeParts({ ...input, plans: [plan] })) return joined(pieces);
  throw new Error('nothing was imposed');
}

/**
 * Imposes several plans over the same documents, which are read once for all of them: the files of what goes as several
 * jobs.
 *
 * @returns each file in pieces, most of them parts of the documents
 * @throws PdfError like {@link impose}
 */
export async function* imposeParts({
  plans,
  ticket,
  documents,
  blanks,
  sets = 'one',
  grey = false,
}: Omit<ImposeInput, 'plan'> & { readonly plans: readonly Plan[] }): AsyncGenerator<readonly Uint8Array[], void> {
  const rules = pageRules(ticket, documents);
  const files = documents.map((document) => document.bytes);
  const wanted = grey ? monochromePages(plans, rules) : [];
  const greys = wanted.length > 0 ? await greyPages(files, wanted) : { files: [], places: [] };
  const withGreys = [...files, ...greys.files];
  const parts = plans.map((plan) => fileSheets(plan, sets));
  const lined = linedSides(parts.flat());
  const withLines = lined.length > 0 ? [...withGreys, await linePages(lined.map(({ page }) => page))] : withGreys;
  const sources = await openSources(withLines);
  const target = newTarget();
  const { context } = target;
  const find = finder(sources, files.length, wanted, greys);
  const lineOf = new Map(lined.map(({ side }, index) => [side, { source: sources.at(-1) as Source, page: index + 1 }]));
  const layers = layersOfAll(sources, target);
  for (const sheets of parts) {
    const pagesRef = context.nextRef();
    const pages = imposedPages(sheets, blanks);
    const kids = pages.map(({ sheet, which }) =>
      context.register(
        pageObject(sheet, sheet[which], pagesRef, context, (side) => [
          ...side.cells.map((cell) => drawCell(cell, find(cell), target, rules)),
          ...drawTexts(lineOf.get(side), target),
        ]),
      ),
    );
    context.assign(pagesRef, context.obj({ Type: 'Pages', Kids: kids, Count: kids.length }));
    const catalog = catalogObject(pagesRef, layers, context);
    context.trailerInfo.Root = context.register(catalog);
    describeFile(context, catalog, pages, ticket);
    yield writeFile(target);
  }
}

/** The sheets of the file: as they are read, whichever is printed first. */
function fileSheets(plan: Plan, sets: NonNullable<ImposeInput['sets']>): readonly Sheet[] {
  const informationSheet = plan.informationSheet && ({ ...plan.informationSheet, fed: 'first' } as const);
  const one = { ...plan, informationSheet, ...(sets === 'one' ? { sets: 1 } : {}) };
  return [...everySheet(one, plan.sheets)].map(({ sheet }) => sheet);
}

/** The pages of some plans that are wanted in monochrome, each once, in the order of printing. */
function monochromePages(plans: readonly Plan[], rules: PageRules): PageOfDocument[] {
  const pages = new Map<string, PageOfDocument>();
  for (const sheet of plans.flatMap(({ sheets }) => sheets)) {
    for (const { document, page } of [...sheet.front.cells, ...(sheet.back?.cells ?? [])]) {
      if (rules.settingsOf(document, page).color === 'monochrome') pages.set(`${document} ${page}`, { document, page });
    }
  }
  return [...pages.values()];
}

/** Where a page is drawn from: its document, or a file of grey pages, which come after the documents. */
interface Place {
  readonly source: Source;
  /** Counted from 1. */
  readonly page: number;
}

function finder(
  sources: readonly Source[],
  files: number,
  wanted: readonly PageOfDocument[],
  { places }: GreyPages,
): (cell: Cell) => Place {
  const grey = new Map(wanted.map(({ document, page }, index) => [`${document} ${page}`, places[index]]));
  return ({ document, page }) => {
    const inGrey = grey.get(`${document} ${page}`);
    return inGrey === undefined
      ? { source: sources[document - 1] as Source, page }
      : { source: sources[files + inGrey.file] as Source, page: inGrey.page };
  };
}

/** The pages of the file, in order; the back of a one-sided sheet is a blank page. */
function imposedPages(sheets: readonly Sheet[], blanks: ImposeInput['blanks']): ImposedPage[] {
  const fillUp = blanks === 'every-sheet' && sheets.some((sheet) => sheet.back !== null);
  return sheets.flatMap((sheet): ImposedPage[] => {
    const front = { sheet, which: 'front' } as const;
    return sheet.back || fillUp ? [front, { sheet, which: 'back' }] : [front];
  });
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
  draw: (side: Side) => readonly Drawing[],
): PDFDict {
  const orientation = side?.orientation ?? sheet.front.orientation;
  const { width, height } = sheet.paper;
  const box = orientation === 'portrait' ? [0, 0, width, height] : [0, 0, height, width];
  const drawings = side ? draw(side) : [];
  const page = target.obj({
    Type: 'Page',
    Parent: parent,
    MediaBox: box,
    Resources: { XObject: Object.fromEntries(drawings.map(({ name, form }) => [name, form])) },
  });
  const operators = [...drawings.map((drawing) => drawing.operators), ...drawMarks(side?.marks ?? [])];
  if (operators.length > 0) {
    const content = operators.join('\n');
    page.set(PDFName.of('Contents'), target.register(packedStream(latin1(content), {}, target)));
  }
  return page;
}

const latin1 = (text: string): Uint8Array => Buffer.from(text, 'latin1');

/** The operators that put a page into its cell: clip, then one transformation, then the form. */
function drawCell(cell: Cell, { source, page }: Place, target: Target, rules: PageRules): Drawing {
  const form = formOf(source, page, target);
  const rotation = rules.rotationOf(cell.document, cell.page);
  const { width, height } = form.box;
  const { x, y } = wholePage(cell, rotation % 180 === 0 ? form.box : { width: height, height: width });
  const place: Matrix = [cell.scale, 0, 0, cell.scale, x, y];
  const matrix = multiply(turning(rotation + cell.turn, width, height), place);
  const seen = visibleBox(cell);
  const clipped = cell.clip || cell.source ? [seen.x, seen.y, seen.width, seen.height] : null;
  const clip = clipped ? `${clipped.map(decimal).join(' ')} re W n ` : '';
  const name = `D${cell.document}P${cell.page}`;
  return { name, form: form.ref, operators: `q ${clip}${matrix.map(decimal).join(' ')} cm /${name} Do Q` };
}

/** The sides that have texts, each once, with what is to be written on them. */
function linedSides(sheets: readonly Sheet[]): { readonly side: Side; readonly page: LinedSide }[] {
  const sides = new Map<Side, LinedSide>();
  for (const { front, back, paper } of sheets) {
    for (const side of [front, ...(back ? [back] : [])]) {
      if (!side.texts) continue;
      const isPortrait = side.orientation === 'portrait';
      const [width, height] = isPortrait ? [paper.width, paper.height] : [paper.height, paper.width];
      sides.set(side, { width, height, texts: side.texts });
    }
  }
  return [...sides].map(([side, page]) => ({ side, page }));
}

/** Texts lie over everything else, as large as they are. */
function drawTexts(place: Place | undefined, target: Target): Drawing[] {
  if (!place) return [];
  const form = formOf(place.source, place.page, target);
  return [{ name: 'Lines', form: form.ref, operators: 'q /Lines Do Q' }];
}

/** Frames and cut marks are hairlines in black (common practice: a quarter of a point). */
function drawMarks(marks: readonly Mark[]): string[] {
  if (marks.length === 0) return [];
  const paths = marks.map(([x1, y1, x2, y2]) => {
    const [a, b, c, d] = [x1, y1, x2, y2].map(decimal);
    return `${a} ${b} m ${c} ${d} l`;
  });
  return ['q 0.25 w 0 G', ...paths, 'S Q'];
}
