import { PDFArray, PDFDict, PDFName, type PDFPage } from '@cantoo/pdf-lib';
import { openPdf, type OpenPdf } from '../open';

const UNDER = PDFName.of('FoglioUnder');

/**
 * Lays the pages of one PDF under those of another, one by one, corner on corner: what stands around a text under the text.
 *
 * @param under has as many pages
 * @throws PdfError
 */
export async function layUnder({ document, context }: OpenPdf, under: Uint8Array): Promise<void> {
  const { document: other } = await openPdf(under);
  const pages = document.getPages();
  if (other.getPageCount() !== pages.length) {
    throw new Error(`${other.getPageCount()} pages cannot lie under ${pages.length}`);
  }
  const drawn = await document.embedPdf(
    other,
    pages.map((_, at) => at),
  );
  pages.forEach((page, at) => {
    const draw = context.stream(`q /${UNDER.decodeText()} Do Q\n`);
    resourcesOf(page).set(UNDER, drawn[at]!.ref);
    const { node } = page;
    const own = node.Contents();
    const contents = own instanceof PDFArray ? own.asArray() : own ? [context.getObjectRef(own) ?? own] : [];
    node.set(PDFName.of('Contents'), context.obj([context.register(draw), ...contents]));
  });
  await document.flush();
}

/** Forms of a page by their names, its own and no other page's. */
function resourcesOf({ node, doc }: PDFPage): PDFDict {
  const { context } = doc;
  const shared = node.Resources();
  const own = context.obj({});
  for (const [key, value] of shared?.entries() ?? []) own.set(key, value);
  const forms = context.obj({});
  for (const [key, value] of shared?.lookupMaybe(PDFName.of('XObject'), PDFDict)?.entries() ?? [])
    forms.set(key, value);
  own.set(PDFName.of('XObject'), forms);
  node.set(PDFName.of('Resources'), own);
  return forms;
}
