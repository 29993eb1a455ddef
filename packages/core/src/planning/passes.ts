import type { Printer } from '../printer/printer';
import type { Plan, Sheet } from '../plan/plan';

export type Passes = NonNullable<Plan['passes']>;
export type TwoPasses = Extract<Passes, { readonly length: 2 }>;

/** The passes in which a set is printed: null where no sheet has a back or the printer turns paper over. */
export const passesOf = (sheets: readonly Sheet[], printer: Printer): TwoPasses | null =>
  printer.duplex || sheets.every((sheet) => sheet.back === null) ? null : twoPasses(sheets, printer);

/**
 * How a set is printed on both sides by a printer that cannot turn paper over (model, Two passes): fronts first, then the
 * same paper goes back in with the edge leading that led before.
 *
 * Feeding takes the uppermost sheet. A printer that prints the upper face gets the fronts first to last, one that prints
 * the lower face last to first, so that the finished stack is in order. Where the faces printed lie on the side that is
 * printed next, the stack must be turned over as a whole; where they lie away from it, it goes in as it lies, and comes
 * out backwards, so the backs go in the reverse order.
 */
export function twoPasses(sheets: readonly Sheet[], printer: Printer): TwoPasses {
  const firstToLast = sheets.map((sheet) => sheet.index);
  const fronts = printer.printsOn === 'upper' ? firstToLast : [...firstToLast].reverse();
  const asItLies = (printer.delivers === 'face-down') === (printer.printsOn === 'upper');
  const turned = sheets.filter((sheet) => sheet.sides === 'two-sided-short-edge').map((sheet) => sheet.index);
  return [
    { side: 'front', order: fronts },
    {
      side: 'back',
      order: asItLies ? [...fronts].reverse() : [...fronts],
      handling: asItLies ? 'as-it-lies' : 'turn-over',
      turned,
    },
  ];
}

/** The two passes of a plan; null where it is printed in one. */
export const inTwoPasses = ({ passes }: Pick<Plan, 'passes'>): TwoPasses | null =>
  passes?.length === 2 ? passes : null;

/** Whether a plan prints nothing but backs, on sheets that have their fronts. */
export const isBacksAlone = ({ passes }: Pick<Plan, 'passes'>): boolean =>
  passes?.length === 1 && passes[0].side === 'back';

/** One of the two passes alone. */
export const passOf = ([front, back]: TwoPasses, faces: 'fronts' | 'backs'): Passes =>
  faces === 'fronts' ? [front] : [back];
