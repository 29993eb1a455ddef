import type { DocumentFacts } from '../pages/facts';
import type { Printer } from '../printer/printer';
import { pairUp } from './behind';
import type { GatheredPlan, PlanOptions } from '../plan/plan';
import { pageRules, type PageRules } from '../ticket/page-rules';
import { requirePlannable } from '../ticket/plannable';
import type { Ticket } from '../ticket/ticket';
import { feed } from './feed';
import { gather } from './gather';
import { layOut, type LaidOutRun } from './layout';
import { withLines } from './lines';
import { pair } from './pair';
import { layPieces } from './pieces';
import { route } from './route';
import { divideIntoRuns, type Run } from './run';
import { select } from './select';

/** A plan before its checks, with what it was made from. */
export interface Drafted {
  readonly plan: GatheredPlan;
  readonly runs: readonly Run[];
  readonly laidOut: readonly LaidOutRun[];
  readonly rules: PageRules;
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
  const round = pairUp(routed, ticket);
  const { runs, pieces } = layPieces(round, ticket, (stretches) =>
    divideIntoRuns(stretches, ticket, documents, printer),
  );
  const laidOut = withLines(layOut(runs, ticket, printer), { ticket, documents, printer, now });
  const paired = pair(laidOut, ticket.bind);
  const sheets = feed(paired, ticket, printer);
  return { plan: gather(sheets, { ticket, documents, rules, printer, pieces, now, sentence }), runs, laidOut, rules };
}
