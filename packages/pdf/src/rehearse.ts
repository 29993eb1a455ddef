import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { readFirstFacts } from './facts';

const PAGES = 300;

/**
 * Reads a file made up for it, as one that comes in is read. An engine runs code slowly until it has run often, which for
 * someone's first large document is half a second; whoever waits for work does this meanwhile.
 *
 * @returns how many pages were read
 */
export async function rehearse(): Promise<number> {
  const pdf = await PDFDocument.create();
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  for (let page = 1; page <= PAGES; page += 1) pdf.addPage([595, 842]).drawText(`Page ${page}`, { font, size: 12 });
  const kinds = [await pdf.save(), await pdf.save({ useObjectStreams: false })];
  let read = 0;
  for (const bytes of kinds) read += (await readFirstFacts(bytes)).pages.length;
  return read;
}
