import { trayName, type Tray } from '../printer/printer';
import { readSizeName, saySize, type Size } from '../paper/sizes';
import { fitScale } from '../planning/place';
import type { Repair, Sheet } from '../plan/plan';
import { outsideSets } from '../sending/printing-order';
import { groupSheets, indexesOf, pagesOn, type CheckContext, type CheckRule } from './context';
import { changePages } from './repair';
import { scaleTo } from './scale-to';

/** `auto` finds no tray with the size, or none with the size and the type. */
export const noTrayForPaper: CheckRule = (context) => {
  const { plan, printer, runs } = context;
  const typeOf = (sheet: Sheet): string | null =>
    sheet.slip ? null : (runs[sheet.run - 1]?.settings.paper.type ?? null);
  const unfed = groupSheets(plan.sheets, (sheet) =>
    sheet.tray === null ? JSON.stringify([sheet.paper.size, typeOf(sheet)]) : null,
  );
  for (const { tray, paper } of outsideSets(plan)) {
    const key = JSON.stringify([paper.size, null]);
    if (tray === null && !unfed.has(key)) unfed.set(key, []);
  }
  return [...unfed].map(([key, sheets]) => {
    const [size, type] = JSON.parse(key) as [string, string | null];
    const what = type === null ? saySize(size) : `${saySize(size)} of the type ${type}`;
    return {
      code: 'no-tray-for-paper',
      level: 'stop',
      message: `No tray of ${printer.name} holds ${what}.`,
      sheets: indexesOf(sheets),
      pages: pagesOn(sheets),
      repair: repairOf(context, sheets, size),
    };
  });
};

/** The size without the type, where only the type is missing; otherwise the loaded paper nearest in size. */
function repairOf(context: CheckContext, sheets: readonly Sheet[], size: string): Repair {
  const { ticket, printer } = context;
  const pages = pagesOn(sheets);
  const untyped = printer.trays.find((tray) => tray.size === size);
  if (untyped) {
    const label = `Take the ${saySize(size)} in ${trayName(untyped)}`;
    return { label, patch: changePages(context, pages, { paper: { type: null } }) };
  }
  const nearest = nearestTray(printer.trays, size);
  if (pages.length > 0) return scaleTo(context, pages, nearest);
  const { informationSheet: information } = context.plan;
  if (information?.tray === null && information.paper.size === size) {
    const informationSheet = { ...ticket.informationSheet, tray: nearest.id };
    return { label: `Take the information sheet from ${trayName(nearest)}`, patch: { informationSheet } };
  }
  return { label: `Take slips from ${trayName(nearest)}`, patch: { slips: { ...ticket.slips, tray: nearest.id } } };
}

/** The tray on whose paper a page of that size is changed least. */
function nearestTray(trays: readonly Tray[], size: string): Tray {
  const wanted = readSizeName(size) as Size;
  const change = (tray: Tray): number => Math.abs(Math.log(fitScale(wanted, readSizeName(tray.size) as Size)));
  return trays.reduce((best, tray) => (change(tray) < change(best) ? tray : best));
}
