import type { CheckRule } from './context';
import { pagesOn } from './context';

/** A two-sided run ends on a front before another run follows. */
export const blankBack: CheckRule = ({ plan }) => {
  const blank = plan.sheets.filter((sheet, position) => {
    const next = plan.sheets[position + 1];
    return next && next.run !== sheet.run && sheet.back?.cells.length === 0;
  });
  return blank.map((sheet) => ({
    code: 'blank-back',
    level: 'note',
    message: `The back of sheet ${sheet.index} stays blank: the pages after it are printed in another way.`,
    sheets: [sheet.index],
    pages: pagesOn([sheet]),
  }));
};
