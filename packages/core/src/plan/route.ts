import type { DocumentFacts, PageFacts } from '../pages/facts';
import type { PageSettings, Ticket } from '../ticket/ticket';
import type { PageRules } from './page-rules';
import type { Extent } from './place';

/** One page to be printed, with what rules it. Document and page are counted from 1. */
export interface RoutedPage {
  readonly document: number;
  readonly page: number;
  /** Index of the route that rules the page, from 0; -1 where none does. */
  readonly route: number;
  readonly settings: PageSettings;
  /**
   * As it is read, after its own Rotate entry and the ticket's `rotate`, in points. Pages of one size share the very same
   * object, so later steps may compare by identity.
   */
  readonly size: Extent;
}

/** Step 2. Each selected page with the route and the settings that rule it. */
export function route(
  selected: readonly (readonly number[])[],
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  rules: PageRules,
): RoutedPage[] {
  const sizeOf = sizeFinder();
  const routed: RoutedPage[] = [];
  selected.forEach((pages, index) => {
    const document = index + 1;
    const facts = documents[index]?.pages ?? [];
    const ownRotate = ticket.documents[index]?.rotate ?? 0;
    for (const page of pages) {
      const ruler = rules.routeOf(document, page);
      const settings = rules.settingsOfRoute(ruler);
      const size = sizeOf(facts[page - 1] as PageFacts, (settings.rotate ?? ownRotate) % 180 !== 0);
      routed.push({ document, page, route: ruler, settings, size });
    }
  });
  return routed;
}

/** Finds the one object for each size; turned sideways, width and height change places. */
function sizeFinder(): (page: PageFacts, sideways: boolean) => Extent {
  const known = new Map<string, Extent>();
  let last: Extent = { width: NaN, height: NaN };
  return (page, sideways) => {
    const width = sideways ? page.height : page.width;
    const height = sideways ? page.width : page.height;
    if (last.width === width && last.height === height) return last;
    const key = `${width} ${height}`;
    last = known.get(key) ?? { width, height };
    known.set(key, last);
    return last;
  };
}
