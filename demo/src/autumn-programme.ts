import { A4, finish, INK, newDocument, RULE, SOFT, WINE } from './fonts';

const LEFT = 64;
const WIDTH = A4.width - 2 * LEFT;

interface Piece {
  readonly title: string;
  readonly composer: string;
  readonly notes: readonly string[];
}

const PIECES: readonly Piece[] = [
  {
    title: 'Overture “The Weir in Spate”',
    composer: 'Adela Crump (1868–1931)',
    notes: [
      'Written for the opening of the new sluices, the overture was first played out of doors, with the brass on the far bank. The long held note of the horns, over which the strings run like water, was meant to be heard a mile downstream.',
      'The middle part is a lament for the old mill. It returns at the end in the major, as if seen from the top of the hill.',
    ],
  },
  {
    title: 'Concerto for clarinet in B flat',
    composer: 'Tobias Hartnoll (1902–1977)',
    notes: [
      'Hartnoll played second clarinet in this orchestra for thirty years and wrote the concerto for his desk partner. It has no slow movement; in its place stands a conversation between the soloist and the viola section, unaccompanied.',
      'The finale quotes a tune that the town band plays on market days. The bassoons do their best not to notice.',
    ],
  },
  {
    title: 'Symphony in E minor, “The Orchard”',
    composer: 'Adela Crump',
    notes: [
      'Four movements, one for each season, beginning with winter. The first ends where it began; the second is the shortest in the repertoire of this orchestra, at ninety-one seconds.',
      'Autumn, the last, gathers in the themes of the other three. The very last chord is marked “as long as the light lasts”.',
    ],
  },
];

/** The autumn programme, 8 pages of A4: a cover, notes on the pieces, players, and the dates to come. */
export function autumnProgramme(): Promise<Buffer> {
  const document = newDocument('Autumn programme');
  cover(document);
  contents(document);
  PIECES.forEach((piece, index) => piecePage(document, piece, index + 3));
  listPage(document, 6, 'The players tonight', PLAYERS);
  listPage(document, 7, 'With thanks to', FRIENDS);
  listPage(document, 8, 'Still to come this season', DATES);
  return finish(document);
}

function cover(document: PDFKit.PDFDocument): void {
  document.addPage();
  document.rect(0, 0, A4.width, A4.height).fill('#F3E3E2');
  for (let ring = 0; ring < 9; ring += 1) {
    document
      .circle(A4.width - 120, 250, 40 + ring * 34)
      .lineWidth(1.2)
      .strokeOpacity(1 - ring * 0.09)
      .stroke(WINE);
  }
  document.strokeOpacity(1);
  document.font('serif-bold').fontSize(54).fillColor(WINE).text('Autumn\nprogramme', LEFT, 440, { lineGap: -6 });
  document.font('serif').fontSize(17).fillColor(INK).text('Marrowbridge Town Orchestra', LEFT, 590);
  document.font('sans').fontSize(12).fillColor(SOFT);
  document.text('Saturday 10 October 2026, half past seven\nTown Hall, Marrowbridge', LEFT, 622, { lineGap: 3 });
}

function contents(document: PDFKit.PDFDocument): void {
  document.addPage();
  title(document, 'Tonight');
  let y = 170;
  PIECES.forEach((piece, index) => {
    document
      .font('serif-bold')
      .fontSize(14)
      .fillColor(INK)
      .text(piece.title, LEFT, y, { width: WIDTH - 60 });
    document
      .font('sans')
      .fontSize(11)
      .fillColor(SOFT)
      .text(piece.composer, LEFT, document.y + 2);
    document
      .font('sans')
      .fontSize(11)
      .fillColor(WINE)
      .text(`page ${index + 3}`, LEFT, y + 2, { width: WIDTH, align: 'right' });
    y += 84;
    if (index === 1) {
      document
        .font('serif-italic')
        .fontSize(12)
        .fillColor(SOFT)
        .text('Interval of twenty minutes', LEFT, y - 18);
      y += 26;
    }
  });
  document
    .font('sans')
    .fontSize(10)
    .fillColor(INK)
    .text('Conductor: Emmeline Stroud. Clarinet: Thea Marchbank.', LEFT, y + 20);
  folio(document, 2);
}

