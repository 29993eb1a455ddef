import type { Route, Ticket } from './ticket';

/**
 * The ticket with one of its documents printed twice, one after the other, the second time in a way of its own: the office's
 * copy on yellow, the customer's on white. What is said of single pages holds for both; for all others of the second there
 * is a route, which says nothing different yet.
 *
 * @param document counted from 1
 */
export function printTwice(ticket: Ticket, document: number): Ticket {
  const order = ticket.documents.flatMap((_, index) => (index + 1 === document ? [document, document] : [index + 1]));
  const twice = arrangeDocuments(ticket, order);
  return { ...twice, routes: [...twice.routes, { document: document + 1, pages: 'all', paper: {} }] };
}

/**
 * The ticket with its documents in another order, some left out or there several times. Routes go with their documents:
 * those of one that is left out go too, and one that is there twice has them twice.
 *
 * @param order for each place, which of the documents comes there, counted from 1
 * @throws RangeError where a document is named that is not there, or none is left
 */
export function arrangeDocuments(ticket: Ticket, order: readonly number[]): Ticket {
  if (order.length === 0) throw new RangeError('a ticket has at least one document');
  const documents = order.map((from) => {
    const document = ticket.documents[from - 1];
    if (!document) throw new RangeError(`there is no document ${from}`);
    return document;
  });
  const routes = ticket.routes.flatMap((route): Route[] => {
    if (route.document === undefined) return [route];
    return order.flatMap((from, index) => (from === route.document ? [{ ...route, document: index + 1 }] : []));
  });
  return { ...ticket, documents, routes };
}
