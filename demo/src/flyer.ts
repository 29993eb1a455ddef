import { finish, INK, newDocument, WINE } from './fonts';

/** ISO 216 A6, a quarter of A4, in points. */
const A6 = { width: 297.638, height: 419.528 };

/** A flyer in two designs, a page each, made for quarter sheets. */
export function flyer(): Promise<Buffer> {
  const document = newDocument('Flyer, open rehearsal');
  design(document, 'Open rehearsal', 'Town Hall, 14 October, 10 o’clock', WINE);
  design(document, 'Come and listen', 'Bring the children; cushions are there', INK);
  return finish(document);
}

function design(document: PDFKit.PDFDocument, title: string, line: string, colour: string): void {
  document.addPage({ size: [A6.width, A6.height], margin: 0 });
  document.rect(24, 24, A6.width - 48, 150).fill(colour);
  document
    .font('serif-bold')
    .fontSize(22)
    .fillColor(colour)
    .text(title, 28, 200, { width: A6.width - 56 });
  document
    .font('sans')
    .fontSize(12)
    .fillColor(INK)
    .text(line, 28, 260, { width: A6.width - 56 });
}
