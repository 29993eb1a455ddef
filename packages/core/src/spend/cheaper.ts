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

/** Such as change neither what the job is nor what it looks like; in grey, those pages that look so anyway. */
export const CHEAPER_WAYS = ['two-sided', '2-a-side', '4-a-side', 'in-grey'] as const satisfies readonly WayName[];
export type CheaperName = (typeof CHEAPER_WAYS)[number];

/** Text under this is not advised to anybody, in points: 7 can still be read, and nobody asked for it (our own choice). */
const ADVISED_PT = 8;

/** What saves less is not worth a line, in money. */
const WORTH_TELLING = 0.005;

/**
 * The way that saves most of those that are compared, on paper that is there and with text that is read easily: on both sides only
 * where the printer turns paper over itself, and a booklet stays one. Pages that are billed as colour though nothing on them is
 * coloured can always be printed in grey.
 *
 * @param now what it came to, and what of that is for such pages
 * @returns null where nothing would have cost less
 */
export function cheaperWay(
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  printer: Printer,
  now: { readonly cost: number; readonly gray: number },
): CheaperWay | null {
  if (now.cost <= 0 || ticket.pieces !== null) return null;
  let best: CheaperWay | null =
    now.gray < WORTH_TELLING ? null : { way: 'in-grey', saves: now.gray, smallestTextPt: null };
  if (ticket.layout.kind !== 'grid') return best;
  for (const { name, cost, smallestTextPt, textKnown, isUnfed } of compare(ticket, documents, printer)) {
    if (!isAdvised(name) || isUnfed) continue;
    if (name === 'two-sided' && !printer.duplex) continue;
    if (name.endsWith('a-side') && (!textKnown || (smallestTextPt ?? Infinity) < ADVISED_PT)) continue;
    const saves = Number((now.cost - cost).toFixed(4));
    if (saves >= WORTH_TELLING && saves > (best?.saves ?? 0)) best = { way: name, saves, smallestTextPt };
  }
  return best;
}

const isAdvised = (name: WayName): name is Exclude<CheaperName, 'in-grey'> =>
  name !== 'in-grey' && (CHEAPER_WAYS as readonly WayName[]).includes(name);
