import type { Repair, Sheet } from '../plan/plan';
import { pagesOf, type Run } from '../planning/run';
import type { Ticket } from '../ticket/ticket';
import { indexesOf, pagesOn, type CheckContext, type CheckRule } from './context';
import { changePages, mapRoutes, withRepair } from './repair';
import { listOf } from './words';

/** More sheets than this are told by their number. */
const MOST_NAMED = 4;

/** Two-sided runs that end on a front before another run follows; booklets say of their blanks themselves. */
export const blankBack: CheckRule = (context) => {
  const blank: Sheet[] = [];
  let previous: Sheet | null = null;
  for (const sheet of context.plan.sheets) {
    if (sheet.slip) continue;
    if (previous && previous.run !== sheet.run && isBlankBehind(previous)) blank.push(previous);
    previous = sheet;
  }
  if (blank.length === 0) return [];
  const after = blank.length === 1 ? 'the pages after it' : 'the pages after them';
  const message = `${sayBacks(indexesOf(blank))} blank: ${after} have other settings.`;
  const check = {
    code: 'blank-back',
    level: 'note',
    message,
    sheets: indexesOf(blank),
    pages: pagesOn(blank),
  } as const;
  return [withRepair({ ...check }, repairOf(context, blank))];
};

const isBlankBehind = ({ back, signature }: Sheet): boolean => back?.cells.length === 0 && signature === undefined;

function sayBacks(sheets: readonly number[]): string {
  if (sheets.length === 1) return `The back of sheet ${sheets[0]} stays`;
  if (sheets.length > MOST_NAMED) return `The backs of ${sheets.length} sheets a set stay`;
  return `The backs of sheets ${listOf(sheets)} stay`;
}

/** Lets the next page share the sheet, where it was kept apart on purpose or is printed in another way. */
function repairOf(context: CheckContext, blank: readonly Sheet[]): Repair | null {
  const { ticket, runs } = context;
  const following = blank.map((sheet) => runs[sheet.run] as Run);
  const causes = new Set(following.map((run) => run.cause));
  if (causes.has('settings')) return blank.length === 1 ? alike(context, following[0] as Run) : null;
  const newSheet: Ticket['newSheet'] = {
    documents: ticket.newSheet.documents && !causes.has('document'),
    sections: ticket.newSheet.sections && !causes.has('section'),
  };
  // Slips between documents keep these apart whatever else is said.
  if (causes.has('document') && ticket.slips.between === 'documents') return null;
  const routes = causes.has('own-sheet') ? { routes: mapRoutes(ticket, apartNoMore) } : {};
  return { label: 'Let the next page share the sheet', patch: { newSheet, ...routes } };
}

const apartNoMore = ({ ownSheet }: { ownSheet?: boolean }): { ownSheet?: boolean } =>
  ownSheet ? { ownSheet: false } : {};

/** The next page on the tray and sides of the page before it, where the paper and the layout are the same. */
function alike(context: CheckContext, run: Run): Repair | null {
  const before = context.runs[run.number - 2] as Run;
  const [page] = pagesOf(run);
  if (!page || before.paper.name !== run.paper.name) return null;
  if (JSON.stringify(before.settings.layout) !== JSON.stringify(run.settings.layout)) return null;
  const { tray, sides, paper } = before.settings;
  const change = { tray, sides, paper };
  const patch = changePages(context, [page], change);
  return { label: `Print page ${page.page} on the back`, patch };
}
