import { type PDFArray, PDFDocument, PDFName, PDFString, StandardFonts, type PDFContext } from '@cantoo/pdf-lib';
import { readFacts } from './facts';

/** As a manual has them: pages with many links are what large documents of an office are made of. */
const PAGES = 150;
const LINKS = 8;

/**
 * Reads files made up for it, as those that come in are read. An engine runs code slowly until it has run often, which for
 * someone's first large document is half a second; whoever waits for work does this meanwhile.
 *
 * @returns how many pages were read
 */
export async function rehearse(): Promise<number> {
  const pdf = await PDFDocument.create();
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  for (let number = 1; number <= PAGES; number += 1) {
    const page = pdf.addPage([595, 842]);
    page.drawText(`Page ${number}`, { font, size: 12 });
    page.node.set(PDFName.of('Annots'), linksOf(pdf.context, number));
  }
  const kinds = [await pdf.save(), await pdf.save({ useObjectStreams: false })];
  let read = 0;
  for (const bytes of kinds) read += (await readFacts(bytes)).pages.length;
  return read;
}

/** Links to sections (ISO 32000-1, 12.5.6.5). */
function linksOf(context: PDFContext, page: number): PDFArray {
  const links = Array.from({ length: LINKS }, (_, at) =>
    context.register(
      context.obj({
        Type: 'Annot',
        Subtype: 'Link',
        Rect: [90.5, 700.25 - 20 * at, 200.125, 712.75 - 20 * at],
        Border: [0, 0, 0],
        C: [1, 0, 0],
        H: 'I',
        A: { S: 'GoTo', D: PDFString.of(`section.${page}.${at}`) },
      }),
    ),
  );
  return context.obj(links);
}
