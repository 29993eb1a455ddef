import {
  AlignmentType,
  Document,
  FootnoteReferenceRun,
  Footer,
  Header,
  HeadingLevel,
  ImageRun,
  LevelFormat,
  NumberFormat,
  Packer,
  PageBreak,
  PageNumber,
  PageOrientation,
  Paragraph,
  SectionType,
  Tab,
  Table,
  TableCell,
  TableRow,
  TabStopType,
  TextRun,
  VerticalMergeType,
  WidthType,
  type IPropertiesOptions,
} from 'docx';
import sharp from 'sharp';
import {
  navigationByQpdf,
  pageSizes,
  pageTexts,
  qpdfComplaints,
  renderColour,
  wordPlaces,
} from '../../pdf/test/poppler';
import { documentKind } from '../src/kind';
import { browserForAll } from './lend';

/** Text documents as another library writes them (`docx` of the registry), as poppler reads what is made of them. */
const take = browserForAll();

const made = async (options: IPropertiesOptions): Promise<Uint8Array> =>
  new Uint8Array(await Packer.toBuffer(new Document(options)));

const A4 = { width: 11_906, height: 16_838 };
const TEXT = 'The spring season brings eleven concerts in four halls, and each needs a plan of its seats in time. ';

const lines = (...texts: string[]): Paragraph[] => texts.map((text) => new Paragraph(text));

/** So many pages, each with a word of its own. */
const pages = (word: string, count: number): Paragraph[] =>
  Array.from(
    { length: count },
    (_, at) =>
      new Paragraph({ children: [...(at > 0 ? [new PageBreak()] : []), new TextRun(`${word}${at + 1} stands alone`)] }),
  );

const head = (...children: string[]): Paragraph => new Paragraph({ children: [new TextRun({ children })] });

test('sections have their paper and their way, and as many pages as they end themselves', async () => {
  const { bytes, laid, remarks } = await take(
    'letter.docx',
    await made({
      sections: [
        { properties: { page: { size: A4 } }, children: pages('letter', 3) },
        {
          properties: { page: { size: { ...A4, orientation: PageOrientation.LANDSCAPE } } },
          children: pages('annex', 2),
        },
        { properties: { page: { size: { width: 8391, height: 11_906 } } }, children: pages('card', 1) },
      ],
    }),
  );
  expect(qpdfComplaints(bytes)).toBe('');
  expect(pageSizes(bytes).map(({ width, height }) => [Math.round(width), Math.round(height)])).toEqual([
    [595, 842],
    [595, 842],
    [595, 842],
    [842, 595],
    [842, 595],
    [420, 595],
  ]);
  expect(pageTexts(bytes).map((text) => /(\w+) stands alone/.exec(text)?.[1])).toEqual([
    'letter1',
    'letter2',
    'letter3',
    'annex1',
    'annex2',
    'card1',
  ]);
  expect(laid).toMatchObject({ kind: 'word-processing', form: {}, taken: { changes: false, comments: false } });
  expect(remarks).toEqual([]);
});

test('a section that goes on on the same page begins none; one for odd pages begins on one', async () => {
  const section = (type: (typeof SectionType)[keyof typeof SectionType], word: string) => ({
    properties: { type, page: { size: A4 } },
    children: lines(word),
  });
  const { bytes } = await take(
    'a.docx',
    await made({
      sections: [
        section(SectionType.NEXT_PAGE, 'first'),
        section(SectionType.CONTINUOUS, 'second'),
        section(SectionType.ODD_PAGE, 'third'),
      ],
    }),
  );
  expect(pageTexts(bytes).map((text) => text.trim().replace(/\s+/g, ' '))).toEqual(['first second', '', 'third']);
});

test('heads and feet: of first, even and all other pages, with page numbers in their form', async () => {
  const { bytes } = await take(
    'a.docx',
    await made({
      evenAndOddHeaderAndFooters: true,
      sections: [
        {
          properties: {
            titlePage: true,
            page: { size: A4, pageNumbers: { start: 3, formatType: NumberFormat.LOWER_ROMAN } },
          },
          headers: {
            first: new Header({ children: lines('letterhead') }),
            default: new Header({ children: lines('odd head') }),
            even: new Header({ children: lines('even head') }),
          },
          footers: {
            default: new Footer({
              children: [head('page ', PageNumber.CURRENT, ' of ', PageNumber.TOTAL_PAGES_IN_SECTION)],
            }),
            even: new Footer({ children: [head('page ', PageNumber.CURRENT, ' in ', PageNumber.TOTAL_PAGES)] }),
          },
          children: pages('x', 4),
        },
        // Says nothing of heads: it has those of the section before it (ISO/IEC 29500-1, 17.10.1).
        { properties: { page: { size: A4 } }, children: pages('y', 2) },
      ],
    }),
  );
  expect(pageTexts(bytes).map((text) => text.trim().split(/\s*\n+\s*/))).toEqual([
    ['letterhead', 'x1 stands alone'],
    ['even head', 'x2 stands alone', 'page iv in 6'],
    ['odd head', 'x3 stands alone', 'page v of 4'],
    ['even head', 'x4 stands alone', 'page vi in 6'],
    ['odd head', 'y1 stands alone', 'page 7 of 2'],
    ['even head', 'y2 stands alone', 'page 8 in 6'],
  ]);
  // Where Word puts them: as far from the edge as the section says, 708 twentieths of a point.
  const words = wordPlaces(bytes)[1]!;
  expect(842 - words.find(({ word }) => word === 'even')!.y).toBeGreaterThan(35.4);
  expect(842 - words.find(({ word }) => word === 'even')!.y).toBeLessThan(55);
});

