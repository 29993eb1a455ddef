import type { DocumentFacts } from '../pages/facts';
import { findTray, type Printer, type Tray } from '../printer/printer';
import { pointsToMm } from '../paper/sizes';
import type { PageRules } from '../ticket/page-rules';
import type { Plan, Sheet, Side } from '../plan/plan';
import type { Ticket } from '../ticket/ticket';
import { coloredSides } from './colored-sides';

export type Tally = Plan['tally'];

/** Grams a square metre of ordinary office paper, for a tray whose weight is not known (common practice). */
const OFFICE_PAPER_GRAMS = 80;

/** Paper of 80 g/m2 is about 0.1 mm thick, and thickness follows weight (common practice). */
const MM_PER_GRAM = 0.1 / 80;

export interface TallyInput extends Pick<Plan, 'sheets' | 'passes'> {
  /** What stands in no set: what becomes of the information sheet, and a slip between sets. */
  readonly outside: {
    readonly blank: Pick<Sheet, 'tray' | 'paper' | 'back'> | null;
    readonly slipBetweenSets: Plan['slipBetweenSets'];
  };
  readonly ticket: Ticket;
  readonly documents: readonly DocumentFacts[];
  readonly rules: PageRules;
  readonly printer: Printer;
  /** Of one set: how many pieces are laid, and how many of these only fill the last sheet; null without pieces. */
  readonly pieces: { readonly laid: number; readonly over: number } | null;
}

/**
 * Counts, cost, weight, height and time of the whole job: one set, times the sets. Slips between sets and the information
 * sheet count in all but `sheetsPerSet` and `byPaper`, which tell of the sets alone (model, Plan).
 */
export function tally(input: TallyInput): Tally {
  const { sheets, outside, ticket, printer, passes, pieces } = input;
  const { blank, slipBetweenSets: slip } = outside;
  const sets = ticket.copies;
  const slips = slip ? sets - 1 : 0;
  const informations = blank ? 1 : 0;
  const set = setTally(input);
  const slipPaper = slip ? paperOf(slip, trayOf(printer, slip.tray)) : NO_PAPER;
  const blankPaper = blank ? paperOf(blank, trayOf(printer, blank.tray)) : NO_PAPER;
  const byTray = times(set.byTray, sets);
  const add = (tray: string | null, count: number): void => {
    if (tray !== null && count > 0) byTray[tray] = (byTray[tray] ?? 0) + count;
  };
  add(slip?.tray ?? null, slips);
  add(blank?.tray ?? null, informations);
  const whole = (of: keyof PaperTally, decimals: number): number =>
    rounded(set[of] * sets + slipPaper[of] * slips + blankPaper[of] * informations, decimals);
  const minutes = blank ? minutesOf(blank, printer, passes?.length === 2) : 0;
  const seconds = (slips * 60) / (printer.sidesPerMinute ?? Infinity) + minutes * 60;
  return {
    sheetsPerSet: sheets.length,
    sheets: sheets.length * sets + slips + informations,
    sides: set.sides * sets + informations,
    blankSides: set.blankSides * sets + (blank?.back ? 1 : 0),
    pieces: pieces && pieces.laid * sets,
    piecesOver: pieces && pieces.over * sets,
    byTray,
    byPaper: times(set.byPaper, sets),
    cost: rounded(whole('cost', 8) + printer.prices.mono * informations, 4),
    weightGrams: whole('weightGrams', 3),
    heightMm: whole('heightMm', 3),
    seconds: set.seconds === null ? null : rounded(set.seconds * sets + seconds, 1),
  };
}

/** What a sheet of paper costs, weighs and takes up before anything is printed on it. */
interface PaperTally {
  readonly cost: number;
  readonly weightGrams: number;
  readonly heightMm: number;
}

const trayOf = (printer: Printer, tray: string | null): Tray | null => (tray === null ? null : findTray(printer, tray));

const NO_PAPER: PaperTally = { cost: 0, weightGrams: 0, heightMm: 0 };

