import type { PageFacts } from '../pages/facts';
import type { PageName } from '../plan/plan';
import { isBlank } from '../planning/behind';
import { uniquePages, type CheckContext } from './context';

/** The printed pages left in colour by the ticket of whose facts something holds. */
export function pagesInColor({ documents, runs }: CheckContext, holds: (facts: PageFacts) => boolean): PageName[] {
  const found: PageName[] = [];
  for (const run of runs) {
    for (const stretch of run.stretches) {
      const { document, pages, settings } = stretch;
      if (settings.color !== 'auto' || isBlank(stretch)) continue;
      const facts = documents[document - 1]?.pages ?? [];
      for (const page of pages) if (holds(facts[page - 1] as PageFacts)) found.push({ document, page });
    }
  }
  return uniquePages(found);
}
