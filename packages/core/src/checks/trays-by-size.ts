import { chooseTray, findTray, trayName } from '../printer/printer';
import { takesTrays } from '../printer/takes';
import { groupSheets, indexesOf, pagesOn, type CheckContext, type CheckRule } from './context';
import { firstThatHelps, mapRoutes, withRepair } from './repair';
import { countSheets } from './words';

/** The printer cannot be told from which tray to take paper, and by itself would take another than is planned. */
export const traysBySize: CheckRule = (context) => {
  const { printer } = context;
  const repair = firstThatHelps(context, (changed) => otherTrays(changed).size > 0, [anyTray(context)]);
  return [...otherTrays(context)].map(([tray, sheets]) => {
    const would = chooseTray(printer, 'auto', sheets[0]!.paper.size, null);
    const other = would === null ? 'none' : trayName(findTray(printer, would)!);
    const message =
      `${printer.name} cannot be told which tray to take: it goes by the size of a page alone. For ${countSheets(sheets.length)} ` +
      `it would take ${other} instead of ${trayName(findTray(printer, tray)!)}.`;
    return withRepair(
      { code: 'trays-by-size', level: 'stop', message, sheets: indexesOf(sheets), pages: pagesOn(sheets) },
      repair,
    );
  });
};

/** Sheets for which it would take another tray, by the one planned. */
function otherTrays({ plan, printer }: Pick<CheckContext, 'plan' | 'printer'>): ReturnType<typeof groupSheets> {
  if (takesTrays(printer)) return new Map();
  return groupSheets(plan.sheets, ({ tray, paper }) =>
    tray === null || !findTray(printer, tray) || tray === chooseTray(printer, 'auto', paper.size, null) ? null : tray,
  );
}

function anyTray({ ticket }: CheckContext) {
  const routes = mapRoutes(ticket, (route) => (route.tray ? { tray: 'auto' } : {}));
  return {
    label: 'Take any tray that holds the paper',
    patch: { tray: 'auto', ...(routes.length > 0 ? { routes } : {}) },
  };
}
