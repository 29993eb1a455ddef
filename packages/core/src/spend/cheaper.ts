import { compare, type WayName } from '../compare/compare';
import type { DocumentFacts } from '../pages/facts';
import type { Printer } from '../printer/printer';
import type { Ticket } from '../ticket/ticket';

/** A way in which a job would have cost less, and by how much. */
export interface CheaperWay {
  readonly way: CheaperName;
  readonly saves: number;
  /** Height of the smallest text it would have, in points; null where there is none. */
  readonly smallestTextPt: number | null;
}

/** Such as change neither what the job is nor, where it is grey anyway, what it looks like. */
export const CHEAPER_WAYS = ['two-sided', '2-a-side', '4-a-side', 'in-grey'] as const satisfies readonly WayName[];
export type CheaperName = (typeof CHEAPER_WAYS)[number];

/** Text under this is not advised to anybody, in points: 7 can still be read, and nobody asked for it (our own choice). */
const ADVISED_PT = 8;

/** What saves less is not worth a line, in money. */
const WORTH_TELLING = 0.005;

/**
 * The way that saves most of those that are compared, on paper that is there and with text that is read easily. In grey only
 * where nothing seen on it is coloured; on both sides only where the printer turns paper over itself; a booklet stays one.
 *
 * @param now what it came to, and whether nothing of it is seen in colour though some of it was billed so
 * @returns null where nothing would have cost less
 */
export function cheaperWay(
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  printer: Printer,
  now: { readonly cost: number; readonly looksGray: boolean },
): CheaperWay | null {
  if (now.cost <= 0 || ticket.pieces !== null) return null;
  let best: CheaperWay | null = null;
  for (const { name, cost, smallestTextPt, textKnown, isUnfed } of compare(ticket, documents, printer)) {
    if (!isAdvised(name) || isUnfed) continue;
    if (name === 'in-grey' ? !now.looksGray : ticket.layout.kind !== 'grid') continue;
    if (name === 'two-sided' && !printer.duplex) continue;
    if (name.endsWith('a-side') && (!textKnown || (smallestTextPt ?? Infinity) < ADVISED_PT)) continue;
    const saves = Number((now.cost - cost).toFixed(4));
    if (saves >= WORTH_TELLING && saves > (best?.saves ?? 0)) best = { way: name, saves, smallestTextPt };
  }
  return best;
}

const isAdvised = (name: WayName): name is CheaperName => (CHEAPER_WAYS as readonly WayName[]).includes(name);
