import { isMonochrome, type Ticket } from '../ticket/ticket';
import type { Printer } from '../printer/printer';
import { takes } from '../printer/takes';

/** Whether a printer makes all of a job grey when it is told to; otherwise pages are made grey before they are sent. */
export const isGreyByItself = (ticket: Ticket, printer: Printer): boolean =>
  isMonochrome(ticket) && (!printer.color || takes(printer, 'print-color-mode', 'monochrome'));
