import { format, formatColor } from 'numfmt';
import type { RawCell } from './sheet-rows';

/** What stands in a cell. */
export interface CellText {
  readonly text: string;
  readonly isNumber: boolean;
  /** Of its number's format: "[Red]" of a negative one. */
  readonly color?: string;
}

/** What a formula without a stored value shows. */
export const NOT_CALCULATED = 'not calculated';

/** Days from the first day of one of the two ways to count them to that of the other (ECMA-376, 18.17.4.1). */
const DAYS_1904 = 1462;

/** The short date of whichever machine it is opened on (ECMA-376, 18.8.30, number 14): said so that nobody mistakes it. */
const SHORT_DATES: Readonly<Record<string, string>> = { 'mm-dd-yy': 'yyyy-mm-dd', 'm/d/yy h:mm': 'yyyy-mm-dd h:mm' };

const NAMED: Readonly<Record<string, string>> = {
  black: '#000000',
  blue: '#0000ff',
  cyan: '#00ffff',
  green: '#00ff00',
  magenta: '#ff00ff',
  red: '#ff0000',
  white: '#ffffff',
  yellow: '#ffff00',
};

/** What the workbook has beside the cell. */
export interface TextBasis {
  readonly strings: readonly string[];
  /** The cell's number format. */
  readonly pattern: string;
  readonly is1904: boolean;
}

/** A cell as it is read: its value in its format (ECMA-376, 18.8.30). */
export function cellText(cell: RawCell, basis: TextBasis): CellText {
  const { type, value, isFormula } = cell;
  if (value === null) return { text: isFormula ? NOT_CALCULATED : '', isNumber: isFormula };
  switch (type) {
    case 's':
      return ofText(basis.strings[Number(value)] ?? '', basis.pattern);
    case 'str':
    case 'inlineStr':
      return ofText(value, basis.pattern);
    case 'b':
      return { text: value === '1' ? 'TRUE' : 'FALSE', isNumber: false };
    case 'e':
      return { text: value, isNumber: true };
    case 'd':
      return { text: value, isNumber: true };
    default:
      return ofNumber(Number(value), basis);
  }
}

function ofText(text: string, pattern: string): CellText {
  return { text: pattern === 'General' || pattern === '@' ? text : sayText(text, pattern), isNumber: false };
}

/** A format may say something of texts too, in its fourth part. */
function sayText(text: string, pattern: string): string {
  try {
    return format(pattern, text);
  } catch {
    return text;
  }
}

function ofNumber(number: number, { pattern, is1904 }: TextBasis): CellText {
  const known = SHORT_DATES[pattern] ?? pattern;
  const value = is1904 && isDate(known) ? number + DAYS_1904 : number;
  try {
    const color = formatColor(known, value);
    const text = format(known, value);
    const named = typeof color === 'string' ? (NAMED[color] ?? color) : undefined;
    return { text, isNumber: true, ...(named?.startsWith('#') ? { color: named } : {}) };
  } catch {
    return { text: String(number), isNumber: true };
  }
}

const isDate = (pattern: string): boolean => /[ymdhs]/i.test(pattern.replace(/"[^"]*"|\\.|\[[^\]]*\]/g, ''));
