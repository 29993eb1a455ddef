import type { DocumentFacts } from '../pages/facts';
import type { Printer } from '../paper/printer';
import { draft } from '../plan/plan';
import { legibility } from '../tally/legibility';
import type { Ticket } from '../ticket/ticket';
import { bookletDefaults, gridDefaults } from '../ticket/ticket.schema';
import { TicketError } from '../ticket/ticket-error';

export type WayName = 'as-set' | 'one-sided' | 'two-sided' | '2-a-side' | '4-a-side' | 'booklet' | 'in-grey';

/** One way to print the same pages, and what it comes to. */
export interface WayToPrint {
  readonly name: WayName;
  /** The ticket's fields that make it so. */
  readonly patch: Partial<Ticket>;
  /** Of the whole job. */
  readonly sheets: number;
  readonly cost: number;
  /** Height of the smallest text on paper, in points; null where no text is printed or it is not known yet. */
  readonly smallestTextPt: number | null;
}

/** A grid of so many pages, keeping what the ticket says of flow, gutter and the like. */
export function gridOfPages(
  ticket: Ticket,
  pagesPerSide: (typeof gridDefaults | GridOfTicket)['pagesPerSide'],
): GridOfTicket {
  const base = ticket.layout.kind === 'grid' ? ticket.layout : gridDefaults;
  return { ...base, pagesPerSide, columns: null, rows: null };
}
type GridOfTicket = Extract<Ticket['layout'], { kind: 'grid' }>;

/**
 * The ways to print the same pages, the present one first: one-sided, two-sided, 2 and 4 pages a side, as a booklet, in
 * grey. What routes say of their pages stays. A way that cannot be planned is left out.
 *
 * @throws TicketError where the ticket itself cannot be planned
 */
export function compare(ticket: Ticket, documents: readonly DocumentFacts[], printer: Printer): WayToPrint[] {
  const now = reckon({ name: 'as-set', patch: {} }, ticket, documents, printer);
  const booklet = ticket.layout.kind === 'booklet' ? ticket.layout : bookletDefaults;
  const ways: Pick<WayToPrint, 'name' | 'patch'>[] = [
    { name: 'one-sided', patch: { sides: 'one-sided', ...unfolded(ticket) } },
    { name: 'two-sided', patch: { sides: 'two-sided', ...unfolded(ticket) } },
    { name: '2-a-side', patch: { layout: gridOfPages(ticket, 2) } },
    { name: '4-a-side', patch: { layout: gridOfPages(ticket, 4) } },
    { name: 'booklet', patch: { sides: 'two-sided', layout: booklet } },
    { name: 'in-grey', patch: { color: 'monochrome' } },
  ];
  return [now, ...ways.flatMap((way) => tryReckon(way, ticket, documents, printer))];
}

/** A booklet is always two-sided, so one side or two can only be chosen for a grid. */
const unfolded = (ticket: Ticket): Partial<Ticket> =>
  ticket.layout.kind === 'booklet' ? { layout: gridOfPages(ticket, 1) } : {};

function tryReckon(
  way: Pick<WayToPrint, 'name' | 'patch'>,
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  printer: Printer,
): WayToPrint[] {
  try {
    return [reckon(way, ticket, documents, printer)];
  } catch (error) {
    if (error instanceof TicketError) return [];
    throw error;
  }
}

function reckon(
  { name, patch }: Pick<WayToPrint, 'name' | 'patch'>,
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  printer: Printer,
): WayToPrint {
  const { plan } = draft({ ...ticket, ...patch }, documents, printer);
  const { smallestTextPt, known } = legibility(plan.sheets, documents);
  const { sheets, cost } = plan.tally;
  return { name, patch, sheets, cost, smallestTextPt: known ? smallestTextPt : null };
}
