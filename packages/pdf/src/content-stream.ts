/** An operand: a number, or a name, keyword or other value as text; strings and nested values are left out. */
export type Operand = number | string;

export interface Operation {
  readonly operator: string;
  readonly operands: readonly Operand[];
}

/** More operands than any operator takes; what comes before them is dropped (ISO 32000-1, annex C, has at most 33). */
const MOST_OPERANDS = 64;

const WHITE = new Set([0x00, 0x09, 0x0a, 0x0c, 0x0d, 0x20]);
const DELIMITERS = new Set([...'()<>[]{}/%'].map((one) => one.charCodeAt(0)));
const isRegular = (byte: number): boolean => !WHITE.has(byte) && !DELIMITERS.has(byte);

/**
 * The operations of content streams, one after another (ISO 32000-1, 7.8.2): the library reads objects, not content. An
 * inline image is one operation "BI" with the entries of its dictionary as operands; its data are skipped.
 */
export function* operations(streams: readonly Uint8Array[]): Generator<Operation> {
  for (const bytes of streams) yield* operationsOf(bytes);
}

function* operationsOf(bytes: Uint8Array): Generator<Operation> {
  let operands: Operand[] = [];
  for (let at = 0; at < bytes.length;) {
    const byte = bytes[at] as number;
    if (WHITE.has(byte)) at += 1;
    else if (byte === 0x25) at = endOfLine(bytes, at);
    else if (byte === 0x28) at = endOfString(bytes, at);
    else if (byte === 0x3c && bytes[at + 1] !== 0x3c) at = after(bytes, at, 0x3e);
    else if (byte === 0x2f) {
      const end = endOfToken(bytes, at + 1);
      operands.push(nameFrom(text(bytes, at + 1, end)));
      at = end;
    } else if (DELIMITERS.has(byte)) at += 1;
    else {
      const end = endOfToken(bytes, at);
      const token = text(bytes, at, end);
      at = end;
      const number = Number(token);
      if (!Number.isNaN(number)) operands.push(number);
      else if (token === 'true' || token === 'false' || token === 'null') operands.push(token);
      else if (token === 'BI') operands = [];
      else if (token === 'ID') {
        yield { operator: 'BI', operands };
        operands = [];
        at = endOfInlineImage(bytes, at + 1);
      } else {
        yield { operator: token, operands };
        operands = [];
      }
    }
    if (operands.length > MOST_OPERANDS) operands = operands.slice(-MOST_OPERANDS);
  }
}

function endOfToken(bytes: Uint8Array, from: number): number {
  let at = from;
  while (at < bytes.length && isRegular(bytes[at] as number)) at += 1;
  return at;
}

function after(bytes: Uint8Array, from: number, wanted: number): number {
  const at = bytes.indexOf(wanted, from);
  return at < 0 ? bytes.length : at + 1;
}

function endOfLine(bytes: Uint8Array, from: number): number {
  let at = from;
  while (at < bytes.length && bytes[at] !== 0x0a && bytes[at] !== 0x0d) at += 1;
  return at;
}

/** Parentheses nest, and one after a backslash does not count (ISO 32000-1, 7.3.4.2). */
function endOfString(bytes: Uint8Array, from: number): number {
  let depth = 0;
  for (let at = from; at < bytes.length; at += 1) {
    const byte = bytes[at];
    if (byte === 0x5c) at += 1;
    else if (byte === 0x28) depth += 1;
    else if (byte === 0x29 && (depth -= 1) === 0) return at + 1;
  }
  return bytes.length;
}

/** The first "EI" that stands by itself. */
function endOfInlineImage(bytes: Uint8Array, from: number): number {
  for (let at = from; at + 1 < bytes.length; at += 1) {
    if (bytes[at] !== 0x45 || bytes[at + 1] !== 0x49) continue;
    const before = bytes[at - 1] as number;
    const behind = bytes[at + 2];
    if (WHITE.has(before) && (behind === undefined || WHITE.has(behind))) return at + 2;
  }
  return bytes.length;
}

const text = (bytes: Uint8Array, from: number, to: number): string =>
  String.fromCharCode(...bytes.subarray(from, Math.min(to, from + 200)));

/** "#20" in a name is the byte of that number (ISO 32000-1, 7.3.5). */
const nameFrom = (written: string): string =>
  written.replace(/#([0-9a-fA-F]{2})/g, (_, digits: string) => String.fromCharCode(parseInt(digits, 16)));
