import { saySize } from '../paper/sizes';
import type { Repair } from '../plan/plan';
import { inTwoPasses, isBacksAlone } from '../planning/passes';
import { outsideSets } from '../sending/printing-order';
import { groupSheets, indexesOf, type CheckContext, type CheckRule } from './context';
import { mapRoutes, oneSidedThroughout, withRepair } from './repair';
import { listOf } from './words';

/** Two passes with sheets of more than one size, which cannot go back into one tray. */
export const twoPassesMixed: CheckRule = (context) => {
  const { plan } = context;
  // Fronts alone go back nowhere.
  if (!inTwoPasses(plan) && !isBacksAlone(plan)) return [];
  const bySize = groupSheets(plan.sheets, (sheet) => sheet.paper.size);
  for (const { paper } of outsideSets(plan)) if (!bySize.has(paper.size)) bySize.set(paper.size, []);
  if (bySize.size < 2) return [];
  const [most, ...others] = [...bySize].sort(([, a], [, b]) => b.length - a.length);
  const sizes = listOf([...bySize.keys()].map(saySize));
  const message = `A stack of ${sizes} cannot go back into one tray for its backs.`;
  const repair = oneSidedThroughout(context) ?? onOneSize(context, (most as [string, unknown])[0]);
  const sheets = others.flatMap(([, group]) => indexesOf(group)).sort((a, b) => a - b);
  return [withRepair({ code: 'two-passes-mixed', level: 'stop', message, sheets, pages: [] }, repair)];
};

function onOneSize({ ticket }: CheckContext, size: string): Repair {
  const routes = mapRoutes(ticket, ({ paper }) => (paper?.size === undefined ? {} : { paper: { ...paper, size } }));
  const slips = { ...ticket.slips, tray: null };
  const informationSheet = { ...ticket.informationSheet, tray: null };
  const paper = { ...ticket.paper, size };
  return { label: `Print all on ${saySize(size)}`, patch: { paper, slips, informationSheet, routes } };
}
