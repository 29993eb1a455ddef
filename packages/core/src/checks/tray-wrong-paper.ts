import { findTray, trayName, type Tray } from '../printer/printer';
import { saySize } from '../paper/sizes';
import type { Repair, Sheet } from '../plan/plan';
import { isBacksAlone } from '../planning/passes';
import { groupSheets, indexesOf, pagesOn, type CheckContext, type CheckRule } from './context';
import { coverTrayChange, isCoverSheet } from './cover-sheet';
import { changePages } from './repair';
import { scaleTo } from './scale-to';

/** A named tray holds another size than the run needs. */
export const trayWrongPaper: CheckRule = (context) => {
  const { plan, printer } = context;
  // Where a stack goes back for its backs, its own paper lies.
  if (isBacksAlone(plan)) return [];
  const wrong = groupSheets(plan.sheets, (sheet) => {
    const tray = sheet.tray === null ? null : findTray(printer, sheet.tray);
    return tray && tray.size !== sheet.paper.size ? `${tray.id} ${sheet.paper.size}` : null;
  });
  return [...wrong.values()].map((sheets) => {
    const first = sheets[0] as Sheet;
    const tray = findTray(printer, first.tray as string) as Tray;
    return {
      code: 'tray-wrong-paper',
      level: 'stop',
      message: `${trayName(tray)} holds ${saySize(tray.size)}, but these pages need ${saySize(first.paper.size)}.`,
      sheets: indexesOf(sheets),
      pages: pagesOn(sheets),
      repair: repairOf(context, sheets, tray, first.paper.size),
    };
  });
};

/** The tray that holds the size; where none does, the pages scaled to what the named tray holds. */
function repairOf(context: CheckContext, sheets: readonly Sheet[], tray: Tray, size: string): Repair {
  const pages = pagesOn(sheets.filter((sheet) => !isCoverSheet(context, sheet)));
  const other = context.printer.trays.find((one) => one.size === size);
  if (other) {
    const cover = coverTrayChange(context, sheets, other.id);
    const patch = pages.length === 0 ? {} : changePages(context, pages, { tray: other.id });
    return { label: `Take ${saySize(size)} from ${trayName(other)}`, patch: { ...cover, ...patch } };
  }
  const covered = pages.length === 0 ? coverTrayChange(context, sheets, null) : null;
  if (covered) return { label: 'Print the cover on the paper of the booklet', patch: covered };
  return scaleTo(context, pages, tray);
}
