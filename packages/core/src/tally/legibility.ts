import type { DocumentFacts } from '../pages/facts';
import { eachCell } from '../plan/each-cell';
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
  eachText(sheets, documents, (points) => {
    if (points === null) known = false;
    else if (points < smallest) smallest = points;
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
  eachText(sheets, documents, (points, { document, page }, sheet) => {
    if (points !== null && points < underPt - SLACK) small.push({ sheet: sheet.index, document, page, points });
  });
  return small;
}

/** Tells the smallest text of each cell, or null where it is not known; cells of pages without text are left out. */
function eachText(
  sheets: readonly Sheet[],
  documents: readonly DocumentFacts[],
  tell: (points: number | null, cell: Cell, sheet: Sheet) => void,
): void {
  eachCell(sheets, (cell, _side, sheet) => {
    const text = documents[cell.document - 1]?.pages[cell.page - 1]?.smallestText;
    if (text !== null) tell(text === undefined ? null : text * cell.scale, cell, sheet);
  });
}
