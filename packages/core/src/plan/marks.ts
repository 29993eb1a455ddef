import type { FromSchema } from 'json-schema-to-ts';
import type { marksSchema, portionSchema } from './portion.schema';

/** Sheets of sets, in order; no sheet twice. */
export type Marks = FromSchema<typeof marksSchema>;

/** What of a plan is printed: the first set, all the others, or sheets that were marked. */
export type Portion = FromSchema<typeof portionSchema>;

/** A closed range, counted from 1. */
type Range = readonly [first: number, last: number];

interface Mark {
  readonly sets: Range;
  /** Of each of these sets. */
  readonly sheets: readonly Range[];
}

/** How many sets there are to mark sheets of, and how many sheets each has. */
export interface Markable {
  readonly sets: number;
  readonly sheets: number;
}

/** One sheet of one set. */
export interface MarkedSheet {
  readonly set: number;
  readonly sheet: number;
}

/** A line of text that marks no sheets; the message says what, where and how to mend it. */
export class MarksError extends Error {
  override readonly name = 'MarksError';
}

/**
 * Reads marked sheets as a person writes them: "7-8, 2:1" are sheets 7 and 8 of the first set and 1 of the second, "2-4:all"
 * all of sets 2 to 4.
 *
 * @throws MarksError
 */
export function parseMarks(text: string, whole: Markable): Marks {
  const pieces = text
    .split(/[,;]/)
    .map((piece) => piece.trim())
    .filter((piece) => piece !== '');
  if (pieces.length === 0) throw new MarksError('No sheet is named: write its number, as in “7-8, 2:1”.');
  return unite(pieces.map((piece) => onePiece(piece, whole)));
}

/** The sheets of sets, each by their numbers, "1-3, 7"; what is left out is all of them. @throws MarksError */
export function marksOf({ sheets, sets }: { sheets?: string; sets?: string }, whole: Markable): Marks {
  const rangesIn = (text: string | undefined, what: 'sheets' | 'sets'): Range[] =>
    (text ?? 'all').split(/[,;]/).map((piece) => rangeIn(piece.trim(), piece, what, whole[what]));
  const ofSheets = rangesIn(sheets, 'sheets');
  return unite(rangesIn(sets, 'sets').map((of) => ({ sets: of, sheets: ofSheets })));
}

/** A sheet and all that follow it: of its set, and of those after it. */
export const marksFrom = ({ set, sheet }: MarkedSheet, { sets, sheets }: Markable): Marks =>
  unite([
    { sets: [set, set], sheets: [[sheet, sheets]] },
    ...(set < sets ? [{ sets: [set + 1, sets] as const, sheets: [[1, sheets] as const] }] : []),
  ]);

/** The sheets of a portion; null: all of them. */
export function marksOfPortion(portion: Portion | null, { sets, sheets }: Markable): Marks | null {
  if (portion === 'first-set') return [{ sets: [1, 1], sheets: [[1, sheets]] }];
  if (portion === 'other-sets') return [{ sets: [2, sets], sheets: [[1, sheets]] }];
  return portion;
}

/** Of sheets, in any order and also named twice. */
export const marksOfSheets = (sheets: readonly MarkedSheet[]): Marks =>
  unite(sheets.map(({ set, sheet }) => ({ sets: [set, set], sheets: [[sheet, sheet]] })));

function onePiece(piece: string, whole: Markable): Mark {
  const [before, after, ...more] = piece.split(':');
  if (more.length > 0) throw new MarksError(`“${piece}” has two colons: write set and sheet, as in “2:1”.`);
  if (after === undefined) return { sets: [1, 1], sheets: [rangeIn(piece, piece, 'sheets', whole.sheets)] };
  return {
    sets: rangeIn(before!.trim(), piece, 'sets', whole.sets),
    sheets: [rangeIn(after.trim(), piece, 'sheets', whole.sheets)],
  };
}

function rangeIn(text: string, piece: string, what: 'sheets' | 'sets', most: number): Range {
  if (text === 'all') return [1, most];
  const found = /^(\d{1,9})(?:\s*[-–]\s*(\d{1,9}))?$/.exec(text);
  if (!found)
    throw new MarksError(
      `“${piece}” is no ${what === 'sheets' ? 'sheet' : 'set'}: write numbers, as in “7-8” or “2:1”.`,
    );
  const first = Number(found[1]);
  const last = Number(found[2] ?? found[1]);
  if (last < first) throw new MarksError(`“${piece}” runs backwards: write “${last}-${first}”.`);
  if (first >= 1 && last <= most) return [first, last];
  const there = most === 1 ? `only one ${what.slice(0, -1)}` : `${what} 1 to ${most}`;
  throw new MarksError(`“${piece}” is not there: there ${most === 1 ? 'is' : 'are'} ${there}.`);
}

