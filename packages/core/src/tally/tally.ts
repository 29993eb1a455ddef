import { findTray, type Printer, type Tray } from '../paper/printer';
import { pointsToMm } from '../paper/sizes';
import type { Plan, Sheet } from '../plan/plan';
import type { Ticket } from '../ticket/ticket';

export type Tally = Plan['tally'];

/** Grams a square metre of ordinary office paper, for a tray whose weight is not known (common practice). */
const OFFICE_PAPER_GRAMS = 80;

/** Paper of 80 g/m2 is about 0.1 mm thick, and thickness follows weight (common practice). */
const MM_PER_GRAM = 0.1 / 80;

/** Counts, cost, weight, height and time of the whole job: one set, times the sets. */
export function tally(sheets: readonly Sheet[], ticket: Ticket, printer: Printer): Tally {
  const sets = ticket.copies;
  const oneSet = setTally(sheets, ticket, printer);
  const times = (counts: Map<string, number>): Record<string, number> =>
    Object.fromEntries([...counts].map(([name, count]) => [name, count * sets]));
  return {
    sheetsPerSet: sheets.length,
    sheets: sheets.length * sets,
    sides: oneSet.sides * sets,
    blankSides: oneSet.blankSides * sets,
    byTray: times(oneSet.byTray),
    byPaper: times(oneSet.byPaper),
    cost: rounded(oneSet.cost * sets, 4),
    weightGrams: rounded(oneSet.weightGrams * sets, 3),
    heightMm: rounded(oneSet.heightMm * sets, 3),
    seconds: oneSet.seconds === null ? null : rounded(oneSet.seconds * sets, 1),
  };
}

function setTally(sheets: readonly Sheet[], ticket: Ticket, printer: Printer) {
  const byTray = new Map<string, number>();
  const byPaper = new Map<string, number>();
  const trays = new Map<string, Tray | null>();
  const click = clickPrice(ticket, printer);
  let sides = 0;
  let blankSides = 0;
  let cost = 0;
  let weightGrams = 0;
  let heightMm = 0;
  let minutes = 0;
  for (const sheet of sheets) {
    const tray = trayOf(sheet, printer, trays);
    if (sheet.tray !== null) byTray.set(sheet.tray, (byTray.get(sheet.tray) ?? 0) + 1);
    byPaper.set(sheet.paper.size, (byPaper.get(sheet.paper.size) ?? 0) + 1);
    const printed = printedSides(sheet);
    sides += printed;
    if (sheet.back && sheet.back.cells.length === 0) blankSides += 1;
    const grammage = tray?.weight ?? OFFICE_PAPER_GRAMS;
    cost += (tray?.price ?? 0) + printed * click;
    weightGrams += areaSquareMetres(sheet) * grammage;
    heightMm += grammage * MM_PER_GRAM;
    if (printer.sidesPerMinute !== null) minutes += minutesOf(sheet, printer.sidesPerMinute, printer.twoSidedFactor);
  }
  const seconds = printer.sidesPerMinute === null ? null : minutes * 60;
  return { sides, blankSides, byTray, byPaper, cost, weightGrams, heightMm, seconds };
}

/**
 * The price of a printed side. Whether a page holds colour is not read from the document yet, so a job in colour is
 * counted at the colour price throughout: the most it can cost.
 */
function clickPrice(ticket: Ticket, printer: Printer): number {
  return printer.color && ticket.color === 'auto' ? printer.prices.color : printer.prices.mono;
}

function trayOf(sheet: Sheet, printer: Printer, known: Map<string, Tray | null>): Tray | null {
  if (sheet.tray === null) return null;
  let tray = known.get(sheet.tray);
  if (tray === undefined) known.set(sheet.tray, (tray = findTray(printer, sheet.tray)));
  return tray;
}

function printedSides(sheet: Sheet): number {
  return (sheet.front.cells.length > 0 ? 1 : 0) + (sheet.back && sheet.back.cells.length > 0 ? 1 : 0);
}

/** A two-sided sheet passes the print engine twice, blank back or not, at the printer's two-sided speed. */
function minutesOf(sheet: Sheet, sidesPerMinute: number, twoSidedFactor: number): number {
  return sheet.back ? 2 / (sidesPerMinute * twoSidedFactor) : 1 / sidesPerMinute;
}

const areaSquareMetres = (sheet: Sheet): number =>
  (pointsToMm(sheet.paper.width) * pointsToMm(sheet.paper.height)) / 1e6;

/** Sums of floats carry noise in the last digits; a tally is read by people. */
const rounded = (value: number, decimals: number): number => Number(value.toFixed(decimals));
