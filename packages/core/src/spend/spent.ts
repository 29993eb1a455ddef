import type { DocumentFacts } from '../pages/facts';
import { gridOfPages } from '../compare/compare';
import { tryOutcome } from '../compare/outcome';
import type { Plan } from '../plan/plan';
import type { Portion } from '../plan/marks';
import { findTray, type Printer } from '../printer/printer';
import { coloredSides, graySidesInColor } from '../tally/colored-sides';
import { pageRules } from '../ticket/page-rules';
import type { Ticket } from '../ticket/ticket';
import { cheaperWay, type CheaperWay } from './cheaper';

/** In what way pages lie on paper, by which what was spent is told apart. */
export const SPENT_KINDS = ['one-sided', 'two-sided', 'several-a-side', 'booklet', 'pieces', 'tiles'] as const;
export type SpentKind = (typeof SPENT_KINDS)[number];

/** Sheets of one paper, and what it came to. */
export interface PaperSpent {
  /** Name of PWG 5101.1, and keyword of a type (PWG 5100.3) where the tray told it. */
  readonly size: string;
  readonly type: string | null;
  readonly sheets: number;
  readonly cost: number;
}

/** What a delivery came to, in figures that are added up over time; money in the currency of the printer's prices. */
export interface Spent {
  readonly kind: SpentKind;
  readonly sheets: number;
  /** Of these with something on both sides. */
  readonly twoSidedSheets: number;
  /** Sides with something on them, such as are billed as colour, and of these such as nothing coloured is seen on. */
  readonly sides: number;
  readonly colorSides: number;
  readonly graySides: number;
  /** Paper and printing are all of it; what grey sides cost more than in grey is within the printing. */
  readonly paper: number;
  readonly printing: number;
  readonly gray: number;
  readonly papers: readonly PaperSpent[];
  /** What one page a side, on one side, would have come to beyond this: less than nothing where that takes less. */
  readonly saved: { readonly sheets: number; readonly cost: number };
  /** What would have cost less; null where nothing would. */
  readonly cheaper: CheaperWay | null;
}

/** What a delivery was made from. */
export interface Delivery {
  readonly ticket: Ticket;
  readonly documents: readonly DocumentFacts[];
  readonly printer: Printer;
  /** What of the ticket it is; null: all of it. */
  readonly portion: Portion | null;
}

/**
 * What a plan came to once it was delivered. Sheets printed once more save nothing and are compared with nothing: who prints
 * sheet 7 again has no other way to.
 *
 * @param plan that of the portion
 */
export function spentOf(plan: Plan, { ticket, documents, printer, portion }: Delivery): Spent {
  const { sheets, sides, cost } = plan.tally;
  const printed = { ticket, documents, rules: pageRules(ticket, documents), printer };
  const isColor = coloredSides(printed);
  const isGray = graySidesInColor(printed);
  let [colorSides, graySides, twoSidedSheets] = [0, 0, 0];
  for (const { front, back } of plan.sheets) {
    if (front.cells.length > 0 && back && back.cells.length > 0) twoSidedSheets += 1;
    for (const side of back ? [front, back] : [front]) {
      if (isColor(side)) colorSides += 1;
      if (isGray(side)) graySides += 1;
    }
  }
  const papers = papersOf(plan, printer);
  const paper = money(papers.reduce((sum, one) => sum + one.cost, 0));
  // As many sets as were printed, so that what is compared is as much.
  const sets = portion === 'first-set' ? 1 : portion === 'other-sets' ? ticket.copies - 1 : ticket.copies;
  const whole = { ...ticket, copies: sets, proof: false };
  const isAgain = typeof portion === 'object' && portion !== null;
  const gray = money(graySides * plan.sets * (printer.prices.color - printer.prices.mono));
  return {
    kind: kindOf(ticket),
    sheets,
    twoSidedSheets: twoSidedSheets * plan.sets,
    sides,
    colorSides: colorSides * plan.sets,
    graySides: graySides * plan.sets,
    paper,
    printing: money(cost - paper),
    gray,
    papers,
    saved: isAgain ? { sheets: 0, cost: 0 } : savedBy(whole, documents, printer, plan.tally),
    cheaper: isAgain ? null : cheaperWay(whole, documents, printer, { cost, gray }),
  };
}

function kindOf({ pieces, layout, sides }: Ticket): SpentKind {
  if (pieces !== null) return 'pieces';
  if (layout.kind !== 'grid') return layout.kind;
  const isSeveral = layout.columns && layout.rows ? layout.columns * layout.rows > 1 : layout.pagesPerSide > 1;
  return isSeveral ? 'several-a-side' : sides === 'one-sided' ? 'one-sided' : 'two-sided';
}

/** By size and type of paper; sheets that no tray was known for cost nothing that is known. */
function papersOf({ tally }: Plan, printer: Printer): PaperSpent[] {
  const found = new Map<string, PaperSpent>();
  const add = (size: string, type: string | null, sheets: number, cost: number): void => {
    const key = `${size} ${type ?? ''}`;
    const before = found.get(key) ?? { size, type, sheets: 0, cost: 0 };
    found.set(key, { ...before, sheets: before.sheets + sheets, cost: money(before.cost + cost) });
  };
  for (const [id, sheets] of Object.entries(tally.byTray)) {
    const tray = findTray(printer, id);
    if (tray?.size) add(tray.size, tray.type, sheets, sheets * (tray.price ?? 0));
  }
  const fed = [...found.values()].reduce((sum, { sheets }) => sum + sheets, 0);
  const [size] = Object.keys(tally.byPaper);
  if (fed < tally.sheets && size) add(size, null, tally.sheets - fed, 0);
  return [...found.values()];
}

/** One page a side on one side, whatever routes say of sides and layout too. */
function savedBy(
  ticket: Ticket,
  documents: readonly DocumentFacts[],
  printer: Printer,
  { sheets, cost }: Plan['tally'],
): Spent['saved'] {
  const nothing = { sheets: 0, cost: 0 };
  if (ticket.pieces !== null || ticket.layout.kind === 'tiles') return nothing;
  const routes = ticket.routes.map(({ sides: _, layout: __, ...rest }) => rest);
  const plain = { ...ticket, sides: 'one-sided' as const, layout: gridOfPages(ticket, 1), routes };
  const outcome = tryOutcome(plain, documents, printer);
  return outcome ? { sheets: outcome.sheets - sheets, cost: money(outcome.cost - cost) } : nothing;
}

/** To a hundredth of a cent: sums of floats carry noise beyond. */
const money = (amount: number): number => Number(amount.toFixed(4));
