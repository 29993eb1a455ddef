import type { DocumentFacts } from '../pages/facts';
import type { Ticket } from '../ticket/ticket';
import { pageRules, routePagesIn } from '../ticket/page-rules';
import { choose } from './select';

/** What one route does to the printed pages. */
export interface RouteCatch {
  /** Printed pages that it rules. */
  readonly rules: number;
  /** Printed pages that it names too, but an earlier route rules; by the route's index, from 0. */
  readonly taken: readonly { readonly by: number; readonly pages: number }[];
}

/**
 * For each route of a ticket, which of the printed pages it rules and which an earlier one took from it; a page printed
 * several times counts once.
 *
 * @throws TicketError where a selection cannot be read
 */
export function routeCatches(ticket: Ticket, documents: readonly DocumentFacts[]): RouteCatch[] {
  const rules = pageRules(ticket, documents);
  const printed = choose(ticket, documents).map((pages) => new Set(pages));
  return ticket.routes.map((_, index) => {
    let ruled = 0;
    const taken = new Map<number, number>();
    documents.forEach((facts, position) => {
      for (const page of new Set(routePagesIn(ticket, index, facts, position + 1))) {
        if (!printed[position]?.has(page)) continue;
        const ruler = rules.routeOf(position + 1, page);
        if (ruler === index) ruled += 1;
        else taken.set(ruler, (taken.get(ruler) ?? 0) + 1);
      }
    });
    return { rules: ruled, taken: [...taken].map(([by, pages]) => ({ by, pages })) };
  });
}
