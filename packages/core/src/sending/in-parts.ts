import type { Plan, Sheet } from '../plan/plan';
import { isOfParts } from '../planning/finish';
import type { Printer } from '../printer/printer';
import { makesSets } from './makes-sets';
import { everySheet, outsideSets } from './printing-order';

type PlanSheets = Omit<Plan, 'checks'>;

/** Sheets that go through the finisher together, in the order of printing; loose ones, such as slips, pass it by. */
export interface FinishedPart {
  readonly sheets: readonly Sheet[];
  readonly isLoose: boolean;
}

/** Whether a job is more than copies of one part, so that its parts have to be told apart to be finished. */
export function hasParts(plan: PlanSheets, printer: Printer): boolean {
  if (!isOfParts(plan)) return false;
  const starts = plan.finishing?.starts ?? [];
  return starts.length > 1 || starts[0] !== 1 || outsideSets(plan).length > 0 || !makesSets(plan, printer);
}

/** Every sheet of a job in its parts: those of the first set, of the second, and so on. */
export function inParts(plan: PlanSheets): FinishedPart[] {
  const partOf = partFinder(plan);
  const parts: { sheets: Sheet[]; isLoose: boolean; key: string }[] = [];
  for (const { set, sheet } of everySheet(plan)) {
    const part = partOf(sheet);
    const key = `${set} ${part}`;
    const last = parts.at(-1);
    if (last && part > 0 && last.key === key) last.sheets.push(sheet);
    else parts.push({ sheets: [sheet], isLoose: part === 0, key });
  }
  return parts.map(({ sheets, isLoose }) => ({ sheets, isLoose }));
}

/** The number of the part in which a sheet of a set is, from 1; 0: in none. */
function partFinder({ sheets, finishing }: PlanSheets): (sheet: Sheet) => number {
  const starts = finishing?.starts ?? [1];
  const isBetween = ({ slip, index }: Sheet): boolean =>
    slip && starts.length > 1 && (index === sheets.length || starts.includes(index + 1));
  return (sheet) => {
    if (sheet.index === 0 || isBetween(sheet)) return 0;
    return starts.filter((start) => start <= sheet.index).length;
  };
}
