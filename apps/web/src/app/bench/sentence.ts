import {
  findTray,
  listPages,
  SelectionError,
  selectPages,
  saySize,
  trayName,
  type DocumentFacts,
  type Printer,
  type Route,
  type Ticket,
} from '@foglio/core';
import type { JobBrief } from '../api/records';
import { nameWithoutKind } from '../documents/name-without-kind';

/** What a phrase of the sentence changes. */
export type Control = 'pages' | 'copies' | 'sets' | 'sides' | 'bind' | 'tray' | 'routes';

export interface Phrase {
  readonly text: string;
  /** Null: words between the phrases. */
  readonly control: Control | null;
  /** Which document or route, from 0, where the control is about one. */
  readonly index: number;
  /** Differs from the house set-up. */
  readonly strong: boolean;
}

/** More routes than this are told by their number, so that the sentence stays within three lines. */
const MOST_ROUTES = 3;

/** A selection longer than this is told by its count. */
const LONGEST_PAGES = 48;

/** The whole ticket as one English sentence or two; read aloud it is what will happen. */
export function sentence(ticket: Ticket, documents: readonly DocumentFacts[], printer: Printer): Phrase[] {
  const plain = (text: string): Phrase => ({ text, control: null, index: 0, strong: false });
  const phrase = (control: Control, text: string, strong: boolean, index = 0): Phrase => ({
    text,
    control,
    index,
    strong,
  });
  const said: Phrase[] = [plain('Print ')];
  ticket.documents.forEach((document, index) => {
    const facts = documents[index];
    if (index > 0) said.push(plain(index === ticket.documents.length - 1 ? ' and ' : ', '));
    said.push(phrase('pages', sayChosen(document, facts), document.pages !== 'all', index));
    const turned = document.rotate === 0 ? '' : `, turned ${document.rotate}°,`;
    said.push(plain(` of ${documentTitle(ticket, facts)}${turned}`));
  });
  said.push(
    plain(', '),
    phrase('copies', ticket.copies === 1 ? 'one copy' : `${ticket.copies} copies`, ticket.copies > 1),
  );
  if (ticket.copies > 1) {
    const sets = ticket.collate ? 'complete sets' : 'the same sheet again before the next';
    said.push(plain(' as '), phrase('sets', sets, !ticket.collate));
  }
  const folded = ticket.layout.kind === 'booklet';
  const twoSided = ticket.sides === 'two-sided' || folded;
  said.push(plain(', on '), phrase('sides', twoSided ? 'both sides' : 'one side', twoSided));
  if (twoSided && !folded) said.push(plain(' turning '), phrase('bind', sayBind(ticket.bind), ticket.bind !== 'left'));
  said.push(...sayRare(ticket).map((text) => ({ ...plain(text), strong: true })));
  const fromTray = phrase('tray', sayTray(ticket.tray, printer), ticket.tray !== 'auto');
  if (ticket.routes.length === 0) return [...said, plain(', from '), fromTray, plain('.')];
  said.push(plain('. '));
  if (ticket.routes.length > MOST_ROUTES) {
    said.push(phrase('routes', `${ticket.routes.length} routes`, true), plain(' have paper of their own'));
  } else {
    ticket.routes.forEach((route, index) => {
      if (index > 0) said.push(plain('; '));
      said.push(phrase('routes', sayRoute(route, index === 0, ticket, documents, printer), true, index));
    });
  }
  return [...said, plain('; all else comes from '), fromTray, plain('.')];
}

/** A job in short, for a list: "14 pages, 2 copies, both sides: 18 sheets". */
export function brieflyInWords({ ticket, names, sheets }: JobBrief): string {
  const what = names.length > 1 ? `${names.length} documents` : (names[0] ?? 'no document');
  const copies = ticket.copies === 1 ? 'one copy' : `${ticket.copies} copies`;
  const sides = ticket.sides === 'two-sided' ? 'both sides' : 'one side';
  return `${what}, ${copies}, ${sides}: ${sheets === 1 ? '1 sheet' : `${sheets} sheets`}`;
}

type TicketDocument = Ticket['documents'][number];

function documentTitle(ticket: Ticket, facts: DocumentFacts | undefined): string {
  const only = ticket.documents.length === 1 && ticket.title !== '';
  return only ? ticket.title : nameWithoutKind(facts?.name ?? 'a document');
}

function sayChosen({ pages: text, rotate, numbering }: TicketDocument, facts: DocumentFacts | undefined): string {
  const pages = readPages(text, facts, { rotate, numbering });
  if (pages === null || !facts) return `pages “${text}”`;
  const inOrder = pages.every((page, index) => page === index + 1);
  if (inOrder && pages.length === facts.pages.length) return sayAll(pages.length);
  const listed = listPages(pages);
  return listed.length > LONGEST_PAGES ? `${pages.length} pages` : listed;
}

const sayAll = (count: number): string =>
  count === 1 ? 'the only page' : count === 2 ? 'both pages' : `all ${count} pages`;

