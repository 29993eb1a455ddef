import { openPdf } from '../open';
import { savePdf } from '../save';
import { addOutline, type NamedHeading } from './outline';
import { layUnder } from './pages-under';

/** What a browser's PDF lacks, since a browser writes it badly or not at all. */
export interface Completion {
  readonly headings: readonly NamedHeading[];
  /** Pages that lie under its own, as many; null: none. */
  readonly under?: Uint8Array | null;
}

/** Completes what a browser printed, in one opening. @throws PdfError */
export async function completePrinted(bytes: Uint8Array, { headings, under = null }: Completion): Promise<Uint8Array> {
  if (headings.length === 0 && !under) return bytes;
  const pdf = await openPdf(bytes);
  addOutline(pdf, headings);
  if (under) await layUnder(pdf, under);
  return savePdf(pdf);
}
