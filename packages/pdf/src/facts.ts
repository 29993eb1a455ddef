import type { Heading, PageFacts } from '@foglio/core';
import { readNavigation } from './navigation';
import { openPdf } from './open';
import { pageBox } from './page-box';
import { listPages } from './page-tree';

/** What is read of a PDF before planning. */
export interface PdfFacts {
  readonly pages: readonly PageFacts[];
  readonly outline: readonly Heading[];
}

/**
 * The pages of a PDF with their sizes as read, in points, and their labels, and its outline.
 *
 * @throws PdfError where the file is no PDF, locked, damaged beyond reading or without pages
 */
export async function readFacts(bytes: Uint8Array): Promise<PdfFacts> {
  const pdf = await openPdf(bytes);
  const nodes = listPages(pdf);
  const { labels, outline } = await readNavigation(bytes, pdf, nodes);
  const pages = nodes.map((node, index) => {
    const { width, height } = pageBox(node, pdf.context);
    const label = labels?.[index];
    return label ? { width, height, label } : { width, height };
  });
  return { pages, outline };
}

/** How many pages a PDF has; throws like {@link readFacts}. */
export const countPages = async (bytes: Uint8Array): Promise<number> => listPages(await openPdf(bytes)).length;
