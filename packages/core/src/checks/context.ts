import type { DocumentFacts } from '../pages/facts';
import type { Printer } from '../printer/printer';
import type { Check, PageName, Sheet } from '../plan/plan';
import type { Drafted } from '../planning/draft';
import { eachSide } from '../plan/each-side';
import type { Ticket } from '../ticket/ticket';

/** All that a check may look at. */
export interface CheckContext extends Drafted {
  readonly ticket: Ticket;
  readonly documents: readonly DocumentFacts[];
  readonly printer: Printer;
  /** Sheets above which a job counts as large. */
  readonly limit: number;
  /** What another ticket would come to: for a repair that must be tried before it is offered. @throws TicketError */
  readonly draft: (ticket: Ticket, documents: readonly DocumentFacts[], printer: Printer) => Drafted;
}

/** Each check is one question asked of the plan; it answers with nothing where all is well. */
export type CheckRule = (context: CheckContext) => Check[];

/** Sheets grouped by what a key says of them, in the order first met; sheets without a key are left out. */
export function groupSheets(sheets: readonly Sheet[], keyOf: (sheet: Sheet) => string | null): Map<string, Sheet[]> {
  const groups = new Map<string, Sheet[]>();
  for (const sheet of sheets) {
    const key = keyOf(sheet);
    if (key === null) continue;
    const group = groups.get(key);
    if (group) group.push(sheet);
    else groups.set(key, [sheet]);
  }
  return groups;
}

export const indexesOf = (sheets: readonly Sheet[]): number[] => sheets.map((sheet) => sheet.index);

/** The pages on these sheets, front before back. */
export function pagesOn(sheets: readonly Sheet[]): PageName[] {
  const pages: PageName[] = [];
  eachSide(sheets, ({ cells }) => cells.forEach(({ document, page }) => pages.push({ document, page })));
  return pages;
}

/** Each page once, in the order first met. */
export function uniquePages(pages: readonly PageName[]): PageName[] {
  const seen = new Set<string>();
  return pages.filter(({ document, page }) => {
    const key = `${document} ${page}`;
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}
