import type { Cell, Sheet, Side } from './plan';

/** Tells every cell in the order of printing: sheet by sheet, front before back. */
export function eachCell(sheets: readonly Sheet[], tell: (cell: Cell, side: Side, sheet: Sheet) => void): void {
  for (const sheet of sheets) {
    for (const cell of sheet.front.cells) tell(cell, sheet.front, sheet);
    if (sheet.back) for (const cell of sheet.back.cells) tell(cell, sheet.back, sheet);
  }
}
