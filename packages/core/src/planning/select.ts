import type { DocumentFacts } from '../pages/facts';
import { selectPages } from '../pages/selection';
import type { Ticket } from '../ticket/ticket';
import { inPlace } from '../ticket/selection-place';
import { TicketError } from '../ticket/ticket-error';

/** The most pages a plan may have in all documents together (model, Choosing pages). */
const MAX_PAGES = 100_000;

/** Step 1. For each document, its pages in the order its selection gives; a page selected twice stands twice. */
export function select(ticket: Ticket, documents: readonly DocumentFacts[]): number[][] {
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
