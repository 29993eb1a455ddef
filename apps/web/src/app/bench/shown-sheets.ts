import { informationSheetOf, type Plan, type Sheet } from '@foglio/core';

type PlanSheets = Pick<Plan, 'sheets' | 'informationSheet' | 'slipBetweenSets'>;

/** The number of the first sheet that is shown: the information sheet stands before sheet 1, and has the number 0. */
export const firstShown = ({ informationSheet }: PlanSheets): 0 | 1 => (informationSheet ? 0 : 1);

/** The sheets as they are shown, in order. */
export function shownSheets(plan: PlanSheets): readonly Sheet[] {
  const information = informationSheetOf(plan);
  return information ? [information, ...plan.sheets] : plan.sheets;
}

/** The sheet of that number; null where there is none. */
export const sheetAt = (plan: PlanSheets, number: number): Sheet | null =>
  (number === 0 ? informationSheetOf(plan) : plan.sheets[number - 1]) ?? null;

/** The sheets of a set from one number to another, whichever comes first. */
export const sheetsBetween = ({ sheets }: PlanSheets, one: number, other: number): Sheet[] =>
  sheets.slice(Math.max(0, Math.min(one, other) - 1), Math.max(one, other));