/** Null where the text cannot be read; the shelf tells what is wrong with it. */
function readPages(
  text: string,
  facts: DocumentFacts | undefined,
  { rotate, numbering }: Pick<TicketDocument, 'rotate' | 'numbering'>,
  forgiving = false,
): number[] | null {
  if (!facts) return null;
  try {
    return selectPages(text, { facts, rotate, numbering, forgiving });
  } catch (error) {
    if (error instanceof SelectionError) return null;
    throw error;
  }
}

export function sayBind(bind: Ticket['bind']): string {
  if (bind === 'top') return 'like a pad';
  return bind === 'right' ? 'like a book read from the right' : 'like a book';
}

export function sayTray(id: string, printer: Printer): string {
  if (id === 'auto') return 'whichever tray holds its paper';
  const tray = findTray(printer, id);
  return tray ? trayName(tray) : `“${id}”`;
}

/** "Page 1 comes from Tray 2, on one side" */
function sayRoute(
  route: Route,
  first: boolean,
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  printer: Printer,
): string {
  const place = (route.document ?? 1) - 1;
  const document = ticket.documents[place] ?? { rotate: 0, numbering: 'position' };
  const pages = readPages(route.pages, documents[place], document, true);
  const asRule = pages === null || pages.length === 0 || (documents.length > 1 && route.document === undefined);
  const listed = asRule ? `pages “${route.pages}”` : listPages(pages);
  const one = !asRule && pages.length === 1;
  const of = documents.length > 1 && route.document !== undefined ? ` of document ${route.document}` : '';
  const subject = listed.length > LONGEST_PAGES && pages ? `${pages.length} pages` : listed;
  const verb = route.tray
    ? `${one ? 'comes' : 'come'} from ${sayTray(route.tray, printer)}`
    : one
      ? 'is printed'
      : 'are printed';
  const sides = route.sides
    ? `${route.tray ? ',' : ''} on ${route.sides === 'one-sided' ? 'one side' : 'both sides'}`
    : '';
  const own = route.ownSheet ? ', on a sheet of its own' : '';
  const more = route.paper || route.layout || route.scale || route.margin !== undefined || route.rotate || route.color;
  const text = `${subject}${of} ${verb}${sides}${own}${more ? ', with settings of their own' : ''}`;
  return first ? text[0]?.toUpperCase() + text.slice(1) : text;
}

/** What the ticket holds that has no phrase of its own yet; said all the same, so that the sentence is complete. */
function sayRare(ticket: Ticket): string[] {
  const { scale, paper, margin, color, quality, layout, slips } = ticket;
  const said: string[] = layout.kind === 'booklet' ? [sayBooklet(layout)] : sayGrid(layout);
  if (paper.size !== 'as-page') said.push(`, on ${saySize(paper.size)}`);
  if (paper.type !== null) said.push(`, on ${paper.type}`);
  if (paper.orientation !== 'auto') said.push(`, ${paper.orientation}`);
  if (scale.mode === 'percent') said.push(`, at ${scale.percent} %`);
  if (scale.mode === 'none') said.push(', at actual size');
  if (scale.mode === 'fit') said.push(', as large as fits');
  if (scale.mode === 'fill') said.push(', filling the sheet');
  if (scale.mode === 'fit-width') said.push(', as wide as the sheet');
  if (margin > 0) said.push(`, keeping ${margin} mm free`);
  if (color === 'monochrome') said.push(', in grey');
  if (quality !== 'normal') said.push(quality === 'draft' ? ', as a draft' : ', in high quality');
  if (ticket.newSheet.sections) said.push(', each section on a new sheet');
  if (!ticket.newSheet.documents && ticket.documents.length > 1) said.push(', one document right after the other');
  if (slips.between !== 'nothing') said.push(`, with a blank slip between ${slips.between}`);
  if (ticket.delivery === 'last-to-first') said.push(', last sheet first');
  return said;
}

/** "several on a side" and what is unusual about it. */
function sayGrid(layout: Extract<Ticket['layout'], { kind: 'grid' }>): string[] {
  const { columns, rows, repeat, pagesPerSide, turn, frame, marks } = layout;
  const said: string[] = [];
  const cells = columns !== null && rows !== null ? columns * rows : pagesPerSide;
  const grid = columns !== null && rows !== null ? ` in ${columns} columns and ${rows} rows` : '';
  if (repeat === 'fill-side' && cells > 1) said.push(`, each page ${cells} times on a side${grid}`);
  else if (cells > 1) said.push(`, ${cells} pages on a side${grid}`);
  if (turn === 'best') said.push(', turned where that is larger');
  if (frame) said.push(', framed');
  if (marks === 'cut') said.push(', with cut marks');
  return said;
}

function sayBooklet({ sheetsPerSignature }: Extract<Ticket['layout'], { kind: 'booklet' }>): string {
  if (sheetsPerSignature === 0) return ', folded as a booklet';
  const sheets = sheetsPerSignature === 1 ? 'single sheets' : `${sheetsPerSignature} sheets at a time`;
  return `, folded as a booklet in ${sheets}`;
}
