import type { PageName } from '../plan/plan';
import { marginsOf } from '../planning/area';
import { cellCount, commonestSize, gridOf } from '../planning/grid';
import type { LaidOutRun } from '../planning/layout';
import { placePage, SAME_SCALE } from '../planning/place';
import { pagesOf } from '../planning/run';
import { marginAt } from '../printer/printer';
import { indexesOf, uniquePages, type CheckContext, type CheckRule } from './context';
import { changePages } from './repair';
import { namePages } from './words';

/**
 * Several pages on a side that would be there at their own size, did the printer not keep its edges free: four A6 on an A4,
 * cards of a measure that somebody counts on.
 */
export const sizeChanged: CheckRule = (context) => {
  const { plan, laidOut, documents, printer } = context;
  const smaller = laidOut.filter((one) => scaleOf(one) < 1 - SAME_SCALE && fitsWithoutMargin(one, context));
  const [first] = smaller;
  if (!first) return [];
  const pages: PageName[] = uniquePages(smaller.flatMap(({ run }) => pagesOf(run)));
  const runs = new Set(smaller.map(({ run }) => run.number));
  const percent = `${(scaleOf(first) * 100).toFixed(1).replace(/\.0$/, '')} %`;
  const [named, prints] = [namePages(pages, documents.length), pages.length === 1 ? 'prints' : 'print'];
  const message = `${named[0]?.toUpperCase()}${named.slice(1)} ${prints} at ${percent}: ${printer.name} keeps ${marginAt(printer, first.run.tray)} mm of every edge free.`;
  return [
    {
      code: 'size-changed',
      level: 'note',
      message,
      sheets: indexesOf(plan.sheets.filter(({ run, slip }) => runs.has(run) && !slip)),
      pages,
      repair: {
        label: 'Print at 100 %, with what lies in that edge cut off',
        patch: changePages(context, pages, { scale: { mode: 'none' } }),
      },
    },
  ];
};

/** The scale of the first page of a run; 1 where it is not left to the planner. */
function scaleOf({ run, places }: LaidOutRun): number {
  const { layout, scale } = run.settings;
  if (layout.kind !== 'grid' || cellCount(layout) === 1 || scale.mode !== 'auto-fit') return 1;
  return places[0]?.[0]?.placement.scale ?? 1;
}

function fitsWithoutMargin({ run }: LaidOutRun, { ticket }: CheckContext): boolean {
  const { layout, scale } = run.settings;
  if (layout.kind !== 'grid') return false;
  const page = commonestSize(run.stretches);
  const [cell] = gridOf(run, page, layout, marginsOf(run, ticket, 0), ticket).cells;
  return cell !== undefined && placePage(page, cell, cell, scale, layout.turn).scale === 1;
}
