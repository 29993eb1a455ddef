import type { Plan, Repair } from '../plan/plan';
import { partsOfSet } from '../planning/finish';
import type { Printer } from '../printer/printer';
import {
  FINISHINGS,
  onMedium,
  type Finishing,
  type FinishingKind,
  type FinishingPlace,
} from '../settings/finishing-words';
import { sayFinishing } from '../settings/finishing-said';
import type { Ticket } from '../ticket/ticket';
import type { CheckContext } from './context';

/** What is done to the sets of a plan, in the words of the ticket. */
export const finishingsOf = ({ finishing }: Pick<Plan, 'finishing'>): readonly Finishing[] =>
  finishing?.finishings ?? [];

/** Staples at an edge or a corner, or in the fold. */
export const holdsTogether = (name: Finishing): boolean => ['staple', 'stitch'].includes(FINISHINGS[name].kind);

/** The parts of a set that are stapled, or stitched, each by itself. */
export const stapledParts = (plan: Pick<Plan, 'sheets' | 'finishing'>) =>
  finishingsOf(plan).some(holdsTogether) ? partsOfSet(plan) : [];

export const has = (printer: Printer, name: Finishing, { finishing }: Pick<Plan, 'finishing'>): boolean =>
  printer.finishings.includes(onMedium(name, finishing?.held ?? 'portrait'));

/** Whether a place is at an edge; a corner is at both of its own (model, After Send). */
export const isAt = (at: FinishingPlace, edge: Ticket['bind']): boolean => at.split('-').includes(edge);

/** Without these. */
export function leaveOut({ finishings }: Ticket, names: readonly Finishing[]): Repair {
  const label = names.every(holdsTogether) ? 'Do not staple' : `Leave out ${names.map(sayFinishing).join(' and ')}`;
  return { label, patch: { finishings: finishings.filter((name) => !names.includes(name)) } };
}

/** Another of these kinds, or of its own, in place of one: at the bound edge first, then in the order in which printers have them. */
export function insteadOf(
  name: Finishing,
  { ticket: { finishings, bind }, printer, plan }: Pick<CheckContext, 'ticket' | 'printer' | 'plan'>,
  kinds: readonly FinishingKind[] = [FINISHINGS[name].kind],
): Repair | null {
  const { count } = FINISHINGS[name];
  const rank = (one: Finishing): number => {
    const { at, count: of } = FINISHINGS[one];
    return (at !== null && isAt(at, bind) ? 0 : 4) + (at?.startsWith('bottom') ? 2 : 0) + (of === count ? 0 : 1);
  };
  const others = (Object.keys(FINISHINGS) as Finishing[]).filter(
    (one) => one !== name && kinds.includes(FINISHINGS[one].kind) && has(printer, one, plan),
  );
  const [best] = others.toSorted((one, other) => rank(one) - rank(other));
  if (!best) return null;
  const patch = { finishings: finishings.map((one) => (one === name ? best : one)) };
  return { label: `Take ${sayFinishing(best)}`, patch };
}
