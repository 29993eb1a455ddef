import { findTray } from '../paper/printer';
import { groupSheets, indexesOf, pagesOn, type CheckRule } from './context';

/** A named tray is not in the printer. */
export const trayUnknown: CheckRule = ({ plan, printer }) => {
  const lost = groupSheets(plan.sheets, (sheet) =>
    sheet.tray !== null && !findTray(printer, sheet.tray) ? sheet.tray : null,
  );
  const there = printer.trays.map((tray) => tray.id).join(', ');
  return [...lost].map(([tray, sheets]) => ({
    code: 'tray-unknown',
    level: 'stop',
    message: `${printer.name} has no tray "${tray}". It has ${there}.`,
    sheets: indexesOf(sheets),
    pages: pagesOn(sheets),
  }));
};
