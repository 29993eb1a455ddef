import { findTray, trayName, type Tray } from '../paper/printer';
import { saySize } from '../paper/sizes';
import type { Sheet } from '../plan/plan';
import { groupSheets, indexesOf, pagesOn, type CheckRule } from './context';

/** A named tray holds another size than the run needs. */
export const trayWrongPaper: CheckRule = ({ plan, printer }) => {
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
    };
  });
};
