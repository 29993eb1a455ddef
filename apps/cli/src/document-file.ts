import { readFileSync, realpathSync, statSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { basename, dirname, resolve, sep } from 'node:path';
import { momentOf, type DocumentFacts, type Form, type PageFacts } from '@foglio/core';
import { PdfError } from '@foglio/pdf/error';
import type { TakenDocument } from '@foglio/typeset';
import { InputError, sayFileTrouble } from './input-error';
import { recall, remember } from './known-facts';
import type { AskPassword } from './password';

export interface LoadedDocument extends DocumentFacts {
  readonly bytes: Uint8Array;
  /** Whether its facts may be remembered. */
  readonly isKept: boolean;
}

/** How documents are opened: where passwords come from, and who is told what should be known of them. */
export interface Opening {
  readonly askPassword: AskPassword;
  readonly remark: (text: string) => void;
}

/** Takes a file in, and what is known of it at once. @throws InputError */
export async function openDocument(path: string, form: Form, opening: Opening): Promise<LoadedDocument> {
  const { buffer, byteOffset, byteLength } = await readOrSay(path);
  const read = new Uint8Array(buffer, byteOffset, byteLength);
  const known = recall(read);
  const document = known ? { bytes: read, isKept: true, ...known } : await takeIn(path, form, opening, read);
  document.remarks?.forEach((text) => opening.remark(`${path}: ${text}`));
  return { name: basename(path), ...document };
}

/** Of pages that take more bytes, which are pictures, what a file says of them is read in less time than its digest is reckoned. */
const MOST_BYTES_A_PAGE = 100_000;

/** Only what a file says of itself is remembered: not what is laid out anew each day, nor what a password was needed for. */
async function takeIn(
  path: string,
  form: Form,
  { askPassword }: Opening,
  read: Uint8Array,
): Promise<Omit<LoadedDocument, 'name'>> {
  const taken = await orSay(path, () => takeInUnlocked(read, path, form, askPassword));
  const { bytes, facts, remarks, laid } = taken;
  if (laid || bytes !== read) return { bytes, ...facts, remarks, ...(laid ? { laid } : {}), isKept: false };
  const { pages, outline, about } = facts;
  if (bytes.length <= MOST_BYTES_A_PAGE * pages.length) remember(bytes, { pages, outline, about, remarks });
  return { bytes, pages, outline, about, remarks, isKept: true };
}

/** Asks for a password only where one is needed. */
async function takeInUnlocked(
  bytes: Uint8Array,
  path: string,
  form: Form,
  askPassword: AskPassword,
): Promise<TakenDocument> {
  const [today] = momentOf(new Date()).split('T') as [string];
  const how = { name: basename(path), form, today, readBeside: besideIn(dirname(path)) };
  // A document that is known already is not waited for longer than its bytes take to read.
  const { takeInDocument } = await import('@foglio/typeset');
  try {
    return await takeInDocument(bytes, { ...how, password: null });
  } catch (error) {
    if (!(error instanceof PdfError) || !['locked', 'printing-forbidden'].includes(error.trouble)) throw error;
    const password = await askPassword(path);
    if (password === null) throw error;
    return takeInDocument(bytes, { ...how, password });
  }
}

/** More than any picture on a page of a person's, in bytes. */
const MOST_BESIDE = 50 * 1024 * 1024;

/** Reads what stands in a folder or below it, wherever links in it lead. */
const besideIn =
  (folder: string) =>
  (path: string): Uint8Array | null => {
    try {
      const [root, file] = [realpathSync(folder), realpathSync(resolve(folder, path))];
      const isWithin = file.startsWith(root.endsWith(sep) ? root : root + sep);
      return isWithin && statSync(file).size <= MOST_BESIDE ? new Uint8Array(readFileSync(file)) : null;
    } catch {
      return null;
    }
  };

/** Takes a file in, with all facts of these pages, or of all. @throws InputError */
export async function loadDocument(
  path: string,
  opening: Opening,
  pages: readonly number[] | 'all' = 'all',
): Promise<LoadedDocument> {
  return withDetails(path, await openDocument(path, {}, opening), pages);
}

/** With all facts of these pages that are not known yet. @throws InputError */
export function withDetails(
  path: string,
  document: LoadedDocument,
  wanted: readonly number[] | 'all',
): Promise<LoadedDocument> {
  const pages = [...document.pages];
  const asked = wanted === 'all' ? pages.map((_, index) => index + 1) : wanted;
  const unknown = asked.filter((page) => !isLookedThrough(pages[page - 1]));
  if (unknown.length === 0) return Promise.resolve(document);
  return orSay(path, async () => {
    const { lookThrough } = await import('./look-through');
    await lookThrough(document.bytes, unknown, (page, details) => {
      pages[page - 1] = { ...(pages[page - 1] as PageFacts), ...details };
    });
    const { bytes, outline = [], about = {}, remarks = [], isKept } = document;
    if (isKept) remember(bytes, { pages, outline, about, remarks });
    return { ...document, pages };
  });
}

const isLookedThrough = (page: PageFacts | undefined): boolean =>
  page?.smallestText !== undefined || page?.content !== undefined;

/** @throws InputError */
export async function readOrSay(path: string): Promise<Buffer> {
  try {
    return await readFile(path);
  } catch (error) {
    throw new InputError(path, sayFileTrouble(error));
  }
}

async function orSay<T>(path: string, read: () => Promise<T>): Promise<T> {
  try {
    return await read();
  } catch (error) {
    if (error instanceof PdfError) throw new InputError(path, error.message);
    throw error;
  }
}
