import { plan, type DocumentFacts, type Plan, type Portion, type Printer, type Ticket } from '@foglio/core';
import { sentence } from './sentence';

/**
 * The plan of a ticket printed at a moment: with whatever tells the day, and with the sentence on the information sheet.
 *
 * @param moment "2026-09-01T14:05" (ISO 8601, local time), as `momentOf` gives it
 * @param portion what of it is printed; null: all of it
 * @throws TicketError like `plan`
 */
export const planAt = (
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  printer: Printer,
  moment: string,
  portion: Portion | null = null,
): Plan =>
  plan(ticket, documents, printer, {
    now: moment,
    ...(portion ? { portion } : {}),
    ...(ticket.informationSheet.print ? { sentence: sayTicket(ticket, documents, printer) } : {}),
  });

/** The ticket as one text, but for the sheet that it stands on. */
export function sayTicket(ticket: Ticket, documents: readonly DocumentFacts[], printer: Printer): string {
  const told = { ...ticket, informationSheet: { ...ticket.informationSheet, print: false } };
  return sentence({ ticket: told, documents, printer, at: 0, house: told })
    .map(({ text }) => text)
    .join('');
}
