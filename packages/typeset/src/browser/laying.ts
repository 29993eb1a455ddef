import type { WordDocument } from '../word/read-word';
import type { PrintedPage, WebDocument } from './print-page';

/** What a browser is asked to lay out. */
export type BrowserWork =
  | { readonly kind: 'page'; readonly document: WebDocument }
  | { readonly kind: 'word'; readonly document: WordDocument };

/**
 * Has a browser lay something out, wherever that runs.
 *
 * @throws PdfError `program-missing` where there is none; `too-much` where it takes too long or too much
 */
export type LayInBrowser = (work: BrowserWork) => Promise<PrintedPage>;
