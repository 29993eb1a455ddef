import type { PageFacts } from '../pages/facts';
import type { PageName } from '../plan/plan';
import { uniquePages, type CheckContext } from './context';

/** The printed pages left in colour by the ticket of whose facts something holds. */
export function pagesInColor({ documents, runs }: CheckContext, holds: (facts: PageFacts) => boolean): PageName[] {
  const found: PageName[] = [];
  for (const run of runs) {
    for (const { document, page, settings } of run.pages) {
      const facts = documents[document - 1]?.pages[page - 1];
      if (settings.color === 'auto' && facts && holds(facts)) found.push({ document, page });
    }
  }
  return uniquePages(found);
}
