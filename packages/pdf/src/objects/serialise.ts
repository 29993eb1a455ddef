import { PDFArray, PDFDict, PDFNumber, PDFRef, type PDFName, type PDFObject } from '@cantoo/pdf-lib';
import { endOfValue } from './tokens';
import type { WrittenBytes } from './written-bytes';

/** The number under which an object is written; null where there is none of that name. */
export type Rename = (ref: PDFRef) => number | null;

/** Writes an object of the library under new numbers. @param leaveOut of a dictionary's entries */
export function writeObject(object: PDFObject, rename: Rename, out: WrittenBytes, leaveOut?: PDFName): void {
  if (object instanceof PDFRef) {
    writeReference(rename(object), out);
  } else if (object instanceof PDFDict) {
    out.text('<<');
    for (const [name, value] of object.entries()) {
      if (name === leaveOut) continue;
      out.text(`${name.toString()} `);
      writeObject(value, rename, out);
    }
    out.text('>>');
  } else if (object instanceof PDFArray) {
    out.text('[');
    object.asArray().forEach((entry, index) => {
      if (index > 0) out.text(' ');
      writeObject(entry, rename, out);
    });
    out.text(']');
  } else if (object instanceof PDFNumber && Number.isInteger(object.asNumber())) {
    out.text(String(object.asNumber()));
  } else {
    const bytes = new Uint8Array(object.sizeInBytes());
    object.copyBytesInto(bytes, 0);
    out.copy(bytes);
  }
}

/** Copies a value as it stands, but for the numbers of its references. */
export function copyValue(bytes: Uint8Array, start: number, end: number, rename: Rename, out: WrittenBytes): void {
  let copied = start;
  endOfValue(bytes, start, (from, to, objectNumber, generation) => {
    out.copy(bytes, copied, from);
    writeReference(rename(PDFRef.of(objectNumber, generation)), out);
    copied = to;
  });
  out.copy(bytes, copied, end);
}

const writeReference = (number: number | null, out: WrittenBytes): WrittenBytes =>
  out.text(number === null ? 'null' : `${number} 0 R`);
