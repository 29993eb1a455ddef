import type { Printer } from '../printer/printer';
import type { Plan, Sheet } from '../plan/plan';

export type Passes = NonNullable<Plan['passes']>;

/**
 * How a set is printed on both sides by a printer that cannot turn paper over (model, Two passes): fronts first, then the
 * same paper goes back in with the edge leading that led before. Null where no sheet has a back or the printer turns.
 *
 * Feeding takes the uppermost sheet. A printer that prints the upper face gets the fronts first to last, one that prints
 * the lower face last to first, so that the finished stack is in order. Where the faces printed lie on the side that is
 * printed next, the stack must be turned over as a whole; where they lie away from it, it goes in as it lies, and comes
 * out backwards, so the backs go in the reverse order.
 */
export function passesOf(sheets: readonly Sheet[], printer: Printer): Passes | null {
  if (printer.duplex || sheets.every((sheet) => sheet.back === null)) return null;
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
