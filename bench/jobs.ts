import type { DocumentFacts, Ticket, TicketInput } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';

/** A document of so many A4 pages. */
export const documentOf = (count: number): DocumentFacts => ({
  name: 'manual.pdf',
  pages: Array.from({ length: count }, () => ({ width: 595.276, height: 841.89 })),
});

/** Two-sided, with routes of seven pages each to four trays in turn. */
export function ticketOf(pages: number, routes: number, settings: Partial<TicketInput> = {}): Ticket {
  const stretch = Math.floor(pages / routes);
  return readTicket({
    version: 1,
    documents: [{ file: 'manual.pdf' }],
    sides: 'two-sided',
    routes: Array.from({ length: routes }, (_, index) => ({
      pages: `${index * stretch + 1}-${index * stretch + 7}`,
      tray: `tray-${(index % 4) + 1}`,
    })),
    ...settings,
  });
}
