import type { PageFacts } from '@foglio/core';
import type { PDFContext } from '@cantoo/pdf-lib';
import { printedAnnotations, type PrintedAnnotation } from './annotations';
import { colorCoding } from './color-coding';
import { lookAt, type ContentBox, type Look } from './look';
import { openPdf, type OpenPdf } from './open';
import { layersOf } from './optional-content';
import { pageBox, userUnitOf } from './page-box';
import { listPages, type PageNode } from './page-tree';
import { seeObjects, type Corners, type PlainObjects } from './page-objects';
import { openWithPdfium, type OpenFile } from './pdfium';

/** What can only be known of a page by drawing and reading it; what could not be found out is left out. */
export type PageDetails = Pick<
  PageFacts,
  'color' | 'looksGray' | 'blackOfColors' | 'blank' | 'smallestText' | 'content'
>;

/**
 * Finds out page by page what takes time: 2 ms a page of letters and lines, 8 ms of one that has to be drawn. What is told can
 * be kept at once, so a reading that breaks off goes on where it stood.
 *
 * @param wanted page numbers, counted from 1, in the order they are to be read; those the file has not are passed over
 * @param tell called with each page's number and details
 * @throws PdfError where the file cannot be read at all
 */
export async function readDetails(
  bytes: Uint8Array,
  wanted: readonly number[] | 'all',
  tell: (page: number, details: PageDetails) => void | Promise<void>,
): Promise<void> {
  const pdf = await openPdf(bytes);
  const nodes = listPages(pdf);
  // What a hidden layer holds is among the objects of a page, and not in its picture.
  const isLayered = layersOf(pdf).off.length > 0;
  let file = await openWithPdfium(bytes);
  try {
    let read = 0;
    for (const page of wanted === 'all' ? nodes.map((_, index) => index + 1) : wanted) {
      const node = nodes[page - 1];
      if (!node) continue;
      if ((read += 1) % FILE_LASTS === 0) {
        file?.close();
        file = await openWithPdfium(bytes);
      }
      await tell(page, detailsOf(page, node, { pdf, file, isLayered }));
    }
  } finally {
    file?.close();
  }
}

/** Pages after which a file is opened anew: PDFium keeps some of each. */
const FILE_LASTS = 500;

interface Opened {
  readonly pdf: OpenPdf;
  /** Null where PDFium cannot open it. */
  readonly file: OpenFile | null;
  readonly isLayered: boolean;
}

function detailsOf(page: number, node: PageNode, { pdf: { context }, file, isLayered }: Opened): PageDetails {
  const annotations = printedAnnotations(node, context);
  const seen = file?.onPage(page, (at) => {
    const { smallest, plain } = seeObjects(file.pdfium, at);
    // Most pages of most documents are letters and lines, whose places tell what there is to see in a fifth of the time.
    const isPlain = plain !== null && annotations.length === 0 && !isLayered;
    return { smallest, look: isPlain ? plain : lookAt(file.pdfium, at) };
  });
  if (!seen) return {};
  const unit = userUnitOf(node, context);
  const text = { smallestText: seen.smallest === null ? null : rounded(seen.smallest * unit) };
  if (!seen.look) return text;
  const { hasHue } = seen.look;
  const coding = hasHue ? 'color' : colorCoding(node, context);
  const content = contentOf(seen.look, node, context, annotations);
  return {
    ...text,
    color: coding === 'color',
    looksGray: coding === 'color' && !hasHue,
    ...(coding === 'black-of-colors' ? { blackOfColors: true } : {}),
    blank: content === null,
    content,
  };
}

/** What is drawn, and the form fields, which PDFium leaves out; cut to the page. */
function contentOf(
  look: Look | PlainObjects,
  node: PageNode,
  context: PDFContext,
  annotations: readonly PrintedAnnotation[],
): PageFacts['content'] {
  const { matrix, width, height } = pageBox(node, context);
  const asRead = ([left, bottom, right, top]: Corners): Corners => {
    const [x1, y1] = [
      matrix[0] * left + matrix[2] * bottom + matrix[4],
      matrix[1] * left + matrix[3] * bottom + matrix[5],
    ];
    const [x2, y2] = [matrix[0] * right + matrix[2] * top + matrix[4], matrix[1] * right + matrix[3] * top + matrix[5]];
    return [Math.min(x1, x2), Math.min(y1, y2), Math.max(x1, x2), Math.max(y1, y2)];
  };
  const boxes = annotations.filter(({ isField }) => isField).map(({ place }) => asRead(place));
  if ('box' in look) boxes.push(asRead(look.box));
  else if (look.content) {
    const unit = userUnitOf(node, context);
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
