import { after, endOfLine, endOfString, endOfToken, isRegular, isWhite } from './objects/tokens';

/** An operand: a number, or a name, keyword or other value as text; strings and nested values are left out. */
export type Operand = number | string;

/** What is asked of an operator that a content stream calls. */
export type Visit = (operands: readonly Operand[]) => boolean;

/** What is asked, by the operator; "BI" stands for a whole image within the content, with the entries of its dictionary. */
export type Visits = ReadonlyMap<number, Visit>;

/** Operators as they are looked for: their letters as one number. @param names of three letters at most */
export const visits = (names: Readonly<Record<string, Visit>>): Visits =>
  new Map(Object.entries(names).map(([name, visit]) => [keyOf(Buffer.from(name), 0, name.length), visit]));

const keyOf = (bytes: Uint8Array, from: number, to: number): number =>
  (bytes[from] as number) |
  (from + 1 < to ? (bytes[from + 1] as number) << 8 : 0) |
  (from + 2 < to ? (bytes[from + 2] as number) << 16 : 0);

/** More operands than any operator takes; what comes before them is dropped (ISO 32000-1, annex C, has at most 33). */
const MOST_OPERANDS = 64;

const BI = keyOf(Buffer.from('BI'), 0, 2);
const ID = keyOf(Buffer.from('ID'), 0, 2);

/**
 * Whether any operator that is asked for says yes; the first that does ends it (ISO 32000-1, 7.8.2). The library reads objects, not
 * content. Most of a page are letters, so operands are read only where their operator is asked for.
 */
export function someOperation(bytes: Uint8Array, asked: Visits): boolean {
  // Where operands begin.
  let operands: number[] = [];
  for (let at = 0; at < bytes.length;) {
    const byte = bytes[at] as number;
    if (isWhite(byte)) at += 1;
    else if (byte === 0x25) at = endOfLine(bytes, at);
    else if (byte === 0x28) at = endOfString(bytes, at);
    else if (byte === 0x3c && bytes[at + 1] !== 0x3c) at = after(bytes, at, 0x3e);
    else if (byte === 0x2f) {
      operands.push(at);
      at = endOfToken(bytes, at + 1);
    } else if (!isRegular(byte)) at += 1;
    else {
      const start = at;
      at = endOfToken(bytes, at);
      // Numbers begin with a digit, a sign or a point, and no operator does.
      if (byte < 0x3a && byte !== 0x27 && byte !== 0x22) operands.push(start);
      else if (at - start > 3) operands = at - start > 5 || !isKeyword(bytes, start, at) ? [] : [...operands, start];
      else {
        const key = keyOf(bytes, start, at);
        const visit = asked.get(key === ID ? BI : key);
        if (visit && key !== BI && visit(operands.map((from) => operandAt(bytes, from)))) return true;
        operands = [];
        if (key === ID) at = endOfInlineImage(bytes, at + 1);
      }
    }
    if (operands.length > 2 * MOST_OPERANDS) operands = operands.slice(-MOST_OPERANDS);
  }
  return false;
}

const KEYWORDS = ['true', 'false', 'null'];

const isKeyword = (bytes: Uint8Array, from: number, to: number): boolean => KEYWORDS.includes(text(bytes, from, to));

function operandAt(bytes: Uint8Array, from: number): Operand {
  if (bytes[from] === 0x2f) return nameFrom(text(bytes, from + 1, endOfToken(bytes, from + 1)));
  const written = text(bytes, from, endOfToken(bytes, from));
  const number = Number(written);
  return Number.isNaN(number) ? written : number;
}

/** The first "EI" that stands by itself. */
function endOfInlineImage(bytes: Uint8Array, from: number): number {
  for (let at = bytes.indexOf(0x45, from); at >= 0 && at + 1 < bytes.length; at = bytes.indexOf(0x45, at + 1)) {
    if (bytes[at + 1] !== 0x49) continue;
    const behind = bytes[at + 2];
    if (isWhite(bytes[at - 1]) && (behind === undefined || isWhite(behind))) return at + 2;
  }
  return bytes.length;
}

const text = (bytes: Uint8Array, from: number, to: number): string =>
  String.fromCharCode(...bytes.subarray(from, Math.min(to, from + 200)));

/** "#20" in a name is the byte of that number (ISO 32000-1, 7.3.5). */
const nameFrom = (written: string): string =>
  written.replace(/#([0-9a-fA-F]{2})/g, (_, digits: string) => String.fromCharCode(parseInt(digits, 16)));
