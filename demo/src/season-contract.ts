import { A4, finish, INK, newDocument, RULE, SOFT, WINE } from './fonts';

const LEFT = 72;
const WIDTH = A4.width - 2 * LEFT;
const BOTTOM = A4.height - 90;

interface Chapter {
  readonly title: string;
  readonly clauses: readonly string[];
}

const CHAPTERS: readonly Chapter[] = [
  {
    title: 'Engagement',
    clauses: [
      'The Orchestra engages the Player as a member of the section named in Schedule A for the season that opens on 19 September 2026 and closes on 26 June 2027.',
      'The engagement covers twenty-two concerts, forty-one rehearsals and two broadcast days, as listed in the rehearsal timetable. The timetable forms part of this contract.',
      'The Player accepts the engagement and undertakes to be present, prepared and in tune at the hour stated for each call.',
      'Should the Orchestra add a concert to the season, the Player is offered it first and may decline without giving a reason.',
    ],
  },
  {
    title: 'Calls and attendance',
    clauses: [
      'A call begins at the hour stated in the timetable and lasts three hours, with a break of twenty minutes that is counted as part of it.',
      'A Player who cannot attend tells the orchestra office at least forty-eight hours before the call, and names a deputy where one has been agreed with the section leader.',
      'Deputies are paid by the Orchestra at the rate of the Player whose place they take. No more than six calls of a season may be deputised.',
      'Seating within the section is set by the section leader and may change from concert to concert.',
    ],
  },
  {
    title: 'Fees',
    clauses: [
      'The Orchestra pays a fee for each call attended, as set out in Schedule B, on the last working day of the month in which the call falls.',
      'Travel beyond thirty kilometres from the Town Hall is refunded at the public rate on presentation of a claim within four weeks.',
      'Porterage is paid to players of the instruments named in Schedule B for each journey on which they carry their own.',
      'Where a concert is cancelled less than ten days before its date the fee is due in full; where it is cancelled earlier, half of it.',
    ],
  },
  {
    title: 'Instruments and music',
    clauses: [
      'The Player provides an instrument in good order, and keeps it insured. The Orchestra insures instruments while they are in its care, up to the value stated in Schedule C.',
      'Parts belong to the Orchestra or its hirers. They are marked in soft pencil only, and are returned to the library at the end of the last concert for which they were given out.',
      'A part that is lost is replaced at the cost of the Player, up to forty euros.',
      'Photographs of parts may be taken for private practice and are deleted at the end of the season.',
    ],
  },
  {
    title: 'Dress and conduct',
    clauses: [
      'Evening concerts are played in black; matinées in the colours set out in the autumn programme.',
      'Telephones are silent and out of sight from the tuning note to the last applause.',
      'Players speak well of one another in public, and frankly to the chair of the players’ committee in private.',
      'The Orchestra provides water, light to read by, and a chair of the right height.',
    ],
  },
  {
    title: 'Broadcasts',
    clauses: [
      'Concerts may be kept on tape for the archive of the Orchestra. The archive is open to members and to scholars.',
      'A tape that is sold or broadcast earns the Player a further fee, as set out in Schedule B.',
      'No Player may tape a call without the consent of the conductor and of the section.',
      'Where a tape is used to announce the season, no more than ninety seconds of it are heard.',
    ],
  },
];

/**
 * The season contract of the Marrowbridge Town Orchestra, 14 pages: a letter on letterhead (1), clauses, signature pages
 * (6 and 9), schedules.
 */
export function seasonContract(): Promise<Buffer> {
  const document = newDocument('Season contract 2026/27');
  let clause = 0;
  const clausePage = (chapter: Chapter, page: number): void => {
    document.addPage();
    heading(document, chapter.title);
    document.moveDown(0.6);
    for (const text of chapter.clauses) {
      clause += 1;
      document
        .font('sans-bold')
        .fontSize(10.5)
        .fillColor(INK)
        .text(`${clause}.`, LEFT, document.y, { continued: false });
      document.moveUp();
      document
        .font('sans')
        .fontSize(10.5)
        .text(text, LEFT + 28, document.y, { width: WIDTH - 28, lineGap: 3.5 });
      document.moveDown(0.7);
      document.text(SECOND_PARAGRAPHS[clause % SECOND_PARAGRAPHS.length] as string, {
        width: WIDTH - 28,
        lineGap: 3.5,
      });
      document.moveDown(1.1);
    }
    footer(document, page);
  };
  letter(document);
  CHAPTERS.slice(0, 4).forEach((chapter, index) => clausePage(chapter, index + 2));
  signatures(document, 6, 'First part', [
    'For the Orchestra, the chair',
    'For the Orchestra, the manager',
    'The Player',
  ]);
  CHAPTERS.slice(4).forEach((chapter, index) => clausePage(chapter, index + 7));
  signatures(document, 9, 'Whole contract', ['For the Orchestra, the chair', 'The Player', 'Witness']);
  schedule(document, 10, 'Schedule A: sections and desks', SECTIONS);
  schedule(document, 11, 'Schedule B: fees for each call, in euros', FEES);
  schedule(document, 12, 'Schedule C: insured values, in euros', VALUES);
  schedule(document, 13, 'Schedule D: concerts of the season', CONCERTS);
  schedule(document, 14, 'Schedule E: whom to ask', CONTACTS);
  return finish(document);
}

