import type { DocumentFacts } from './facts';
import { findHeadings, headingRange, sectionsOf, titleKey, type PageRange } from './outline';
import { pagesByLabel } from './page-labels';
import { filterTest } from './selection-filter';
import { SelectionError } from './selection-error';
import { parseSelection, type Item, type PageRef, type SectionRef, type Term } from './selection-parse';

/** A document as selections see it: its facts, and how the ticket takes it. */
export interface SelectionContext {
  readonly facts: DocumentFacts;
  /** Degrees clockwise, from the ticket; decides portrait and landscape together with the page itself. */
  readonly rotate: number;
  /** "labels": numbers mean the labels printed on the pages; "position" unless given. */
  readonly numbering?: 'position' | 'labels';
  /** True: a page that is not there matches nothing, as in a route without a document; false: it is an error. */
  readonly forgiving: boolean;
  /** True: no page at all is no error, as in a route. */
  readonly mayBeEmpty?: boolean;
}

/** The context while one text is read. */
interface Reading extends Required<Omit<SelectionContext, 'mayBeEmpty'>> {
  /** Pages that its terms have named so far, those left out again included. */
  named: number;
}

const MAX_PAGES = 100_000;

/** Keeps the time of reading in bounds however a text of 10,000 characters is made up. */
const MAX_NAMED = 1_000_000;

/**
 * The pages a selection text names in one document, counted from 1, in the order typed and as often as named.
 *
 * @throws SelectionError where the text cannot be read, a page is not there, or nothing is left
 */
export function selectPages(text: string, context: SelectionContext): number[] {
  if (context.facts.pages.length === 0) {
    throw new SelectionError(`${context.facts.name} has no pages`, 0, 0, 'a document with pages', null);
  }
  const items = parseSelection(text, { labels: context.numbering === 'labels' });
  const { facts, rotate, numbering, forgiving } = context;
  const pages = evaluate(items, { facts, rotate, numbering: numbering ?? 'position', forgiving, named: 0 });
  if (pages.length === 0 && !context.forgiving && !context.mayBeEmpty) {
    throw new SelectionError(
      `this chooses no page of ${context.facts.name}`,
      0,
      text.length,
      'at least one page',
      'all',
    );
  }
  return pages;
}

function evaluate(items: readonly Item[], reading: Reading): number[] {
  const [only] = items;
  if (only && items.length === 1) return itemPages(only, reading);
  const chosen: number[] = [];
  for (const item of items) {
    const pages = itemPages(item, reading);
    guardAmount(chosen.length + pages.length, 0);
    for (const page of pages) chosen.push(page);
  }
  return chosen;
}

function itemPages({ term, filters, but, times, timesAt }: Item, reading: Reading): number[] {
  let pages = termPages(term, reading);
  for (const filter of filters) pages = pages.filter(filterTest(filter, reading.facts, reading.rotate));
  if (but.length > 0) {
    const left = new Set<number>();
    for (const one of but) for (const page of termPages(one, reading)) left.add(page);
    pages = pages.filter((page) => !left.has(page));
  }
  return repeat(pages, times, timesAt);
}

function repeat(pages: number[], times: number, at: number): number[] {
  if (times === 1 || pages.length === 0) return pages;
  guardAmount(pages.length * times, at);
  const repeated: number[] = [];
  for (let time = 0; time < times; time += 1) for (const page of pages) repeated.push(page);
  return repeated;
}

function termPages(term: Term, reading: Reading): number[] {
  const pages = namedPages(term, reading);
  reading.named += pages.length;
  if (reading.named > MAX_NAMED) {
    const message = `this names more than ${MAX_NAMED} pages, those left out again included`;
    throw new SelectionError(message, 0, 1, 'a shorter way to say it', null);
  }
  return pages;
}

function namedPages(term: Term, reading: Reading): number[] {
  const { facts, forgiving } = reading;
  const last = facts.pages.length;
  switch (term.kind) {
    case 'group':
      return evaluate(term.items, reading);
    case 'all':
      return range(1, last);
    case 'range': {
      const from = term.from ? pageNumber(term.from, reading) : 1;
      const to = term.to ? pageNumber(term.to, reading) : last;
      if (from === null || to === null) return [];
      if (!forgiving) return range(from, to);
      // "2-" and "2-last" go upward and "last-2" down: of one page they mean none, not that page.
      const isOpen = term.to === null || term.to.kind === 'last';
      if (isOpen ? from > to : term.from?.kind === 'last' && from < to) return [];
      return rangeWithin(from, to, last);
    }
    case 'section':
      return sectionPages(term.from, term.to, reading);
    case 'heading':
      return headingPages(term, reading);
  }
}

