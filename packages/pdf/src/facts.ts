import type { AboutDocument, Heading, PageFacts } from '@foglio/core';
import { aboutOf } from './about';
import { namesItsParts, readNavigation, type Navigation } from './navigation';
import { openPdf, type OpenPdf } from './open';
import { pageBox, rotationOf } from './page-box';
import { listPages, type PageNode } from './page-tree';
import { openWithPdfJs } from './pdfjs';
import { remarksOnUnprinted } from './unprinted';

/** What is read of a PDF before planning. */
export interface PdfFacts {
  readonly pages: readonly PageFacts[];
  readonly outline: readonly Heading[];
  readonly about: AboutDocument;
  /** What of it cannot be printed, in sentences. */
  readonly remarks: readonly string[];
}

/** What is known of a PDF at once, and how to know the rest. */
export interface FirstFacts extends Omit<PdfFacts, 'outline'> {
  /** Reads labels and outline, which takes another library and about as long again. */
  readonly navigation: () => Promise<Navigation>;
}

/**
 * The pages of a PDF with their sizes as read, in points, and their labels; its outline, and what it says of itself.
 *
 * @throws PdfError where the file is no PDF, locked, damaged beyond reading or without pages
 */
export const readFacts = async (bytes: Uint8Array): Promise<PdfFacts> => allFacts(await readFirstFacts(bytes));

/** The same without labels and outline; throws like {@link readFacts}. */
export async function readFirstFacts(bytes: Uint8Array): Promise<FirstFacts> {
  const pdf = await openPdf(bytes);
  const nodes = listPages(pdf);
  const pages = nodes.map((node) => {
    const { width, height } = pageBox(node, pdf.context);
    const rotate = rotationOf(node, pdf.context);
    return { width, height, ...(rotate ? { rotate } : {}) };
  });
  const remarks = await remarksOnUnprinted(pdf, nodes);
  return { pages, about: aboutOf(pdf), remarks, navigation: () => openNavigation(bytes, pdf, nodes) };
}

/** First facts with those that take longer. */
export const allFacts = async ({ navigation, ...facts }: FirstFacts): Promise<PdfFacts> =>
  withNavigation(facts, await navigation());

/** Facts of pages with their labels, and the outline. */
export const withNavigation = <T extends { readonly pages: readonly PageFacts[] }>(
  facts: T,
  { labels, outline }: Navigation,
) => ({
  ...facts,
  pages: facts.pages.map((page, index) => {
    const label = labels?.[index];
    return label ? { ...page, label } : page;
  }),
  outline,
});

async function openNavigation(bytes: Uint8Array, pdf: OpenPdf, pages: readonly PageNode[]): Promise<Navigation> {
  const file = namesItsParts(pdf) ? await openWithPdfJs(bytes) : null;
  try {
    return await readNavigation(file?.document ?? null, { pdf, pages });
  } finally {
    await file?.close();
  }
}

/** The size of every page of a PDF as it is read, in points; throws like {@link readFacts}. */
export async function pageSizes(bytes: Uint8Array): Promise<{ readonly width: number; readonly height: number }[]> {
  const pdf = await openPdf(bytes);
  return listPages(pdf).map((node) => {
    const { width, height } = pageBox(node, pdf.context);
    return { width, height };
  });
}