const SECOND_PARAGRAPHS = [
  'This holds for substitute dates as well, which the office announces no later than three weeks before.',
  'Differences are settled between the section leader and the players’ committee; if they cannot agree, the chair decides within a week.',
  'The Player may ask for this in writing and receives an answer within ten working days.',
];

function letter(document: PDFKit.PDFDocument): void {
  document.addPage();
  // Office printers keep about 4 mm free along each edge.
  document.rect(20, 20, A4.width - 40, 8).fill(WINE);
  document.font('serif-bold').fontSize(21).fillColor(WINE).text('Marrowbridge Town Orchestra', LEFT, 48);
  document.font('sans').fontSize(9).fillColor(SOFT);
  document.text('Orchestra office · 4 Weir Lane · Marrowbridge · founded 1891', LEFT, 78);
  document
    .moveTo(LEFT, 98)
    .lineTo(A4.width - LEFT, 98)
    .lineWidth(0.6)
    .stroke(RULE);
  document.fillColor(INK).fontSize(10.5);
  document.text('Ms Ottoline Farrow\nSecond violin, third desk\n17 Mill Rise\nMarrowbridge', LEFT, 140, { lineGap: 3 });
  document.text('1 September 2026', LEFT, 232, { width: WIDTH, align: 'right' });
  document.font('serif-bold').fontSize(15).text('Your contract for the season 2026/27', LEFT, 270);
  document.font('sans').fontSize(10.5);
  const paragraphs = [
    'Dear Ms Farrow,',
    'With this letter you receive your contract for the coming season. It is made out in two copies: please sign both on pages 6 and 9, keep one, and let us have the other back before the first rehearsal on 12 September.',
    'Three things are new. Calls that fall on a public holiday are paid at one and a half times the fee. Parts for practice may be photographed, as long as the pictures are deleted when the season ends. And the broadcast days, which used to be agreed from case to case, now stand in the timetable.',
    'The timetable, the autumn programme and the plan of the stage come with separate post. If a date cannot be kept, please tell the office rather than your section leader, so that a deputy can be found in time.',
    'We look forward to another season with you.',
    'Yours sincerely,',
  ];
  document.y = 306;
  for (const paragraph of paragraphs) {
    document.text(paragraph, LEFT, document.y, { width: WIDTH, lineGap: 4 });
    document.moveDown(0.9);
  }
  document
    .font('serif-italic')
    .fontSize(17)
    .fillColor(WINE)
    .text('Percival Wainwright', LEFT, document.y + 14);
  document
    .font('sans')
    .fontSize(9.5)
    .fillColor(SOFT)
    .text('Orchestra manager', LEFT, document.y + 4);
  document
    .fontSize(8)
    .text(
      'Marrowbridge Savings Bank · account of the Orchestra Society · registered society 118',
      LEFT,
      A4.height - 60,
      {
        width: WIDTH,
        align: 'center',
      },
    );
}

function heading(document: PDFKit.PDFDocument, title: string): void {
  document.font('serif-bold').fontSize(17).fillColor(WINE).text(title, LEFT, 84, { width: WIDTH });
  document
    .moveTo(LEFT, document.y + 4)
    .lineTo(A4.width - LEFT, document.y + 4)
    .lineWidth(0.6)
    .stroke(RULE);
  document.y += 12;
}

