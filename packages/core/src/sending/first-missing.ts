import type { Plan } from '../plan/plan';
import { inTwoPasses } from '../planning/passes';
import { isMarked, type MarkedSheet, type Portion } from '../plan/marks';
import { everySheet, isInformationSheet, type SetSheet } from './printing-order';

/**
 * The first sheet that a printing which was broken off has not brought out: after as many as its printer counted. Null where all came
 * out, or where their number does not tell: in two passes, and of marked sheets that come out in another order than their sets.
 *
 * @param done sheets that came out, slips and what stands before the job with them
 */
export function firstMissing(plan: Plan, portion: Portion | null, done: number): MarkedSheet | null {
  const isReversed = plan.delivery === 'last-to-first' && plan.sets > 1;
  if (inTwoPasses(plan) || (isReversed && typeof portion === 'object' && portion !== null)) return null;
  let left = done;
  for (const one of everySheet(plan)) {
    if (!isPrinted(portion, one)) continue;
    if (left > 0) left -= 1;
    else if (!one.sheet.slip && one.sheet.index > 0) return { set: one.set, sheet: one.sheet.index };
  }
  return null;
}

/** As {@link portionPlan} parts them. */
function isPrinted(portion: Portion | null, { set, sheet }: SetSheet): boolean {
  const isBetweenSets = sheet.slip && sheet.index === 0;
  if (portion === null) return true;
  if (portion === 'first-set') return isInformationSheet(sheet) || (set === 1 && !isBetweenSets);
  if (portion === 'other-sets') return isBetweenSets || (set > 1 && !isInformationSheet(sheet));
  return !sheet.slip && isMarked(portion, { set, sheet: sheet.index });
}
