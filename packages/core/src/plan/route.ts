import type { DocumentFacts, PageFacts } from '../pages/facts';
import type { PageSettings, Ticket } from '../ticket/ticket';
import type { PageRules } from './page-rules';
import type { SelectedPage } from './select';

/** A selected page with what rules it, and its size as it is read: after its own Rotate entry and the ticket's `rotate`. */
export interface RoutedPage extends SelectedPage {
  /** Index of the route that rules the page, from 0; -1 where none does. */
  readonly route: number;
  readonly settings: PageSettings;
  readonly width: number;
  readonly height: number;
}

/** Step 2. Each selected page with the route and the settings that rule it. */
export function route(
  selected: readonly SelectedPage[],
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  rules: PageRules,
): RoutedPage[] {
  return selected.map(({ document, page }) => {
    const ruler = rules.routeOf(document, page);
    const settings = rules.settingsOfRoute(ruler);
    const rotate = settings.rotate ?? ticket.documents[document - 1]?.rotate ?? 0;
    const { width, height } = documents[document - 1]?.pages[page - 1] as PageFacts;
    return rotate % 180 === 0
      ? { document, page, route: ruler, settings, width, height }
      : { document, page, route: ruler, settings, width: height, height: width };
  });
}
