import type { Plan } from '../plan/plan';
import type { Printer } from '../printer/printer';
import { takes } from '../printer/takes';

/** That a printer goes through all documents of a job for each set (RFC 8011, 5.2.4). */
export const COLLATED_DOCUMENTS = ['multiple-document-handling', 'separate-documents-collated-copies'] as const;

/** How a printer is told that sets are to be complete, or that they are not; the first that it takes is said. */
export const SAYS_COLLATED = [['sheet-collate', 'collated'], COLLATED_DOCUMENTS] as const;
export const SAYS_UNCOLLATED = [['sheet-collate', 'uncollated']] as const;

/**
 * Whether a printer makes so many sets by itself, in this order of sheets (RFC 8011, 5.2.5, copies; PWG 5100.3,
 * sheet-collate). What it cannot be told is written out instead.
 */
export function makesSets(
  { sets, collate, sheets }: Pick<Plan, 'sets' | 'collate' | 'sheets'>,
  printer: Printer,
): boolean {
  if (sets === 1) return true;
  if (!takes(printer, 'copies') || sets > (printer.jobs.mostCopies ?? Infinity)) return false;
  if (sheets.length === 1) return true;
  const says = collate ? SAYS_COLLATED : SAYS_UNCOLLATED;
  return says.some(([attribute, value]) => takes(printer, attribute, value));
}

/** Whether sets of several documents may be left to a printer: complete ones, which it is told of. */
export const collatesDocuments = ({ sets, collate }: Pick<Plan, 'sets' | 'collate'>, printer: Printer): boolean =>
  sets === 1 || (collate && takes(printer, ...COLLATED_DOCUMENTS));
