import { MOST_WRITTEN_OUT, sheetsWrittenOut } from '../sending/written-out';
import type { CheckRule } from './context';
import { countOf, countSheets } from './words';

/** The printer does not make these sets by itself, and every sheet of all of them in one file is more than a file holds. */
export const tooManyWrittenOut: CheckRule = ({ plan, printer }) => {
  const sheets = sheetsWrittenOut(plan, printer);
  if (sheets <= MOST_WRITTEN_OUT) return [];
  const why =
    plan.slipBetweenSets || plan.informationSheet
      ? 'sheets lie before or between the sets'
      : `${printer.name} does not make them by itself`;
  const message =
    `${countOf(plan.sets, 'set')} would be written out sheet by sheet, since ${why}: ` +
    `${countSheets(sheets)} at once, which is more than ${MOST_WRITTEN_OUT}.`;
  const few = Math.max(1, Math.floor((plan.sets * MOST_WRITTEN_OUT) / sheets));
  const repair = { label: `Print ${countOf(few, 'set')}`, patch: { copies: few } };
  return [{ code: 'too-many-written-out', level: 'stop', message, sheets: [], pages: [], repair }];
};
