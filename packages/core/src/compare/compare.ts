import type { DocumentFacts } from '../pages/facts';
import type { Printer } from '../printer/printer';
import type { Ticket } from '../ticket/ticket';
import { bookletDefaults, gridDefaults } from '../settings/layout';
import { outcomeOf, tryOutcome, type Outcome } from './outcome';

export type WayName =
  | 'as-set'
  | 'one-sided'
  | 'two-sided'
  | '2-a-side'
  | '4-a-side'
  | 'booklet'
  | 'trimmed'
  | 'in-grey'
  | 'in-color';

/** One way to print the same pages, and what it comes to. */
export interface WayToPrint extends Outcome {
  readonly name: WayName;
  /** The ticket's fields that make it so. */
  readonly patch: Partial<Ticket>;
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
 * The ways to print the same pages, the present one first: one-sided, two-sided, 2 and 4 pages a side, as a booklet, with
 * the white margins trimmed, and in grey, or in colour again. What routes say of their pages stays. A way that cannot be planned is left out.
 *
 * @throws TicketError where the ticket itself cannot be planned
 */
export function compare(ticket: Ticket, documents: readonly DocumentFacts[], printer: Printer): WayToPrint[] {
  const now: WayToPrint = { name: 'as-set', patch: {}, ...outcomeOf(ticket, documents, printer) };
  const booklet = ticket.layout.kind === 'booklet' ? ticket.layout : bookletDefaults;
  const ways: Pick<WayToPrint, 'name' | 'patch'>[] = [
    { name: 'one-sided', patch: { sides: 'one-sided', ...unfolded(ticket) } },
    { name: 'two-sided', patch: { sides: 'two-sided', ...unfolded(ticket) } },
    { name: '2-a-side', patch: { layout: gridOfPages(ticket, 2) } },
    { name: '4-a-side', patch: { layout: gridOfPages(ticket, 4) } },
    { name: 'booklet', patch: { sides: 'two-sided', layout: booklet } },
    { name: 'trimmed', patch: trimmed(ticket) },
    ticket.color === 'monochrome'
      ? { name: 'in-color', patch: { color: 'auto' } }
      : { name: 'in-grey', patch: { color: 'monochrome' } },
  ];
  const reckon = (way: Pick<WayToPrint, 'name' | 'patch'>): WayToPrint[] => {
    const outcome = tryOutcome({ ...ticket, ...way.patch }, documents, printer);
    return outcome ? [{ ...way, ...outcome }] : [];
  };
  return [now, ...ways.flatMap(reckon)];
}

/** Without white margins, and as large as fits: at actual size nothing would grow. */
const trimmed = ({ documents, scale }: Ticket): Partial<Ticket> => ({
  documents: documents.map((one) => ({ ...one, part: 'content' as const })),
  ...(scale.mode === 'auto-fit' ? { scale: { ...scale, mode: 'fit' as const } } : {}),
});

/** A booklet is always two-sided and what is joined one-sided, so one side or two can only be chosen for a grid. */
const unfolded = (ticket: Ticket): Partial<Ticket> =>
  ticket.layout.kind === 'grid' ? {} : { layout: gridOfPages(ticket, 1) };
