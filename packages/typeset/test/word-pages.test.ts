import {
  AlignmentType,
  FootnoteReferenceRun,
  Footer,
  Header,
  NumberFormat,
  PageBreak,
  PageNumber,
  PageOrientation,
  Paragraph,
  SectionType,
  TextRun,
} from 'docx';
import { pageSizes, pageTexts, qpdfComplaints, wordPlaces } from '../../pdf/test/poppler';
import { openBrowser, takeInDocument } from '../src';
import { browserForAll } from './lend';
import { A4, TEXT, lines, made, onA4 } from './make-docx';

/** Text documents as another library writes them, page by page, as poppler reads what is made of them. */
const take = browserForAll();

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

test('foot notes stand at the foot of the page that refers to them, each once', async () => {
  const count = 24;
  const footnotes = Object.fromEntries(
    Array.from({ length: count }, (_, at) => [at + 1, { children: lines(` note${at + 1} ${TEXT}`) }]),
  );
  const { bytes } = await take(
    'a.docx',
    await onA4(
      Array.from(
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
      { footnotes },
    ),
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

test('in a page that was opened before it came, a document comes out as in one of its own, and leaves nothing to the next', async () => {
  const browser = await openBrowser(0);
  try {
    for (const text of ['The first one', 'The second one', 'The third one']) {
      const bytes = await onA4(lines(text));
      const how = { name: 'a.docx', form: {}, password: null, today: '2026-11-30', lay: browser.lay };
      const { bytes: laid } = await takeInDocument(bytes, how);
      expect(wordPlaces(laid)).toEqual(wordPlaces((await take('a.docx', bytes)).bytes));
      expect(pageTexts(laid).join('\f').trim()).toBe(text);
    }
  } finally {
    await browser.close();
  }
});
