import type { DocumentFacts } from '../pages/facts';
import type { Cell, Side } from '../plan/plan';
import { isBilledAsColor, looksGray } from '../printer/billing';
import type { Printer } from '../printer/printer';
import type { PageRules } from '../ticket/page-rules';
import { isMonochrome, type Ticket } from '../ticket/ticket';

/** What sides are printed from. */
export interface Printed {
  readonly ticket: Ticket;
  readonly documents: readonly DocumentFacts[];
  readonly rules: PageRules;
  readonly printer: Printer;
}

const no = (): boolean => false;

/**
 * Whether a side is billed as colour: where the printer has it, the ticket leaves it on, and a page on the side holds any. A
 * page of which it is not known yet counts as colour: the most it can cost.
 */
export function coloredSides({ ticket, documents, rules, printer }: Printed): (side: Side) => boolean {
  if (!printer.color || isMonochrome(ticket)) return no;
  const isColored = ({ document, page }: Cell): boolean =>
    rules.settingsOf(document, page).color === 'auto' &&
    isBilledAsColor(documents[document - 1]?.pages[page - 1], printer.prices);
  return ({ cells }) => cells.some(isColored);
}

/** Whether a side is billed as colour though nothing that is seen on it is coloured. */
export function graySidesInColor(printed: Printed): (side: Side) => boolean {
  const isColor = coloredSides(printed);
  const { documents, rules } = printed;
  const isSeenColored = ({ document, page }: Cell): boolean =>
    rules.settingsOf(document, page).color === 'auto' && !looksGray(documents[document - 1]?.pages[page - 1]);
  return (side) => isColor(side) && !side.cells.some(isSeenColored);
}
