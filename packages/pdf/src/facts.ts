import type { AboutDocument, Heading, PageFacts } from '@foglio/core';
import { aboutOf } from './about';
import { readNavigation } from './navigation';
import { openPdf } from './open';
import { pageBox, rotationOf } from './page-box';
import { listPages } from './page-tree';
import { remarksOnUnprinted } from './unprinted';

/** What is read of a PDF before planning. */
export interface PdfFacts {
  readonly pages: readonly PageFacts[];
  readonly outline: readonly Heading[];
  readonly about: AboutDocument;
  /** What of it cannot be printed, in sentences. */
  readonly remarks: readonly string[];
}

/**
 * The pages of a PDF with their sizes as read, in points, and their labels; its outline, and what it says of itself.
 *
 * @throws PdfError where the file is no PDF, locked, damaged beyond reading or without pages
 */
export async function readFacts(bytes: Uint8Array): Promise<PdfFacts> {
  const pdf = await openPdf(bytes);
  const nodes = listPages(pdf);
  const { labels, outline } = readNavigation(pdf, nodes);
  const pages = nodes.map((node, index) => {
    const { width, height } = pageBox(node, pdf.context);
    const rotate = rotationOf(node, pdf.context);
    const label = labels?.[index];
    return { width, height, ...(rotate ? { rotate } : {}), ...(label ? { label } : {}) };
  });
  return { pages, outline, about: aboutOf(pdf), remarks: await remarksOnUnprinted(pdf, nodes) };
}

/** The size of every page of a PDF as it is read, in points; throws like {@link readFacts}. */
export async function pageSizes(bytes: Uint8Array): Promise<{ readonly width: number; readonly height: number }[]> {
  const pdf = await openPdf(bytes);
  return listPages(pdf).map((node) => {
    const { width, height } = pageBox(node, pdf.context);
    return { width, height };
  });
}
