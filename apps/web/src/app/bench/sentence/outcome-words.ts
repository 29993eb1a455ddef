import { pointsToMm, type Outcome, type Sheet } from '@foglio/core';
import { countSheets, sayMoney } from '../amounts';

/** "18 sheets, € 2.12, text from 9.0 pt" */
export function sayOutcome({ sheets, cost, smallestTextPt, isUnfed }: Outcome): string {
  // What it would cost is not known, and must not look cheaper.
  if (isUnfed) return `${countSheets(sheets)}, no tray holds this paper`;
  const text = smallestTextPt === null ? [] : [`text from ${smallestTextPt.toFixed(1)} pt`];
  return [countSheets(sheets), ...(cost > 0 ? [sayMoney(cost)] : []), ...text].join(', ');
}

/** How large the first page comes out: "190 × 277 mm"; nothing on a blank sheet. */
export function sayMeasure({ front: { cells } }: Sheet): string {
  const [cell] = cells;
  return cell ? `${Math.round(pointsToMm(cell.width))} × ${Math.round(pointsToMm(cell.height))} mm` : '';
}

/** What is different from now: "4 sheets fewer, € 0.40 less, text 2.5 pt smaller". */
export function sayChange(outcome: Outcome, now: Outcome): string {
  const sheets = outcome.sheets - now.sheets;
  const said: string[] = [];
  if (sheets !== 0) said.push(`${countSheets(Math.abs(sheets))} ${sheets < 0 ? 'fewer' : 'more'}`);
  const cost = Math.round((outcome.cost - now.cost) * 100) / 100;
  if (cost !== 0 && !outcome.isUnfed && !now.isUnfed)
    said.push(`${sayMoney(Math.abs(cost))} ${cost < 0 ? 'less' : 'more'}`);
  const [then, before] = [outcome.smallestTextPt, now.smallestTextPt];
  if (then !== null && before !== null && Math.abs(then - before) >= 0.05) {
    said.push(`text ${Math.abs(then - before).toFixed(1)} pt ${then < before ? 'smaller' : 'larger'}`);
  }
  return said.length === 0 ? 'as now' : said.join(', ');
}
