/** Why a file cannot be used. */
export type PdfTrouble =
  | 'not-known'
  | 'not-a-pdf'
  | 'damaged'
  | 'locked'
  | 'wrong-password'
  | 'printing-forbidden'
  | 'no-pages'
  | 'too-much'
  | 'no-room'
  | 'program-missing'
  | 'form-unfit';

/** A file that cannot be used; the message says which trouble it is and what to do. */
export class PdfError extends Error {
  override readonly name = 'PdfError';

  constructor(
    readonly trouble: PdfTrouble,
    message: string,
  ) {
    super(message);
  }
}

export const notKnown = (): PdfError =>
  new PdfError(
    'not-known',
    'Foglio takes PDF, pictures (PNG, JPEG, TIFF), workbooks (.xlsx), text documents (.docx), CSV, web pages, mail (.eml), Markdown and plain text; save the document as PDF and take that.',
  );

export const notAPdf = (): PdfError => new PdfError('not-a-pdf', 'This is not a PDF; save the document as PDF first.');

export const damaged = (what: string): PdfError =>
  new PdfError('damaged', `This PDF is damaged beyond reading: ${what}. Save it as PDF again where it was made.`);

export const damagedImage = (what: string): PdfError =>
  new PdfError('damaged', `This image is damaged: ${what}. Save it again where it was made.`);

export const damagedDocument = (what: string): PdfError =>
  new PdfError('damaged', `This document is damaged: ${what}. Save it again where it was made.`);

/** It cannot be laid out as is asked. */
export const unfitForm = (why: string, repair: string): PdfError =>
  new PdfError('form-unfit', `It cannot be laid out so: ${why}. ${repair}`);

/** What has no pages of its own, and needs a password. */
export const lockedDocument = (): PdfError =>
  new PdfError('locked', 'This document is locked with a password. Give the password, or take a copy without one.');

export const wrongDocumentPassword = (): PdfError =>
  new PdfError(
    'wrong-password',
    'This is not the password of this document. Type it again, or take a copy without one.',
  );

export const locked = (): PdfError =>
  new PdfError('locked', 'This PDF is locked with a password. Give the password, or take a copy without one.');

export const wrongPassword = (): PdfError =>
  new PdfError('wrong-password', 'This is not the password of this PDF. Type it again, or take a copy without one.');

export const printingForbidden = (): PdfError =>
  new PdfError(
    'printing-forbidden',
    'Whoever made this PDF does not allow it to be printed. Ask them for a copy that may be, or give the owner’s password.',
  );

export const tooMuch = (what: string): PdfError =>
  new PdfError(
    'too-much',
    `This file takes too much ${what} and was given up. Save it as PDF again where it was made.`,
  );

/** @param what is full, and what to do */
export const noRoom = (what: string): PdfError => new PdfError('no-room', what);

export const programMissing = (what: string, debian: string, otherwise: string): PdfError =>
  new PdfError('program-missing', `${what} needs the Debian package ${debian}; install it, or ${otherwise}.`);
