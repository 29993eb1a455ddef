import type { DocumentFacts } from '../pages/facts';
import { eachSide } from '../plan/each-side';
import type { Cell, PageName, Sheet } from '../plan/plan';

/** Text as it is printed: its size on paper, and where. */
export interface PrintedText extends PageName {
  readonly sheet: number;
  readonly points: number;
}

export interface Legibility {
  /** Height of the smallest text on paper, in points; null where no text is printed. */
  readonly smallestTextPt: number | null;
  /** False: of some page it is not known yet what text it holds, so there may be smaller text. */
  readonly known: boolean;
}

/** How far below a limit still counts as at it: scales are quotients, and 6 pt at half size is not exactly 3 pt. */
const SLACK = 1e-6;

/** The smallest text a plan prints: the smallest on each page, times the scale of its cell. */
export function legibility(sheets: readonly Sheet[], documents: readonly DocumentFacts[]): Legibility {
  let smallest = Infinity;
  let known = true;
  eachSide(sheets, ({ cells }) => {
    for (const cell of cells) {
      const points = printedText(cell, documents);
      if (points === undefined) known = false;
      else if (points !== null && points < smallest) smallest = points;
    }
  });
  return { smallestTextPt: smallest === Infinity ? null : smallest, known };
}

/** Every cell whose smallest text comes out under a size, in points. */
export function smallText(
  sheets: readonly Sheet[],
  documents: readonly DocumentFacts[],
  underPt: number,
): PrintedText[] {
  const small: PrintedText[] = [];
  eachSide(sheets, ({ cells }, sheet) => {
    for (const cell of cells) {
      const points = printedText(cell, documents) ?? Infinity;
      if (points >= underPt - SLACK) continue;
      small.push({ sheet: sheet.index, document: cell.document, page: cell.page, points });
    }
  });
  return small;
}

/** The smallest text of a cell as printed, in points; null where it has none, undefined where it is not known. */
function printedText(cell: Cell, documents: readonly DocumentFacts[]): number | null | undefined {
  const text = documents[cell.document - 1]?.pages[cell.page - 1]?.smallestText;
  return text ? text * cell.scale : text;
}