function signatures(document: PDFKit.PDFDocument, page: number, part: string, people: readonly string[]): void {
  document.addPage();
  heading(document, `Signatures: ${part.toLowerCase()}`);
  document.font('sans').fontSize(10.5).fillColor(INK);
  document.moveDown(0.6);
  document.text(
    'The parties have read the clauses before this page and agree to them. Signed in two copies, of which each party keeps one.',
    LEFT,
    document.y,
    { width: WIDTH, lineGap: 3.5 },
  );
  people.forEach((person, index) => {
    const y = 260 + index * 130;
    document
      .moveTo(LEFT, y)
      .lineTo(LEFT + 270, y)
      .lineWidth(0.8)
      .stroke(INK);
    document
      .moveTo(LEFT + 300, y)
      .lineTo(A4.width - LEFT, y)
      .lineWidth(0.8)
      .stroke(INK);
    document
      .font('sans')
      .fontSize(9)
      .fillColor(SOFT)
      .text(person, LEFT, y + 6);
    document.text('Place and date', LEFT + 300, y + 6);
  });
  footer(document, page);
}

function schedule(
  document: PDFKit.PDFDocument,
  page: number,
  title: string,
  rows: readonly (readonly string[])[],
): void {
  document.addPage();
  heading(document, title);
  const column = WIDTH / (rows[0]?.length ?? 1);
  let y = document.y + 12;
  rows.forEach((row, index) => {
    row.forEach((entry, place) => {
      document
        .font(index === 0 ? 'sans-bold' : 'sans')
        .fontSize(10)
        .fillColor(INK);
      document.text(entry, LEFT + place * column, y, { width: column - 8 });
    });
    y += 26;
    if (y < BOTTOM)
      document
        .moveTo(LEFT, y - 8)
        .lineTo(A4.width - LEFT, y - 8)
        .lineWidth(0.4)
        .stroke(RULE);
  });
  footer(document, page);
}

function footer(document: PDFKit.PDFDocument, page: number): void {
  document.font('sans').fontSize(8.5).fillColor(SOFT);
  document.text('Season contract 2026/27', LEFT, A4.height - 56, { width: WIDTH, lineBreak: false });
  document.text(`Page ${page} of 14`, LEFT, A4.height - 56, { width: WIDTH, align: 'right' });
}

const SECTIONS = [
  ['Section', 'Desks', 'Leader'],
  ['First violins', '6', 'Hesper Lindqvist'],
  ['Second violins', '5', 'Anselm Groat'],
  ['Violas', '4', 'Ingrid Petheram'],
  ['Cellos', '4', 'Barnaby Thrale'],
  ['Double basses', '2', 'Oda Wexcombe'],
  ['Flutes and oboes', '4', 'Lucius Ambry'],
  ['Clarinets and bassoons', '4', 'Thea Marchbank'],
  ['Horns', '4', 'Rufus Ebdon'],
  ['Trumpets and trombones', '5', 'Cosima Hallett'],
  ['Percussion', '3', 'Jory Penhale'],
];
const FEES = [
  ['Call', 'Player', 'Section leader', 'Porterage'],
  ['Rehearsal', '42.00', '54.00', '12.00'],
  ['Concert in the Town Hall', '78.00', '96.00', '12.00'],
  ['Concert elsewhere', '92.00', '112.00', '24.00'],
  ['Broadcast day', '130.00', '156.00', '24.00'],
  ['Public holiday', 'one and a half times', 'one and a half times', '—'],
];
const VALUES = [
  ['Instrument', 'Up to'],
  ['Violin, viola', '18,000'],
  ['Cello', '26,000'],
  ['Double bass', '22,000'],
  ['Woodwind', '9,000'],
  ['Brass', '7,500'],
  ['Bow', '4,000'],
];
const CONCERTS = [
  ['Date', 'Place', 'Programme'],
  ['19 September 2026', 'Town Hall', 'Opening night'],
  ['10 October 2026', 'Town Hall', 'Autumn programme'],
  ['7 November 2026', 'Corn Exchange', 'Winds alone'],
  ['12 December 2026', 'St Oswin’s', 'Carols'],
  ['23 January 2027', 'Town Hall', 'Two serenades'],
  ['20 February 2027', 'Town Hall', 'Young players'],
  ['20 March 2027', 'Corn Exchange', 'Spring symphony'],
  ['17 April 2027', 'Town Hall', 'Songs of the river'],
  ['26 June 2027', 'Weir Meadow', 'Closing night'],
];
const CONTACTS = [
  ['For', 'Ask', 'Telephone'],
  ['Dates and deputies', 'Orchestra office', 'extension 11'],
  ['Parts', 'Library', 'extension 14'],
  ['Fees and claims', 'Box office', 'extension 12'],
  ['Instruments', 'Jory Penhale', 'extension 17'],
];
