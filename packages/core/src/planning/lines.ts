import { sectionsOf } from '../pages/outline';
import type { DocumentFacts } from '../pages/facts';
import { marginAt, type Printer } from '../printer/printer';
import { mmToPoints } from '../paper/sizes';
import { type LINE_FIELDS } from '../settings/lines';
import type { Layout, Ticket } from '../ticket/ticket';
import { inset, sideBox, without } from './area';
import { isBlank } from './behind';
import { bindingOf, isBackOf } from './binding';
import { cellCount } from './grid';
import { layOut, type LaidOutRun } from './layout';
import { visibleBox } from '../plan/whole-page';
import { sayDay } from '../marks/moment';
import { ASCENT, DESCENT, widthOf } from '../marks/line-widths';
import type { Box } from '../paper/box';
import { overlap } from '../paper/turn-box';
import type { Cell, Side, Text } from '../plan/plan';
import type { Run } from './run';

type LineOfTicket = Ticket['lines'][number];

type Field = (typeof LINE_FIELDS)[number];

/** What a line of text is filled in with. */
export interface LineContext {
  readonly ticket: Ticket;
  readonly documents: readonly DocumentFacts[];
  readonly printer: Printer;
  /** ISO 8601, "2026-09-01T14:05"; a line has no date where it is not known. */
  readonly now?: string | undefined;
}

/**
 * Writes the ticket's lines at the head and foot of every page: at the edge of what the printer can print on where a page
 * has a side to itself, otherwise at the edge of the page where it lies. Pages are counted as they are read, so also on the
 * two halves of a booklet's sheets.
 */
export function withLines(laidOut: readonly LaidOutRun[], context: LineContext): readonly LaidOutRun[] {
  const { ticket, printer } = context;
  if (ticket.lines.length === 0) return laidOut;
  const count = laidOut.reduce((sum, { run }) => sum + pagesIn(run), 0);
  const binding = bindingOf(ticket, laidOut);
  const sectionOf = sectionFinder(context.documents);
  let before = 0;
  return laidOut.map((one) => {
    // Laid out once more with each page's place in the job as its number: what lies where does not depend on numbers.
    const [counted] = layOut([countedRun(one.run, before)], ticket, printer);
    before += pagesIn(one.run);
    const isAlone = hasOwnSide(one.run.settings.layout);
    const faces = one.faces.map((side, face) => {
      const numbers = counted?.faces[face]?.cells ?? [];
      const whole = sideBox(one.run.paper, side.orientation);
      const bound = one.signatures ? null : binding?.(side.orientation, isBackOf(one.run, face));
      const free = bound ? without(whole, bound.edge, bound.free) : whole;
      const printable = overlap(inset(whole, mmToPoints(marginAt(printer, one.run.tray))), free);
      const texts = side.cells.flatMap((cell, at) => {
        const box = isAlone ? printable : overlap(visibleBox(cell), printable);
        const fill = filler(cell, { number: numbers[at]?.page ?? 0, count, sectionOf }, context);
        return ticket.lines.flatMap((line) => textOf(line, fill(line.text), box));
      });
      return texts.length === 0 ? side : { ...side, texts };
    });
    return { ...one, faces };
  });
}

const pagesIn = ({ stretches }: Run): number =>
  stretches.reduce((sum, one) => sum + (isBlank(one) ? 0 : one.pages.length), 0);

/** Whether each page has a side to itself, not only the one that is left over. */
const hasOwnSide = (layout: Layout): boolean =>
  layout.kind === 'tiles' || (layout.kind === 'grid' && cellCount(layout) === 1);

function countedRun(run: Run, before: number): Run {
  let next = before;
  const stretches = run.stretches.map((one) =>
    isBlank(one) ? one : { ...one, pages: one.pages.map(() => (next += 1)) },
  );
  return { ...run, stretches };
}

/** What is known of a page by its place in the job. */
interface Reckoned {
  readonly number: number;
  /** Of all pages of the job. */
  readonly count: number;
  readonly sectionOf: (cell: Cell) => string;
}

/** Fills in what a line says of a page. */
function filler(cell: Cell, { number, count, sectionOf }: Reckoned, context: LineContext): (text: string) => string {
  const { ticket, documents, now } = context;
  const facts = documents[cell.document - 1];
  const values: Readonly<Record<Field, () => string>> = {
    page: () => String(number),
    pages: () => String(count),
    'file page': () => String(cell.page),
    'file pages': () => String(facts?.pages.length ?? 0),
    section: () => sectionOf(cell),
    file: () => (facts?.name ?? '').replace(/\.[^.]+$/, ''),
    title: () => ticket.title,
    date: () => sayDay(now),
  };
  return (text) => text.replace(/\{([^{}]*)\}/g, (all, name: string) => values[name as Field]?.() ?? all);
}

/** Finds the title of the section that a page is in, "" before the first; each document is looked through once, if ever. */
function sectionFinder(documents: readonly DocumentFacts[]): (cell: Cell) => string {
  const known = new Map<number, readonly string[]>();
  return ({ document, page }) => {
    let titles = known.get(document);
    if (!titles) known.set(document, (titles = sectionTitles(documents[document - 1])));
    return titles[page] ?? '';
  };
}

/** The title of the last section that a page is in, by its number. */
function sectionTitles(facts: DocumentFacts | undefined): readonly string[] {
  if (!facts) return [];
  const headings = facts.outline?.filter(({ level }) => level === 1) ?? [];
  const titles = new Array<string>(facts.pages.length + 1).fill('');
  sectionsOf(facts).forEach(({ from, to }, at) => titles.fill(headings[at]?.title ?? '', from, to + 1));
  return titles;
}

const ELLIPSIS = '…';

/** A line in its place within a box; what is too long for it ends in an ellipsis, so that nothing lies outside. */
function textOf({ at, size }: LineOfTicket, said: string, box: Box): Text[] {
  const text = shortened(said.trim(), size, box.width);
  if (text === '') return [];
  const [edge, place] = at.split('-') as ['top' | 'bottom', 'left' | 'center' | 'right'];
  const free = box.width - widthOf(text, size);
  const x = box.x + (place === 'left' ? 0 : place === 'center' ? free / 2 : free);
  const y = edge === 'bottom' ? box.y + DESCENT * size : box.y + box.height - ASCENT * size;
  return [{ text, x, y, size, turn: 0 }];
}

function shortened(text: string, size: number, room: number): string {
  if (widthOf(text, size) <= room) return text;
  const letters = [...text];
  while (letters.length > 0 && widthOf(letters.join('') + ELLIPSIS, size) > room) letters.pop();
  return letters.length === 0 ? '' : letters.join('').trimEnd() + ELLIPSIS;
}

/** What a text takes up on its side. */
export const boxOfText = ({ text, x, y, size }: Text): Box => ({
  x,
  y: y - DESCENT * size,
  width: widthOf(text, size),
  height: (ASCENT + DESCENT) * size,
});

/** A side with its texts turned by half a turn. */
export const turnTexts = (side: Side, across: number, up: number): Text[] | undefined =>
  side.texts?.map((one) => ({ ...one, x: across - one.x, y: up - one.y, turn: one.turn === 0 ? 180 : 0 }));
