import { matchSize } from '../paper/sizes';
import type { DocumentFacts } from '../pages/facts';
import type { Printer } from '../printer/printer';
import type { Ticket } from './ticket';

/**
 * A ticket over pages of which none has the size of a paper, as pictures have them: on what lies in the printer's first tray,
 * since nobody has paper of such a size. Any other ticket as it is: which paper stands in for a missing one is for a person
 * to say.
 */
export function onLoadedPaper(
  ticket: Ticket,
  documents: readonly Pick<DocumentFacts, 'pages'>[],
  printer: Printer,
): Ticket {
  const [first] = printer.trays;
  const pages = documents.flatMap((one) => one.pages);
  if (!first || pages.length === 0 || ticket.paper.size !== 'as-page') return ticket;
  const held = new Set(printer.trays.map(({ size }) => size));
  const hasPaper = pages.some(({ width, height }) => {
    const { name } = matchSize(width, height);
    return held.has(name) || !name.startsWith('custom_');
  });
  return hasPaper ? ticket : { ...ticket, paper: { ...ticket.paper, size: first.size } };
}
