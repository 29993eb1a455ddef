import {
  HeadingLevel,
  ImageRun,
  LevelFormat,
  Paragraph,
  Tab,
  Table,
  TableCell,
  TableRow,
  TabStopType,
  TextRun,
  VerticalMergeType,
  WidthType,
} from 'docx';
import sharp from 'sharp';
import { navigationByQpdf, pageTexts, renderColour, wordPlaces } from '../../pdf/test/poppler';
import { documentKind } from '../src/kind';
import { browserForAll } from './lend';
import { TEXT, lines, made, onA4 } from './make-docx';

/** Text documents as another library writes them, what stands on their pages, as poppler reads what is made of them. */
const take = browserForAll();

const numbering = {
  config: [
    {
      reference: 'numbers',
      levels: [
        {
          level: 0,
          format: LevelFormat.DECIMAL,
          text: '%1.',
          style: { paragraph: { indent: { left: 720, hanging: 360 } } },
        },
        {
          level: 1,
          format: LevelFormat.LOWER_LETTER,
          text: '%1.%2)',
          style: { paragraph: { indent: { left: 1440, hanging: 720 } } },
        },
      ],
    },
    {
      reference: 'bullets',
      levels: [{ level: 0, format: LevelFormat.BULLET, text: '\uf0b7', style: { run: { font: 'Symbol' } } }],
    },
  ],
};

test('lists: numbers by level, one list after the other, bullets; their lines hang', async () => {
  const item = (text: string, reference: string, level = 0, instance = 0) =>
    new Paragraph({ text, numbering: { reference, level, instance } });
  const { bytes } = await take(
    'a.docx',
    await onA4(
      [
        item('alpha', 'numbers'),
        item(`beta ${TEXT.repeat(2)}`, 'numbers'),
        item('gamma', 'numbers', 1),
        item('delta', 'numbers', 1),
        item('epsilon', 'numbers'),
        item('zeta', 'numbers', 1),
        item('anew', 'numbers', 0, 1),
        item('dot', 'bullets'),
      ],
      { numbering },
    ),
  );
  const text = pageTexts(bytes)[0]!;
  const labels = text.match(/(\S+)\s+(alpha|beta|gamma|delta|epsilon|zeta|anew|dot)\b/g);
  expect(labels?.map((label) => label.replace(/\s+/, ' '))).toEqual([
    '1. alpha',
    '2. beta',
    '2.a) gamma',
    '2.b) delta',
    '3. epsilon',
    '3.a) zeta',
    '1. anew',
    '• dot',
  ]);
  const words = wordPlaces(bytes)[0]!;
  const number = words.find(({ word }) => word === '2.')!;
  expect(Math.abs(number.x - (72 + 18 + 5))).toBeLessThan(4);
  // Every line of the item begins where its first word does, 720 twentieths of a point in.
  const begins = words.filter(({ word, x }) => word !== '2.' && x < 130 && x > 100).map(({ word }) => word);
  expect(begins.length).toBeGreaterThanOrEqual(4);
});

test('headings are the outline, with their numbers, on the pages where they stand', async () => {
  const heading = (text: string, level: (typeof HeadingLevel)[keyof typeof HeadingLevel], more = {}) =>
    new Paragraph({ text, heading: level, ...more });
  const { bytes } = await take(
    'a.docx',
    await made({
      numbering,
      sections: [
        {
          children: [
            heading('Season', HeadingLevel.HEADING_1, { numbering: { reference: 'numbers', level: 0 } }),
            heading('Dates', HeadingLevel.HEADING_2),
            heading('Halls', HeadingLevel.HEADING_1, {
              pageBreakBefore: true,
              numbering: { reference: 'numbers', level: 0 },
            }),
            ...lines('text'),
          ],
        },
      ],
    }),
  );
  expect(navigationByQpdf(bytes).outline).toEqual([
    { title: '1. Season', level: 1, page: 1 },
    { title: 'Dates', level: 2, page: 1 },
    { title: '2. Halls', level: 1, page: 2 },
  ]);
});

test('tables: first rows on every page, cells that are one, each word once', async () => {
  const row = (at: number) =>
    new TableRow({
      tableHeader: at === 0,
      children: [
        new TableCell({
          verticalMerge: at === 0 ? undefined : at % 3 === 1 ? VerticalMergeType.RESTART : VerticalMergeType.CONTINUE,
          children: lines(at === 0 ? 'Hall' : at % 3 === 1 ? `merged${at}` : ''),
        }),
        new TableCell({ children: lines(at === 0 ? 'Seats' : `cell${at}`) }),
      ],
    });
  const { bytes } = await take(
    'a.docx',
    await onA4([
      new Table({
        width: { size: 100, type: WidthType.PERCENTAGE },
        rows: Array.from({ length: 90 }, (_, at) => row(at)),
      }),
    ]),
  );
  const texts = pageTexts(bytes);
  expect(texts.length).toBeGreaterThan(1);
  for (const text of texts) expect(text).toMatch(/^\s*Hall\s+Seats/);
  const words = texts.join(' ').split(/\s+/);
  for (let at = 1; at < 90; at += 1) expect(words.filter((word) => word === `cell${at}`)).toHaveLength(1);
  expect(words.filter((word) => word.startsWith('merged'))).toHaveLength(30);
});

test('pictures where they stand, in their colour and size', async () => {
  const data = await sharp({ create: { width: 20, height: 10, channels: 3, background: '#c83232' } })
    .png()
    .toBuffer();
  const { bytes } = await take(
    'a.docx',
    await onA4([
      // Pixels of 96 an inch: 144 by 72 points.
      new Paragraph({
        children: [new ImageRun({ type: 'png', data, transformation: { width: 192, height: 96 } })],
      }),
    ]),
  );
  const { pixels, width } = renderColour(bytes, 1, 72);
  const isRed = (x: number, y: number): boolean => {
    const at = (y * width + x) * 3;
    return pixels[at]! > 180 && pixels[at + 1]! < 80;
  };
  expect([isRed(74, 80), isRed(72 + 142, 80), isRed(72 + 148, 80), isRed(74, 72 + 60)]).toEqual([
    true,
    true,
    false,
    true,
  ]);
});

test('tabs lead to their places: left, in the middle, at the right', async () => {
  const { bytes } = await take(
    'a.docx',
    await onA4([
      new Paragraph({
        tabStops: [
          { type: TabStopType.LEFT, position: 2000 },
          { type: TabStopType.CENTER, position: 4513 },
          { type: TabStopType.RIGHT, position: 9026 },
        ],
        children: [new TextRun({ children: ['a', new Tab(), 'left', new Tab(), 'middle', new Tab(), 'right'] })],
      }),
    ]),
  );
  const words = wordPlaces(bytes)[0]!;
  const placeOf = (asked: string): number => words.find(({ word }) => word === asked)!.x;
  expect(Math.abs(placeOf('middle') - (72 + 4513 / 20))).toBeLessThan(1.5);
  expect(Math.abs(placeOf('left') - (72 + 100 + 8))).toBeLessThan(4);
  expect(Math.abs(placeOf('right') - (72 + 9026 / 20 - 11))).toBeLessThan(5);
});

test('a text document is told by what is in it', async () => {
  const bytes = await made({ sections: [{ children: lines('x') }] });
  expect(documentKind(bytes, 'a.pdf')).toBe('word-processing');
});
