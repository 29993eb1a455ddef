import type { DocumentFacts, PageFacts } from '../pages/facts';
import type { PageSettings, Ticket } from '../ticket/ticket';
import type { PageRules } from '../ticket/page-rules';
import type { Extent } from '../paper/box';
import type { Cell } from '../plan/plan';
import { partFinder } from './parts';
import { BLANK, type Selected } from './select';

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
   * As they are read, after their own Rotate entry and the ticket's `rotate`, in points; of a part of them its own. Pages
   * of one size share the very same object, so later steps may compare by identity.
   */
  readonly size: Extent;
  /** The size of the whole page, where `size` is that of a part of it. */
  readonly pageSize: Extent;
  /** What of the page is printed, on the page as read, in points: [x, y, width, height]; null: all of it. */
  readonly source: Cell['source'];
  /** Set where it is one page that lies behind the page before it, on the same piece; pages may then be `BLANK`. */
  readonly isBack?: true;
}

/** Of a blank; it takes that of the other side of its piece. */
const NO_SIZE: Extent = { width: 0, height: 0 };

/** Step 2. The selected pages with the routes and the settings that rule them. */
export function route(
  selected: readonly Selected[],
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  rules: PageRules,
): Stretch[] {
  const partOf = partFinder(ticket, documents, selected, rules);
  const sizeOf = sizeFinder();
  return selected.flatMap(({ document, pages }) => {
    const facts = documents[document - 1]?.pages ?? [];
    const ownRotate = ticket.documents[document - 1]?.rotate ?? 0;
    const stretches: Stretch[] = [];
    let start = 0;
    while (start < pages.length) {
      const first = pages[start] as number;
      const ruler = rules.routeOf(document, first);
      if (first === BLANK) {
        const settings = rules.settingsOfRoute(ruler);
        stretches.push({ document, pages, route: ruler, settings, size: NO_SIZE, pageSize: NO_SIZE, source: null });
        break;
      }
      const { width, height } = facts[first - 1] as PageFacts;
      let end = start + 1;
      for (; end < pages.length; end += 1) {
        const page = pages[end] as number;
        const found = facts[page - 1] as PageFacts;
        if (found.width !== width || found.height !== height || rules.routeOf(document, page) !== ruler) break;
      }
      const settings = rules.settingsOfRoute(ruler);
      const sideways = (settings.rotate ?? ownRotate) % 180 !== 0;
      const pageSize = sideways ? sizeOf(height, width) : sizeOf(width, height);
      const part = partOf?.({ document, page: first, route: ruler }, pageSize) ?? null;
      const size = part ? sizeOf(part.width, part.height) : pageSize;
      const source: Stretch['source'] = part && [part.x, part.y, part.width, part.height];
      stretches.push({ document, pages: pages.slice(start, end), route: ruler, settings, size, pageSize, source });
      start = end;
    }
    return stretches;
  });
}

/** Finds the one object for each size. */
function sizeFinder(): (width: number, height: number) => Extent {
  const byWidth = new Map<number, Map<number, Extent>>();
  return (width, height) => {
    let byHeight = byWidth.get(width);
    if (!byHeight) byWidth.set(width, (byHeight = new Map<number, Extent>()));
    let size = byHeight.get(height);
    if (!size) byHeight.set(height, (size = { width, height }));
    return size;
  };
}
