import { headingRange, sectionsOf } from './outline';
import { selectPages, type SelectionContext } from './selection';
import { SelectionError } from './selection-error';
import { parseSelection, type Item, type PageRef, type SectionRef, type Term } from './selection-parse';

/**
 * Whether a selection means the same in any document, however long: by first and last page, odd and even, sizes,
 * orientation, colour, sections and headings. A page named by its number is this page of one document alone, but for the
 * first, and the second where all after the first is meant. A text that cannot be read fits none.
 */
export function fitsAnyDocument(text: string): boolean {
  try {
    return parseSelection(text, { labels: true }).every(isGeneralItem);
  } catch (error) {
    if (error instanceof SelectionError) return false;
    throw error;
  }
}

const isGeneralItem = ({ term, but }: Item): boolean => isGeneralTerm(term) && but.every(isGeneralTerm);

function isGeneralTerm(term: Term): boolean {
  switch (term.kind) {
    case 'all':
    case 'heading':
      return true;
    case 'group':
      return term.items.every(isGeneralItem);
    case 'range':
      if (isSecond(term.from) && (term.to === null || term.to.kind === 'last')) return true;
      return [term.from, term.to].every((page) => page === null || isGeneralPage(page));
    case 'section':
      return isGeneralPlace(term.from) && (term.to === null || isGeneralPlace(term.to));
  }
}

const isGeneralPage = ({ kind, text }: PageRef): boolean => kind === 'last' || (kind === 'number' && text === '1');
const isSecond = (page: PageRef | null): boolean => page?.kind === 'number' && page.text === '2';
const isGeneralPlace = ({ page }: SectionRef): boolean => page === null || isGeneralPage(page);

/** A stretch of pages and what it may be called in any document. */
interface Named {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

/**
 * A text that fits any document and names the very same pages of this one, or null where there is none: "1, 6" of a
 * document whose second section begins on page 6 is "1, 2:1".
 *
 * @throws SelectionError where the text cannot be read against the document
 */
export function generalised(text: string, context: SelectionContext): string | null {
  if (fitsAnyDocument(text)) return text;
  const pages = selectPages(text, context);
  const names = namesIn(context).sort((a, b) => b.to - b.from - (a.to - a.from));
  const pieces: string[] = [];
  for (let at = 0; at < pages.length;) {
    const named = names.find((one) => runsFrom(pages, at, one));
    if (!named) return null;
    pieces.push(named.text);
    at += named.to - named.from + 1;
  }
  return pieces.join(', ');
}

const runsFrom = (pages: readonly number[], at: number, { from, to }: Named): boolean => {
  for (let page = from; page <= to; page += 1) if (pages[at + page - from] !== page) return false;
  return true;
};

/** Everything in a document that has a name in others too; of two for the same pages the plainer one first. */
function namesIn({ facts, numbering }: SelectionContext): Named[] {
  const last = facts.pages.length;
  // By labels the first page may be called anything.
  const byPlace = numbering !== 'labels';
  const firsts = [
    { from: 1, to: 1, text: '1' },
    { from: 2, to: last, text: '2-' },
  ].filter(({ from, to }) => byPlace && from <= to);
  const sections = sectionsOf(facts).flatMap(({ from, to }, index) => [
    { from, to: from, text: `${index + 1}:1` },
    { from: to, to, text: `${index + 1}:last` },
    { from, to, text: `${index + 1}:` },
  ]);
  const titles = (facts.outline ?? []).map((heading) => heading.title);
  const headings = (facts.outline ?? [])
    .filter(({ title }) => !/["\u201c\u201d]/.test(title) && titles.indexOf(title) === titles.lastIndexOf(title))
    .map((heading) => ({ ...headingRange(facts, heading), text: `"${heading.title}"` }));
  return [
    { from: 1, to: last, text: 'all' },
    ...firsts,
    { from: last, to: last, text: 'last' },
    ...sections,
    ...headings,
  ];
}
