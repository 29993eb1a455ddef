import {
  inTwoPasses,
  isBacksAlone,
  isInformationSheet,
  listPages,
  saySize,
  writeSelection,
  type Check,
  type Plan,
  type Sheet,
  type Side,
} from '@foglio/core';
import { nameWithoutKind, sayType } from '@foglio/sentence';
import { countSheets } from '../amounts';
import { NO_TRAY, type Lane } from './lanes-layout';

/** The documents as they are told apart; one alone needs no name. Of one that stands twice, which one it is. */
export function documentNames(documents: readonly { readonly name: string }[]): readonly string[] {
  if (documents.length < 2) return [];
  const names = documents.map(({ name }) => nameWithoutKind(name));
  return names.map((name, at) => (names.filter((one) => one === name).length > 1 ? `${name} (${at + 1})` : name));
}

/**
 * What is on a side: "page 3", "pages 5 to 8", "blank"; of several documents "page 1 of flyer and page 1 of letter".
 *
 * @param names of the documents, as `documentNames` tells them
 */
export function sayFace({ cells, texts }: Side, names: readonly string[] = []): string {
  if (cells.length === 0) return texts ? 'what the job is' : 'blank';
  if (names.length === 0) return listPages(cells.map(({ page }) => page));
  const parts = byDocument(cells).map(({ document, pages }) => `${listPages(pages)} of ${names[document - 1]}`);
  const last = parts.pop() as string;
  return parts.length === 0 ? last : `${parts.join(', ')} and ${last}`;
}

/** The numbers on a drawn side: "3", "5–8"; of several documents with the number that theirs has on the shelf: "2. 3". */
export function numbersOn({ cells }: Side, names: readonly string[] = []): string {
  const numbers = (pages: readonly number[]): string =>
    pages.length > 2 ? writeSelection(pages, Infinity).replaceAll('-', '–') : pages.join(' ');
  if (names.length === 0) return numbers(cells.map(({ page }) => page));
  return byDocument(cells)
    .map(({ document, pages }) => `${document}. ${numbers(pages)}`)
    .join(' · ');
}

/** Cells in stretches of one document. */
function byDocument(cells: Side['cells']): { readonly document: number; readonly pages: number[] }[] {
  const parts: { document: number; pages: number[] }[] = [];
  for (const { document, page } of cells) {
    const last = parts.at(-1);
    if (last?.document === document) last.pages.push(page);
    else parts.push({ document, pages: [page] });
  }
  return parts;
}

/** A sheet in words, as a screen reader says it. */
export function saySheet(
  sheet: Sheet,
  { sheets, ...plan }: Pick<Plan, 'sheets' | 'passes'>,
  trayName: string,
  names: readonly string[] = [],
): string {
  const of = sheets.length;
  if (isBacksAlone(plan)) return `Sheet ${sheet.index} of ${of}, ${trayName}, back ${sayFace(sheet.front, names)}`;
  const back = sheet.back ? `, back ${sayFace(sheet.back, names)}` : ', back not printed';
  if (isInformationSheet(sheet)) return `Information sheet before the job, ${trayName}${back}`;
  return `Sheet ${sheet.index} of ${of}, ${trayName}, front ${sheet.slip ? 'a blank slip' : sayFace(sheet.front, names)}${back}`;
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
export function sayLanePaper({ id, tray }: Lane): string {
  if (!tray) return id === NO_TRAY ? 'none holds this paper' : 'not in this printer';
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
export function passLines(plan: Plan): { readonly front: PassLine; readonly back: PassLine | null } | null {
  const passes = inTwoPasses(plan);
  const line = (order: readonly number[], which: string, then: string): PassLine => ({
    said: `${which}${then}, sheet ${order[0]} first`,
    rightward: (order[0] ?? 0) <= (order.at(-1) ?? 0),
  });
  const [alone] = plan.passes ?? [];
  if (!alone) return null;
  if (!passes) return { front: line(alone.order, alone.side === 'back' ? 'backs' : 'fronts', ''), back: null };
  const [fronts, backs] = passes;
  const handling = backs.handling === 'turn-over' ? ', the stack turned over' : ', the stack as it lies';
  return { front: line(fronts.order, '1st pass', ''), back: line(backs.order, '2nd pass', handling) };
}

/** How the stack goes in again before its backs. */
const handlingOf = (pass: NonNullable<Plan['passes']>[number]): string =>
  pass.side === 'back' && pass.handling === 'turn-over'
    ? 'turn the stack over as a whole and put it in'
    : 'put the stack in as it lies';

/** Over the sheets: what becomes of them beside being printed; null where nothing does. */
export function sayMaking({ passes, sheets }: Plan): string | null {
  const [first] = passes ?? [];
  if (passes?.length === 1) {
    if (first?.side === 'front') return 'the fronts alone; the backs stay blank';
    return `the backs alone, onto printed fronts: ${handlingOf(passes[0])}`;
  }
  if (passes) return 'printed in two passes: all fronts, then the stack goes in again for the backs';
  const signatures = sheets.reduce((most, { signature = 0 }) => Math.max(most, signature), 0);
  if (signatures === 0) return null;
  return signatures === 1 ? 'folded together in the middle' : `folded in ${signatures} signatures`;
}
