import { saySize } from '../paper/sizes';
import { groupSheets, indexesOf, pagesOn, type CheckRule } from './context';

/** `auto` finds no tray with the size. */
export const noTrayForPaper: CheckRule = ({ plan, printer }) => {
  const unfed = groupSheets(plan.sheets, (sheet) => (sheet.tray === null ? sheet.paper.size : null));
  return [...unfed].map(([size, sheets]) => ({
    code: 'no-tray-for-paper',
    level: 'stop',
    message: `No tray of ${printer.name} holds ${saySize(size)}.`,
    sheets: indexesOf(sheets),
    pages: pagesOn(sheets),
  }));
};
