import { PDFArray, type PDFContext, PDFName, PDFNull, type PDFObject, PDFRawStream, PDFRef } from '@cantoo/pdf-lib';
import { unpacked } from './objects/flate';
import type { PageNode } from './page-tree';
import { PdfError } from './pdf-error';

/** What a page draws. */
export interface PageContent {
  /** In their order; none: the page is blank, which the standard allows (ISO 32000-1, table 30). */
  readonly streams: readonly PDFRawStream[];
  /** Whether it names content that the file does not have. */
  readonly isIncomplete: boolean;
}

const CONTENTS = PDFName.of('Contents');

/**
 * The streams of a page. A reference to what is not in the file means nothing (ISO 32000-1, 7.3.10: the null object), and so does an
 * array that stands in itself; what else is there is drawn.
 */
export function pageContent(page: PageNode, context: PDFContext): PageContent {
  const streams: PDFRawStream[] = [];
  const arrays = new Set<PDFArray>();
  let isIncomplete = false;
  const pending: (PDFObject | undefined)[] = [page.dict.get(CONTENTS)];
  while (pending.length > 0) {
    const entry = pending.pop();
    if (entry === undefined || entry === PDFNull) continue;
    const found = context.lookup(entry);
    if (found instanceof PDFRawStream) streams.push(found);
    else if (found instanceof PDFArray && !arrays.has(found)) {
      arrays.add(found);
      pending.push(...found.asArray().toReversed());
    } else if (found !== PDFNull || entry instanceof PDFRef) isIncomplete = true;
  }
  return { streams, isIncomplete };
}

/** What a page draws, as one stream of operators; of a stream that cannot be unpacked, nothing. */
export function contentBytes(page: PageNode, context: PDFContext): Uint8Array {
  const parts = pageContent(page, context).streams.map((stream) => {
    try {
      return unpacked(stream);
    } catch (error) {
      if (error instanceof PdfError) throw error;
      return new Uint8Array();
    }
  });
  return parts.length === 1 ? (parts[0] as Uint8Array) : joinWithNewlines(parts);
}

/** Operators of two streams must not run into each other (ISO 32000-1, 7.8.2). */
function joinWithNewlines(parts: readonly Uint8Array[]): Uint8Array {
  const joined = new Uint8Array(parts.reduce((sum, part) => sum + part.length + 1, 0));
  let at = 0;
  for (const part of parts) {
    joined.set(part, at);
    at += part.length;
    joined[at] = 0x0a;
    at += 1;
  }
  return joined;
}
