import { decode, encodingExists } from 'iconv-lite';
import { encodingOf } from '../text/letters';

/** Bytes in which a page says how it is written (HTML, 4.2.5.4: within the first 1024). */
const SAID = 1024;

/** The letters of a page: as its mark says, else as it says itself, else like other text. */
export function htmlOf(bytes: Uint8Array): string {
  const file = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length);
  const guessed = encodingOf(bytes);
  const isMarked = guessed.startsWith('utf-16') || (bytes[0] === 0xef && bytes[1] === 0xbb);
  const said = /<meta[^>]+charset\s*=\s*["']?\s*([\w-]+)/i.exec(file.subarray(0, SAID).toString('latin1'))?.[1];
  // What says UTF-16 in letters of one byte is not (HTML, 13.2.3.3).
  const taken = !isMarked && said && encodingExists(said) && !/^utf-?16/i.test(said) ? said : guessed;
  return decode(file, taken, { stripBOM: true });
}

/** A page with a style more, before its own: what it says itself goes before it. */
export function withStyle(html: string, css: string): string {
  const style = `<meta charset="utf-8"><style>${css}</style>`;
  for (const place of [/<head(?:\s[^>]*)?>/i, /<html(?:\s[^>]*)?>/i, /<!doctype[^>]*>/i]) {
    const found = place.exec(html);
    if (found) return insert(html, found.index + found[0].length, style);
  }
  return style + html;
}

/** A page with something more at the beginning of what it shows. */
export function withInBody(html: string, more: string): string {
  const found = /<body(?:\s[^>]*)?>/i.exec(html) ?? /<\/head>/i.exec(html);
  if (found) return insert(html, found.index + found[0].length, more);
  // Without either it is all shown; what only it may begin with goes before.
  const begins = /^\s*(?:<!doctype[^>]*>)?/i.exec(html)![0];
  return insert(html, begins.length, more);
}

const insert = (text: string, at: number, more: string): string => text.slice(0, at) + more + text.slice(at);

/** Whether what a text begins with is that of a web page. */
export const isHtml = (text: string): boolean =>
  /^\s*(?:<\?xml[^>]*>\s*)?(?:<!--[\s\S]*?-->\s*)*<(?:!doctype html|html|head|body|title|meta)\b/i.test(text);
