import { listPages, SelectionError, selectPages, type DocumentFacts, type Ticket } from '@foglio/core';

/** A selection longer than this is told by its count. */
export const LONGEST_PAGES = 48;

type TicketDocument = Ticket['documents'][number];

export function sayChosen(document: TicketDocument, facts: DocumentFacts | undefined): string {
  const pages = chosenPages(document, facts);
  if (pages === null || !facts) return `pages “${document.pages}”`;
  const inOrder = pages.every((page, index) => page === index + 1);
  if (inOrder && pages.length === facts.pages.length) return sayEvery(pages.length);
  const listed = listPages(pages);
  return listed.length > LONGEST_PAGES ? `${pages.length} pages` : listed;
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
