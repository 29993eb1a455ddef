import type { DocumentFacts } from '../pages/facts';
import { selectPages } from '../pages/selection';
import { routeSettings, ticketSettings, type PageSettings, type Rotation, type Ticket } from './ticket';
import { inPlace } from './selection-place';

/** What rules each page of the documents, printed or not. Documents and pages are counted from 1. */
export interface PageRules {
  /** Index of the route that rules a page, from 0; -1 where none does. */
  readonly routeOf: (document: number, page: number) => number;
  /** Made once a route: pages of one route share the very same object, so later steps may compare by identity. */
  readonly settingsOfRoute: (route: number) => PageSettings;
  readonly settingsOf: (document: number, page: number) => PageSettings;
  /** Degrees clockwise by which a page is turned before all else: its route's, otherwise its document's. */
  readonly rotationOf: (document: number, page: number) => Rotation;
}

/**
 * Reads the routes against the documents: the first route, in ticket order, that names a page rules it (model, Planning 2).
 *
 * @throws TicketError where a route's pages cannot be read, or are not there in the document it names
 */
export function pageRules(ticket: Ticket, documents: readonly DocumentFacts[]): PageRules {
  const rulers = documents.map((facts, index) => rulersOf(ticket, facts, index + 1));
  const unrouted = ticketSettings(ticket);
  const settings = ticket.routes.map((route) => routeSettings(ticket, route, unrouted));
  const routeOf = (document: number, page: number): number => rulers[document - 1]?.[page] ?? -1;
  const settingsOfRoute = (route: number): PageSettings => (route < 0 ? unrouted : (settings[route] as PageSettings));
  const settingsOf = (document: number, page: number): PageSettings => settingsOfRoute(routeOf(document, page));
  return {
    routeOf,
    settingsOfRoute,
    settingsOf,
    rotationOf: (document, page) => settingsOf(document, page).rotate ?? ticket.documents[document - 1]?.rotate ?? 0,
  };
}

/** For each page of a document, counted from 1, the index of the route that rules it, or -1. */
function rulersOf(ticket: Ticket, facts: DocumentFacts, document: number): Int32Array {
  const rulers = new Int32Array(facts.pages.length + 1).fill(-1);
  ticket.routes.forEach((_, index) => {
    for (const page of routePagesIn(ticket, index, facts, document)) if (rulers[page] === -1) rulers[page] = index;
  });
  return rulers;
}

/** The pages of one document that a route names, whether it rules them or an earlier route does. @throws TicketError */
export function routePagesIn(ticket: Ticket, route: number, facts: DocumentFacts, document: number): number[] {
  const one = ticket.routes[route];
  if (!one || (one.document !== undefined && one.document !== document)) return [];
  const { rotate, numbering } = ticket.documents[document - 1] ?? { rotate: 0, numbering: 'position' };
  const forgiving = one.document === undefined;
  return inPlace(
    () => `routes[${route}].pages`,
    () => selectPages(one.pages, { facts, rotate, numbering, forgiving, mayBeEmpty: true }),
  );
}
