import type { Form, LaidOut } from '@foglio/core';
import { HOME } from '../browser/address';
import { layAlone } from '../browser/chromium';
import type { LayInBrowser } from '../browser/laying';
import type { AllBeside, Beside } from '../browser/beside';
import type { WebDocument } from '../browser/print-page';
import type { LaidPages } from '../laid-pages';
import { besideOf, type ReadBeside } from './beside-file';

/** A document that flows, and what is known of it beside its own bytes. */
export interface Flowing {
  /** Of its file. */
  readonly name: string;
  readonly form: Form;
  readonly lay?: LayInBrowser;
  /** What it shows and has with it. */
  readonly beside?: AllBeside;
  /** Where it was, for what it asks for from there. */
  readonly address?: string;
  /** What stands beside its file, by its path from there. */
  readonly readBeside?: ReadBeside;
}

/** Has a browser lay out a document that flows. */
export async function layOutFlowing(
  bytes: Uint8Array,
  kind: 'web-page' | 'markdown',
  flowing: Flowing,
): Promise<LaidPages> {
  const { name, form, beside, address, readBeside } = flowing;
  const { document, laid } =
    kind === 'markdown'
      ? (await import('./markdown')).markdownPage(bytes, form)
      : (await import('./web-page')).webPage(bytes, name, form);
  const found = beside ?? (readBeside ? besideOf(document.html, readBeside) : new Map<string, Beside>());
  const place = address === undefined ? {} : { address };
  return printFlowing({ ...document, beside: found, ...place }, laid, flowing);
}

/** Has a browser lay out a page. */
export async function printFlowing(
  document: WebDocument,
  laid: LaidOut,
  { lay = layAlone }: Pick<Flowing, 'lay'>,
): Promise<LaidPages> {
  const { bytes, refused, fitted } = await lay({ kind: 'page', document });
  return { bytes, laid, remarks: [...remarksOnFitted(fitted), ...remarksOnRefused(refused)] };
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
