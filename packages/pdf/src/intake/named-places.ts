import { PDFArray, PDFDict, PDFName, PDFRef } from '@cantoo/pdf-lib';
import { openPdf } from '../open';

/**
 * The pages on which the places that a PDF names stand (ISO 32000-1, 12.3.2.3), from 0.
 *
 * @throws PdfError
 */
export async function pagesOfPlaces(
  bytes: Uint8Array,
): Promise<{ readonly pages: number; readonly places: ReadonlyMap<string, number> }> {
  const { document, catalog } = await openPdf(bytes);
  const pages = document.getPages().map(({ ref }) => ref);
  const at = new Map(pages.map((ref, index) => [ref.toString(), index]));
  const named = catalog.lookupMaybe(PDFName.of('Dests'), PDFDict);
  const places = new Map<string, number>();
  for (const key of named?.keys() ?? []) {
    const page = named!.lookupMaybe(key, PDFArray)?.get(0);
    const index = page instanceof PDFRef ? at.get(page.toString()) : undefined;
    if (index !== undefined) places.set(key.decodeText(), index);
  }
  return { pages: pages.length, places };
}
