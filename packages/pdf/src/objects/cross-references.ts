import { PDFArray, PDFDict, PDFName, PDFNumber, PDFObjectParser, PDFRawStream, type PDFContext } from '@cantoo/pdf-lib';
import { unpacked } from './flate';
import { endOfValue, entryOf, isWhite, readInteger, skipWhite, standsAt } from './tokens';

/** Where an object stands: at a place in the file, or as one of those in an object stream. */
export type Place =
  | { readonly at: number; readonly generation: number }
  | { readonly stream: number; readonly index: number };

/** What a file says of its objects: where each stands, and the latest trailer. */
export interface CrossReferences {
  /** By object number; a number that is free is not in it. */
  readonly places: ReadonlyMap<number, Place>;
  readonly trailer: PDFDict;
}

/** A table or stream may name one before it; more than this many were never written by saving. */
const MOST_SECTIONS = 10_000;

/** "startxref" stands near the end; some writers put white space behind it (ISO 32000-1, 7.5.5). */
const START_WITHIN = 2_048;

/** The highest number an object may have here (ISO 32000-1, annex C: implementations' limit 8,388,607). */
const HIGHEST = 8_388_607;

interface Reading {
  readonly bytes: Uint8Array;
  readonly context: PDFContext;
  readonly places: Map<number, Place | null>;
}

/**
 * Reads where every object of a file stands (ISO 32000-1, 7.5.4, 7.5.8), the latest section first, each table's own stream
 * of what it hides from older readers with it.
 *
 * @returns null where they are not as the standard wants them, so that the file has to be searched for its objects
 */
export function readCrossReferences(bytes: Uint8Array, context: PDFContext): CrossReferences | null {
  const reading: Reading = { bytes, context, places: new Map() };
  const visited = new Set<number>();
  const pending = [startOf(bytes)];
  let trailer: PDFDict | null = null;
  while (pending.length > 0) {
    const at = pending.pop() as number | null;
    if (at === null || visited.size > MOST_SECTIONS) return null;
    if (visited.has(at)) continue;
    visited.add(at);
    const section = readSection(reading, at);
    if (!section) return null;
    trailer ??= section;
    const before = section.get(PDFName.of('Prev'));
    if (before !== undefined) pending.push(wholeOf(before));
  }
  if (!trailer) return null;
  const places = new Map<number, Place>();
  for (const [number, place] of reading.places) if (place) places.set(number, place);
  return { places, trailer };
}

const wholeOf = (object: unknown): number | null => (object instanceof PDFNumber ? object.asNumber() : null);

function startOf(bytes: Uint8Array): number | null {
  const from = Math.max(0, bytes.length - START_WITHIN);
  const found = Buffer.from(bytes.buffer, bytes.byteOffset + from, bytes.length - from).lastIndexOf('startxref');
  return found < 0 ? null : (readInteger(bytes, skipWhite(bytes, from + found + 9))?.value ?? null);
}

/** The trailer of a section, whose entries are noted where no later section has them. */
function readSection(reading: Reading, from: number): PDFDict | null {
  const at = skipWhite(reading.bytes, from);
  return standsAt(reading.bytes, at, 'xref') ? readTable(reading, at + 4) : readStream(reading, at);
}

function readTable(reading: Reading, from: number): PDFDict | null {
  const { bytes, context, places } = reading;
  const rows = new Map<number, Place | null>();
  let at = skipWhite(bytes, from);
  while (!standsAt(bytes, at, 'trailer')) {
    const first = readInteger(bytes, at);
    const count = first && readInteger(bytes, skipWhite(bytes, first.end));
    if (!first || !count || first.value + count.value > HIGHEST) return null;
    at = skipWhite(bytes, count.end);
    for (let number = first.value; number < first.value + count.value; number += 1) {
      const offset = readInteger(bytes, at);
      const generation = offset && readInteger(bytes, skipWhite(bytes, offset.end));
      if (!generation) return null;
      at = skipWhite(bytes, generation.end);
      const kind = bytes[at];
      if (kind !== 0x6e && kind !== 0x66) return null;
      rows.set(number, kind === 0x6e ? { at: offset.value, generation: generation.value } : null);
      at = skipWhite(bytes, at + 1);
    }
  }
  const trailer = dictAt(bytes, skipWhite(bytes, at + 7), context);
  if (!trailer) return null;
  // Older readers are to take as free what only the stream tells of (ISO 32000-1, 7.5.8.4).
  const hidden = trailer.get(PDFName.of('XRefStm'));
  if (hidden instanceof PDFNumber && !readStream(reading, skipWhite(bytes, hidden.asNumber()))) return null;
  for (const [number, place] of rows) if (!places.has(number)) places.set(number, place);
  return trailer;
}

function dictAt(bytes: Uint8Array, from: number, context: PDFContext): PDFDict | null {
  const end = endOfValue(bytes, from);
  if (end === null || !standsAt(bytes, from, '<<')) return null;
  const dict = PDFObjectParser.forBytes(bytes.subarray(from, end), context).parseObject();
  return dict instanceof PDFDict ? dict : null;
}

