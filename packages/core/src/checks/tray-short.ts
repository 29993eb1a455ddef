import { findTray, trayName, type Tray } from '../paper/printer';
import { printingOrder } from '../plan/printing-order';
import type { Check, Repair, Sheet } from '../plan/plan';
import { groupSheets, pagesOn, type CheckContext, type CheckRule } from './context';
import { changePages, replaceTray } from './repair';
import { countSheets } from './words';

/** The job needs more sheets than the tray holds: how many, and at which sheet of which set it runs out. */
export const trayShort: CheckRule = (context) => {
  const { plan, printer } = context;
  const groups = groupSheets(printingOrder(plan), (sheet) => sheet.tray);
  const slipTray = plan.slipBetweenSets?.tray;
  if (slipTray && !groups.has(slipTray)) groups.set(slipTray, []);
  return [...groups].flatMap(([id, sheets]): Check[] => {
    const tray = findTray(printer, id);
    const needed = plan.tally.byTray[id] ?? 0;
    if (!tray || tray.loaded === null || needed <= tray.loaded) return [];
    const end = runsOutAt(sheets, slipTray === id, tray.loaded, plan);
    const where = end.sheet ? `sheet ${end.sheet.index} of set ${end.set}` : `the slip after set ${end.set}`;
    const repair = repairOf(context, tray, sheets, needed, slipTray === id);
    return [
      {
        code: 'tray-short',
        level: 'caution',
        message: `${trayName(tray)} holds ${tray.loaded} of the ${countSheets(needed)} needed; it runs out at ${where}.`,
        sheets: end.sheet ? [end.sheet.index] : [],
        pages: end.sheet ? pagesOn([end.sheet]) : [],
        set: end.set,
        ...(repair ? { repair } : {}),
      },
    ];
  });
};

/**
 * The first sheet for which there is no paper. In sets, a tray gives its sheets of set 1, then its slip, then set 2;
 * otherwise every copy of a sheet before the next sheet.
 */
function runsOutAt(
  sheets: readonly Sheet[],
  givesSlips: boolean,
  loaded: number,
  { sets, collate }: CheckContext['plan'],
): { sheet: Sheet | undefined; set: number } {
  if (!collate && sheets.length > 0) return { sheet: sheets[Math.floor(loaded / sets)], set: (loaded % sets) + 1 };
  const aSet = sheets.length + (givesSlips ? 1 : 0);
  return { sheet: sheets[loaded % aSet], set: Math.floor(loaded / aSet) + 1 };
}

/** Another tray with enough of the same paper; otherwise as many sets as there is paper for. */
function repairOf(
  context: CheckContext,
  tray: Tray,
  sheets: readonly Sheet[],
  needed: number,
  givesSlips: boolean,
): Repair | null {
  const { plan, printer, ticket } = context;
  const loaded = tray.loaded ?? 0;
  const other = printer.trays.find((one) => {
    const asked = needed + (plan.tally.byTray[one.id] ?? 0);
    return one !== tray && one.size === tray.size && one.type === tray.type && (one.loaded ?? Infinity) >= asked;
  });
  if (other) {
    const named = replaceTray(ticket, tray.id, other.id);
    const pages = pagesOn(sheets);
    const routed =
      pages.length === 0 ? {} : changePages({ ...context, ticket: { ...ticket, ...named } }, pages, { tray: other.id });
    return { label: `Take them from ${trayName(other)}`, patch: { ...named, ...routed } };
  }
  const slip = givesSlips ? 1 : 0;
  const copies = Math.floor((loaded + slip) / (sheets.length + slip));
  if (copies < 1 || copies >= plan.sets) return null;
  return { label: `Print ${copies === 1 ? '1 set' : `${copies} sets`}`, patch: { copies } };
}
