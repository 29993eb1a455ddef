import type { DocumentFacts, Heading } from './facts';

/** Pages from one to another, both counted from 1 and within the range. */
export interface PageRange {
  readonly from: number;
  readonly to: number;
}

/** A heading nearer to the upper edge than this part of the page begins the page (model, Choosing pages). */
const TOP_OF_PAGE = 0.1;

/**
 * The sections of a document: its top-level outline entries, each from its page to the page before the next one. A
 * section has at least its first page, also where the next begins on it; pages before the first section are in none.
 */
export function sectionsOf({ outline = [], pages }: DocumentFacts): PageRange[] {
  const starts = outline.filter((heading) => heading.level === 1).map((heading) => heading.page);
  return starts.map((from, index) => {
    const next = starts[index + 1] ?? pages.length + 1;
    return { from, to: Math.max(from, next - 1) };
  });
}

/** The pages on which a section begins. */
export const sectionStarts = (facts: DocumentFacts): Set<number> =>
  new Set(sectionsOf(facts).map((section) => section.from));

/**
 * The pages of a heading: from its page to the page before the next heading of the same or a higher level; that page too
 * where the next heading starts below its top tenth, since the heading's text then ends there.
 */
export function headingRange({ outline = [], pages }: DocumentFacts, heading: Heading): PageRange {
  const after = outline.slice(outline.indexOf(heading) + 1);
  const next = after.find((other) => other.level <= heading.level);
  if (!next) return { from: heading.page, to: Math.max(heading.page, pages.length) };
  const to = next.top > TOP_OF_PAGE ? next.page : next.page - 1;
  return { from: heading.page, to: Math.max(heading.page, to) };
}

/** Titles are compared as they are read aloud: without regard to case, spaces and quotation marks. */
export const titleKey = (title: string): string =>
  title
    .replace(/["\u201c\u201d]/g, '')
    .replace(/\s+/g, ' ')
    .trim()
    .toLowerCase();

/** The headings of that title, in the outline's order. */
export function findHeadings({ outline = [] }: DocumentFacts, title: string): Heading[] {
  const key = titleKey(title);
  return outline.filter((heading) => titleKey(heading.title) === key);
}
