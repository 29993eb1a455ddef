import { findTray, trayName, type Tray } from '../printer/printer';
import { outsideSets, printingOrder } from '../sending/printing-order';
import type { Check, Repair, Sheet } from '../plan/plan';
import { groupSheets, pagesOn, type CheckContext, type CheckRule } from './context';
import { changePages, replaceTray } from './repair';
import { countSheets } from './words';

/** The job needs more sheets than the tray holds: how many, and at which sheet of which set it runs out. */
export const trayShort: CheckRule = (context) => {
  const { plan, printer } = context;
  const groups = groupSheets(printingOrder(plan), (sheet) => sheet.tray);
  for (const { tray } of outsideSets(plan)) if (tray !== null && !groups.has(tray)) groups.set(tray, []);
  return [...groups].flatMap(([id, sheets]): Check[] => {
    const tray = findTray(printer, id);
    const needed = plan.tally.byTray[id] ?? 0;
    if (!tray || tray.loaded === null || needed <= tray.loaded) return [];
    const own = { sheets, slips: plan.slipBetweenSets?.tray === id, information: plan.informationSheet?.tray === id };
    const end = runsOutAt(own, tray.loaded, needed, plan);
    const repair = repairOf(context, tray, own, needed);
    return [
      {
        code: 'tray-short',
        level: 'caution',
        message: `${trayName(tray)} holds ${tray.loaded} of the ${countSheets(needed)} needed; it runs out at ${end.where}.`,
        sheets: end.sheet ? [end.sheet.index] : [],
        pages: end.sheet ? pagesOn([end.sheet]) : [],
        ...(end.set === null ? {} : { set: end.set }),
        ...(repair ? { repair } : {}),
      },
    ];
  });
};

/**
 * The first sheet for which there is no paper. In sets, a tray gives its sheets of set 1, then its slip, then set 2;
 * otherwise every copy of a sheet before the next sheet. The information sheet is before or after it all.
 */
function runsOutAt(
  { sheets, slips, information }: Given,
  loaded: number,
  needed: number,
  { sets, collate, informationSheet }: CheckContext['plan'],
): { readonly sheet: Sheet | null; readonly set: number | null; readonly where: string } {
  const isFirst = information && informationSheet?.fed === 'first';
  if (isFirst ? loaded === 0 : information && loaded === needed - 1) {
    return { sheet: null, set: null, where: 'the information sheet' };
  }
  const ofSets = isFirst ? loaded - 1 : loaded;
  const aSet = sheets.length + (slips ? 1 : 0);
  const bySheet = !collate && sheets.length > 0;
  const sheet = sheets[bySheet ? Math.floor(ofSets / sets) : ofSets % aSet] ?? null;
  const set = bySheet ? (ofSets % sets) + 1 : Math.floor(ofSets / aSet) + 1;
  return { sheet, set, where: sheet ? `sheet ${sheet.index} of set ${set}` : `the slip after set ${set}` };
}

/** What a tray gives to the job: these sheets of each set, and perhaps what stands in no set. */
interface Given {
  readonly sheets: readonly Sheet[];
  readonly slips: boolean;
  readonly information: boolean;
}

/** Another tray with enough of the same paper; otherwise as many sets as there is paper for. */
function repairOf(
  context: CheckContext,
  tray: Tray,
  { sheets, slips, information }: Given,
  needed: number,
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
  const slip = slips ? 1 : 0;
  const copies = Math.floor((loaded - (information ? 1 : 0) + slip) / (sheets.length + slip));
  if (copies < 1 || copies >= plan.sets) return null;
  return { label: `Print ${copies === 1 ? '1 set' : `${copies} sets`}`, patch: { copies } };
}
