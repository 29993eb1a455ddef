import { FINISHINGS } from '../settings/finishing-words';
import type { Plan, Sheet } from '../plan/plan';
import type { Ticket } from '../ticket/ticket';
import { heldAs } from './binding';
import type { LaidOutRun } from './layout';
import type { Run } from './run';

/** What is done to the sets, how they are held for that, and where each part begins that it is done to. */
export function finishingOf(
  { finishings, finishEach }: Pick<Ticket, 'finishings' | 'finishEach'>,
  runs: readonly Run[],
  laidOut: readonly LaidOutRun[],
  sheets: readonly Sheet[],
): Plan['finishing'] {
  if (finishings.length === 0) return undefined;
  // A booklet is held as its fold has it: upright.
  return { finishings: [...finishings], held: heldAs(laidOut), starts: startsOf(finishEach, runs, sheets) };
}

function startsOf(each: Ticket['finishEach'], runs: readonly Run[], sheets: readonly Sheet[]): number[] {
  if (each === 'set') return [1];
  const causes: readonly Run['cause'][] = each === 'document' ? ['document'] : ['document', 'section'];
  const begins = new Set(runs.filter(({ cause }) => causes.includes(cause)).map(({ number }) => number));
  const first = sheets.filter(({ run, slip, index }) => !slip && begins.has(run) && sheets[index - 2]?.run !== run);
  return [1, ...first.map(({ index }) => index).filter((index) => index > 1)];
}

/** Whether it holds sheets together, or parts them from others, so that it matters which go as one. */
export const isOfParts = ({ finishing }: Pick<Plan, 'finishing'>): boolean =>
  finishing?.finishings.some((name) => FINISHINGS[name].kind !== 'holes') ?? false;

/** The parts of one set, each in the order it is read; a slip between two belongs to neither. */
export function partsOfSet({ sheets, finishing }: Pick<Plan, 'sheets' | 'finishing'>): Sheet[][] {
  const starts = finishing?.starts ?? [1];
  return starts.map((start, place) => {
    const end = (starts[place + 1] ?? sheets.length + 1) - 1;
    const part = sheets.slice(start - 1, end);
    return starts.length > 1 && part.at(-1)?.slip ? part.slice(0, -1) : part;
  });
}
