import type { DocumentFacts } from '../pages/facts';
import { selectPages, type SelectionContext } from '../pages/selection';
import { SelectionError } from '../pages/selection-error';
import { writeSelection, writeTerms } from '../pages/selection-write';
import type { Ticket } from './ticket';

/**
 * The ticket with one document's pages named by their place instead of by their printed labels, in its selection and in
 * its routes: the same pages, in a form in which any page can be named, also one whose label stands on another too.
 * @param document counted from 1; a route without a document is left as it is, unless there is but one document
 * A text that cannot be read is left for the planner to name.
 */
export function byPosition(ticket: Ticket, documents: readonly DocumentFacts[], document: number): Ticket {
  const entry = ticket.documents[document - 1];
  const facts = documents[document - 1];
  if (!entry || !facts || entry.numbering === 'position') return ticket;
  const context: SelectionContext = {
    facts,
    rotate: entry.rotate,
    numbering: entry.numbering,
    forgiving: false,
    mayBeEmpty: true,
  };
  const last = facts.pages.length;
  const pages = rewrite(entry.pages, context, (numbers) => writeSelection(numbers, last));
  return {
    ...ticket,
    documents: ticket.documents.map((one) => (one === entry ? { ...one, pages, numbering: 'position' as const } : one)),
    routes: ticket.routes.map((route) => {
      const forAll = route.document === undefined;
      if (route.document !== document && !(forAll && documents.length === 1)) return route;
      const write = (numbers: number[]): string => writeTerms(sorted(numbers), last);
      return { ...route, pages: rewrite(route.pages, { ...context, forgiving: forAll }, write) };
    }),
  };
}

function rewrite(text: string, context: SelectionContext, write: (pages: number[]) => string): string {
  try {
    return write(selectPages(text, context));
  } catch (error) {
    if (error instanceof SelectionError) return text;
    throw error;
  }
}

const sorted = (pages: readonly number[]): number[] => [...new Set(pages)].sort((a, b) => a - b);