/** Up or down by one, both ends included. */
function range(from: number, to: number): number[] {
  const length = Math.abs(to - from) + 1;
  guardAmount(length, 0);
  const step = to < from ? -1 : 1;
  const pages = new Array<number>(length);
  for (let index = 0; index < length; index += 1) pages[index] = from + index * step;
  return pages;
}

/** What of a range lies within a document. */
function rangeWithin(from: number, to: number, last: number): number[] {
  if (Math.max(from, to) < 1 || Math.min(from, to) > last) return [];
  const within = (page: number): number => Math.min(Math.max(page, 1), last);
  return range(within(from), within(to));
}

/** The page a reference means; null where none is meant and the reading is forgiving. */
function pageNumber(ref: PageRef, reading: Reading): number | null {
  const { facts, forgiving, numbering } = reading;
  const last = facts.pages.length;
  if (ref.kind === 'last') return last;
  if (numbering === 'labels') return labelledPage(ref, reading);
  const page = Number(ref.text);
  // A forgiving reading needs no more than "past the end", and no array as long as a mistyped number.
  if (forgiving) return Math.min(page, last + 1);
  if (page < 1 || page > last) {
    const repair = page < 1 ? '1' : String(last);
    const message = `page ${page} is not in ${facts.name}, whose last page is ${last}`;
    throw new SelectionError(message, ref.at, ref.length, `a page from 1 to ${last}`, repair);
  }
  return page;
}

function labelledPage(ref: PageRef, { facts, forgiving }: Reading): number | null {
  const byLabel = pagesByLabel(facts);
  const page = byLabel.get(ref.text) ?? byLabel.get(ref.text.replace(/^0+(?=\d)/, ''));
  if (page !== undefined) return page;
  if (forgiving) return null;
  const labels = [...byLabel.keys()];
  const message = `no page of ${facts.name} is labelled "${ref.text}"; its last page is ${labels.at(-1)}`;
  throw new SelectionError(message, ref.at, ref.length, `a label from ${labels[0]} to ${labels.at(-1)}`, null);
}

function sectionPages(from: SectionRef, to: SectionRef | null, reading: Reading): number[] {
  const start = sectionOf(from, reading);
  if (!start) return [];
  if (!from.page) return range(start.from, start.to);
  const first = pageInSection(from.page, start, reading);
  if (!to) return first.there ? [first.page] : [];
  const end = sectionOf(to, reading);
  if (!end) return [];
  // "1:3-2:" goes to the end of section 2.
  const last = to.page ? pageInSection(to.page, end, reading) : { page: end.to, there: true };
  return first.there || last.there ? range(first.page, last.page) : [];
}

function sectionOf(ref: SectionRef, { facts, forgiving }: Reading): PageRange | null {
  const sections = sectionsOf(facts);
  const section = sections[ref.section - 1];
  if (section || forgiving) return section ?? null;
  const count = sections.length;
  const message = `section ${ref.section} is not in ${facts.name}, which has ${count === 0 ? 'no sections' : count}`;
  const expected = count === 0 ? 'page numbers' : `a section from 1 to ${count}`;
  throw new SelectionError(message, ref.at, ref.length, expected, count === 0 ? null : String(count));
}

/** A page past the section's end is an error, or in a forgiving reading its last page, marked as not there. */
function pageInSection(ref: PageRef, section: PageRange, { forgiving }: Reading): { page: number; there: boolean } {
  const count = section.to - section.from + 1;
  const number = ref.kind === 'last' ? count : Number(ref.text);
  if (number >= 1 && number <= count) return { page: section.from + number - 1, there: true };
  if (forgiving) return { page: number < 1 ? section.from : section.to, there: false };
  const repair = number < 1 ? '1' : String(count);
  const message = `page ${number} is not in this section, whose last page is ${count}`;
  throw new SelectionError(message, ref.at, ref.length, `a page from 1 to ${count}`, repair);
}

/** Where several headings have the title, the pages of all of them. */
function headingPages({ title, at, length }: Extract<Term, { kind: 'heading' }>, reading: Reading): number[] {
  const { facts, forgiving } = reading;
  const headings = findHeadings(facts, title);
  if (headings.length === 0 && !forgiving) {
    const known = facts.outline ?? [];
    const near = known.find((one) => titleKey(one.title).includes(titleKey(title)));
    const repair = near ? `"${near.title.replace(/["\u201c\u201d]/g, '')}"` : null;
    const expected = known.length === 0 ? 'page numbers: the document has no headings' : 'the title of a heading';
    throw new SelectionError(`"${title}" is not a heading of ${facts.name}`, at, length, expected, repair);
  }
  return headings.flatMap((heading) => {
    const { from, to } = headingRange(facts, heading);
    return range(from, to);
  });
}

function guardAmount(pages: number, at: number): void {
  if (pages <= MAX_PAGES) return;
  throw new SelectionError(`this chooses more than ${MAX_PAGES} pages`, at, 1, `${MAX_PAGES} pages at most`, null);
}
