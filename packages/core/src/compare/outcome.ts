import type { DocumentFacts } from '../pages/facts';
import { isBacksAlone } from '../planning/passes';
import { findTray, type Printer } from '../printer/printer';
import type { Sheet } from '../plan/plan';
import { draft } from '../planning/draft';
import { legibility } from '../tally/legibility';
import type { Ticket } from '../ticket/ticket';
import { TicketError } from '../ticket/ticket-error';

/** What a ticket comes to, in the figures by which people choose between two. */
export interface Outcome {
  /** Of the whole job. */
  readonly sheets: number;
  readonly cost: number;
  /** Height of the smallest text on paper, in points; null where no text is printed or it is not known yet. */
  readonly smallestTextPt: number | null;
  /** Whether it is known of every page what text it holds. */
  readonly textKnown: boolean;
  /** Whether some of it has no paper: no tray holds that, or the one named for it holds another. */
  readonly isUnfed: boolean;
  /** The first sheet, for a picture of it. */
  readonly first: Sheet;
}

/** @throws TicketError where the ticket cannot be planned */
export function outcomeOf(ticket: Ticket, documents: readonly DocumentFacts[], printer: Printer): Outcome {
  const { plan } = draft(ticket, documents, printer);
  const { smallestTextPt, known } = legibility(plan.sheets, documents);
  const { sheets, cost } = plan.tally;
  // A document of which no page is chosen is an error, so there is a first sheet.
  const first = plan.sheets[0] as Sheet;
  const isUnfed = plan.sheets.some(({ tray, paper }) => {
    const held = tray === null ? null : findTray(printer, tray);
    return held?.size !== paper.size && !isBacksAlone(plan);
  });
  return { sheets, cost, smallestTextPt: known ? smallestTextPt : null, textKnown: known, isUnfed, first };
}

/** The same; null where the ticket cannot be planned. */
export function tryOutcome(ticket: Ticket, documents: readonly DocumentFacts[], printer: Printer): Outcome | null {
  try {
    return outcomeOf(ticket, documents, printer);
  } catch (error) {
    if (error instanceof TicketError) return null;
    throw error;
  }
}
