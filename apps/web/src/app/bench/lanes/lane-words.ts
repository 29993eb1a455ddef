import { isInformationSheet, listPages, saySize, type Check, type Plan, type Sheet, type Side } from '@foglio/core';
import { sayType } from '@foglio/sentence';
import { countSheets } from '../amounts';
import type { Lane } from './lanes-layout';

/** What is on a side: "page 3", "pages 5 to 8", "blank". */
export function sayFace({ cells, texts }: Side): string {
  if (cells.length > 0) return listPages(cells.map(({ page }) => page));
  return texts ? 'what the job is' : 'blank';
}

/** A sheet in words, as a screen reader says it. */
export function saySheet(sheet: Sheet, of: number, trayName: string): string {
  const back = sheet.back ? `, back ${sayFace(sheet.back)}` : ', back not printed';
  if (isInformationSheet(sheet)) return `Information sheet before the job, ${trayName}${back}`;
  return `Sheet ${sheet.index} of ${of}, ${trayName}, front ${sheet.slip ? 'a blank slip' : sayFace(sheet.front)}${back}`;
}

/** Of a folded block: "79 sheets, both sides" and "pages 7–322". */
export function sayBlock(sheets: readonly Sheet[]): { readonly sheets: string; readonly pages: string } {
  const first = sheets[0];
  const pages = sheets.flatMap(({ front, back }) => [...front.cells, ...(back?.cells ?? [])].map(({ page }) => page));
  const [least, most] = pages.reduce(([a, b], page) => [Math.min(a, page), Math.max(b, page)], [Infinity, 0]);
  return {
    sheets: `${countSheets(sheets.length)}, ${first?.back ? 'both sides' : 'one side'}`,
    pages: pages.length === 0 ? 'blank' : least === most ? `page ${least}` : `pages ${least}–${most}`,
  };
}

/** "A4 letterhead 90 g" */
export function sayLanePaper({ tray }: Lane): string {
  if (!tray) return 'not in this printer';
  const type = tray.type === null ? '' : ` ${sayType(tray.type)}`;
  return `${saySize(tray.size)}${type}${tray.weight === null ? '' : `, ${tray.weight} g/m²`}`;
}

export const isShort = ({ tray, needed }: Lane): boolean =>
  tray !== null && tray.loaded !== null && needed > tray.loaded;

export function sayAmount(lane: Lane): string {
  const { tray, needed } = lane;
  if (tray === null || tray.loaded === null) return `takes ${needed}`;
  return isShort(lane) ? `needs ${needed}, holds ${tray.loaded}` : `takes ${needed} of ${tray.loaded} loaded`;
}

/** Where trays run out: for each sheet at which one does, the set. */
export const runOuts = (checks: readonly Check[]): ReadonlyMap<number, number> =>
  new Map(
    checks.flatMap(({ code, sheets: [sheet], set }) =>
      code === 'tray-short' && sheet !== undefined ? [[sheet, set ?? 1] as const] : [],
    ),
  );

/** Over the sheets: how often they come, and how; null where there is but one set. */
export function saySets({ sets, collate, sheets, slipBetweenSets }: Plan): string | null {
  if (sets === 1) return null;
  if (!collate && sheets.length > 1) return `each sheet ${sets} times before the next`;
  return `one set of ${sets}${slipBetweenSets ? ', a blank slip after each but the last' : ''}`;
}

/** A pass of a job printed in two, as the lanes draw it. */
export interface PassLine {
  /** "1st pass, sheet 1 first" */
  readonly said: string;
  /** Whether the sheets go from left to right as they are drawn. */
  readonly rightward: boolean;
}

/** The two passes in the order of printing, over the fronts and over the backs; null where there is but one. */
export function passLines({ passes }: Plan): { readonly front: PassLine; readonly back: PassLine } | null {
  if (!passes) return null;
  const [fronts, backs] = passes;
  const line = (order: readonly number[], which: string, then: string): PassLine => ({
    said: `${which} pass${then}, sheet ${order[0]} first`,
    rightward: (order[0] ?? 0) <= (order.at(-1) ?? 0),
  });
  const handling = backs.handling === 'turn-over' ? ', the stack turned over' : ', the stack as it lies';
  return { front: line(fronts.order, '1st', ''), back: line(backs.order, '2nd', handling) };
}

/** Over the sheets: what becomes of them beside being printed; null where nothing does. */
export function sayMaking({ passes, sheets }: Plan): string | null {
  if (passes) return 'printed in two passes: all fronts, then the stack goes in again for the backs';
  const signatures = sheets.reduce((most, { signature = 0 }) => Math.max(most, signature), 0);
  if (signatures === 0) return null;
  return signatures === 1 ? 'folded together in the middle' : `folded in ${signatures} signatures`;
}
