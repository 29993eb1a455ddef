import type { DocumentFacts } from '../pages/facts';
import type { GatheredPlan, Plan, Sheet } from '../plan/plan';
import { twoPasses } from '../planning/passes';
import type { Printer } from '../printer/printer';
import { tally } from '../tally/tally';
import { pageRules } from '../ticket/page-rules';
import type { Ticket } from '../ticket/ticket';
import type { Portion } from '../plan/marks';
import { slipOf } from './printing-order';

/** What a plan was made from. */
export interface Planned {
  readonly ticket: Ticket;
  readonly documents: readonly DocumentFacts[];
  readonly printer: Printer;
}

/** What is sent of a ticket at first: where one set is wanted first, that one; otherwise all of it (null). */
export const firstPortion = ({ proof, copies }: Pick<Ticket, 'proof' | 'copies'>): Portion | null =>
  proof && copies > 1 ? 'first-set' : null;

/** How many sheets that is. */
export const sheetsAtFirst = (
  { tally, informationSheet }: Pick<Plan, 'tally' | 'informationSheet'>,
  ticket: Ticket,
): number => (firstPortion(ticket) === null ? tally.sheets : tally.sheetsPerSet + (informationSheet ? 1 : 0));

/**
 * A portion of a plan as a plan of its own (model, After Send). First set and other sets together are the whole: what stands before
 * the job comes with the first set, a slip between the two with the others. Of marked sheets each lies as in the whole, from the
 * same tray and with its back behind its front; slips and what stands before the job are left out.
 */
export function portionPlan<P extends GatheredPlan>(plan: P, portion: Portion, planned: Planned): P {
  const made = madeOf(plan, portion, planned.printer);
  return { ...made, tally: tallyOf(made, planned) };
}

function madeOf<P extends GatheredPlan>(plan: P, portion: Portion, printer: Printer): P {
  if (portion === 'first-set') return { ...plan, sets: 1, slipBetweenSets: null };
  if (portion === 'other-sets') return otherSets(plan, printer);
  // Single sheets lie loose: what was stapled is taken apart for them.
  const loose = withoutFinishing(plan);
  const marked = portion.map(({ sets, sheets }) => ({
    sets: sets[1] - sets[0] + 1,
    sheets: sheets
      .flatMap(([first, last]) => plan.sheets.slice(first - 1, last))
      // A slip tells nothing once the sheets about it are others.
      .filter(({ slip }) => !slip),
  }));
  const [only, ...others] = marked.filter(({ sheets }) => sheets.length > 0);
  if (!only) return asOneSet(loose, [], printer);
  if (others.length === 0) return { ...asOneSet(loose, only.sheets, printer), sets: only.sets, collate: plan.collate };
  const inSets = [only, ...others].flatMap(({ sets, sheets }) => Array.from({ length: sets }, () => sheets));
  // Sets that are not complete lie sheet by sheet.
  const sheets = plan.collate ? inSets.flat() : inSets.flat().toSorted((one, other) => one.index - other.index);
  return asOneSet(loose, sheets, printer);
}

function withoutFinishing<P extends GatheredPlan>(plan: P): P {
  const { finishing: _, ...rest } = plan;
  return rest as P;
}

function otherSets<P extends GatheredPlan>(plan: P, printer: Printer): P {
  const sets = plan.sets - 1;
  const between = slipOf(plan);
  const [first] = plan.sheets;
  if (!between || !first) return { ...plan, sets, informationSheet: null };
  const slip = { ...between, run: first.run };
  const sheets = Array.from({ length: sets }, () => [slip, ...plan.sheets]).flat();
  return withStarts(asOneSet(plan, sheets, printer), plan.sheets.length + 1, sets);
}

/** Of sets that lie one after the other, a slip before each: each is finished by itself. */
function withStarts<P extends GatheredPlan>(plan: P, length: number, sets: number): P {
  const { finishing } = plan;
  if (!finishing) return plan;
  const starts = Array.from({ length: sets }, (_, set) => finishing.starts.map((start) => set * length + 1 + start));
  return { ...plan, finishing: { ...finishing, starts: starts.flat() } };
}

/** These sheets of a plan, in the order in which they are read, and nothing beside them. */
function asOneSet<P extends GatheredPlan>(plan: P, listed: readonly Sheet[], printer: Printer): P {
  const sheets = listed.map((sheet, place): Sheet => ({ ...sheet, index: place + 1 }));
  return {
    ...plan,
    sheets,
    sets: 1,
    collate: true,
    slipBetweenSets: null,
    informationSheet: null,
    passes: passesOf(plan, sheets, listed, printer),
  };
}

/** Each pass as in the whole, and sheets turned that are turned there. @param listed the same sheets with their numbers in the whole */
function passesOf(
  { passes }: GatheredPlan,
  sheets: readonly Sheet[],
  listed: readonly Sheet[],
  printer: Printer,
): GatheredPlan['passes'] {
  if (passes === null || (passes.length === 2 && sheets.every(({ back }) => back === null))) return null;
  const turnedThere = new Set(passes.flatMap((pass) => (pass.side === 'back' ? pass.turned : [])));
  const [front, back] = twoPasses(sheets, printer);
  const turned = sheets.filter((_, place) => turnedThere.has(listed[place]!.index)).map(({ index }) => index);
  const backs = { ...back, turned };
  if (passes.length === 2) return [front, backs];
  return passes[0].side === 'front' ? [front] : [backs];
}

function tallyOf(
  { sheets, sets, passes, slipBetweenSets, informationSheet }: GatheredPlan,
  planned: Planned,
): GatheredPlan['tally'] {
  const { ticket, documents, printer } = planned;
  return tally({
    sheets,
    outside: { blank: informationSheet, slipBetweenSets },
    passes,
    ticket: { ...ticket, copies: sets },
    documents,
    rules: pageRules(ticket, documents),
    printer,
    pieces: null,
  });
}
