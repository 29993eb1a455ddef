import type { Printer } from '../printer/printer';
import type { DocumentFacts } from '../pages/facts';
import { tally } from '../tally/tally';
import type { Ticket } from '../ticket/ticket';
import { apartFrom } from './feed';
import type { LaidPieces } from './pieces';
import type { PageRules } from '../ticket/page-rules';
import { passesOf } from './passes';
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
  const slipBetweenSets = slipBetween(sheets, ticket, printer);
  const passes = passesOf(sheets, printer);
  const blank = placeOfInformation(sheets, passes, ticket, printer);
  const counted = tally({
    sheets,
    outside: { blank, slipBetweenSets },
    passes,
    ticket,
    documents,
    rules,
    printer,
    pieces,
  });
  const told = { ticket, documents, printer, byTray: counted.byTray, now, sentence };
  return {
    version: 1,
    sheets,
    sets: ticket.copies,
    collate: ticket.collate,
    delivery: ticket.delivery,
    slipBetweenSets,
    informationSheet: blank && withInformation(blank, told),
    tally: counted,
    passes,
  };
}

/** The slip put between sets, whether there is more than one or not. Sheets that are not in sets have no place for one. */
function slipBetween(sheets: readonly Sheet[], ticket: Ticket, printer: Printer): Plan['slipBetweenSets'] {
  const last = sheets.at(-1);
  const inSets = ticket.collate || sheets.length === 1;
  if (ticket.slips.between !== 'sets' || !last || !inSets) return null;
  return apartFrom(last, ticket.slips.tray, printer);
}
