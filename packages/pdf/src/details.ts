import type { PageFacts } from '@foglio/core';
import type { PDFContext } from '@cantoo/pdf-lib';
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { printedAnnotations } from './annotations';
import { codesColor } from './color-coding';
import { openLooks, type ContentBox, type Look, type Looks } from './look';
import { readNavigation, type Navigation } from './navigation';
import { openPdf, type OpenPdf } from './open';
import { pageBox, userUnitOf } from './page-box';
import { listPages, type PageNode } from './page-tree';
import { openWithPdfJs, type PdfJsFile } from './pdfjs';

/** What can only be known of a page by drawing and reading it; what could not be found out is left out. */
export type PageDetails = Pick<PageFacts, 'color' | 'looksGray' | 'blank' | 'smallestText' | 'content'>;

/**
 * Finds out page by page what takes time: about 50 ms a page. What is told can be kept at once, so a reading that breaks
 * off goes on where it stood.
 *
 * @param wanted page numbers, counted from 1, in the order they are to be read; those the file has not are passed over
 * @param tell called with each page's number and details
 * @param tellNavigation where the document's labels and outline are not known yet: called with them before the first page
 * @throws PdfError where the file cannot be read at all
 */
export async function readDetails(
  bytes: Uint8Array,
  wanted: readonly number[] | 'all',
  tell: (page: number, details: PageDetails) => void | Promise<void>,
  tellNavigation?: (navigation: Navigation) => void | Promise<void>,
): Promise<void> {
  const pdf = await openPdf(bytes);
  const nodes = listPages(pdf);
  let readers = await openReaders(bytes);
  try {
    if (tellNavigation) {
      await tellNavigation(await readNavigation(readers.texts?.document ?? null, { pdf, pages: nodes }));
    }
    let read = 0;
    for (const page of wanted === 'all' ? nodes.map((_, index) => index + 1) : wanted) {
      const node = nodes[page - 1];
      if (!node) continue;
      if ((read += 1) % READERS_LAST === 0) {
        await readers.close();
        readers = await openReaders(bytes);
      }
      const { texts, looks } = readers;
      const smallest = texts ? await smallestText(texts.document, page) : undefined;
      await tell(page, detailsOf({ pdf, node, look: looks?.look(page) ?? null, smallest }));
    }
  } finally {
    await readers.close();
  }
}

/** Pages after which the libraries that read them are opened anew: they keep 40 KB of each. */
const READERS_LAST = 500;

/** The libraries that read pages; null where one cannot open the file. */
interface Readers {
  readonly texts: PdfJsFile | null;
  readonly looks: Looks | null;
  readonly close: () => Promise<void>;
}

async function openReaders(bytes: Uint8Array): Promise<Readers> {
  const texts = await openWithPdfJs(bytes);
  const looks = await openLooks(bytes);
  return {
    texts,
    looks,
    close: async () => {
      looks?.close();
      await texts?.close();
    },
  };
}

interface Seen {
  readonly pdf: OpenPdf;
  readonly node: PageNode;
  readonly look: Look | null;
  /** In user space units; null: no text. */
  readonly smallest: number | null | undefined;
}

function detailsOf({ pdf: { context }, node, look, smallest }: Seen): PageDetails {
  const unit = userUnitOf(node, context);
  const text = smallest === undefined ? {} : { smallestText: smallest === null ? null : rounded(smallest * unit) };
  if (!look) return text;
  const coded = look.hasHue || codesColor(node, context);
  const content = contentOf(look, node, context, unit);
  return { ...text, color: coded, looksGray: coded && !look.hasHue, blank: content === null, content };
}

/** Height of the smallest text on a page in user space; null where it holds none, undefined where it cannot be read. */
async function smallestText(document: PDFDocumentProxy, page: number): Promise<number | null | undefined> {
  try {
    const proxy = await document.getPage(page);
    const { items } = await proxy.getTextContent({ disableNormalization: true });
    proxy.cleanup();
    let smallest = Infinity;
    for (const item of items) {
      if (!('str' in item) || item.str.trim() === '') continue;
      const [, , c, d] = item.transform as [number, number, number, number];
      const height = Math.hypot(c, d);
      if (height > 0 && height < smallest) smallest = height;
    }
    return smallest === Infinity ? null : smallest;
  } catch {
    return undefined;
  }
}

/** What is drawn, and the form fields, which PDFium leaves out; cut to the page. */
function contentOf(look: Look, node: PageNode, context: PDFContext, unit: number): PageFacts['content'] {
  const { matrix, width, height } = pageBox(node, context);
  const fields = printedAnnotations(node, context).filter(({ isField }) => isField);
  const boxes = fields.map(({ place: [left, bottom, right, top] }) => {
    const [x1, y1] = [
      matrix[0] * left + matrix[2] * bottom + matrix[4],
      matrix[1] * left + matrix[3] * bottom + matrix[5],
    ];
    const [x2, y2] = [matrix[0] * right + matrix[2] * top + matrix[4], matrix[1] * right + matrix[3] * top + matrix[5]];
    return [Math.min(x1, x2), Math.min(y1, y2), Math.max(x1, x2), Math.max(y1, y2)] as const;
  });
  if (look.content) {
    const [x, y, wide, high] = look.content.map((value) => value * unit) as unknown as ContentBox;
    boxes.push([x, y, x + wide, y + high]);
  }
  const left = Math.max(0, Math.min(...boxes.map((box) => box[0])));
  const bottom = Math.max(0, Math.min(...boxes.map((box) => box[1])));
  const right = Math.min(width, Math.max(...boxes.map((box) => box[2])));
  const top = Math.min(height, Math.max(...boxes.map((box) => box[3])));
  if (right <= left || top <= bottom) return null;
  return [left, bottom, right - left, top - bottom].map(rounded) as unknown as ContentBox;
}

/** Facts are kept and sent by the thousand, so they carry no noise. */
const rounded = (value: number): number => Number(value.toFixed(3));
