import { matchSize, saySize, type PageFacts } from '@foglio/core';

/** What can be picked beside all, odd and even. */
export interface Pick {
  readonly label: string;
  /** In the selection language. */
  readonly pages: string;
}

/** Where the document has such pages and others. @param rotate degrees by which it is turned */
export function picksOf(pages: readonly PageFacts[], rotate: number): Pick[] {
  const sideways = rotate % 180 !== 0;
  const sizes = new Set(pages.map(({ width, height }) => matchSize(width, height).name));
  const landscape = pages.filter(({ width, height }) => width > height !== sideways).length;
  const coloured = pages.filter(({ color }) => color === true).length;
  const some = (count: number): boolean => count > 0 && count < pages.length;
  return [
    ...(some(landscape) ? ['Landscape', 'Portrait'] : []).map((label) => ({
      label,
      pages: `all ${label.toLowerCase()}`,
    })),
    ...(some(coloured) ? [{ label: 'With colour', pages: 'all color' }] : []),
    ...(sizes.size > 1 ? [...sizes] : []).flatMap((name) => {
      const short = name.split('_')[1] ?? '';
      return name.startsWith('custom') ? [] : [{ label: saySize(name), pages: `all size ${short}` }];
    }),
  ];
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
