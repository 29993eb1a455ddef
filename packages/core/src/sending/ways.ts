import { chooseTray, mayBeTurned, type Printer } from '../printer/printer';
import { takesOneSide } from '../printer/formats';
import { takes, takesTrays } from '../printer/takes';
import { OF_SHEET } from '../settings';
import type { Plan, Sheet } from '../plan/plan';
import { isOfParts } from '../planning/finish';
import { hasParts, inParts } from './in-parts';
import { COLLATED_DOCUMENTS, collatesDocuments } from './makes-sets';
import { outsideSets, partOf } from './printing-order';

/**
 * How a plan can be handed to a printer as one job; the first that holds is taken.
 *
 * - `plain`: all sheets alike, said once for the job
 * - `overrides`: attributes of their own for some pages (PWG 5100.6)
 * - `by-size`: the printer chooses the tray by the size of each page, and that comes out as planned
 * - `documents`: one job of several documents with attributes each (PWG 5100.5)
 * - `two-sided-throughout`: one-sided sheets get a blank back, so that all are two-sided
 * - `part-documents`: one job of several documents, each finished by itself (RFC 8011, 5.2.4)
 * - `part-jobs`: several jobs, each finished by itself
 * - `separate`: no way; several jobs
 */
export type Way =
  | 'plain'
  | 'overrides'
  | 'by-size'
  | 'documents'
  | 'two-sided-throughout'
  | 'part-documents'
  | 'part-jobs'
  | 'separate';

/** Chooses the way to send a plan. */
export function chooseWay(plan: Omit<Plan, 'checks'>, printer: Printer): Way {
  if (!hasParts(plan, printer)) return wayOfOne(plan, printer);
  const parts = inParts(plan);
  const { documents } = printer.jobs;
  // Of a document alone only paper and sides can be said.
  const go =
    documents && takesTrays(printer) && takes(printer, ...COLLATED_DOCUMENTS) && collatesDocuments(plan, printer);
  const areAlike = parts.every(({ sheets, isLoose }) => !isLoose && isAlike(sheets));
  return go && areAlike ? 'part-documents' : 'part-jobs';
}

const isAlike = (sheets: readonly Sheet[]): boolean =>
  isOneMedia(sheets) &&
  [...OF_SHEET.map(({ name }) => name), 'sides' as const].every((name) =>
    sheets.every((one) => one[name] === sheets[0]?.[name]),
  );

/**
 * Whether what goes through the finisher together reaches the printer together: in one document. In two passes by hand none
 * does, since the first would be finished before its backs are printed.
 */
export function canBeFinished(plan: Omit<Plan, 'checks'>, printer: Printer): boolean {
  if (!plan.finishing) return true;
  if (plan.passes) return false;
  if (!isOfParts(plan)) return true;
  const way = chooseWay(plan, printer);
  if (way === 'documents') return takes(printer, ...AS_ONE);
  if (way !== 'part-jobs') return way !== 'separate';
  return inParts(plan).every(
    ({ sheets, isLoose }) => isLoose || goesAsOne(partOf({ ...plan, sets: 1 }, sheets), printer),
  );
}

const goesAsOne = (plan: Omit<Plan, 'checks'>, printer: Printer): boolean =>
  !['separate', 'documents'].includes(wayOfOne(plan, printer));

/** That documents of a job are finished together, each on a sheet of its own (RFC 8011, 5.2.4). */
export const AS_ONE = ['multiple-document-handling', 'single-document-new-sheet'] as const;

/** In two passes each pass is one-sided, so only the trays can differ. */
function wayOfOne(plan: Omit<Plan, 'checks'>, printer: Printer): Way {
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
