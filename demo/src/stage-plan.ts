import { A4, finish, INK, newDocument, RULE, SOFT, WINE } from './fonts';

const A3_LANDSCAPE = { width: 1190.551, height: 841.89 };
const LEFT = 64;

const GROUPS = [
  { name: 'First violins', from: 196, to: 232, desks: 6 },
  { name: 'Second violins', from: 234, to: 262, desks: 5 },
  { name: 'Violas', from: 280, to: 306, desks: 4 },
  { name: 'Cellos', from: 310, to: 344, desks: 4 },
] as const;

/** The stage plan, 5 pages: a covering note, the plan on A3 landscape among A4 pages, lists. */
export function stagePlan(): Promise<Buffer> {
  const document = newDocument('Stage plan, opening night');
  note(document);
  plan(document);
  list(document, 'Chairs and stands', CHAIRS);
  list(document, 'Risers', RISERS);
  list(document, 'Timetable of the stage crew', CREW);
  return finish(document);
}

function note(document: PDFKit.PDFDocument): void {
  document.addPage();
  document.font('serif-bold').fontSize(22).fillColor(WINE).text('Stage plan, opening night', LEFT, 90);
  document.font('sans').fontSize(11).fillColor(INK);
  document.text(
    'The plan on the next page is drawn for A3. Please do not shrink it: one centimetre on paper is thirty on the stage. The lists after it are for the crew.',
    LEFT,
    140,
    { width: A4.width - 2 * LEFT, lineGap: 4 },
  );
}

function plan(document: PDFKit.PDFDocument): void {
  const { width, height } = A3_LANDSCAPE;
  document.addPage({ size: [width, height], margin: 0 });
  document.font('serif-bold').fontSize(20).fillColor(WINE).text('Town Hall, stage, 1 : 30', LEFT, 44);
  document
    .rect(LEFT, 90, width - 2 * LEFT, height - 170)
    .lineWidth(1.4)
    .stroke(INK);
  const centre = { x: width / 2, y: height - 110 };
  document
    .rect(centre.x - 26, centre.y - 26, 52, 36)
    .lineWidth(1.2)
    .stroke(WINE);
  document
    .font('sans')
    .fontSize(9)
    .fillColor(SOFT)
    .text('conductor', centre.x - 26, centre.y - 12, { width: 52, align: 'center' });
  for (const group of GROUPS) {
    for (let desk = 0; desk < group.desks; desk += 1) {
      for (const row of [0, 1]) {
        const part = desk / (group.desks - 1);
        const angle = ((group.from + (group.to - group.from) * part) * Math.PI) / 180;
        const radius = 150 + row * 46 + desk * 26;
        const x = centre.x + radius * Math.cos(angle) * 1.5;
        const y = centre.y + radius * Math.sin(angle);
        document.circle(x, y, 9).lineWidth(1).stroke(INK);
        document
          .moveTo(x - 8, y + 15)
          .lineTo(x + 8, y + 15)
          .lineWidth(1.6)
          .stroke(SOFT);
      }
    }
  }
  ['Horns', 'Flutes and oboes', 'Clarinets and bassoons', 'Trumpets and trombones', 'Timpani'].forEach(
    (name, index) => {
      const x = LEFT + 60 + index * 205;
      document.rect(x, 116, 180, 66).lineWidth(0.8).stroke(RULE);
      document
        .font('sans-bold')
        .fontSize(10)
        .fillColor(INK)
        .text(name, x + 8, 122);
      for (let chair = 0; chair < 4; chair += 1)
        document
          .circle(x + 30 + chair * 40, 160, 9)
          .lineWidth(1)
          .stroke(INK);
    },
  );
  GROUPS.forEach(({ name }, index) => {
    document
      .font('sans-bold')
      .fontSize(10)
      .fillColor(WINE)
      .text(name, LEFT + 24 + index * 280, height - 100);
  });
}

function list(document: PDFKit.PDFDocument, heading: string, rows: readonly (readonly [string, string])[]): void {
  document.addPage();
  document.font('serif-bold').fontSize(18).fillColor(WINE).text(heading, LEFT, 90);
  let y = 140;
  for (const [left, right] of rows) {
    document.font('sans').fontSize(11).fillColor(INK).text(left, LEFT, y);
    document.text(right, LEFT, y, { width: A4.width - 2 * LEFT, align: 'right' });
    y += 28;
    document
      .moveTo(LEFT, y - 8)
      .lineTo(A4.width - LEFT, y - 8)
      .lineWidth(0.4)
      .stroke(RULE);
  }
}

const CHAIRS = [
  ['Chairs without arms', '58'],
  ['Stools for basses', '4'],
  ['Music stands', '41'],
  ['Stand lamps', '41'],
  ['Conductor’s stand', '1'],
] as const;
const RISERS = [
  ['Back row, 40 cm', '5 pieces'],
  ['Middle row, 20 cm', '6 pieces'],
  ['Podium', '1 piece'],
] as const;
const CREW = [
  ['Risers up', '14:00'],
  ['Chairs and stands', '15:00'],
  ['Lamps', '15:40'],
  ['Seating rehearsal', '17:00'],
  ['Doors', '19:00'],
  ['Clear', '22:15'],
] as const;
