import type { Sheet, Side } from './plan';

/** Tells every side in the order of printing: sheet by sheet, front before back. */
export function eachSide(sheets: readonly Sheet[], tell: (side: Side, sheet: Sheet) => void): void {
  for (const sheet of sheets) {
    tell(sheet.front, sheet);
    if (sheet.back) tell(sheet.back, sheet);
  }
}
