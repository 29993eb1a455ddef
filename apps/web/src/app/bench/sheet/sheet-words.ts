import { isBacksAlone, partsOfSet, sayFinishing, type Plan, type Sheet, type Ticket } from '@foglio/core';
import { sayBind } from '@foglio/sentence';
import { documentNames, sayFace } from '../lanes/lane-words';
import { joinedPlaces, tileOf } from '../leafing/joined';

/** What it takes to tell what is on a side. */
export interface FaceWords {
  /** Of the documents, where there are several. */
  readonly names: readonly string[];
  /** Nothing but backs is printed, on sheets that have their fronts. */
  readonly isBacks: boolean;
  /** Of a sheet that is to be joined with others: "2 of 8". */
  readonly joined: string | undefined;
}

export const faceWords = (
  sheet: Sheet,
  documents: readonly { readonly name: string }[],
  plan: Plan | null,
): FaceWords => ({
  names: documentNames(documents),
  isBacks: plan !== null && isBacksAlone(plan),
  joined: plan && tileOf(sheet) ? joinedPlaces(plan).get(sheet.index) : undefined,
});

/** Under a side of a sheet: "Front, page 1", "Back, not printed". */
export function sayCaption(sheet: Sheet, back: boolean, { names, isBacks, joined }: FaceWords): string {
  const part = joined === undefined ? '' : `, ${joined} to be joined`;
  if (!back) return `${isBacks ? 'Back' : 'Front'}, ${sayFace(sheet.front, names)}${part}`;
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

/** "a staple at the top left corner, part 2 of 5"; null where nothing is done to the sheet. */
export function sayFinished(plan: Plan | null, { index }: Sheet): string | null {
  if (!plan?.finishing) return null;
  const parts = partsOfSet(plan);
  const part = parts.findIndex((sheets) => sheets.some((one) => one.index === index));
  if (part < 0) return 'passes the finisher by';
  const said = plan.finishing.finishings.map(sayFinishing).join(', ');
  return parts.length === 1 ? said : `${said}; part ${part + 1} of ${parts.length}`;
}

/** Whether a two-sided sheet, as it is read, turns over sideways. */
export const turnsLikeBook = ({ sides, front }: Sheet): boolean =>
  (front.orientation === 'portrait') === (sides === 'two-sided-long-edge');
