import type { FormKind } from '@foglio/core';
import { kindOf, type FileKind } from '@foglio/pdf';
import { isHtml } from './flow/html-text';
import { isMail, isSavedPage } from './mail/mail-head';
import { encodingOf, lettersOf } from './text/letters';

/** First bytes of a ZIP file that holds anything (PKWARE's appnote, 4.3.7), and of a compound file (MS-CFB, 2.2). */
const ZIP = [0x50, 0x4b, 0x03, 0x04];
const COMPOUND = [0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1];

/** How the names of tables in text end. */
const TABLES = /\.(csv|tsv|tab)$/i;

const MARKDOWN = /\.(md|markdown)$/i;

/** Bytes at the beginning by which a web page is known. */
const BEGINNING = 4096;

/** What a document is, by what is in it: one that has pages, one that is laid out, or one in which others are. */
export type DocumentKind = Exclude<FileKind, 'text'> | FormKind | 'compound' | 'archive' | 'saved-page';

/**
 * What a document is, by what is in it. Of texts the name tells which are tables or Markdown; nothing else does.
 *
 * @returns null where Foglio does not know it
 */
export function documentKind(bytes: Uint8Array, name: string): DocumentKind | null {
  if (startsWith(bytes, COMPOUND)) return 'compound';
  if (startsWith(bytes, ZIP)) return inArchive(bytes);
  if (isMail(bytes, name)) return isSavedPage(bytes, name) ? 'saved-page' : 'mail';
  const kind = kindOf(bytes);
  if (kind !== 'text') return kind;
  const beginning = bytes.subarray(0, BEGINNING);
  if (isHtml(lettersOf(beginning, encodingOf(beginning)))) return 'web-page';
  return TABLES.test(name) ? 'csv' : MARKDOWN.test(name) ? 'markdown' : 'text';
}

/** What a ZIP file is, by the parts that it must have. */
function inArchive(bytes: Uint8Array): DocumentKind | null {
  if (holdsName(bytes, 'xl/workbook.xml')) return 'workbook';
  return holdsName(bytes, 'word/document') ? 'word-processing' : 'archive';
}

const startsWith = (bytes: Uint8Array, start: readonly number[]): boolean =>
  start.every((byte, at) => bytes[at] === byte);

/** Names stand unpacked in a ZIP file, at the latest in the list at its end. */
const holdsName = (bytes: Uint8Array, name: string): boolean =>
  Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length).lastIndexOf(name) >= 0;
