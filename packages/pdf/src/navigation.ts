import type { Heading } from '@foglio/core';
import { PDFName } from '@cantoo/pdf-lib';
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { oneLine } from './one-line';
import type { OpenPdf } from './open';
import { pageBox } from './page-box';
import type { PageNode } from './page-tree';

/** What a document says of its own parts: a label for each page, and its outline (ISO 32000-1, 12.3.3 and 12.4.2). */
export interface Navigation {
  /** One a page; null where the document labels none. */
  readonly labels: readonly string[] | null;
  readonly outline: readonly Heading[];
}

/** An outline entry as pdf.js gives it; its own type leaves the children open. */
interface OutlineNode {
  readonly title: string;
  readonly dest: string | unknown[] | null;
  readonly items: readonly OutlineNode[];
}

/** A destination as pdf.js gives it: the page, how to show it, and the numbers of that way. */
type Destination = readonly [page: unknown, fit: { readonly name: string }, ...numbers: (number | null)[]];

/** An outline longer than any table of contents is cut there, so that a malicious one cannot fill the memory. */
const MAX_HEADINGS = 20_000;

/** Whether a document has labels or an outline at all, so that it has to be opened with pdf.js to know them. */
export const namesItsParts = ({ catalog }: OpenPdf): boolean =>
  ['Outlines', 'PageLabels'].some((name) => catalog.has(PDFName.of(name)));

/**
 * Reads page labels and outline. An outline entry that leads nowhere in this document, to a web address for instance, is
 * left out, and its children with it where they lead nowhere too.
 *
 * @param document as pdf.js has it; null where that cannot open it, or need not
 */
export async function readNavigation(document: PDFDocumentProxy | null, place: Place): Promise<Navigation> {
  try {
    const labels = await document?.getPageLabels();
    const outline = await document?.getOutline();
    return {
      labels: labels?.map(oneLine) ?? null,
      outline: document && outline ? await headingsOf(outline, document, place) : [],
    };
  } catch {
    // Pages can be printed without their labels and headings; a selection that needs one says that there is none.
    return { labels: null, outline: [] };
  }
}

/** The document as the other library has it. */
interface Place {
  readonly pdf: OpenPdf;
  /** In order. */
  readonly pages: readonly PageNode[];
}

async function headingsOf(outline: readonly OutlineNode[], document: PDFDocumentProxy, place: Place) {
  const numbers = new Map(place.pages.map(({ ref }, index) => [ref, index + 1]));
  const headings: Heading[] = [];
  const pending = outline.map((node) => ({ node, level: 1 })).reverse();
  for (let next = pending.pop(); next && headings.length < MAX_HEADINGS; next = pending.pop()) {
    const { node, level } = next;
    const named = typeof node.dest === 'string' ? await document.getDestination(node.dest) : node.dest;
    const destination = named as Destination | null;
    const page = destination && pageOf(destination[0], numbers);
    const at = page && place.pages[page - 1];
    if (at) headings.push({ title: oneLine(node.title), level, page, top: topOf(destination, at, place.pdf) });
    for (const child of [...node.items].reverse()) pending.push({ node: child, level: level + 1 });
  }
  return headings;
}

/** A destination names its page by reference, or in a remote form by its place from 0 (ISO 32000-1, 12.3.2.2). */
function pageOf(page: unknown, numbers: ReadonlyMap<string | null, number>): number | null {
  if (typeof page === 'number') return page + 1;
  const { num, gen } = page as { num: number; gen: number };
  return numbers.get(`${num} ${gen} R`) ?? null;
}

/** Where each kind of destination holds the left and the upper edge of what it shows (ISO 32000-1, table 151). */
const EDGES: Readonly<Record<string, readonly [left: number | null, top: number]>> = {
  XYZ: [0, 1],
  FitH: [null, 0],
  FitBH: [null, 0],
  FitR: [0, 3],
};

function topOf([, fit, ...numbers]: Destination, page: PageNode, { context }: OpenPdf): number {
  const edges = EDGES[fit.name];
  const top = edges && numbers[edges[1]];
  if (edges === undefined || top === undefined || top === null) return 0;
  const left = edges[0] === null ? 0 : (numbers[edges[0]] ?? 0);
  const { matrix, height } = pageBox(page, context);
  const y = matrix[1] * left + matrix[3] * top + matrix[5];
  return Math.min(1, Math.max(0, 1 - y / height));
}
