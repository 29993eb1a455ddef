import type { Printer } from '../paper/printer';
import { tally } from '../tally/tally';
import type { Ticket } from '../ticket/ticket';
import type { Plan, Sheet } from './plan';

/** A plan before its checks are run. */
export type GatheredPlan = Omit<Plan, 'checks'>;

/** Step 8. The sheets of one set, and how many sets; copies are never spelled out, so ten thousand cost what one costs. */
export function gather(sheets: Sheet[], ticket: Ticket, printer: Printer): GatheredPlan {
  return {
    version: 1,
    sheets,
    sets: ticket.copies,
    collate: ticket.collate,
    delivery: ticket.delivery,
    slipBetweenSets: null,
    tally: tally(sheets, ticket, printer),
    passes: null,
  };
}
