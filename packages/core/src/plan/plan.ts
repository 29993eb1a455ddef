import type { FromSchema } from 'json-schema-to-ts';
import type { DocumentFacts } from '../pages/facts';
import type { Printer } from '../paper/printer';
import type { Ticket } from '../ticket/ticket';
import { requirePlannable } from '../ticket/plannable';
import { runChecks } from '../checks';
import { feed } from './feed';
import { gather } from './gather';
import { layOut } from './layout';
import { pair } from './pair';
import type { planSchema } from './plan.schema';
import { route } from './route';
import { divideIntoRuns } from './run';
import { select } from './select';

/** The exact list of sheets that a ticket comes to on a given printer. */
export type Plan = FromSchema<typeof planSchema>;

export type Sheet = Plan['sheets'][number];
export type Side = Sheet['front'];
export type Cell = Side['cells'][number];
export type Check = Plan['checks'][number];
export type PageName = Check['pages'][number];

export interface PlanOptions {
  /** Sheets above which the check large-run speaks (model, Checks; 200 unless set). */
  readonly largeRun?: number;
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
  requirePlannable(ticket, documents);
  const selected = select(ticket, documents);
  const routed = route(selected, ticket, documents);
  const runs = divideIntoRuns(routed, ticket, documents, printer);
  const laidOut = layOut(runs, ticket, printer);
  const paired = pair(laidOut, ticket.bind);
  const sheets = feed(paired);
  const gathered = gather(sheets, ticket, printer);
  return { ...gathered, checks: runChecks({ plan: gathered, ticket, printer, limit: options.largeRun ?? 200 }) };
}
