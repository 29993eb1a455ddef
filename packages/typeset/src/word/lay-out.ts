import type { Form } from '@foglio/core';
import { layAlone } from '../browser/chromium';
import type { LayInBrowser } from '../browser/laying';
import { remarksOnFitted } from '../flow/lay-out';
import type { LaidPages } from '../laid-pages';
import { readWord } from './read-word';

/** Lines may break elsewhere than where it was made. */
const remarksOnFonts = (names: readonly string[]): string[] =>
  names.length === 0 ? [] : [`Not here, and others stand in their place: ${names.slice(0, 4).join(', ')}.`];

/** Has a browser lay out a document of a word processor. */
export async function layOutWord(
  bytes: Uint8Array,
  { form, lay = layAlone }: { readonly form: Form; readonly lay?: LayInBrowser },
): Promise<LaidPages> {
  const { document, laid, remarks } = readWord(bytes, form);
  const { bytes: made, fitted, otherFonts = [] } = await lay({ kind: 'word', document });
  return { bytes: made, laid, remarks: [...remarks, ...remarksOnFonts(otherFonts), ...remarksOnFitted(fitted)] };
}