function piecePage(document: PDFKit.PDFDocument, piece: Piece, page: number): void {
  document.addPage();
  title(document, piece.title);
  document
    .font('sans')
    .fontSize(12)
    .fillColor(SOFT)
    .text(piece.composer, LEFT, document.y + 2);
  document.y += 22;
  for (const note of [...piece.notes, LISTEN]) {
    document.font('serif').fontSize(12).fillColor(INK).text(note, LEFT, document.y, { width: WIDTH, lineGap: 5 });
    document.moveDown(0.9);
  }
  for (let line = 0; line < 5; line += 1) {
    document
      .moveTo(LEFT, 600 + line * 9)
      .lineTo(A4.width - LEFT, 600 + line * 9)
      .lineWidth(0.6)
      .stroke(INK);
  }
  for (let note = 0; note < 14; note += 1) {
    const y = 600 + ((note * 5 + page * 3) % 9) * 4.5;
    const x = LEFT + 40 + note * 29;
    document.ellipse(x, y, 5.4, 4).fill(INK);
    document
      .moveTo(x + 5, y)
      .lineTo(x + 5, y - 28)
      .lineWidth(1)
      .stroke(INK);
  }
  document.font('sans').fontSize(8.5).fillColor(SOFT).text('The opening theme, as the violins have it', LEFT, 664);
  folio(document, page);
}

const LISTEN =
  'Listen for the moment when the second violins are left alone: it lasts four bars, and the whole piece turns on it.';

function listPage(document: PDFKit.PDFDocument, page: number, heading: string, lines: readonly string[]): void {
  document.addPage();
  title(document, heading);
  document.font('sans').fontSize(11.5).fillColor(INK);
  document.y += 12;
  for (const line of lines) document.text(line, LEFT, document.y, { width: WIDTH, lineGap: 9 });
  folio(document, page);
}

function title(document: PDFKit.PDFDocument, text: string): void {
  document.font('serif-bold').fontSize(24).fillColor(WINE).text(text, LEFT, 84, { width: WIDTH });
  document
    .moveTo(LEFT, document.y + 8)
    .lineTo(LEFT + 60, document.y + 8)
    .lineWidth(2)
    .stroke(RULE);
  document.y += 18;
}

function folio(document: PDFKit.PDFDocument, page: number): void {
  document
    .font('serif')
    .fontSize(10)
    .fillColor(SOFT)
    .text(String(page), LEFT, A4.height - 56, { width: WIDTH, align: 'center' });
}

const PLAYERS = [
  'First violins: Hesper Lindqvist, Aubrey Coombe, Dilys Marrack, Ewan Tolley',
  'Second violins: Anselm Groat, Ottoline Farrow, Perdita Sealy, Giles Rendle',
  'Violas: Ingrid Petheram, Maud Tarrant, Silas Wray',
  'Cellos: Barnaby Thrale, Nell Chivers, Orlando Pask',
  'Double basses: Oda Wexcombe, Fergus Hay',
  'Flutes and oboes: Lucius Ambry, Rosamund Vye, Clement Lugg, Isolde Frome',
  'Clarinets and bassoons: Thea Marchbank, Hal Bassett, Winifred Orme, Basil Knapp',
  'Horns: Rufus Ebdon, Constance Tuck, Ivo Lanyon, Marigold Quick',
  'Trumpets and trombones: Cosima Hallett, Linus Borrow, Effie Strand',
  'Timpani and percussion: Jory Penhale, Blanche Odell',
];
const FRIENDS = [
  'Marrowbridge Town Council, for the hall and the heating',
  'The Weir Lane Bakery, for the interval',
  'Petheram & Daughters, for the piano that was not needed tonight',
  'The Society of Friends of the Orchestra, for everything else',
];
const DATES = [
  '7 November 2026 · Winds alone · Corn Exchange',
  '12 December 2026 · Carols · St Oswin’s',
  '23 January 2027 · Two serenades · Town Hall',
  '20 February 2027 · Young players · Town Hall',
  '20 March 2027 · Spring symphony · Corn Exchange',
  '17 April 2027 · Songs of the river · Town Hall',
  '26 June 2027 · Closing night · Weir Meadow',
];
