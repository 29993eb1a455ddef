import type { DocumentFacts } from '../pages/facts';
import { selectPages } from '../pages/selection';
import type { Ticket } from '../ticket/ticket';
import { inPlace } from '../ticket/selection-place';
import { TicketError } from '../ticket/ticket-error';

/** The most pages a plan may have in all documents together (model, Choosing pages). */
const MAX_PAGES = 100_000;

/** In the place of a page: a side of a piece that stays blank. */
export const BLANK = 0;

/** Pages of one document that follow each other in the order of printing. */
export interface Selected {
  /** Counted from 1. */
  readonly document: number;
  readonly pages: readonly number[];
}

/** Step 1. The pages in the order of printing: one document after the other, or a page of each in turn. */
export function select(ticket: Ticket, documents: readonly DocumentFacts[]): Selected[] {
  const chosen = choose(ticket, documents);
  const whole = chosen.map((pages, index) => ({ document: index + 1, pages }));
  return ticket.inTurn ? takeTurns(whole, hasBacksBehind(ticket)) : whole;
}

/** Whether pages may be fronts and backs of pieces. */
const hasBacksBehind = ({ layout, routes }: Ticket): boolean =>
  [layout, ...routes.map((route) => route.layout)].some((one) => one?.kind === 'grid' && one.backs === 'behind');

/**
 * The first page of each, then the second of each; one that is at its end is passed over, or stays blank where a front may
 * wait for its back (model, Pages and pieces).
 */
function takeTurns(whole: readonly Selected[], withBlanks: boolean): Selected[] {
  const turns: Selected[] = [];
  const longest = whole.reduce((most, { pages }) => Math.max(most, pages.length), 0);
  for (let turn = 0; turn < longest; turn += 1) {
    for (const { document, pages } of whole) {
      const page = pages[turn] ?? (withBlanks ? BLANK : undefined);
      if (page === undefined) continue;
      turns.push({ document, pages: [page] });
    }
  }
  return turns;
}

/** How many pages a set prints, a page selected twice counting twice; 0 where they cannot be chosen so. */
export function countChosen(ticket: Ticket, documents: readonly DocumentFacts[]): number {
  try {
    return choose(ticket, documents).reduce((sum, pages) => sum + pages.length, 0);
  } catch (error) {
    if (error instanceof TicketError) return 0;
    throw error;
  }
}

/** For each document, its pages in the order its selection gives; a page selected twice stands twice. */
export function choose(ticket: Ticket, documents: readonly DocumentFacts[]): number[][] {
  let count = 0;
  return ticket.documents.map(({ pages, rotate, numbering }, index) => {
    const facts = documents[index] as DocumentFacts;
    const place = (): string => `documents[${index}].pages`;
    const numbers = inPlace(place, () => selectPages(pages, { facts, rotate, numbering, forgiving: false }));
    count += numbers.length;
    if (count > MAX_PAGES) {
      throw new TicketError(place(), `the documents choose more than ${MAX_PAGES} pages in all`, 'choose fewer pages');
    }
    return numbers;
  });
}
