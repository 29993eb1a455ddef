import {
  matchSize,
  saySize,
  SelectionError,
  selectPages,
  type DocumentFacts,
  type PageFacts,
  type Ticket,
} from '@foglio/core';

/** A stretch of pages that can be picked with one press. */
export interface Pick {
  readonly label: string;
  /** In the selection language. */
  readonly pages: string;
  /** Whether there are such pages. */
  readonly some: boolean;
}

/**
 * All or none, odd and even, and what else there is where the document has such pages and others.
 *
 * @param rotate degrees by which the document is turned
 * @param isAll whether all pages are printed, so that there is none to add
 */
export function picksOf(pages: readonly PageFacts[], rotate: number, isAll = false): Pick[] {
  const sideways = rotate % 180 !== 0;
  const sizes = [...new Set(pages.map(({ width, height }) => matchSize(width, height).name))];
  const landscape = pages.filter(({ width, height }) => width > height !== sideways).length;
  const coloured = pages.filter(({ color }) => color === true).length;
  const isPart = (count: number): boolean => count > 0 && count < pages.length;
  const pick = (label: string, rule: string, some = true): Pick => ({ label, pages: rule, some });
  return [
    isAll ? pick('None', '', pages.length > 1) : pick('All', 'all'),
    pick('Odd', 'odd', pages.length > 1),
    pick('Even', 'even', pages.length > 1),
    ...(isPart(landscape) ? [pick('Landscape', 'all landscape'), pick('Portrait', 'all portrait')] : []),
    ...(isPart(coloured) ? [pick('With colour', 'all color')] : []),
    ...(sizes.length > 1 ? sizes.filter((name) => !name.startsWith('custom')) : []).map((name) =>
      pick(saySize(name), `all size ${name.split('_')[1]}`),
    ),
  ];
}

/** The pages that are printed, in the order of printing; none while the text cannot be read. */
export function printedPages(
  settings: Ticket['documents'][number] | null,
  facts: DocumentFacts | null,
): readonly number[] {
  if (!facts || !settings) return [];
  try {
    return selectPages(settings.pages, { ...settings, facts, forgiving: false });
  } catch (error) {
    if (error instanceof SelectionError) return [];
    throw error;
  }
}

/** "12 of 14 printed"; where one is printed several times, that too: "2 of 2, 4 printed". */
export function sayPrinted(printed: readonly number[], all: number): string {
  const distinct = new Set(printed).size;
  return distinct === printed.length
    ? `${distinct} of ${all} printed`
    : `${distinct} of ${all}, ${printed.length} printed`;
}

/** The pages printed, with some more of them or without: a new one takes its place in rising order, otherwise comes last. */
export function ticked(pages: readonly number[], wanted: readonly number[], print: boolean): readonly number[] {
  const [before, named] = [new Set(pages), new Set(wanted)];
  if (!print) return pages.filter((page) => !named.has(page));
  return wanted.filter((page) => !before.has(page)).reduce<readonly number[]>(inserted, pages);
}

function inserted(pages: readonly number[], page: number): number[] {
  const rising = pages.every((one, index) => index === 0 || one > (pages[index - 1] as number));
  if (!rising) return [...pages, page];
  const place = pages.findIndex((one) => one > page);
  return place < 0 ? [...pages, page] : [...pages.slice(0, place), page, ...pages.slice(place)];
}
