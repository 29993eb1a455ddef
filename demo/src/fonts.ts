import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';
import { toSfnt } from 'woff2sfnt-sfnt2woff';

const require = createRequire(import.meta.url);

/** A font that the application ships, inflated once: the PDF library would inflate a table of it anew for every letter. */
const font = (family: string, style: string): Buffer =>
  toSfnt(readFileSync(require.resolve(`@fontsource/${family}/files/${family}-latin-${style}.woff`)));

const FONTS = {
  serif: font('literata', '400-normal'),
  'serif-bold': font('literata', '700-normal'),
  'serif-italic': font('literata', '400-italic'),
  sans: font('atkinson-hyperlegible-next', '400-normal'),
  'sans-bold': font('atkinson-hyperlegible-next', '700-normal'),
};

/** Points. */
export const A4 = { width: 595.276, height: 841.89 };

/** An empty document of A4 pages with the shipped fonts; its pages are added one by one. */
export function newDocument(title: string): PDFKit.PDFDocument {
  const document = new PDFDocument({
    autoFirstPage: false,
    size: [A4.width, A4.height],
    margin: 0,
    info: { Title: title, Author: 'Marrowbridge Town Orchestra', CreationDate: new Date('2026-09-01T09:00:00Z') },
  });
  for (const [name, bytes] of Object.entries(FONTS)) document.registerFont(name, bytes);
  return document;
}

/** Ends the document and gives its bytes. */
export function finish(document: PDFKit.PDFDocument): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const parts: Buffer[] = [];
    document.on('data', (part: Buffer) => parts.push(part));
    document.on('end', () => resolve(Buffer.concat(parts)));
    document.on('error', reject);
    document.end();
  });
}

export const INK = '#22303A';
export const SOFT = '#5C6A72';
export const WINE = '#8A2F3C';
export const RULE = '#D3CBBB';
