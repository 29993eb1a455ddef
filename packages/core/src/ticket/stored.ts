import { printerSchema } from '../printer/printer.schema';
import type { Printer } from '../printer/printer';
import { filledIn } from '../settings/defaults';
import type { Ticket } from './ticket';
import { ticketSchema } from './ticket.schema';

/**
 * A ticket that was kept, by whichever version: what that did not know yet has its default, so that a new setting needs no
 * migration. What is kept was checked when it came in, and is not checked again.
 */
export const storedTicket = (kept: unknown): Ticket => filledIn(ticketSchema, kept) as Ticket;

/** A printer profile that was kept, likewise. */
export const storedPrinter = (kept: unknown): Printer => filledIn(printerSchema, kept) as Printer;
