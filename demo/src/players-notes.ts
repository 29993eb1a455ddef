import { A4, finish, INK, newDocument, RULE, SOFT, WINE } from './fonts';

const LEFT = 64;
const WIDTH = A4.width - 2 * LEFT;

/** Looks grey, and is coded in colour: such a page is billed as colour. */
const GREY_IN_COLOUR = '#5c5c5c';

const PIECES = [
  { name: 'Overture “The Weir in Spate”', tempo: 'Andante, then Allegro' },
  { name: 'Concerto for clarinet', tempo: 'Allegro; Adagio; Rondo' },
  { name: 'Symphony in E minor', tempo: 'Moderato; Largo; Scherzo; Finale' },
] as const;

/**
 * The players' notes, 12 pages: a cover, and for each of three pieces notes, a fingering chart and a page of cues. The
 * charts are pages 3, 7 and 11.
 */
export function playersNotes(): Promise<Buffer> {
  const document = newDocument('Players’ notes');
  document.addPage();
  document.font('serif-bold').fontSize(26).fillColor(WINE).text('Players’ notes', LEFT, 120);
  document.font('sans').fontSize(11).fillColor(INK).text('Autumn season. Bring a pencil.', LEFT, 170);
  PIECES.forEach(({ name, tempo }, index) => {
    notes(document, name, tempo);
    chart(document, name);
    cues(document, name, 1);
    if (index < 2) cues(document, name, 2);
  });
  return finish(document);
}

function heading(document: PDFKit.PDFDocument, text: string, colour = WINE): void {
  document.addPage();
  document.font('serif-bold').fontSize(16).fillColor(colour).text(text, LEFT, 80, { width: WIDTH });
}

function notes(document: PDFKit.PDFDocument, name: string, tempo: string): void {
  heading(document, name);
  document.outline.addItem(name);
  document.font('sans').fontSize(11).fillColor(INK).text(tempo, LEFT, 112);
  for (let bar = 1; bar <= 14; bar += 1) {
    document.text(`${bar * 9}. Watch the beat; breathe with the section, and mark the bowing.`, LEFT, 130 + bar * 24, {
      width: WIDTH,
    });
  }
}

/** A chart of fingerings, drawn in a grey that is coded as red, green and blue. */
function chart(document: PDFKit.PDFDocument, name: string): void {
  heading(document, `Fingerings, ${name}`, GREY_IN_COLOUR);
  for (let row = 0; row < 5; row += 1) {
    for (let column = 0; column < 6; column += 1) {
      const [x, y] = [LEFT + column * 78, 140 + row * 120];
      for (let hole = 0; hole < 6; hole += 1) {
        const circle = document.circle(x + 20, y + hole * 15, 5).lineWidth(1);
        if ((row + column + hole) % 3 === 0) circle.fillAndStroke(GREY_IN_COLOUR, GREY_IN_COLOUR);
        else circle.stroke(GREY_IN_COLOUR);
      }
    }
  }
}

function cues(document: PDFKit.PDFDocument, name: string, part: number): void {
  heading(document, `Cues ${part}, ${name}`);
  for (let line = 0; line < 12; line += 1) {
    const y = 130 + line * 40;
    document
      .font('sans')
      .fontSize(10)
      .fillColor(SOFT)
      .text(`Letter ${String.fromCharCode(65 + line)}`, LEFT, y);
    document
      .moveTo(LEFT + 70, y + 8)
      .lineTo(LEFT + WIDTH, y + 8)
      .lineWidth(0.5)
      .stroke(RULE);
  }
}
