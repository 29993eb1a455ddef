import { chooseTray, mayBeTurned, type Printer } from '../printer/printer';
import { takesOneSide } from '../printer/formats';
import { takesTrays } from '../printer/takes';
import { OF_SHEET } from '../settings';
import type { Plan, Sheet } from '../plan/plan';
import { outsideSets } from './printing-order';

/**
 * How a plan can be handed to a printer as one job; the first that holds is taken.
 *
 * - `plain`: all sheets alike, said once for the job
 * - `overrides`: attributes of their own for some pages (PWG 5100.6)
 * - `by-size`: the printer chooses the tray by the size of each page, and that comes out as planned
 * - `documents`: one job of several documents with attributes each (PWG 5100.5)
 * - `two-sided-throughout`: one-sided sheets get a blank back, so that all are two-sided
 * - `separate`: no way; several jobs
 */
export type Way = 'plain' | 'overrides' | 'by-size' | 'documents' | 'two-sided-throughout' | 'separate';

/** Chooses the way to send a plan. In two passes each pass is one-sided, so only the trays can differ. */
export function chooseWay(plan: Omit<Plan, 'checks'>, printer: Printer): Way {
  const { overrides, documents } = printer.jobs;
  const sheets = [...outsideSets(plan), ...plan.sheets];
  const sides = plan.passes ? 1 : new Set(sheets.map((sheet) => sheet.sides)).size;
  const oneMedia = isOneMedia(sheets);
  // What else differs from sheet to sheet: all of it has to be said page by page, or it cannot go as one job.
  const others = OF_SHEET.filter(({ name }) => new Set(sheets.map((sheet) => sheet[name])).size > 1);
  if (takesOneSide(printer) && (plan.sheets.length > 1 || sheets.length > 1)) return 'separate';
  const names = takesTrays(printer);
  if (sides <= 1 && oneMedia && names && others.length === 0) return 'plain';
  const mediaGo = names && (oneMedia || overrides.includes('media-col'));
  const othersGo = others.every(({ attribute }) => overrides.includes(attribute));
  // One that is not told of trays has to be told of the size, which it is for a whole job.
  const sizesGo = (names || oneMedia) && choosesBySize(sheets, printer);
  const isSaid = othersGo && (sides <= 1 || overrides.includes('sides'));
  if (isSaid && (mediaGo || (sizesGo && !names && sides > 1))) return 'overrides';
  if (others.length > 0) return 'separate';
  if (sides <= 1 && sizesGo) return 'by-size';
  if (documents && names) return 'documents';
  if ((mediaGo || sizesGo) && canAllBeTwoSided(sheets, printer)) return 'two-sided-throughout';
  return 'separate';
}

const isOneMedia = ([first, ...others]: readonly Sheet[]): boolean =>
  others.every(({ tray, paper }) => tray === first?.tray && paper.size === first.paper.size);

/** Whether each size comes from the tray that the printer itself would choose for it. */
const choosesBySize = (sheets: readonly Sheet[], printer: Printer): boolean =>
  sheets.every((sheet) => sheet.tray !== null && sheet.tray === chooseTray(printer, 'auto', sheet.paper.size, null));

/** Whether one-sided sheets may get blank backs: all others turn on the same edge, and their paper has no face. */
function canAllBeTwoSided(sheets: readonly Sheet[], printer: Printer): boolean {
  const edges = new Set(sheets.filter((sheet) => sheet.back).map((sheet) => sheet.sides));
  if (edges.size !== 1 || !printer.duplex) return false;
  return sheets.filter((sheet) => !sheet.back).every(({ tray }) => mayBeTurned(printer, tray));
}
