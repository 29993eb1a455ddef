import type { DocumentFacts } from '../pages/facts';
import type { Printer } from '../printer/printer';
import { pairUp } from './behind';
import type { GatheredPlan, PlanOptions } from '../plan/plan';
import { pageRules, type PageRules } from '../ticket/page-rules';
import { requirePlannable } from '../ticket/plannable';
import type { Ticket } from '../ticket/ticket';
import { feed } from './feed';
import { finishingOf } from './finish';
import { gather } from './gather';
import { layOut, type LaidOutRun } from './layout';
import { withLines } from './lines';
import { pair } from './pair';
import { layPieces, type LaidPieces } from './pieces';
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
  const { rules, runs, pieces, laidOut: plain } = lay(ticket, documents, printer);
  const laidOut = withLines(plain, { ticket, documents, printer, now });
  const paired = pair(laidOut, ticket.bind);
  const sheets = feed(paired, ticket, printer);
  const gathered = gather(sheets, { ticket, documents, rules, printer, pieces, now, sentence });
  const finishing = finishingOf(ticket, runs, laidOut, sheets);
  return { plan: finishing ? { ...gathered, finishing } : gathered, runs, laidOut, rules };
}

/** What the first five steps come to: which pages, and where on their sides they lie. */
export interface Laid extends Pick<Drafted, 'rules' | 'runs' | 'laidOut'> {
  /** As `LaidPieces` has them. */
  readonly pieces: LaidPieces['pieces'];
}

/** The steps of the pipeline that decide how large the pages come out. @throws TicketError */
export function lay(ticket: Ticket, documents: readonly DocumentFacts[], printer: Printer): Laid {
  requirePlannable(ticket, documents);
  const rules = pageRules(ticket, documents);
  const round = pairUp(route(select(ticket, documents), ticket, documents, rules), ticket);
  const { runs, pieces } = layPieces(round, ticket, (stretches) =>
    divideIntoRuns(stretches, ticket, documents, printer),
  );
  return { rules, runs, pieces, laidOut: layOut(runs, ticket, printer) };
}
