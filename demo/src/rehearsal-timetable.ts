import { A4, finish, INK, newDocument, RULE, SOFT, WINE } from './fonts';

const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'] as const;
const MONTHS = ['September', 'October', 'November'] as const;

/** The rehearsal timetable, 4 pages: a covering letter upright, then a month a page across. */
export function rehearsalTimetable(): Promise<Buffer> {
  const document = newDocument('Rehearsal timetable');
  document.addPage();
  document.font('serif-bold').fontSize(20).fillColor(WINE).text('Rehearsals this autumn', 64, 90);
  document
    .font('sans')
    .fontSize(11)
    .fillColor(INK)
    .text('The three pages after this one are months, to be pinned up across.', 64, 140, { width: A4.width - 128 });
  MONTHS.forEach((month) => monthPage(document, month));
  return finish(document);
}

function monthPage(document: PDFKit.PDFDocument, month: string): void {
  document.addPage({ size: [A4.height, A4.width], margin: 0 });
  document.font('serif-bold').fontSize(18).fillColor(WINE).text(month, 40, 36);
  const column = (A4.height - 80) / DAYS.length;
  DAYS.forEach((day, index) => {
    const x = 40 + index * column;
    document
      .font('sans-bold')
      .fontSize(11)
      .fillColor(INK)
      .text(day, x + 6, 80);
    for (let week = 0; week < 5; week += 1) {
      document
        .rect(x, 100 + week * 84, column, 84)
        .lineWidth(0.5)
        .stroke(RULE);
      document
        .font('sans')
        .fontSize(9)
        .fillColor(SOFT)
        .text(`Week ${week + 1}, 19:00`, x + 6, 108 + week * 84);
    }
  });
}
