import type { DocumentFacts, PageFacts } from './facts';

/** What is printed on a page; a page without a label of its own is known by its place (ISO 32000-1, 12.4.2). */
export const labelOf = (page: PageFacts, number: number): string => page.label ?? String(number);

const known = new WeakMap<readonly PageFacts[], Map<string, number>>();

/**
 * Pages by their labels in lower case; of pages with the same label the first. Made once a document, since every route
 * is read against it.
 */
export function pagesByLabel({ pages }: DocumentFacts): ReadonlyMap<string, number> {
  const found = known.get(pages);
  if (found) return found;
  const byLabel = new Map<string, number>();
  pages.forEach((page, index) => {
    const label = labelOf(page, index + 1).toLowerCase();
    if (!byLabel.has(label)) byLabel.set(label, index + 1);
  });
  known.set(pages, byLabel);
  return byLabel;
}
