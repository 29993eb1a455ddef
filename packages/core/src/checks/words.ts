import type { PageName } from '../plan/plan';

/** More pages than this are told by their number. */
const MOST_NAMED = 4;

/** "1 sheet", "240 sheets". */
export const countOf = (count: number, noun: string): string => `${count} ${noun}${count === 1 ? '' : 's'}`;

export const countSheets = (count: number): string => countOf(count, 'sheet');

/** "3", "3 and 7", "3, 7 and 9". */
export const listOf = (names: readonly (string | number)[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

/** "page 3", "pages 3, 7 and 9", "12 pages"; with several documents each page tells its own. */
export function namePages(pages: readonly PageName[], documents: number): string {
  if (pages.length > MOST_NAMED) return countOf(pages.length, 'page');
  const name = ({ document, page }: PageName): string =>
    documents > 1 ? `${page} of document ${document}` : `${page}`;
  return `${pages.length === 1 ? 'page' : 'pages'} ${listOf(pages.map(name))}`;
}
