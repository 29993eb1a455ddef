import type { FromSchema } from 'json-schema-to-ts';
import { runChecks } from '../checks';
import type { DocumentFacts } from '../pages/facts';
import type { Printer } from '../paper/printer';
import { requirePlannable } from '../ticket/plannable';
import type { Ticket } from '../ticket/ticket';
import { feed } from './feed';
import { gather, type GatheredPlan } from './gather';
import { layOut, type LaidOutRun } from './layout';
import { withLines } from './lines';
import { pageRules, type PageRules } from './page-rules';
import { pair } from './pair';
import type { planSchema } from './plan.schema';
import { route } from './route';
import { divideIntoRuns, type Run } from './run';
import { select } from './select';

/** The exact list of sheets that a ticket comes to on a given printer. */
export type Plan = Omit<FromSchema<typeof planSchema>, 'checks'> & { checks: Check[] };

export type Sheet = Plan['sheets'][number];
export type Side = Sheet['front'];
export type Cell = Side['cells'][number];
export type Line = NonNullable<Side['lines']>[number];
type CheckData = FromSchema<typeof planSchema>['checks'][number];
export type Text = NonNullable<Side['texts']>[number];
export type PageName = CheckData['pages'][number];

/** A change of the ticket that settles a check: what to say on its button, and the ticket's fields with new values. */
export interface Repair {
  readonly label: string;
  readonly patch: Partial<Ticket>;
}

export type Check = Omit<CheckData, 'repair'> & { repair?: Repair };

export interface PlanOptions {
  /** Sheets above which the check large-run speaks (model, Checks; 200 unless set). */
  readonly largeRun?: number;
  /** When it is printed, "2026-09-01T14:05" (ISO 8601), for what tells it. */
  readonly now?: string;
  /** The ticket in words, for the information sheet. */
  readonly sentence?: string;
}

/** A plan before its checks, with what it was made from. */
export interface Drafted {
  readonly plan: GatheredPlan;
  readonly runs: readonly Run[];
  readonly laidOut: readonly LaidOutRun[];
  readonly rules: PageRules;
}

/**
 * The whole pipeline: what the ticket comes to on this printer.
 *
 * @param documents facts of the ticket's documents, in the ticket's order
 * @throws TicketError where a selection cannot be read, names a page that is not there, or a setting cannot be planned
 */
export function plan(
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  printer: Printer,
  options: PlanOptions = {},
): Plan {
  const drafted = draft(ticket, documents, printer, options);
  const again: typeof draft = (...changed) => draft(changed[0], changed[1], changed[2], options);
  const limit = options.largeRun ?? 200;
  const checks = runChecks({ ...drafted, ticket, documents, printer, limit, draft: again });
  return { ...drafted.plan, checks };
}

/** The pipeline without its checks: what a change of the ticket would come to. @throws TicketError */
export function draft(
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  printer: Printer,
  { now, sentence }: PlanOptions = {},
): Drafted {
  requirePlannable(ticket, documents);
  const rules = pageRules(ticket, documents);
  const selected = select(ticket, documents);
  const routed = route(selected, ticket, documents, rules);
  const runs = divideIntoRuns(routed, ticket, documents, printer);
  const laidOut = withLines(layOut(runs, ticket, printer), { ticket, documents, printer, now });
  const paired = pair(laidOut, ticket.bind);
  const sheets = feed(paired, ticket, printer);
  return { plan: gather(sheets, { ticket, documents, rules, printer, now, sentence }), runs, laidOut, rules };
}
