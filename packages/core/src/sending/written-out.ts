import type { Plan } from '../plan/plan';
import type { Printer } from '../printer/printer';
import { collatesDocuments, makesSets } from './makes-sets';
import { outsideSets } from './printing-order';
import { chooseWay } from './ways';

/** The most sheets that are written out for a printer: a file of more pages than this is none that one takes (common practice). */
export const MOST_WRITTEN_OUT = 100_000;

/** How many sheets are written for a printer: of one set where it makes the others by itself, otherwise of all. */
export function sheetsWrittenOut(plan: Omit<Plan, 'checks'>, printer: Printer): number {
  const { sheets, sets, collate, slipBetweenSets, informationSheet } = plan;
  const all = sheets.length * sets + (slipBetweenSets ? sets - 1 : 0) + (informationSheet ? 1 : 0);
  if (sets === 1 || outsideSets(plan).length > 0 || !makesSets(plan, printer)) return all;
  const way = chooseWay(plan, printer);
  if (way === 'part-jobs') return all;
  const isWrittenOut = way === 'separate' ? collate : way === 'documents' && !collatesDocuments(plan, printer);
  return isWrittenOut ? all : sheets.length;
}
