import type { Plan } from '../plan/plan';
import type { Printer } from '../printer/printer';
import { takes } from '../printer/takes';

/** How a printer is told that sets are to be complete, or that they are not; the first that it takes is said. */
export const SAYS_COLLATED = [
  ['sheet-collate', 'collated'],
  ['multiple-document-handling', 'separate-documents-collated-copies'],
] as const;
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
