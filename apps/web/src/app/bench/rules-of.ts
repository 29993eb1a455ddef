import { pageRules, TicketError, type DocumentFacts, type PageRules, type Ticket } from '@foglio/core';

/**
 * What rules each page; null while some selection cannot be read. The worker says so too, but later: until then the screen
 * has the new ticket, and nothing that tells of its trouble.
 */
export function rulesOf(ticket: Ticket, documents: readonly DocumentFacts[]): PageRules | null {
  try {
    return pageRules(ticket, documents);
  } catch (error) {
    if (error instanceof TicketError) return null;
    throw error;
  }
}
