import { saySize, type CheaperName, type SpentKind } from '@foglio/core';
import { sayType } from './paper-type';

/** What was spent, in the words that the screen and the list of deliveries share. */

const KINDS: Readonly<Record<SpentKind, string>> = {
  'one-sided': 'one-sided',
  'two-sided': 'two-sided',
  'several-a-side': 'several a side',
  booklet: 'booklets',
  pieces: 'cut into pieces',
  tiles: 'over several sheets',
};

export const saySpentKind = (kind: SpentKind): string => KINDS[kind];

const CHEAPER: Readonly<Record<CheaperName, string>> = {
  'two-sided': 'on both sides',
  '2-a-side': 'two pages a side',
  '4-a-side': 'four pages a side',
  'in-grey': 'the pages that look grey, in grey',
};

/** "two pages a side, text still 8.4 pt" */
export function sayCheaper(way: CheaperName, smallestTextPt: number | null): string {
  const isSmaller = way.endsWith('a-side') && smallestTextPt !== null;
  return isSmaller ? `${CHEAPER[way]}, text still ${smallestTextPt.toFixed(1)} pt` : CHEAPER[way];
}

/** "A4 letterhead" */
export const saySpentPaper = ({ size, type }: { readonly size: string; readonly type: string | null }): string =>
  type === null ? saySize(size) : `${saySize(size)} ${sayType(type)}`;
