import type { Form } from '@foglio/core';
import { decode } from 'iconv-lite';

export type Encoding = NonNullable<Form['encoding']>;

/** Marks with which a text says how it is written (Unicode 15, 23.8, byte order mark). */
const MARKS: readonly (readonly [Encoding, readonly number[]])[] = [
  ['utf-8', [0xef, 0xbb, 0xbf]],
  ['utf-16le', [0xff, 0xfe]],
  ['utf-16be', [0xfe, 0xff]],
];

/** Bytes that are looked at. */
const SAMPLE = 65_536;

/** Of every second byte; in text of western alphabets nearly all of them, in any other kind none. */
const MANY_ZEROS = 0.3;

/** How the letters of a text are written: as its mark says, otherwise UTF-8 where it can be, otherwise Windows-1252 (common practice). */
export function encodingOf(bytes: Uint8Array): Encoding {
  const marked = MARKS.find(([, mark]) => mark.every((byte, at) => bytes[at] === byte));
  if (marked) return marked[0];
  const sample = bytes.subarray(0, SAMPLE);
  const zeros = [0, 0];
  sample.forEach((byte, at) => byte === 0 && (zeros[at % 2]! += 1));
  const half = Math.max(1, sample.length / 2);
  if (zeros[1]! / half > MANY_ZEROS) return 'utf-16le';
  if (zeros[0]! / half > MANY_ZEROS) return 'utf-16be';
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return 'utf-8';
  } catch {
    return 'windows-1252';
  }
}

/** The letters of a text, without its mark. */
export const lettersOf = (bytes: Uint8Array, encoding: Encoding): string =>
  decode(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length), encoding, { stripBOM: true });