test('a head that is higher than its margin pushes the text down, on its pages alone', async () => {
  const tall = lines(...Array.from({ length: 8 }, (_, at) => `line ${at}`));
  const { bytes } = await take(
    'a.docx',
    await made({
      sections: [
        {
          properties: { titlePage: true, page: { size: A4 } },
          headers: { first: new Header({ children: tall }), default: new Header({ children: lines('short') }) },
          children: pages('x', 2),
        },
      ],
    }),
  );
  const [first, second] = wordPlaces(bytes);
  const lowest = Math.min(...first!.filter(({ word }) => word === 'line').map(({ y }) => y));
  expect(first!.find(({ word }) => word === 'x1')!.y).toBeLessThan(lowest - 5);
  expect(842 - second!.find(({ word }) => word === 'x2')!.y).toBeLessThan(85);
});

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
    await made({
      numbering,
      sections: [
        {
          properties: { page: { size: A4 } },
          children: [
            item('alpha', 'numbers'),
            item(`beta ${TEXT.repeat(2)}`, 'numbers'),
            item('gamma', 'numbers', 1),
            item('delta', 'numbers', 1),
            item('epsilon', 'numbers'),
            item('zeta', 'numbers', 1),
            item('anew', 'numbers', 0, 1),
            item('dot', 'bullets'),
          ],
        },
      ],
    }),
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
    await made({
      sections: [
        {
          properties: { page: { size: A4 } },
          children: [
            new Table({
              width: { size: 100, type: WidthType.PERCENTAGE },
              rows: Array.from({ length: 90 }, (_, at) => row(at)),
            }),
          ],
        },
      ],
    }),
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
    await made({
      sections: [
        {
          properties: { page: { size: A4 } },
          children: [
            // Pixels of 96 an inch: 144 by 72 points.
            new Paragraph({
              children: [new ImageRun({ type: 'png', data, transformation: { width: 192, height: 96 } })],
            }),
          ],
        },
      ],
    }),
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
    await made({
      sections: [
        {
          properties: { page: { size: A4 } },
          children: [
            new Paragraph({
              tabStops: [
                { type: TabStopType.LEFT, position: 2000 },
                { type: TabStopType.CENTER, position: 4513 },
                { type: TabStopType.RIGHT, position: 9026 },
              ],
              children: [new TextRun({ children: ['a', new Tab(), 'left', new Tab(), 'middle', new Tab(), 'right'] })],
            }),
          ],
        },
      ],
    }),
  );
  const words = wordPlaces(bytes)[0]!;
  const placeOf = (asked: string): number => words.find(({ word }) => word === asked)!.x;
  expect(Math.abs(placeOf('middle') - (72 + 4513 / 20))).toBeLessThan(1.5);
  expect(Math.abs(placeOf('left') - (72 + 100 + 8))).toBeLessThan(4);
  expect(Math.abs(placeOf('right') - (72 + 9026 / 20 - 11))).toBeLessThan(5);
});

test('foot notes stand at the foot of the page that refers to them, each once', async () => {
  const count = 24;
  const footnotes = Object.fromEntries(
    Array.from({ length: count }, (_, at) => [at + 1, { children: lines(` note${at + 1} ${TEXT}`) }]),
  );
  const { bytes } = await take(
    'a.docx',
    await made({
      footnotes,
      sections: [
        {
          properties: { page: { size: A4 } },
          children: Array.from(
            { length: count },
            (_, at) =>
              new Paragraph({
                alignment: AlignmentType.JUSTIFIED,
                spacing: { after: 160 },
                children: [
                  new TextRun(`word${at + 1} ${TEXT.repeat(2)}`),
                  new FootnoteReferenceRun(at + 1),
                  new TextRun(` ${TEXT}`),
                ],
              }),
          ),
        },
      ],
    }),
  );
  const texts = pageTexts(bytes);
  expect(texts.length).toBeGreaterThan(2);
  const all = texts.join(' ');
  for (let at = 1; at <= count; at += 1) {
    expect(all.match(new RegExp(`\\bnote${at}\\b`, 'g'))).toHaveLength(1);
    expect(all.match(new RegExp(`\\bword${at}\\b`, 'g'))).toHaveLength(1);
    const page = texts.findIndex((text) => text.includes(`note${at} `));
    // Its number stands in the text of the same page, behind the text that it belongs to.
    expect(texts[page]).toMatch(new RegExp(`seats in\\s+time\\.\\s+${at}\\s`));
  }
  // Down at the margin, and below all text.
  wordPlaces(bytes)
    .slice(0, -1)
    .forEach((words) => {
      const lowest = Math.min(...words.map(({ y }) => y));
      expect(lowest).toBeGreaterThan(72);
      expect(lowest).toBeLessThan(72 + 25);
    });
});

test('other paper and another way where that is asked for', async () => {
  const bytes = await made({ sections: [{ properties: { page: { size: A4 } }, children: lines(TEXT) }] });
  const sizeOf = async (form: object): Promise<number[]> => {
    const [page] = pageSizes((await take('a.docx', bytes, form)).bytes);
    return [Math.round(page!.width), Math.round(page!.height)];
  };
  expect(await sizeOf({ paper: 'iso_a5_148x210mm' })).toEqual([420, 595]);
  expect(await sizeOf({ orientation: 'landscape' })).toEqual([842, 595]);
});

test('a text document is told by what is in it', async () => {
  const bytes = await made({ sections: [{ children: lines('x') }] });
  expect(documentKind(bytes, 'a.pdf')).toBe('word-processing');
});
