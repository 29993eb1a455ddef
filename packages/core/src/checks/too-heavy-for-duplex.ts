import { findTray, trayName, type Tray } from '../printer/printer';
import type { Repair, Sheet } from '../plan/plan';
import { groupSheets, indexesOf, pagesOn, type CheckContext, type CheckRule } from './context';
import { coverTrayChange, isCoverSheet } from './cover-sheet';
import { changePages } from './repair';

/** Two-sided on paper above the printer's limit. */
export const tooHeavyForDuplex: CheckRule = (context) => {
  const { plan, printer } = context;
  const limit = printer.maxDuplexWeight;
  if (limit === null) return [];
  const trayOf = (sheet: Sheet): Tray | null => (sheet.tray === null ? null : findTray(printer, sheet.tray));
  const heavy = groupSheets(plan.sheets, (sheet) =>
    sheet.back && (trayOf(sheet)?.weight ?? 0) > limit ? sheet.tray : null,
  );
  return [...heavy.values()].map((sheets) => {
    const tray = trayOf(sheets[0] as Sheet) as Tray;
    const repair = repairOf(context, sheets, tray, limit);
    return {
      code: 'too-heavy-for-duplex',
      level: 'stop',
      message: `The paper in ${trayName(tray)}, ${tray.weight} g/m², is too heavy to be turned over; ${limit} g/m² is the most.`,
      sheets: indexesOf(sheets),
      pages: pagesOn(sheets),
      ...(repair ? { repair } : {}),
    };
  });
};

/** One-sided; a booklet cannot be, and gets lighter paper of its size. */
function repairOf(context: CheckContext, sheets: readonly Sheet[], tray: Tray, limit: number): Repair | null {
  if (sheets.every((sheet) => sheet.signature === undefined)) {
    return { label: 'Print them one-sided', patch: changePages(context, pagesOn(sheets), { sides: 'one-sided' }) };
  }
  const lighter = context.printer.trays.find((one) => one.size === tray.size && (one.weight ?? 0) <= limit);
  if (!lighter) return null;
  const cover = coverTrayChange(context, sheets, lighter.id);
  const pages = pagesOn(sheets.filter((sheet) => !isCoverSheet(context, sheet)));
  const patch = pages.length === 0 ? cover : { ...cover, ...changePages(context, pages, { tray: lighter.id }) };
  return { label: `Take lighter paper from ${trayName(lighter)}`, patch };
}
