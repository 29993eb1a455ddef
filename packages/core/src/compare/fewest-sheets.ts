import type { DocumentFacts } from '../pages/facts';
import type { Printer } from '../printer/printer';
import { draft } from '../planning/draft';
import type { Ticket } from '../ticket/ticket';
import { gridOfPages } from './compare';
import { tryOutcome, type Outcome } from './outcome';

/** The set-up with the fewest sheets, and what it comes to. */
export interface FewestSheets extends Outcome {
  readonly patch: Pick<Ticket, 'sides' | 'layout'>;
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
        const outcome = tryOutcome({ ...ticket, ...patch }, documents, printer);
        if (!outcome?.textKnown || (outcome.smallestTextPt ?? Infinity) < minimumTextPt - SLACK_PT) continue;
        if (!best || isBetter(outcome, best)) best = { patch, ...outcome };
      }
    }
  }
  return best;
}

const isBetter = (one: Outcome, other: Outcome): boolean =>
  one.sheets < other.sheets ||
  (one.sheets === other.sheets && (one.smallestTextPt ?? 0) > (other.smallestTextPt ?? 0) + SLACK_PT);
