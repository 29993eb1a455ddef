import { runChecks } from '../checks';
import type { DocumentFacts } from '../pages/facts';
import type { Printer } from '../printer/printer';
import type { Plan, PlanOptions } from '../plan/plan';
import { draft } from '../planning/draft';
import { portionPlan } from '../sending/portion';
import type { Ticket } from '../ticket/ticket';

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
  const whole = draft(ticket, documents, printer, options);
  const { portion } = options;
  const planned = { ticket, documents, printer };
  const drafted = portion ? { ...whole, plan: portionPlan(whole.plan, portion, planned) } : whole;
  const again: typeof draft = (...changed) => draft(changed[0], changed[1], changed[2], options);
  const limit = options.largeRun ?? 200;
  const checks = runChecks({ ...drafted, ticket, documents, printer, limit, draft: again });
  return { ...drafted.plan, checks };
}