function paperOf({ paper }: Pick<Sheet, 'paper'>, tray: Tray | null): PaperTally {
  const grammage = tray?.weight ?? OFFICE_PAPER_GRAMS;
  const squareMetres = (pointsToMm(paper.width) * pointsToMm(paper.height)) / 1e6;
  return { cost: tray?.price ?? 0, weightGrams: squareMetres * grammage, heightMm: grammage * MM_PER_GRAM };
}

/** Sheets of one size from one tray. */
interface Fed {
  readonly tray: string | null;
  readonly size: string;
  readonly paper: PaperTally;
  sheets: number;
}

/** By tray, then by size. */
type FedByTray = Map<string | null, Map<string, Fed>>;

function setTally(input: TallyInput) {
  const { sheets, printer, passes } = input;
  const sideCost = clickPrice(input);
  const fed: FedByTray = new Map();
  let last: Fed | undefined;
  let sides = 0;
  let blankSides = 0;
  let cost = 0;
  let minutes = 0;
  for (const sheet of sheets) {
    const { tray, paper, front, back } = sheet;
    if (last?.tray !== tray || last.size !== paper.size) last = fedFrom(fed, sheet, printer);
    last.sheets += 1;
    if (front.cells.length > 0) {
      sides += 1;
      cost += sideCost(front);
    }
    if (back && back.cells.length > 0) {
      sides += 1;
      cost += sideCost(back);
    } else if (back) blankSides += 1;
    minutes += minutesOf(sheet, printer, passes?.length === 2);
  }
  const byTray = new Map<string, number>();
  const byPaper = new Map<string, number>();
  let weightGrams = 0;
  let heightMm = 0;
  for (const ofTray of fed.values()) {
    for (const { tray, size, paper, sheets: count } of ofTray.values()) {
      if (tray !== null) byTray.set(tray, (byTray.get(tray) ?? 0) + count);
      byPaper.set(size, (byPaper.get(size) ?? 0) + count);
      cost += paper.cost * count;
      weightGrams += paper.weightGrams * count;
      heightMm += paper.heightMm * count;
    }
  }
  const seconds = printer.sidesPerMinute === null ? null : minutes * 60;
  return { sides, blankSides, byTray, byPaper, cost, weightGrams, heightMm, seconds };
}

/** The entry of a sheet's tray and size, made where there is none yet. */
function fedFrom(fed: FedByTray, sheet: Sheet, printer: Printer): Fed {
  const { tray, paper } = sheet;
  let ofTray = fed.get(tray);
  if (!ofTray) fed.set(tray, (ofTray = new Map<string, Fed>()));
  let made = ofTray.get(paper.size);
  if (!made) {
    made = { tray, size: paper.size, paper: paperOf(sheet, trayOf(printer, tray)), sheets: 0 };
    ofTray.set(paper.size, made);
  }
  return made;
}

/** The price of a printed side. */
function clickPrice(input: TallyInput): (side: Side) => number {
  const { prices } = input.printer;
  if (prices.color === prices.mono) return () => prices.mono;
  const isColor = coloredSides(input);
  return (side) => (isColor(side) ? prices.color : prices.mono);
}

/**
 * A two-sided sheet passes the print engine twice, blank back or not, at the printer's two-sided speed. In two passes
 * every sheet does, at the speed of one-sided ones.
 */
function minutesOf(
  sheet: Pick<Sheet, 'back'>,
  { sidesPerMinute, twoSidedFactor }: Printer,
  inTwoPasses: boolean,
): number {
  if (sidesPerMinute === null) return 0;
  if (inTwoPasses) return 2 / sidesPerMinute;
  return sheet.back ? 2 / (sidesPerMinute * twoSidedFactor) : 1 / sidesPerMinute;
}

const times = (counts: Map<string, number>, sets: number): Record<string, number> =>
  Object.fromEntries([...counts].map(([name, count]) => [name, count * sets]));

/** Sums of floats carry noise in the last digits; a tally is read by people. */
const rounded = (value: number, decimals: number): number => Number(value.toFixed(decimals));
