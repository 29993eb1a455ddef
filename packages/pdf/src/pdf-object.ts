import { PDFDict, PDFHexString, PDFName, PDFNumber, PDFString, type PDFContext, type PDFObject } from '@cantoo/pdf-lib';

/** Reading objects that may be missing, given by reference, or of another kind than they should be: null, never an error. */

export function dictOf(object: PDFObject | undefined, context: PDFContext): PDFDict | null {
  const found = context.lookup(object);
  return found instanceof PDFDict ? found : null;
}

export function numberOf(object: PDFObject | undefined, context: PDFContext): number | null {
  const value = context.lookup(object);
  return value instanceof PDFNumber && Number.isFinite(value.asNumber()) ? value.asNumber() : null;
}

export function nameOf(object: PDFObject | undefined, context: PDFContext): string | null {
  const value = context.lookup(object);
  return value instanceof PDFName ? value.decodeText() : null;
}

/** A text that people read, whichever of its encodings it has (ISO 32000-1, 7.9.2.2). */
export function textOf(object: PDFObject | undefined, context: PDFContext): string | null {
  const value = context.lookup(object);
  if (!(value instanceof PDFString) && !(value instanceof PDFHexString)) return null;
  try {
    return value.decodeText();
  } catch {
    return null;
  }
}
