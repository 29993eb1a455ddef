import type { DocumentFacts } from '../pages/facts';
import { selectPages } from '../pages/selection';
import { routeSettings, ticketSettings, type PageSettings, type Ticket } from '../ticket/ticket';
import { inPlace, type SelectedPage } from './select';

export interface RoutedPage extends SelectedPage {
  /** Index of the route that rules the page, from 0; -1 where none does. */
  readonly route: number;
  readonly settings: PageSettings;
}

/**
 * Step 2. The first route, in ticket order, that names a page rules it. Settings are made once a route, so pages of one
 * route share the very same object, which lets later steps compare by identity.
 */
export function route(
  selected: readonly SelectedPage[],
  ticket: Ticket,
  documents: readonly DocumentFacts[],
): RoutedPage[] {
  const settings = ticket.routes.map((one) => routeSettings(ticket, one));
  const unrouted = ticketSettings(ticket);
  const rulers = documents.map((facts, index) => routesOfDocument(ticket, facts, index + 1));
  return selected.map(({ document, page }) => {
    const ruler = (rulers[document - 1] as Int32Array)[page] as number;
    return { document, page, route: ruler, settings: settings[ruler] ?? unrouted };
  });
}

/** For each page of a document, counted from 1, the index of the route that rules it, or -1. */
function routesOfDocument(ticket: Ticket, facts: DocumentFacts, document: number): Int32Array {
  const rulers = new Int32Array(facts.pages.length + 1).fill(-1);
  const rotate = ticket.documents[document - 1]?.rotate ?? 0;
  ticket.routes.forEach((one, index) => {
    if (one.document !== undefined && one.document !== document) return;
    const forgiving = one.document === undefined;
    const pages = inPlace(`routes[${index}].pages`, () =>
      selectPages(one.pages, { facts, rotate, forgiving, mayBeEmpty: true }),
    );
    for (const page of pages) if (rulers[page] === -1) rulers[page] = index;
  });
  return rulers;
}

/** Tells the degrees clockwise by which the ticket or a route turns a page, before all else. */
export function pageRotations(
  ticket: Ticket,
  documents: readonly DocumentFacts[],
): (document: number, page: number) => number {
  const rulers = documents.map((facts, index) => routesOfDocument(ticket, facts, index + 1));
  return (document, page) => {
    const own = ticket.routes[rulers[document - 1]?.[page] ?? -1]?.rotate;
    return own ?? ticket.documents[document - 1]?.rotate ?? 0;
  };
}
