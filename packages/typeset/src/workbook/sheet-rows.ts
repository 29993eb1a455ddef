import { tooMuch } from '@foglio/pdf';
import { Enough, readXml } from '../office/xml';
import { unescaped } from './shared-strings';

/** A cell as its file has it (ECMA-376, 18.3.1.4). */
export interface RawCell {
  /** From 0. */
  readonly column: number;
  /** Index of its style. */
  readonly style: number;
  /** "s" shared text, "str" and "inlineStr" text, "b" yes or no, "e" an error, "d" a date, "n" a number. */
  readonly type: string;
  /** Null: none is stored. */
  readonly value: string | null;
  readonly isFormula: boolean;
}

export interface RawRow {
  /** From 1. */
  readonly number: number;
  /** Points; null: it says none. */
  readonly height: number | null;
  readonly isFixed: boolean;
  readonly isHidden: boolean;
  readonly cells: readonly RawCell[];
}

/** More than anybody prints, and than fits in the memory beside all else. */
const MOST_CELLS = 3_000_000;

/**
 * The rows of a sheet in order, each made into what is kept of it as soon as it is read: as its file has them, a hundred thousand
 * of them take as much memory again.
 *
 * @param most rows that are read
 * @returns them, and whether these are all
 * @throws PdfError where it cannot be read, or holds too much
 */
export function sheetRows<T>(
  part: Uint8Array,
  name: string,
  most: number,
  keep: (row: RawRow) => T,
): { rows: T[]; isWhole: boolean } {
  const rows: T[] = [];
  let count = 0;
  let row = emptyRow(0);
  let cell: { -readonly [Key in keyof RawCell]: RawCell[Key] } | null = null;
  let into: 'value' | 'text' | null = null;
  const isWhole = readXml(part, `the sheet “${name}”`, {
    open: (element, attributes) => {
      switch (element) {
        case 'row':
          if (rows.length >= most) throw new Enough();
          row = rowOf(attributes, row.number + 1);
          break;
        case 'c': {
          const next = (row.cells.at(-1)?.column ?? -1) + 1;
          const { r, s = '0', t = 'n' } = attributes;
          cell = { column: r ? columnOf(r) : next, style: Number(s), type: t, value: null, isFormula: false };
          break;
        }
        case 'f':
          if (cell) cell.isFormula = true;
          break;
        case 'v':
          into = 'value';
          break;
        case 't':
          into = 'text';
          break;
      }
    },
    text: (text) => {
      if (cell && into) cell.value = (cell.value ?? '') + text;
    },
    close: (element) => {
      if (element === 'v' || element === 't') into = null;
      if (element === 'c' && cell) {
        if ((count += 1) > MOST_CELLS) throw tooMuch('room');
        if (cell.value !== null && cell.type !== 's') cell.value = unescaped(cell.value);
        row.cells.push(cell);
        cell = null;
      }
      if (element === 'row') rows.push(keep(row));
    },
  });
  return { rows, isWhole };
}

const emptyRow = (number: number) => ({
  number,
  height: null as number | null,
  isFixed: false,
  isHidden: false,
  cells: [] as RawCell[],
});

function rowOf({ r, ht, customHeight, hidden }: Readonly<Record<string, string>>, next: number) {
  return {
    ...emptyRow(r ? Number(r) : next),
    height: ht ? Number(ht) : null,
    isFixed: isTrue(customHeight),
    isHidden: isTrue(hidden),
  };
}

/** "1" or "true" (XML Schema, part 2, 3.2.2). */
const isTrue = (value: string | undefined): boolean => value === '1' || value === 'true';

/** The column of "AB12": 27. */
export function columnOf(reference: string): number {
  let column = 0;
  for (const letter of reference) {
    const place = letter.charCodeAt(0) - 64;
    if (place < 1 || place > 26) break;
    column = column * 26 + place;
  }
  return column - 1;
}
