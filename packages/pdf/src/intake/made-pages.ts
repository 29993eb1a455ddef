/** Pages made of something that was no PDF. */
export interface MadePages {
  readonly bytes: Uint8Array;
  /** What a person should know of how it was made, in sentences. */
  readonly remarks: readonly string[];
}

/** The library wants a date; this one says nothing, and makes the same file of the same input. */
const NO_DATE = new Date(0);

/** What was written of documents until now. */
const written = new WeakMap<PDFKit.PDFDocument, Buffer[]>();

/** A document written by pdfkit, without pages yet. Loaded only here: most of what is read and imposed needs none of it. */
export async function newDocument(): Promise<PDFKit.PDFDocument> {
  const { default: PDFDocument } = await import('pdfkit');
  const info = { Producer: 'Foglio', CreationDate: NO_DATE };
  const document = new PDFDocument({ autoFirstPage: false, compress: true, info });
  const parts: Buffer[] = [];
  written.set(document, parts);
  // Copied: what a page is packed into is several times as large as the page, and would be kept with it.
  document.on('data', (part: Buffer) => parts.push(Buffer.from(part)));
  return document;
}

/** All of a document that {@link newDocument} began, once it is complete. */
export function finish(document: PDFKit.PDFDocument): Promise<Uint8Array> {
  return new Promise((resolve, reject) => {
    document.on('error', reject);
    document.on('end', () => resolve(new Uint8Array(Buffer.concat(written.get(document) ?? []))));
    document.end();
  });
}