/** Sheets of both. */
export const plusMarks = (one: Marks, other: Marks): Marks => unite([...one, ...other]);

/** What is not in the other. */
export const minusMarks = (one: Marks, other: Marks): Marks => unite(one, other);

/** The same sheets in order, without some: sets that have the same marked are together. */
function unite(marks: readonly Mark[], without: readonly Mark[] = []): Marks {
  const edges = [...marks, ...without].flatMap(({ sets: [first, last] }) => [first, last + 1]);
  const between = [...new Set(edges)].sort((a, b) => a - b);
  const united: { sets: [number, number]; sheets: [number, number][] }[] = [];
  for (let at = 0; at + 1 < between.length; at += 1) {
    const [first, next] = [between[at]!, between[at + 1]!];
    const inSet = (all: readonly Mark[]): Range[] =>
      all.filter(({ sets }) => sets[0] <= first && sets[1] >= first).flatMap((one) => one.sheets);
    const sheets = inSet(without).reduce(leftOf, joined(inSet(marks)));
    if (sheets.length === 0) continue;
    const last = united.at(-1);
    if (last && last.sets[1] === first - 1 && String(last.sheets) === String(sheets)) last.sets[1] = next - 1;
    else united.push({ sets: [first, next - 1], sheets });
  }
  return united;
}

/** Ranges without one. */
const leftOf = (ranges: readonly Range[], [from, to]: Range): [number, number][] =>
  ranges.flatMap(([first, last]): [number, number][] => [
    ...(first < from ? [[first, Math.min(last, from - 1)] as [number, number]] : []),
    ...(last > to ? [[Math.max(first, to + 1), last] as [number, number]] : []),
  ]);

function joined(ranges: readonly Range[]): [number, number][] {
  const done: [number, number][] = [];
  for (const [first, last] of ranges.toSorted((a, b) => a[0] - b[0])) {
    const before = done.at(-1);
    if (before && first <= before[1] + 1) before[1] = Math.max(before[1], last);
    else done.push([first, last]);
  }
  return done;
}

const lengthOf = ([first, last]: readonly number[]): number => last! - first! + 1;

/** How many sheets are marked. */
export const countMarked = (marks: Marks): number =>
  marks.reduce(
    (sum, { sets, sheets }) => sum + lengthOf(sets) * sheets.reduce((all, one) => all + lengthOf(one), 0),
    0,
  );

/** Whether a sheet is. */
export const isMarked = (marks: Marks, { set, sheet }: MarkedSheet): boolean =>
  marks.some(
    ({ sets, sheets }) =>
      set >= sets[0] && set <= sets[1] && sheets.some(([first, last]) => sheet >= first && sheet <= last),
  );

/** As {@link parseMarks} reads them. */
export const writeMarks = (marks: Marks): string =>
  marks
    .flatMap(({ sets, sheets }) =>
      sheets.map((range) => (sets[0] === 1 && sets[1] === 1 ? '' : `${writeRange(sets)}:`) + writeRange(range)),
    )
    .join(', ');

const writeRange = ([first, last]: readonly number[]): string => (first === last ? `${first}` : `${first}-${last}`);

/** In words: "7 and 8 of set 1, 1 of set 2"; where there is one set alone, only the sheets. */
export function sayMarks(marks: Marks, { sets }: Pick<Markable, 'sets'>): string {
  return marks
    .map((mark) => {
      const said = listed(mark.sheets.flatMap(sayRange));
      if (sets === 1) return said;
      const [first, last] = mark.sets;
      return `${said} of ${first === last ? 'set' : 'sets'} ${sayRange(mark.sets).join(' and ')}`;
    })
    .join(', ');
}

const sayRange = ([first, last]: readonly number[]): string[] =>
  first === last ? [`${first}`] : last === first! + 1 ? [`${first}`, `${last}`] : [`${first} to ${last}`];

const listed = (parts: readonly string[]): string =>
  parts.length < 2 ? parts.join('') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}`;
