import PDFDocument from 'pdfkit';

/** A PDF of so many A4 pages, each with its number on it. */
export function manyPages(count: number): Promise<Buffer> {
  const document = new PDFDocument({ autoFirstPage: false, size: 'A4' });
  const parts: Buffer[] = [];
  document.on('data', (part: Buffer) => parts.push(part));
  for (let page = 1; page <= count; page += 1) document.addPage().fontSize(40).text(`Page ${page}`, 72, 72);
  document.end();
  return new Promise((resolve) => document.on('end', () => resolve(Buffer.concat(parts))));
}
