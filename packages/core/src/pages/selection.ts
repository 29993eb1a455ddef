import { orientationOf } from '../paper/orientation';
import type { DocumentFacts } from './facts';
import { SelectionError } from './selection-error';
import { parseSelection, type Filter, type Item, type PageRef, type Term } from './selection-parse';

/** A document as selections see it: its facts, and how the ticket turns it. */
export interface SelectionContext {
  readonly facts: DocumentFacts;
  /** Degrees clockwise, from the ticket; decides portrait and landscape together with the page itself. */
  readonly rotate: number;
  /** True: a page that is not there matches nothing, as in a route without a document; false: it is an error. */
  readonly forgiving: boolean;
  /** True: no page at all is no error, as in a route. */
  readonly mayBeEmpty?: boolean;
}

const MAX_PAGES = 100_000;

/**
 * The pages a selection text names in one document, counted from 1, in the order typed and as often as named.
 *
 * @throws SelectionError where the text cannot be read, a page is not there, or nothing is left
 */
export function selectPages(text: string, context: SelectionContext): number[] {
  if (context.facts.pages.length === 0) {
    throw new SelectionError(`${context.facts.name} has no pages`, 0, 0, 'a document with pages', null);
  }
  const pages = evaluate(parseSelection(text), context);
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

function evaluate(items: readonly Item[], context: SelectionContext): number[] {
  const chosen: number[] = [];
  for (const item of items) {
    let pages = termPages(item.term, context);
    for (const step of item.steps) {
      if (step.kind === 'filter') pages = pages.filter((page) => passes(page, step.filter, context));
      else pages = repeat(pages, step.count, step.at);
    }
    if (item.but.length > 0) {
      const left = new Set(item.but.flatMap((term) => termPages(term, context)));
      pages = pages.filter((page) => !left.has(page));
    }
    guardAmount(chosen.length + pages.length, 0);
    for (const page of pages) chosen.push(page);
  }
  return chosen;
}

function repeat(pages: readonly number[], count: number, at: number): number[] {
  guardAmount(pages.length * count, at);
  const repeated: number[] = [];
  for (let time = 0; time < count; time += 1) for (const page of pages) repeated.push(page);
  return repeated;
}

function termPages(term: Term, context: SelectionContext): number[] {
  const last = context.facts.pages.length;
  if (term.kind === 'group') return evaluate(term.items, context);
  if (term.kind === 'all') return range(1, last);
  const from = term.from ? pageNumber(term.from, context) : 1;
  const to = term.to ? pageNumber(term.to, context) : last;
  if (context.forgiving) return range(from, to).filter((page) => page >= 1 && page <= last);
  return range(from, to);
}

function range(from: number, to: number): number[] {
  const length = Math.abs(to - from) + 1;
  guardAmount(length, 0);
  const step = to < from ? -1 : 1;
  return Array.from({ length }, (_, index) => from + index * step);
}

function pageNumber(ref: PageRef, context: SelectionContext): number {
  const last = context.facts.pages.length;
  if (ref.page === 'last') return last;
  // A forgiving reading needs no more than "past the end", and no array as long as a mistyped number.
  if (context.forgiving) return Math.min(ref.page, last + 1);
  if (ref.page < 1 || ref.page > last) {
    const repair = ref.page < 1 ? '1' : String(last);
    const message = `page ${ref.page} is not in ${context.facts.name}, whose last page is ${last}`;
    throw new SelectionError(message, ref.at, ref.length, `a page from 1 to ${last}`, repair);
  }
  return ref.page;
}

function passes(page: number, filter: Filter, { facts, rotate }: SelectionContext): boolean {
  if (filter === 'odd') return page % 2 === 1;
  if (filter === 'even') return page % 2 === 0;
  const { width, height } = facts.pages[page - 1] as { width: number; height: number };
  const sideways = rotate % 180 !== 0;
  return orientationOf(sideways ? height : width, sideways ? width : height) === filter;
}

function guardAmount(pages: number, at: number): void {
  if (pages <= MAX_PAGES) return;
  throw new SelectionError(`this chooses more than ${MAX_PAGES} pages`, at, 1, `${MAX_PAGES} pages at most`, null);
}
