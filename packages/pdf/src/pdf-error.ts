/** Why a file cannot be used. */
export type PdfTrouble = 'not-a-pdf' | 'damaged' | 'locked' | 'no-pages' | 'program-missing';

/** A file that cannot be read as PDF; the message says which trouble it is and what to do. */
export class PdfError extends Error {
  override readonly name = 'PdfError';

  constructor(
    readonly trouble: PdfTrouble,
    message: string,
  ) {
    super(message);
  }
}

export const notAPdf = (): PdfError => new PdfError('not-a-pdf', 'This is not a PDF; save the document as PDF first.');

export const damaged = (what: string): PdfError =>
  new PdfError('damaged', `This PDF is damaged beyond reading: ${what}. Save it as PDF again where it was made.`);

export const locked = (): PdfError =>
  new PdfError('locked', 'This PDF is locked with a password. Save a copy without one and take that.');
