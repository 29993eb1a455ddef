import type { Heading } from '@foglio/core';
import { type PDFArray, type PDFDict, PDFName, PDFNumber, PDFRef, type PDFObject } from '@cantoo/pdf-lib';
import { destinationOf, namedDestinations } from './destinations';
import { oneLine } from './one-line';
import type { OpenPdf } from './open';
import { pageBox } from './page-box';
import { pageLabels } from './page-labels';
import type { PageNode } from './page-tree';
import { dictOf, textOf } from './pdf-object';

/** What a document says of its own parts: a label for each page, and its outline (ISO 32000-1, 12.3.3 and 12.4.2). */
export interface Navigation {
  /** One a page; null where the document labels none. */
  readonly labels: readonly string[] | null;
  readonly outline: readonly Heading[];
}

/** An outline longer than any table of contents is cut there, so that a malicious one cannot fill the memory. */
const MAX_HEADINGS = 20_000;

/**
 * Reads page labels and outline. An outline entry that leads nowhere in this document, to a web address for instance, is
 * left out, and what stands below it is kept.
 *
 * @param pages in order
 */
export const readNavigation = (pdf: OpenPdf, pages: readonly PageNode[]): Navigation => ({
  labels: pageLabels(pdf, pages.length)?.map(oneLine) ?? null,
  outline: headingsOf(pdf, pages),
});

function headingsOf(pdf: OpenPdf, pages: readonly PageNode[]): Heading[] {
  const { catalog, context } = pdf;
  const numbers = new Map(pages.map(({ ref }, index) => [ref, index + 1]));
  const named = namedDestinations(pdf);
  const headings: Heading[] = [];
  const visited = new Set<PDFDict>();
  const outlines = dictOf(catalog.get(PDFName.of('Outlines')), context);
  const pending = [{ node: outlines?.get(PDFName.of('First')), level: 1 }];
  for (let next = pending.pop(); next && headings.length < MAX_HEADINGS; next = pending.pop()) {
    const { level } = next;
    const entry = dictOf(next.node, context);
    if (!entry || visited.has(entry)) continue;
    visited.add(entry);
    const destination = destinationOf(entry, pdf, named);
    const page = destination && pageOf(context.lookup(destination.get(0)), destination.get(0), numbers);
    const at = page && pages[page - 1];
    const title = textOf(entry.get(PDFName.of('Title')), context);
    if (at && title !== null) {
      headings.push({ title: oneLine(title), level, page, top: topOf(destination, at, pdf) });
    }
    // What was pushed last is read first: what stands below a heading comes before the next of its level.
    pending.push({ node: entry.get(PDFName.of('Next')), level });
    pending.push({ node: entry.get(PDFName.of('First')), level: level + 1 });
  }
  return headings;
}

/** A destination names its page by reference, or in a remote form by its place from 0 (ISO 32000-1, 12.3.2.2). */
function pageOf(
  found: PDFObject | undefined,
  written: PDFObject,
  numbers: ReadonlyMap<string | null, number>,
): number | null {
  if (found instanceof PDFNumber) return found.asNumber() + 1;
  return written instanceof PDFRef ? (numbers.get(written.toString()) ?? null) : null;
}

/** Where each kind of destination holds the left and the upper edge of what it shows (ISO 32000-1, table 151). */
const EDGES: Readonly<Record<string, readonly [left: number | null, top: number]>> = {
  XYZ: [0, 1],
  FitH: [null, 0],
  FitBH: [null, 0],
  FitR: [0, 3],
};

function topOf(destination: PDFArray, page: PageNode, { context }: OpenPdf): number {
  const [, fit, ...rest] = destination.asArray().map((entry) => context.lookup(entry));
  const numbers = rest.map((entry) => (entry instanceof PDFNumber ? entry.asNumber() : null));
  const edges = fit instanceof PDFName ? EDGES[fit.decodeText()] : undefined;
  const top = edges && numbers[edges[1]];
  if (edges === undefined || top === undefined || top === null) return 0;
  const left = edges[0] === null ? 0 : (numbers[edges[0]] ?? 0);
  const { matrix, height } = pageBox(page, context);
  const y = matrix[1] * left + matrix[3] * top + matrix[5];
  return Math.min(1, Math.max(0, 1 - y / height));
}
