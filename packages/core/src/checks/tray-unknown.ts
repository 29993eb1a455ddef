import { saySize } from '../paper/sizes';
import type { Sheet } from '../plan/plan';
import { findTray, trayName } from '../printer/printer';
import { outsideSets } from '../sending/printing-order';
import { groupSheets, indexesOf, pagesOn, uniquePages, type CheckRule } from './context';
import { replaceTray } from './repair';
import { listOf, namePages } from './words';

/** A named tray is not in the printer. */
export const trayUnknown: CheckRule = ({ plan, printer, ticket, documents }) => {
  const isLost = (tray: string | null): tray is string => tray !== null && !findTray(printer, tray);
  const lost = groupSheets(plan.sheets, (sheet) => (isLost(sheet.tray) ? sheet.tray : null));
  for (const { tray } of outsideSets(plan)) if (isLost(tray) && !lost.has(tray)) lost.set(tray, []);
  const there = listOf(printer.trays.map(trayName));
  return [...lost].map(([tray, sheets]) => ({
    code: 'tray-unknown',
    level: 'stop',
    message: `The tray chosen for ${sayPages(sheets, documents.length)} is not in ${printer.name}. It has ${there}.`,
    sheets: indexesOf(sheets),
    pages: pagesOn(sheets),
    repair: { label: 'Take any tray that holds the paper', patch: replaceTray(ticket, tray, 'auto') },
  }));
};

/** By its pages and their paper: what a tray is called at another printer tells nobody anything. */
function sayPages(sheets: readonly Sheet[], documents: number): string {
  const pages = uniquePages(pagesOn(sheets));
  if (pages.length === 0) return 'a sheet beside the pages';
  return `${namePages(pages, documents)} (${listOf([...new Set(sheets.map(({ paper }) => saySize(paper.size)))])})`;
}
