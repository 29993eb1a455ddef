import { finish, INK, newDocument, RULE, WINE } from './fonts';

/** ANSI/ASME Y14.1 A and North American practice: US Letter and Legal, in points. */
const LETTER = [612, 792] as const;
const LEGAL = [612, 1008] as const;

/** The grant return, 5 pages: a letter and statements on US Letter, two long tables on Legal. */
export function grantReturn(): Promise<Buffer> {
  const document = newDocument('Grant return');
  page(document, LETTER, 'Return for the year', 8);
  page(document, LEGAL, 'Income, month by month', 26);
  page(document, LETTER, 'Statement of use', 10);
  page(document, LEGAL, 'Expenditure, month by month', 26);
  page(document, LETTER, 'Declaration', 4);
  return finish(document);
}

function page(
  document: PDFKit.PDFDocument,
  [width, height]: readonly [number, number],
  title: string,
  rows: number,
): void {
  document.addPage({ size: [width, height], margin: 0 });
  document.font('serif-bold').fontSize(18).fillColor(WINE).text(title, 60, 70);
  for (let row = 1; row <= rows; row += 1) {
    const y = 110 + row * 30;
    document.font('sans').fontSize(11).fillColor(INK).text(`Line ${row}`, 60, y);
    document
      .moveTo(60, y + 18)
      .lineTo(width - 60, y + 18)
      .lineWidth(0.4)
      .stroke(RULE);
  }
}
