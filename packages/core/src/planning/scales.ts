import type { DocumentFacts } from '../pages/facts';
import type { Printer } from '../printer/printer';
import type { Ticket } from '../ticket/ticket';
import { TicketError } from '../ticket/ticket-error';
import { lay } from './draft';
import { SAME_SCALE } from './place';
import { BLANK } from './select';

/** The smallest and the largest scale; 1 is actual size. */
export interface Scales {
  readonly least: number;
  readonly most: number;
}

/**
 * At which scales the pages of each route come out, by its index from 0; -1: those that none rules. Routes whose pages all
 * are at actual size are left out; all are where the ticket cannot be planned, which the planner then says.
 */
export function scalesOf(
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  printer: Printer,
): ReadonlyMap<number, Scales> {
  const found = new Map<number, Scales>();
  for (const { run, places } of laidOut(ticket, documents, printer)) {
    run.stretches.forEach(({ route, pages }, index) => {
      if (pages[0] === BLANK) return;
      let { least, most } = found.get(route) ?? { least: Infinity, most: 0 };
      // Of a booklet all stretches have their places in common.
      for (const { placement } of places[index] ?? places[0] ?? []) {
        least = Math.min(least, placement.scale);
        most = Math.max(most, placement.scale);
      }
      found.set(route, { least, most });
    });
  }
  const isActual = ({ least, most }: Scales): boolean => least > 1 - SAME_SCALE && most < 1 + SAME_SCALE;
  return new Map([...found].filter(([, scales]) => !isActual(scales)));
}

function laidOut(...asked: Parameters<typeof lay>): ReturnType<typeof lay>['laidOut'] {
  try {
    return lay(...asked).laidOut;
  } catch (error) {
    if (error instanceof TicketError) return [];
    throw error;
  }
}
