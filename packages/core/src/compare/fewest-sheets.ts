import type { DocumentFacts } from '../pages/facts';
import type { Printer } from '../paper/printer';
import { draft } from '../plan/plan';
import { legibility } from '../tally/legibility';
import type { Ticket } from '../ticket/ticket';
import { TicketError } from '../ticket/ticket-error';
import { gridOfPages } from './compare';

/** The set-up with the fewest sheets, and what it comes to. */
export interface FewestSheets {
  readonly patch: Pick<Ticket, 'sides' | 'layout'>;
  readonly sheets: number;
  readonly cost: number;
  /** Height of the smallest text on paper, in points; null where no text is printed. */
  readonly smallestTextPt: number | null;
}

const COUNTS = [1, 2, 4, 6, 8, 9, 16] as const;

/** Text so little below the wanted size counts as at it. */
const SLACK_PT = 1e-6;

/**
 * The set-up with the fewest sheets at which the smallest text stays at or above a size; of as many sheets, the one with
 * the larger text. Tried are one- and two-sided (where the printer turns paper over) and every number of pages a side,
 * upright and turned.
 *
 * @returns null where no set-up keeps the text that large, or it is not known of every page what text it holds
 * @throws TicketError where the ticket itself cannot be planned
 */
export function fewestSheets(
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  printer: Printer,
  { minimumTextPt }: { readonly minimumTextPt: number },
): FewestSheets | null {
  draft(ticket, documents, printer);
  const sides = printer.duplex ? (['one-sided', 'two-sided'] as const) : (['one-sided'] as const);
  let best: FewestSheets | null = null;
  for (const side of sides) {
    for (const count of COUNTS) {
      for (const turn of count === 1 ? (['upright'] as const) : (['upright', 'best'] as const)) {
        const patch = { sides: side, layout: { ...gridOfPages(ticket, count), turn } };
        const way = reckon(patch, ticket, documents, printer);
        if (!way || (way.smallestTextPt ?? Infinity) < minimumTextPt - SLACK_PT) continue;
        if (!best || isBetter(way, best)) best = way;
      }
    }
  }
  return best;
}

const isBetter = (one: FewestSheets, other: FewestSheets): boolean =>
  one.sheets < other.sheets ||
  (one.sheets === other.sheets && (one.smallestTextPt ?? 0) > (other.smallestTextPt ?? 0) + SLACK_PT);

/** Null where the set-up cannot be planned, or it is not known whether it can be read. */
function reckon(
  patch: FewestSheets['patch'],
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  printer: Printer,
): FewestSheets | null {
  try {
    const { plan } = draft({ ...ticket, ...patch }, documents, printer);
    const { smallestTextPt, known } = legibility(plan.sheets, documents);
    return known ? { patch, sheets: plan.tally.sheets, cost: plan.tally.cost, smallestTextPt } : null;
  } catch (error) {
    if (error instanceof TicketError) return null;
    throw error;
  }
}
