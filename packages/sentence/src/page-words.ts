import { listPages, SelectionError, selectPages, type DocumentFacts, type Ticket } from '@foglio/core';

/** A selection longer than this is told by its count. */
export const LONGEST_PAGES = 48;

type TicketDocument = Ticket['documents'][number];

export function sayChosen(document: TicketDocument, facts: DocumentFacts | undefined): string {
  if (!facts) return sayInAny(document.pages);
  const pages = chosenPages(document, facts);
  if (pages === null) return `pages “${document.pages}”`;
  const inOrder = pages.every((page, index) => page === index + 1);
  if (inOrder && pages.length === facts.pages.length) return sayEvery(pages.length);
  const listed = listPages(pages);
  return listed.length > LONGEST_PAGES ? `${pages.length} pages` : listed;
}

/** A selection of any file in words, as far as it means the same in all. */
export function sayInAny(text: string): string {
  const said = text.split(',').map((part) => sayTermInAny(part.trim()));
  if (said.some((one) => one === null)) return `pages “${text}”`;
  return said.length === 1 ? String(said[0]) : `${said.slice(0, -1).join(', ')} and ${said.at(-1)}`;
}

const TERMS: Readonly<Record<string, string>> = {
  all: 'all pages',
  '1': 'the first page',
  last: 'the last page',
  '2-': 'all pages after the first',
  odd: 'odd pages',
  even: 'even pages',
};

function sayTermInAny(term: string): string | null {
  const heading = /^"([^"]+)"$/.exec(term);
  if (heading) return `“${heading[1]}”`;
  const place = /^(\d+):(1|last)?$/.exec(term);
  if (!place) return TERMS[term] ?? (/^\d+$/.test(term) ? `page ${term}` : null);
  const [, section, page] = place;
  return page === undefined
    ? `section ${section}`
    : `the ${page === '1' ? 'first' : 'last'} page of section ${section}`;
}

const sayEvery = (count: number): string =>
  count === 1 ? 'the only page' : count === 2 ? 'both pages' : `all ${count} pages`;

/** Null where the text cannot be read; the shelf tells what is wrong with it. */
export const chosenPages = (document: TicketDocument, facts: DocumentFacts | undefined): number[] | null =>
  readPages(document.pages, facts, document, false);

export function readPages(
  text: string,
  facts: DocumentFacts | undefined,
  { rotate, numbering }: Pick<TicketDocument, 'rotate' | 'numbering'>,
  forgiving: boolean,
): number[] | null {
  if (!facts) return null;
  try {
    return selectPages(text, { facts, rotate, numbering, forgiving, mayBeEmpty: forgiving });
  } catch (error) {
    if (error instanceof SelectionError) return null;
    throw error;
  }
}
