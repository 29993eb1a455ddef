import type { Printer } from '../printer/printer';
import type { DocumentFacts } from '../pages/facts';
import { tally } from '../tally/tally';
import type { Ticket } from '../ticket/ticket';
import { apartFrom } from './feed';
import type { LaidPieces } from './pieces';
import type { PageRules } from '../ticket/page-rules';
import { facesOf } from './faces';
import { passesOf, passOf, twoPasses, type TwoPasses } from './passes';
import { placeOfInformation, withInformation } from './information-sheet';
import type { GatheredPlan, Plan, PlanOptions, Sheet } from '../plan/plan';

/** What a plan is gathered from beside its sheets. */
interface Gathering extends Pick<PlanOptions, 'now' | 'sentence'> {
  readonly ticket: Ticket;
  readonly documents: readonly DocumentFacts[];
  readonly rules: PageRules;
  readonly printer: Printer;
  /** Of one set. */
  readonly pieces: LaidPieces['pieces'];
}

/** Step 8. The sheets of one set, and how many sets; copies are never spelled out, so ten thousand cost what one costs. */
export function gather(
  sheets: Sheet[],
  { ticket, documents, rules, printer, pieces, now, sentence }: Gathering,
): GatheredPlan {
  const { faces } = ticket;
  const both = faces === 'both' ? passesOf(sheets, printer) : twoPasses(sheets, printer);
  const whole = {
    sheets,
    slipBetweenSets: slipBetween(sheets, ticket, printer),
    information: placeOfInformation(sheets, both, ticket, printer),
  };
  const fed = faces === 'both' ? whole : facesOf(whole, faces, printer);
  const passes = faces === 'both' ? both : passOf(both as TwoPasses, faces);
  const { slipBetweenSets, information: blank } = fed;
  const outside = { blank, slipBetweenSets };
  const counted = tally({ sheets: fed.sheets, outside, passes, ticket, documents, rules, printer, pieces });
  const told = { ticket, documents, printer, byTray: counted.byTray, now, sentence };
  return {
    version: 1,
    sheets: fed.sheets,
    sets: ticket.copies,
    collate: ticket.collate,
    delivery: ticket.delivery,
    slipBetweenSets,
    informationSheet: blank && (faces === 'backs' ? { ...blank, front: BLANK_FRONT } : withInformation(blank, told)),
    tally: counted,
    passes,
  };
}

/** Of an information sheet that passes for its back. */
const BLANK_FRONT: Sheet['front'] = { orientation: 'portrait', cells: [] };

/** The slip put between sets, whether there is more than one or not. Sheets that are not in sets have no place for one. */
function slipBetween(sheets: readonly Sheet[], ticket: Ticket, printer: Printer): Plan['slipBetweenSets'] {
  const last = sheets.at(-1);
  const inSets = ticket.collate || sheets.length === 1;
  if (ticket.slips.between !== 'sets' || !last || !inSets) return null;
  return apartFrom(last, ticket.slips.tray, printer);
}
