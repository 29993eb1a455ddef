import { chooseTray, findTray, type Printer } from '../printer/printer';
import { readSizeName, type Size } from '../paper/sizes';
import { sheetSettings } from '../settings';
import type { Ticket } from '../ticket/ticket';
import type { Leaf } from './pair';
import { separates } from './run';
import type { Plan, Sheet } from '../plan/plan';

/**
 * Step 7. Each leaf becomes a sheet of its run's paper, from the run's tray. That tray is chosen with the run (it decides
 * where a run ends); here the cover of a booklet gets its own, and slips are put between documents.
 */
export function feed(leaves: readonly Leaf[], ticket: Ticket, printer: Printer): Sheet[] {
  const sheets: Sheet[] = [];
  const between = separates(ticket).slips;
  let paper: Sheet['paper'] = { size: '', width: 0, height: 0 };
  let last: Leaf['run'] | null = null;
  let own: ReturnType<typeof sheetSettings> = null;
  leaves.forEach((leaf, position) => {
    const { run, sides, front, back, signature } = leaf;
    if (paper.size !== run.paper.name)
      paper = { size: run.paper.name, width: run.paper.width, height: run.paper.height };
    const sheet: Sheet = {
      index: sheets.length + 1,
      run: run.number,
      tray: isCover(leaf, leaves[position - 1]) ? coverTray(leaf, printer) : run.tray,
      slip: false,
      paper,
      sides,
      front,
      back,
    };
    // Worked out once a run: there are many sheets, and most carry nothing of the kind.
    if (run !== last) [last, own] = [run, sheetSettings(run.settings)];
    if (own) Object.assign(sheet, own);
    if (signature !== null) sheet.signature = signature;
    sheets.push(sheet);
    const next = leaves[position + 1];
    if (between && next && documentOf(next) !== documentOf(leaf)) sheets.push(slipAfter(sheet, ticket, printer));
  });
  return sheets;
}

const documentOf = ({ run }: Leaf): number | undefined => run.stretches[0]?.document;

/** The outermost sheet of a booklet's first signature. */
const isCover = ({ signature, run }: Leaf, before: Leaf | undefined): boolean => signature === 1 && before?.run !== run;

function coverTray({ run }: Leaf, printer: Printer): string | null {
  const { layout, paper } = run.settings;
  if (layout.kind !== 'booklet' || layout.cover === null) return run.tray;
  return chooseTray(printer, layout.cover, run.paper.name, paper.type);
}

/**
 * A blank sheet that follows another: from the tray of the slips, on the paper that lies in it; without one, from the
 * first tray that holds the size of the sheet before it (model, Plan).
 */
function slipAfter(before: Sheet, { slips }: Ticket, printer: Printer): Sheet {
  const near = apartFrom(before, slips.tray, printer);
  const front: Sheet['front'] = { orientation: 'portrait', cells: [] };
  const index = before.index + 1;
  return { index, run: before.run, slip: true, sides: 'one-sided', front, back: null, ...near };
}

type FedApart = NonNullable<Plan['slipBetweenSets']>;

/**
 * Where a sheet beside the pages comes from: the tray that is named for it, on the paper that lies in it; without one, the
 * first tray that holds the paper of a sheet near it. All else is as for that sheet.
 */
export function apartFrom(near: Sheet, wanted: string | null, printer: Printer): FedApart {
  const named = wanted === 'auto' ? null : wanted;
  const held = named === null ? null : findTray(printer, named);
  const { size, width, height } = held ? { size: held.size, ...(readSizeName(held.size) as Size) } : near.paper;
  const tray = named ?? chooseTray(printer, 'auto', near.paper.size, null);
  return { tray, paper: { size, width, height }, ...sheetSettings(near) };
}
