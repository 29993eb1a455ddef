import { decode } from 'iconv-lite';
import { hasPdfHeader } from '../open';

/** What Foglio takes. */
export type FileKind = 'pdf' | 'png' | 'jpeg' | 'tiff' | 'raster' | 'text';

/** First bytes: PNG (ISO/IEC 15948, 5.2), JPEG (ISO/IEC 10918-1, annex B: the marker SOI and the next). */
const PNG = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
const JPEG = [0xff, 0xd8, 0xff];

/** TIFF 6.0, section 2: the order of its bytes, and 42. */
const TIFF = [
  [0x49, 0x49, 0x2a, 0x00],
  [0x4d, 0x4d, 0x00, 0x2a],
];

/** "RaS2", with which PWG Raster begins (PWG 5102.4, 4.1). */
const RASTER = [0x52, 0x61, 0x53, 0x32];

/** Made of letters only, but a program for a printer or a word processor: nobody wants to see it as text. */
const NOT_FOR_READING = ['%!PS', '{\\rtf'];

/** What a file is, by what is in it, not by its name; null where Foglio does not know it. */
export function kindOf(bytes: Uint8Array): FileKind | null {
  if (startsWith(bytes, PNG)) return 'png';
  if (startsWith(bytes, JPEG)) return 'jpeg';
  if (TIFF.some((start) => startsWith(bytes, start))) return 'tiff';
  if (startsWith(bytes, RASTER)) return 'raster';
  if (hasPdfHeader(bytes)) return 'pdf';
  if (NOT_FOR_READING.some((start) => startsWith(bytes, [...Buffer.from(start)]))) return null;
  return decodeText(bytes) === null ? null : 'text';
}

const startsWith = (bytes: Uint8Array, start: readonly number[]): boolean =>
  start.every((byte, index) => bytes[index] === byte);

/** Controls that no text holds: all but tab, line feed, vertical tab, form feed and carriage return. */
const CONTROLS = /[\u0000-\u0008\u000e-\u001a\u001c-\u001f\u007f]/;

/**
 * The letters of a plain text: UTF-16 with its mark, otherwise UTF-8, otherwise Windows-1252 (common practice for
 * older files); null where it is no text.
 */
function decodeText(bytes: Uint8Array): string | null {
  if (bytes.length === 0) return null;
  const text = decodeLetters(bytes);
  return CONTROLS.test(text) ? null : text;
}

function decodeLetters(bytes: Uint8Array): string {
  const mark = new TextDecoder('latin1').decode(bytes.subarray(0, 2));
  if (mark === 'ÿþ') return new TextDecoder('utf-16le').decode(bytes);
  if (mark === 'þÿ') return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    // Node's own decoder leaves out what Windows-1252 has beyond Latin-1.
    return decode(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length), 'windows-1252');
  }
}
