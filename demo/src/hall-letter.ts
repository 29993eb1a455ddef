import {
  AlignmentType,
  BorderStyle,
  Document,
  Footer,
  FootnoteReferenceRun,
  Header,
  HeadingLevel,
  LevelFormat,
  Packer,
  PageNumber,
  PageOrientation,
  Paragraph,
  ShadingType,
  Tab,
  Table,
  TableCell,
  TableRow,
  TabStopType,
  TextRun,
  WidthType,
} from 'docx';

/** ISO 216, in twentieths of a point. */
const A4 = { width: 11_906, height: 16_838 };

const FONT = 'Calibri';

const EVENINGS: readonly (readonly string[])[] = [
  ['Sat 10 October 2026', 'Autumn Overture', '14:00', '18:45', '19:30', '22:15', 'Piano, tuned', '412'],
  ['Sat 14 November 2026', 'Strings by Candlelight', '15:30', '19:15', '20:00', '22:00', 'Candles allowed?', '268'],
  ['Sat 12 December 2026', 'Winter Concert', '13:00', '18:15', '19:00', '21:45', 'Choir risers, piano', '520'],
  ['Sat 20 February 2027', 'Young Soloists', '15:00', '17:30', '18:00', '20:15', 'Piano, tuned', '190'],
  ['Sat 17 April 2027', 'Spring Symphony', '14:00', '18:45', '19:30', '22:15', 'Timpani by the ramp', '441'],
  ['Sat 29 May 2027', 'Music on the Meadow', '12:00', '16:30', '17:00', '19:30', 'Hall only if it rains', '610'],
  ['Sat 19 June 2027', 'Season’s End', '14:00', '18:45', '19:30', '22:45', 'Bar open afterwards', '388'],
];

const HEADS = ['Evening', 'Concert', 'Stage from', 'Doors', 'Begins', 'Ends', 'Wanted in the hall', 'Seats'];

const text = (content: string): Paragraph => new Paragraph({ text: content });

const wish = (content: string): Paragraph =>
  new Paragraph({ text: content, numbering: { reference: 'wishes', level: 0 }, contextualSpacing: true });

const cell = (content: string, isHead: boolean): TableCell =>
  new TableCell({
    ...(isHead ? { shading: { type: ShadingType.CLEAR, fill: 'E7DFCF' } } : {}),
    margins: { top: 60, bottom: 60, left: 100, right: 100 },
    children: [
      new Paragraph({ spacing: { after: 0 }, children: [new TextRun({ text: content, bold: isHead, size: 20 })] }),
    ],
  });

const evenings = (): Table =>
  new Table({
    width: { size: 100, type: WidthType.PERCENTAGE },
    rows: [HEADS, ...EVENINGS].map(
      (row, at) =>
        new TableRow({ tableHeader: at === 0, cantSplit: true, children: row.map((one) => cell(one, at === 0)) }),
    ),
  });

const letterhead = new Header({
  children: [
    new Paragraph({
      spacing: { after: 0 },
      children: [new TextRun({ text: 'Marrowbridge Town Orchestra', bold: true, size: 32, color: '7A2E1F' })],
    }),
    new Paragraph({
      border: { bottom: { style: BorderStyle.SINGLE, size: 6, color: '7A2E1F', space: 4 } },
      tabStops: [{ type: TabStopType.RIGHT, position: 9026 }],
      children: [
        new TextRun({ text: 'The Old Corn Exchange, 3 Mill Lane, Marrowbridge', size: 18 }),
        new TextRun({ children: [new Tab(), 'office@orchestra.example'], size: 18 }),
      ],
    }),
  ],
});

const following = new Header({
  children: [
    new Paragraph({
      alignment: AlignmentType.RIGHT,
      children: [new TextRun({ text: 'To the Town Hall, 1 September 2026', size: 18, italics: true })],
    }),
  ],
});

const foot = new Footer({
  children: [
    new Paragraph({
      alignment: AlignmentType.CENTER,
      children: [new TextRun({ children: ['Page ', PageNumber.CURRENT, ' of ', PageNumber.TOTAL_PAGES], size: 18 })],
    }),
  ],
});

/** A letter to the hall with its evenings as an annex on its side: two sections, a letterhead, a note at the foot. */
export async function hallLetter(): Promise<Buffer> {
  const heads = {
    headers: { first: letterhead, default: following },
    footers: { first: foot, default: foot },
  };
  const letter = new Document({
    creator: 'Marrowbridge Town Orchestra',
    title: 'Hire of the Town Hall, season 2026/27',
    styles: {
      default: {
        document: { run: { font: FONT, size: 22 }, paragraph: { spacing: { after: 160, line: 276 } } },
        heading1: { run: { font: FONT, size: 30, bold: true }, paragraph: { spacing: { before: 120, after: 160 } } },
      },
    },
    numbering: {
      config: [
        {
          reference: 'wishes',
          levels: [
            {
              level: 0,
              format: LevelFormat.DECIMAL,
              text: '%1.',
              style: { paragraph: { indent: { left: 567, hanging: 567 } } },
            },
          ],
        },
      ],
    },
    footnotes: {
      1: { children: [text(' By the tariff of 1 January 2026, for societies of the town, heating included.')] },
    },
    sections: [
      {
        properties: { titlePage: true, page: { size: A4 } },
        ...heads,
        children: [
          text('Mr Edwin Hale, Town Hall, Market Square, Marrowbridge'),
          new Paragraph({ alignment: AlignmentType.RIGHT, text: '1 September 2026' }),
          new Paragraph({ text: 'Hire of the Town Hall, season 2026/27', heading: HeadingLevel.HEADING_1 }),
          text('Dear Mr Hale,'),
          text(
            'thank you for keeping our seven evenings free. The annex lists them once more, each with the hour from which we need the stage and the hour at which the last of us will have left. The two that differ from what we agreed in June are the Winter Concert, which begins half an hour earlier for the choir’s sake, and Season’s End, after which the Friends would like the bar to stay open.',
          ),
          new Paragraph({
            children: [
              new TextRun('We understand the hire to be € 340 an evening'),
              new FootnoteReferenceRun(1),
              new TextRun(', and ask you to confirm it together with these wishes:'),
            ],
          }),
          wish('The piano on the stage on four evenings, tuned on the morning of the day to 442 Hz.'),
          wish('Risers for a choir of sixty on 12 December, to be set up before our general rehearsal.'),
          wish('Leave to burn candles in glass on 14 November; our fire warden is Ms Ada Reed.'),
          wish('The ramp at the north door, since timpani do not climb stairs.'),
          text(
            'Should the meadow be under water on 29 May, we shall move into the hall at noon of the day before; we hope, with you, that we shall not have to.',
          ),
          text('Yours sincerely,'),
          new Paragraph({ spacing: { before: 600 }, text: 'Ada Reed, orchestra manager' }),
        ],
      },
      {
        properties: { page: { size: { ...A4, orientation: PageOrientation.LANDSCAPE } } },
        headers: { default: following },
        footers: { default: foot },
        children: [
          new Paragraph({ text: 'Annex: our evenings in the hall', heading: HeadingLevel.HEADING_1 }),
          evenings(),
        ],
      },
    ],
  });
  return Packer.toBuffer(letter);
}
