import { indexesOf, pagesOn, type CheckRule } from './context';

/** More sheets than this are told by their number. */
const MOST_NAMED = 4;

/** Two-sided runs that end on a front before another run follows. */
export const blankBack: CheckRule = ({ plan }) => {
  const blank = plan.sheets.filter((sheet, position) => {
    const next = plan.sheets[position + 1];
    return next && next.run !== sheet.run && sheet.back?.cells.length === 0;
  });
  if (blank.length === 0) return [];
  const why = 'the pages after it are printed in another way';
  const message = `${sayBacks(indexesOf(blank))} blank: ${blank.length === 1 ? why : why.replace('after it', 'after them')}.`;
  return [{ code: 'blank-back', level: 'note', message, sheets: indexesOf(blank), pages: pagesOn(blank) }];
};

function sayBacks(sheets: readonly number[]): string {
  if (sheets.length === 1) return `The back of sheet ${sheets[0]} stays`;
  if (sheets.length > MOST_NAMED) return `The backs of ${sheets.length} sheets a set stay`;
  return `The backs of sheets ${sheets.slice(0, -1).join(', ')} and ${sheets.at(-1)} stay`;
}
