import type { PageName, Repair } from '../plan/plan';
import { pagesOf, type Run } from '../planning/run';
import { indexesOf, type CheckContext, type CheckRule } from './context';
import { changePages, firstThatHelps, withRepair } from './repair';
import { countOf } from './words';

/** A tray or paper changes inside a booklet, so that it becomes several. */
export const bookletSplit: CheckRule = (context) => {
  const { plan, runs } = context;
  const later = partsOf(runs);
  if (later.length === 0) return [];
  const numbers = new Set(later.map((run) => run.number));
  const sheets = plan.sheets.filter(
    (sheet, index) => numbers.has(sheet.run) && plan.sheets[index - 1]?.run !== sheet.run,
  );
  const pages = later.map((run) => pagesOf(run)[0] as PageName);
  const message = `Tray or paper changes inside a booklet, so that it comes out as ${countOf(later.length + 1, 'booklet')}.`;
  const repair = onePaper(context, later);
  return [withRepair({ code: 'booklet-split', level: 'caution', message, sheets: indexesOf(sheets), pages }, repair)];
};

/** The runs that would belong to the booklet before them. */
const partsOf = (runs: readonly Run[]): Run[] => runs.filter((run, index) => splits(runs[index - 1], run));

function splits(before: Run | undefined, run: Run): boolean {
  if (before?.settings.layout.kind !== 'booklet' || run.settings.layout.kind !== 'booklet') return false;
  if (run.cause !== 'settings') return false;
  const one = before.settings.paper;
  const other = run.settings.paper;
  return before.tray !== run.tray || before.paper.name !== run.paper.name || one.type !== other.type;
}

/** The later parts on the tray and paper of the part before them. */
function onePaper(context: CheckContext, later: readonly Run[]): Repair | null {
  const first = context.runs[(later[0] as Run).number - 2] as Run;
  const pages = later.flatMap(pagesOf);
  const { tray, paper } = first.settings;
  const change = { tray, paper: { ...paper, size: first.paper.name } };
  const together = { label: 'Print it as one booklet', patch: changePages(context, pages, change) };
  return firstThatHelps(context, (changed) => partsOf(changed.runs).length > 0, [together]);
}
