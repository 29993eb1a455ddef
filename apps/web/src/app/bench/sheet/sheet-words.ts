import type { Sheet, Ticket } from '@foglio/core';
import { sayBind } from '@foglio/sentence';
import { sayFace } from '../lanes/lane-words';

/**
 * Under a side of a sheet: "Front, page 1", "Back, not printed".
 *
 * @param names of the documents, where there are several
 * @param isBacks nothing but backs is printed, on sheets that have their fronts
 */
export function sayCaption(
  sheet: Sheet,
  back: boolean,
  { names, isBacks }: { readonly names: readonly string[]; readonly isBacks: boolean },
): string {
  if (!back) return `${isBacks ? 'Back' : 'Front'}, ${sayFace(sheet.front, names)}`;
  if (isBacks) return 'Front, printed before';
  if (sheet.back) return `Back, ${sayFace(sheet.back, names)}`;
  return `Back, ${sheet.sides === 'one-sided' ? 'not printed' : 'blank'}`;
}

/** "100 %", "71 % and 50 %" */
export function sayScales(sheet: Sheet): string {
  const scales = new Set(
    [...sheet.front.cells, ...(sheet.back?.cells ?? [])].map(({ scale }) => (scale * 100).toFixed(1)),
  );
  const said = [...scales].map((scale) => `${scale.replace(/\.0$/, '')} %`);
  return said.length === 0 ? 'nothing printed' : said.join(' and ');
}

/** How the set turns over as it is held, which is what the sentence says; and on which edge this sheet turns then. */
export function sayTurning({ sides, signature }: Sheet, bind: Ticket['bind']): string {
  if (signature !== undefined) return 'on its short edge, and folds in the middle';
  if (sides === 'one-sided') return 'printed on one side';
  const edge = sides === 'two-sided-long-edge' ? 'long' : 'short';
  return `${sayBind(bind)}, on its ${edge} edge`;
}

/** Whether a two-sided sheet, as it is read, turns over sideways. */
export const turnsLikeBook = ({ sides, front }: Sheet): boolean =>
  (front.orientation === 'portrait') === (sides === 'two-sided-long-edge');
