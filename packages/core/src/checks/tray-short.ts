import { findTray, trayName } from '../paper/printer';
import { countSheets, groupSheets, pagesOn, type CheckRule } from './context';

/** The job needs more sheets than the tray holds: how many, and at which sheet of which set it runs out. */
export const trayShort: CheckRule = ({ plan, printer }) => {
  const { sets, collate } = plan;
  return [...groupSheets(plan.sheets, (sheet) => sheet.tray)].flatMap(([id, sheets]) => {
    const tray = findTray(printer, id);
    if (!tray || tray.loaded === null) return [];
    const needed = sheets.length * sets;
    if (needed <= tray.loaded) return [];
    // In sets, a tray gives its sheets of set 1, then of set 2; otherwise every copy of a sheet before the next sheet.
    const place = collate ? tray.loaded % sheets.length : Math.floor(tray.loaded / sets);
    const set = collate ? Math.floor(tray.loaded / sheets.length) + 1 : (tray.loaded % sets) + 1;
    const sheet = sheets[place];
    if (!sheet) return [];
    const where = `sheet ${sheet.index} of set ${set}`;
    return [
      {
        code: 'tray-short' as const,
        level: 'caution' as const,
        message: `${trayName(tray)} holds ${tray.loaded} of the ${countSheets(needed)} needed; it runs out at ${where}.`,
        sheets: [sheet.index],
        pages: pagesOn([sheet]),
        set,
      },
    ];
  });
};
