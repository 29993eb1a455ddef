import type { PageFacts } from '@foglio/core';
import { openPdf } from './open';
import { pageBox } from './page-box';
import { listPages } from './page-tree';

/**
 * The pages of a PDF with their sizes as read, in points.
 *
 * @throws PdfError where the file is no PDF, locked, damaged beyond reading or without pages
 */
export async function readFacts(bytes: Uint8Array): Promise<PageFacts[]> {
  const pdf = await openPdf(bytes);
  return listPages(pdf).map((page) => {
    const { width, height } = pageBox(page, pdf.context);
    return { width, height };
  });
}
