import { findTray } from '../printer/printer';
import { outsideSets } from '../sending/printing-order';
import { groupSheets, indexesOf, pagesOn, type CheckRule } from './context';
import { replaceTray } from './repair';

/** A named tray is not in the printer. */
export const trayUnknown: CheckRule = ({ plan, printer, ticket }) => {
  const isLost = (tray: string | null): tray is string => tray !== null && !findTray(printer, tray);
  const lost = groupSheets(plan.sheets, (sheet) => (isLost(sheet.tray) ? sheet.tray : null));
  for (const { tray } of outsideSets(plan)) if (isLost(tray) && !lost.has(tray)) lost.set(tray, []);
  const there = printer.trays.map((tray) => tray.id).join(', ');
  return [...lost].map(([tray, sheets]) => ({
    code: 'tray-unknown',
    level: 'stop',
    message: `${printer.name} has no tray "${tray}". It has ${there}.`,
    sheets: indexesOf(sheets),
    pages: pagesOn(sheets),
    repair: { label: 'Take any tray that holds the paper', patch: replaceTray(ticket, tray, 'auto') },
  }));
};
