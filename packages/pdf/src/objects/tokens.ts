/** Bytes of a PDF in their kinds (ISO 32000-1, 7.2.2): what parts tokens, and what begins or ends one of its own. */
const REGULAR = 0;
const WHITE = 1;
const DELIMITER = 2;

const KINDS = new Uint8Array(256);
for (const white of [0x00, 0x09, 0x0a, 0x0c, 0x0d, 0x20]) KINDS[white] = WHITE;
for (const delimiter of '()<>[]{}/%') KINDS[delimiter.charCodeAt(0)] = DELIMITER;

export const isWhite = (byte: number | undefined): boolean => byte !== undefined && KINDS[byte] === WHITE;
export const isRegular = (byte: number | undefined): boolean => byte !== undefined && KINDS[byte] === REGULAR;
const isDigit = (byte: number | undefined): boolean => byte !== undefined && byte >= 0x30 && byte <= 0x39;

/** Behind white space and comments. */
export function skipWhite(bytes: Uint8Array, from: number): number {
  let at = from;
  while (at < bytes.length) {
    const byte = bytes[at] as number;
    if (KINDS[byte] === WHITE) at += 1;
    else if (byte === 0x25) at = endOfLine(bytes, at);
    else break;
  }
  return at;
}

export function endOfLine(bytes: Uint8Array, from: number): number {
  let at = from;
  while (at < bytes.length && bytes[at] !== 0x0a && bytes[at] !== 0x0d) at += 1;
  return at;
}

/** Behind a number, a keyword, or the letters of a name. */
export function endOfToken(bytes: Uint8Array, from: number): number {
  let at = from;
  while (at < bytes.length && KINDS[bytes[at] as number] === REGULAR) at += 1;
  return at;
}

/** Parentheses nest, and one after a backslash does not count (ISO 32000-1, 7.3.4.2). */
export function endOfString(bytes: Uint8Array, from: number): number {
  let depth = 0;
  for (let at = from; at < bytes.length; at += 1) {
    const byte = bytes[at];
    if (byte === 0x5c) at += 1;
    else if (byte === 0x28) depth += 1;
    else if (byte === 0x29 && (depth -= 1) === 0) return at + 1;
  }
  return bytes.length;
}

/** Behind the next of these bytes. */
export function after(bytes: Uint8Array, from: number, wanted: number): number {
  const at = bytes.indexOf(wanted, from);
  return at < 0 ? bytes.length : at + 1;
}

/** A whole number, and where it ends; null where none stands there. */
export function readInteger(bytes: Uint8Array, from: number): { readonly value: number; readonly end: number } | null {
  let at = from;
  let value = 0;
  while (isDigit(bytes[at])) {
    value = value * 10 + (bytes[at] as number) - 0x30;
    at += 1;
  }
  return at === from || isRegular(bytes[at]) ? null : { value, end: at };
}

/** Whether these letters stand there. */
export function standsAt(bytes: Uint8Array, at: number, letters: string): boolean {
  for (let index = 0; index < letters.length; index += 1) {
    if (bytes[at + index] !== letters.charCodeAt(index)) return false;
  }
  return true;
}

/** Told of each reference within a value: where it begins and ends, and which object it names. */
export type OnReference = (start: number, end: number, objectNumber: number, generation: number) => void;

/** Arrays and dictionaries within each other deeper than any writer makes them. */
const DEEPEST = 500;

/**
 * Passes over one value, of whatever kind, without making an object of it.
 *
 * @returns where it ends; null where it does not, or is no value
 */
export function endOfValue(bytes: Uint8Array, from: number, onReference?: OnReference): number | null {
  let depth = 0;
  // Where the last two whole numbers began, one of which may turn out to name an object.
  let [first, second] = [-1, -1];
  for (let at = from; at < bytes.length;) {
    const byte = bytes[at] as number;
    if (KINDS[byte] === WHITE) {
      at += 1;
      continue;
    }
    if (byte === 0x25) {
      at = endOfLine(bytes, at);
      continue;
    }
    const start = at;
    let isNumber = false;
    if (KINDS[byte] === REGULAR) {
      at = endOfToken(bytes, at);
      isNumber = isDigit(byte) && isWhole(bytes, start, at);
      if (byte === 0x52 && at === start + 1 && first >= 0) {
        onReference?.(
          first,
          at,
          (readInteger(bytes, first) as Integer).value,
          (readInteger(bytes, second) as Integer).value,
        );
      }
    } else {
      at = delimited(bytes, at);
      if (byte === 0x5b || (byte === 0x3c && at === start + 2)) depth += 1;
      else if (byte === 0x5d || (byte === 0x3e && at === start + 2)) depth -= 1;
      else if (byte === 0x29 || byte === 0x3e || byte === 0x7b || byte === 0x7d) return null;
    }
    if (depth < 0 || depth > DEEPEST) return null;
    [first, second] = isNumber ? [second, start] : [-1, -1];
    if (depth === 0 && !(isNumber && mayBeReference(bytes, first < 0 ? 0 : 1, at))) return at;
  }
  return null;
}

type Integer = NonNullable<ReturnType<typeof readInteger>>;

function isWhole(bytes: Uint8Array, from: number, to: number): boolean {
  for (let at = from; at < to; at += 1) if (!isDigit(bytes[at])) return false;
  return true;
}

/** Behind a delimiter and what it encloses; behind "[", "<<" and their ends alone. */
function delimited(bytes: Uint8Array, at: number): number {
  const byte = bytes[at] as number;
  if (byte === 0x2f) return endOfToken(bytes, at + 1);
  if (byte === 0x28) return endOfString(bytes, at);
  if (byte === 0x3c) return bytes[at + 1] === 0x3c ? at + 2 : after(bytes, at, 0x3e);
  if (byte === 0x3e) return bytes[at + 1] === 0x3e ? at + 2 : at + 1;
  return at + 1;
}

/** Whether what follows the first or second number of what stands by itself goes on to be a reference. */
function mayBeReference(bytes: Uint8Array, numbersBefore: number, from: number): boolean {
  let at = skipWhite(bytes, from);
  if (numbersBefore === 0) {
    const generation = readInteger(bytes, at);
    if (!generation) return false;
    at = skipWhite(bytes, generation.end);
  }
  return bytes[at] === 0x52 && !isRegular(bytes[at + 1]);
}

/** Where the value of an entry of a dictionary begins; null where it has none of that name. @param from at its "<<" */
export function entryOf(bytes: Uint8Array, from: number, name: string): number | null {
  let at = skipWhite(bytes, from + 2);
  while (bytes[at] === 0x2f) {
    const end = endOfToken(bytes, at + 1);
    const isIt = end - at - 1 === name.length && standsAt(bytes, at + 1, name);
    const value = skipWhite(bytes, end);
    if (isIt) return value;
    const behind = endOfValue(bytes, value);
    if (behind === null) return null;
    at = skipWhite(bytes, behind);
  }
  return null;
}
