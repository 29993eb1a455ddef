import {
  PDFArray,
  PDFCrossRefStream,
  PDFDict,
  PDFRef,
  PDFStream,
  PDFStreamWriter,
  type PDFContext,
  type PDFObject,
} from '@cantoo/pdf-lib';

/** The part of the library's table of cross references that is not public. */
interface CrossReferences {
  readonly entries: { readonly ref: PDFRef }[];
  appendEntry: (this: CrossReferences, entry: { readonly ref: PDFRef }) => void;
}

/**
 * The library looks through all entries for the place of each new one, though it writes objects by rising numbers, so that
 * ten times the objects take a hundred times as long. What comes after the last is put there at once.
 */
function appendInOrder(): void {
  const references = PDFCrossRefStream.prototype as unknown as CrossReferences;
  const bySearching = references.appendEntry;
  references.appendEntry = function (this: CrossReferences, entry) {
    const last = this.entries.at(-1);
    if (!last || last.ref.objectNumber < entry.ref.objectNumber) this.entries.push(entry);
    else bySearching.call(this, entry);
  };
}

appendInOrder();

/** A file with object streams, of what its trailer leads to and nothing else, and without a lock. */
export function savePdf(context: PDFContext): Promise<Uint8Array> {
  sweepUnreachable(context);
  return write(context);
}

/** The same, of a context of which more files are to be written: all it holds is still there afterwards. */
export async function savePart(context: PDFContext): Promise<Uint8Array> {
  const swept = sweepUnreachable(context);
  const bytes = await write(context);
  for (const [ref, object] of swept) context.assign(ref, object);
  return bytes;
}

function write(context: PDFContext): Promise<Uint8Array> {
  delete context.trailerInfo.Encrypt;
  return PDFStreamWriter.forContext(context, Infinity, true).serializeToBuffer();
}

/**
 * Deletes every indirect object that cannot be reached from the trailer. The library writes all it holds, so without
 * this the source's old pages, outlines and forms would be written too.
 *
 * @returns what was deleted
 */
function sweepUnreachable(context: PDFContext): [PDFRef, PDFObject][] {
  const reached = new Set<PDFRef>();
  const pending: (PDFObject | undefined)[] = [context.trailerInfo.Root, context.trailerInfo.Info];
  while (pending.length > 0) {
    const object = pending.pop();
    if (object instanceof PDFRef) {
      if (reached.has(object)) continue;
      reached.add(object);
      pending.push(context.lookup(object));
    } else if (object instanceof PDFArray) {
      for (const entry of object.asArray()) pending.push(entry);
    } else if (object instanceof PDFDict) {
      for (const value of object.values()) pending.push(value);
    } else if (object instanceof PDFStream) {
      for (const value of object.dict.values()) pending.push(value);
    }
  }
  const swept = context.enumerateIndirectObjects().filter(([ref]) => !reached.has(ref));
  for (const [ref] of swept) context.delete(ref);
  return swept;
}