function readStream({ bytes, context, places }: Reading, at: number): PDFDict | null {
  const start = startOfObject(bytes, at);
  const dict = start === null ? null : dictAt(bytes, start.at, context);
  if (!start || !dict || dict.get(PDFName.of('Type')) !== PDFName.of('XRef')) return null;
  const data = streamData(bytes, start.at, () => null);
  if (!data) return null;
  const rows = rowsOf(dict, unpacked(PDFRawStream.of(dict, bytes.subarray(data.start, data.end))));
  if (!rows) return null;
  for (const [number, kind, second, third] of rows) {
    if (places.has(number)) continue;
    if (kind === 1) places.set(number, { at: second, generation: third });
    else if (kind === 2) places.set(number, { stream: second, index: third });
    else places.set(number, null);
  }
  return dict;
}

type Row = readonly [number: number, kind: number, second: number, third: number];

/** ISO 32000-1, 7.5.8.3, table 18. */
function rowsOf(dict: PDFDict, bytes: Uint8Array): Row[] | null {
  const numbers = (name: string): number[] | null => {
    const array = dict.get(PDFName.of(name));
    if (!(array instanceof PDFArray)) return null;
    const found = array.asArray().map(wholeOf);
    return found.every((one) => one !== null && one >= 0) ? (found as number[]) : null;
  };
  const widths = numbers('W');
  const size = wholeOf(dict.get(PDFName.of('Size')));
  if (!widths || widths.length < 3 || widths.some((width) => width > 8) || size === null) return null;
  const [first, second, third] = widths as [number, number, number];
  const index = dict.has(PDFName.of('Index')) ? numbers('Index') : [0, size];
  if (!index || first + second + third === 0) return null;
  const rows: Row[] = [];
  let at = 0;
  const field = (width: number): number => {
    let value = 0;
    for (let left = width; left > 0; left -= 1, at += 1) value = value * 256 + (bytes[at] as number);
    return value;
  };
  for (let pair = 0; pair + 1 < index.length; pair += 2) {
    const [from, count] = [index[pair] as number, index[pair + 1] as number];
    if (from + count > HIGHEST) return null;
    for (let number = from; number < from + count && at + first + second + third <= bytes.length; number += 1) {
      rows.push([number, first === 0 ? 1 : field(first), field(second), field(third)]);
    }
  }
  return rows;
}

/** The number of the object that begins at a place, and where its value does; null where none begins there. */
export function startOfObject(
  bytes: Uint8Array,
  from: number,
): { readonly objectNumber: number; readonly generation: number; readonly at: number } | null {
  const number = readInteger(bytes, skipWhite(bytes, from));
  const generation = number && readInteger(bytes, skipWhite(bytes, number.end));
  if (!generation) return null;
  const word = skipWhite(bytes, generation.end);
  if (!standsAt(bytes, word, 'obj')) return null;
  return { objectNumber: number.value, generation: generation.value, at: skipWhite(bytes, word + 3) };
}

/** Where the data of a stream stand, and whether its dictionary says so. */
export interface StreamData {
  readonly dictEnd: number;
  readonly start: number;
  readonly end: number;
  readonly isLengthRight: boolean;
}

/**
 * The data of the stream whose dictionary begins at a place; null where it is no stream. Where its length is wrong or unknown, they
 * end before "endstream".
 *
 * @param resolve the number that an object is; null where it is none
 */
export function streamData(
  bytes: Uint8Array,
  dict: number,
  resolve: (objectNumber: number) => number | null,
): StreamData | null {
  const dictEnd = endOfValue(bytes, dict);
  if (dictEnd === null || !standsAt(bytes, dict, '<<')) return null;
  const word = skipWhite(bytes, dictEnd);
  if (!standsAt(bytes, word, 'stream')) return null;
  // Ended by a line feed, alone or after a carriage return (ISO 32000-1, 7.3.8.1); some end it by the latter alone.
  let start = word + 6;
  if (bytes[start] === 0x0d) start += 1;
  if (bytes[start] === 0x0a) start += 1;
  const length = lengthAt(bytes, dict, resolve);
  if (length !== null && start + length <= bytes.length) {
    let behind = start + length;
    while (isWhite(bytes[behind])) behind += 1;
    if (standsAt(bytes, behind, 'endstream')) return { dictEnd, start, end: start + length, isLengthRight: true };
  }
  const found = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length).indexOf('endstream', start);
  if (found < 0) return null;
  let end = found;
  if (end > start && bytes[end - 1] === 0x0a) end -= 1;
  if (end > start && bytes[end - 1] === 0x0d) end -= 1;
  return { dictEnd, start, end, isLengthRight: false };
}

function lengthAt(bytes: Uint8Array, dict: number, resolve: (objectNumber: number) => number | null): number | null {
  const at = entryOf(bytes, dict, 'Length');
  const direct = at === null ? null : readInteger(bytes, at);
  if (!direct) return null;
  const generation = readInteger(bytes, skipWhite(bytes, direct.end));
  const isReference = generation !== null && bytes[skipWhite(bytes, generation.end)] === 0x52;
  return isReference ? resolve(direct.value) : direct.value;
}
