import type { Form } from '@foglio/core';
import { HOME } from '../browser/address';
import { lendOwnBrowser, type LendBrowser } from '../browser/chromium';
import { printPage } from '../browser/print-page';
import type { LaidPages } from '../laid-pages';

/** Has a browser lay out a document that flows. */
export async function layOutFlowing(
  bytes: Uint8Array,
  kind: 'web-page' | 'markdown',
  { name, form, lendBrowser = lendOwnBrowser }: { name: string; form: Form; lendBrowser?: LendBrowser },
): Promise<LaidPages> {
  const { document, laid } =
    kind === 'markdown'
      ? (await import('./markdown')).markdownPage(bytes, form)
      : (await import('./web-page')).webPage(bytes, name, form);
  const lent = await lendBrowser();
  try {
    const { bytes: made, refused, fitted } = await printPage(lent, document);
    return { bytes: made, laid, remarks: [...remarksOnFitted(fitted), ...remarksOnRefused(refused)] };
  } finally {
    await lent.giveBack();
  }
}

export const remarksOnFitted = (count: number): string[] =>
  count === 0 ? [] : [`${count === 1 ? 'A wide table is' : `${count} wide tables are`} made smaller to fit the width.`];

/** Things that are named where they did not come. */
const MOST_NAMED = 3;

/** What a document asks for and is not with it. */
function remarksOnRefused(refused: readonly string[]): string[] {
  if (refused.length === 0) return [];
  const names = refused.map((url) => url.replace(HOME, ''));
  const named = names.slice(0, MOST_NAMED).join(', ');
  const more = names.length > MOST_NAMED ? ` and ${names.length - MOST_NAMED} more` : '';
  return [`Not with the file, and nothing is fetched for it: ${named}${more}.`];
}
