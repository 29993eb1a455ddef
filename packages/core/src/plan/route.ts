import type { DocumentFacts, PageFacts } from '../pages/facts';
import type { PageSettings, Ticket } from '../ticket/ticket';
import type { PageRules } from './page-rules';
import type { Extent } from './place';

/**
 * Alike pages that follow each other in the order of printing: of one document, ruled by one route, of one size. A job has
 * few stretches and many pages, so what is reckoned is reckoned once a stretch. Documents and pages are counted from 1.
 */
export interface Stretch {
  readonly document: number;
  readonly pages: readonly number[];
  /** Index of the route that rules the pages, from 0; -1 where none does. */
  readonly route: number;
  readonly settings: PageSettings;
  /**
   * As they are read, after their own Rotate entry and the ticket's `rotate`, in points. Pages of one size share the very
   * same object, so later steps may compare by identity.
   */
  readonly size: Extent;
}

/** Step 2. The selected pages with the routes and the settings that rule them. */
export function route(
  selected: readonly (readonly number[])[],
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  rules: PageRules,
): Stretch[] {
  const sizeOf = sizeFinder();
  return selected.flatMap((pages, index) => {
    const document = index + 1;
    const facts = documents[index]?.pages ?? [];
    const ownRotate = ticket.documents[index]?.rotate ?? 0;
    const stretches: Stretch[] = [];
    let own: { readonly route: number; readonly page: PageFacts; readonly pages: number[] } | null = null;
    for (const page of pages) {
      const found = facts[page - 1] as PageFacts;
      const ruler = rules.routeOf(document, page);
      if (own && own.route === ruler && own.page.width === found.width && own.page.height === found.height) {
        own.pages.push(page);
        continue;
      }
      own = { route: ruler, page: found, pages: [page] };
      const settings = rules.settingsOfRoute(ruler);
      const size = sizeOf(found, (settings.rotate ?? ownRotate) % 180 !== 0);
      stretches.push({ document, pages: own.pages, route: ruler, settings, size });
    }
    return stretches;
  });
}

/** Finds the one object for each size; turned sideways, width and height change places. */
function sizeFinder(): (page: PageFacts, sideways: boolean) => Extent {
  const known = new Map<string, Extent>();
  return (page, sideways) => {
    const size = sideways ? { width: page.height, height: page.width } : { width: page.width, height: page.height };
    const key = `${size.width} ${size.height}`;
    const same = known.get(key);
    if (!same) known.set(key, size);
    return same ?? size;
  };
}
