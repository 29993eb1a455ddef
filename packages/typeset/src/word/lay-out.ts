import type { Form } from '@foglio/core';
import { lendOwnBrowser, type LendBrowser } from '../browser/chromium';
import { printWord } from '../browser/print-word';
import { remarksOnFitted } from '../flow/lay-out';
import type { LaidPages } from '../laid-pages';
import { readWord } from './read-word';

/** Has a browser lay out a document of a word processor. */
export async function layOutWord(
  bytes: Uint8Array,
  { form, lendBrowser = lendOwnBrowser }: { readonly form: Form; readonly lendBrowser?: LendBrowser },
): Promise<LaidPages> {
  const { document, laid, remarks } = readWord(bytes, form);
  const lent = await lendBrowser();
  try {
    const { bytes: made, fitted } = await printWord(lent, document);
    return { bytes: made, laid, remarks: [...remarks, ...remarksOnFitted(fitted)] };
  } finally {
    await lent.giveBack();
  }
}
