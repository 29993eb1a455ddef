import { REPAIRED } from '@foglio/core';
import { readFacts, type PdfFacts } from '../facts';
import { openPdf, opensAsTold } from '../open';
import { listPages } from '../page-tree';
import { locked, notKnown, PdfError } from '../pdf-error';
import { savePdf } from '../save';
import type { Picture } from './image-page';
import { kindOf } from './kind';
import type { MadePages } from './made-pages';
import { decrypt, lockOf, repair } from './qpdf';

/** A file as the rest of Foglio has it: an open, sound PDF, whatever came in. */
export interface TakenIn {
  readonly bytes: Uint8Array;
  readonly facts: PdfFacts;
  /** What a person should know of the file, in sentences. */
  readonly remarks: readonly string[];
}

/**
 * Takes in a file that has pages of its own: what it is, unlocked, repaired, pictures made into pages. Everything after this
 * step sees PDF that opens.
 *
 *     bytes > kind > page of a picture > facts
 *                  > unlock > repair > facts
 *
 * @param password where it needs one; never kept
 * @throws PdfError with the reason where it cannot be used
 */
export async function takeIn(bytes: Uint8Array, password: string | null = null): Promise<TakenIn> {
  const kind = kindOf(bytes);
  // What makes pages is loaded only when it is needed: most files are PDF already.
  switch (kind) {
    case 'pdf': {
      const { repaired, ...saved } = (await asItIs(bytes)) ?? (await mend(await unlock(bytes, password)));
      return { ...saved, remarks: [...(repaired ? [REPAIRED] : []), ...saved.facts.remarks] };
    }
    case 'png':
    case 'jpeg':
    case 'tiff':
      return takeInPictures([{ bytes, kind }]);
    case 'raster':
      return takeInMade(await (await import('./raster-pages')).rasterPages(bytes));
    default:
      throw notKnown();
  }
}

/** Takes pictures in as one document. @throws PdfError */
export const takeInPictures = async (pictures: readonly Picture[]): Promise<TakenIn> =>
  takeInMade(await (await import('./image-page')).picturePages(pictures));

/** What is known of pages that were made here: they open, and say nothing of themselves but what was made up for them. */
export async function takeInMade({ bytes, remarks }: MadePages): Promise<TakenIn> {
  const facts = await readFacts(bytes);
  return { bytes, facts: { ...facts, about: {} }, remarks: [...remarks, ...facts.remarks] };
}

/** Where qpdf is missing, a file that opens by itself is taken as it is; a password is of no use then, which is said. */
async function unlock(bytes: Uint8Array, password: string | null): Promise<Uint8Array> {
  switch (await lockOf(bytes)) {
    case 'asks':
      if (password === null) throw locked();
      return decrypt(bytes, password);
    case 'opens':
      return decrypt(bytes, password ?? '');
    case 'unknown':
      return password === null ? bytes : decrypt(bytes, password);
    case 'none':
      return bytes;
  }
}

/** Most files are sound and open: what they say of where their objects stand is true of all of them. Null: it is not. */
async function asItIs(bytes: Uint8Array): Promise<(Saved & { repaired: boolean }) | null> {
  if (!opensAsTold(bytes)) return null;
  const read = await attempt(() => Promise.resolve(bytes));
  return read instanceof PdfError ? null : { ...read, repaired: false };
}

/** Of a damaged file, what qpdf makes of it or what our own reader does: whichever has more pages. */
async function mend(bytes: Uint8Array): Promise<Saved & { repaired: boolean }> {
  // Not every file that is written carelessly is damaged, so it is read as it is without waiting for what is said of it.
  const [{ outcome, bytes: byQpdf }, read] = await repair(bytes, () => attempt(() => Promise.resolve(bytes)));
  if (outcome === 'sound' || outcome === 'unknown') {
    if (read instanceof PdfError) throw read;
    return { ...read, repaired: false };
  }
  const ways = outcome === 'repaired' ? [() => Promise.resolve(byQpdf), () => rewrite(bytes)] : [() => rewrite(bytes)];
  const saved = await Promise.all(ways.map(attempt));
  const whole = saved.filter((one): one is Saved => !(one instanceof PdfError));
  const best = whole.reduce<Saved | null>(
    (most, one) => (most && most.facts.pages.length >= one.facts.pages.length ? most : one),
    null,
  );
  if (!best) throw saved.at(-1) as PdfError;
  return { ...best, repaired: true };
}

type Saved = Pick<TakenIn, 'bytes' | 'facts'>;

async function attempt(save: () => Promise<Uint8Array>): Promise<Saved | PdfError> {
  try {
    const bytes = await save();
    return { bytes, facts: await readFacts(bytes) };
  } catch (error) {
    if (error instanceof PdfError) return error;
    throw error;
  }
}

/** What our own reader finds in a file, written in order again. */
async function rewrite(bytes: Uint8Array): Promise<Uint8Array> {
  const pdf = await openPdf(bytes);
  listPages(pdf);
  return savePdf(pdf);
}
