import { sectionsOf, type Form } from '@foglio/core';
import { allFacts } from '@foglio/pdf';
import office from 'officecrypto-tool';
import XLSX from 'xlsx';
import { seasonBudget } from '../../../demo/src/season-budget';
import {
  navigationByQpdf,
  pageSizes,
  pageTexts,
  qpdfComplaints,
  renderColour,
  wordPlaces,
} from '../../pdf/test/poppler';
import { takeInDocument } from '../src';
import { readWorkbook } from '../src/workbook/read-workbook';
import { rowsBook, withPart, workbook } from './make-workbook';
import { letters, take } from './take';

const budget = async (): Promise<Uint8Array> => new Uint8Array(await seasonBudget());
const textsOf = async (bytes: Uint8Array, form = {}): Promise<string[]> =>
  pageTexts((await take('book.xlsx', bytes, form)).bytes);
const names = (count: number): string[][] => Array.from({ length: count }, (_, at) => [`row ${at + 1}`]);

describe('sheets', () => {
  test('each is a section by its name; the file says how each is printed', async () => {
    const taken = await take('season-budget.xlsx', await budget());
    expect(qpdfComplaints(taken.bytes)).toBe('');
    expect(navigationByQpdf(taken.bytes).outline).toEqual([
      { title: 'Summary', level: 1, page: 1 },
      { title: 'Income', level: 1, page: 2 },
      { title: 'Expenses', level: 1, page: 5 },
      { title: 'Concerts', level: 1, page: 8 },
    ]);
    expect(sectionsOf({ name: 'season-budget.xlsx', ...(await allFacts(taken.facts)) })).toEqual([
      { from: 1, to: 1 },
      { from: 2, to: 4 },
      { from: 5, to: 7 },
      { from: 8, to: 9 },
    ]);
  });

  test('two are chosen, in another order, all columns on A4 sideways', async () => {
    const form: Form = { sheets: ['Expenses', 'Summary'], fit: 'width', orientation: 'landscape' };
    const { bytes, laid } = await take('season-budget.xlsx', await budget(), form);
    expect(laid).toMatchObject({ form, taken: {} });
    expect(pageSizes(bytes).map(({ width, height }) => [width, height].map(Math.round))).toEqual([
      [842, 595],
      [842, 595],
    ]);
    const [expenses, summary] = pageTexts(bytes);
    expect(expenses).toMatch(/Sep +Oct +Nov .* Aug +Season/);
    expect(summary).toContain('At the season’s end');
  });

  test('hidden ones are left out unless they are asked for', async () => {
    const bytes = await workbook((book) => {
      book.addWorksheet('Seen').addRow(['seen']);
      book.addWorksheet('Kept', { state: 'hidden' }).addRow(['kept']);
    });
    const { laid } = await take('book.xlsx', bytes);
    expect(laid).toMatchObject({
      taken: { sheets: ['Seen'] },
      sheets: [
        { name: 'Seen', hidden: false },
        { name: 'Kept', hidden: true },
      ],
    });
    expect(await textsOf(bytes)).toHaveLength(1);
    expect((await textsOf(bytes, { sheets: ['Kept'] }))[0]).toContain('kept');
  });

  test('one that is not there is named, with those that are', async () => {
    await expect(take('book.xlsx', await budget(), { sheets: ['Costs'] })).rejects.toThrow(
      'It cannot be laid out so: it has no sheet “Costs”, but “Summary”, “Income”, “Expenses”, “Concerts”. Choose among its sheets.',
    );
  });
});

describe('how the file says it is printed', () => {
  const wide = Array.from({ length: 60 }, (_, row) => Array.from({ length: 20 }, (__, column) => `${row}-${column}`));

  test('its print area, or all of it', async () => {
    const bytes = await rowsBook(wide, ({ pageSetup }) => (pageSetup.printArea = 'B2:C4'));
    const [text] = await textsOf(bytes);
    expect(text!.trim().split(/\s+/)).toEqual(['1-1', '1-2', '2-1', '2-2', '3-1', '3-2']);
    expect((await textsOf(bytes, { wholeSheet: true })).join('')).toContain('59-19');
  });

  test('several print areas are on pages of their own', async () => {
    const bytes = await rowsBook(wide, ({ pageSetup }) => (pageSetup.printArea = 'A1:B1&&A9:B9'));
    expect((await textsOf(bytes)).map((text) => text.trim())).toEqual([
      expect.stringMatching(/^0-0 +0-1$/),
      expect.stringMatching(/^8-0 +8-1$/),
    ]);
  });

  test('titles stand on every page, above and at the left', async () => {
    const bytes = await rowsBook(wide, ({ pageSetup }) => {
      pageSetup.printTitlesRow = '1:1';
      pageSetup.printTitlesColumn = 'A:A';
    });
    const texts = await textsOf(bytes);
    expect(texts.length).toBeGreaterThan(3);
    for (const text of texts) expect(text).toMatch(/^\s*0-0 /);
    expect(texts.join('').match(/\b59-19\b/g)).toHaveLength(1);
  });

  test('breaks between rows and between columns', async () => {
    const rows = await rowsBook(names(6), (sheet) => sheet.getRow(2).addPageBreak());
    expect((await textsOf(rows)).map((text) => text.trim().split(/\n\s*/))).toEqual([
      ['row 1', 'row 2'],
      ['row 3', 'row 4', 'row 5', 'row 6'],
    ]);
    const columns = withPart(await rowsBook([['a', 'b', 'c']]), 'xl/worksheets/sheet1.xml', (xml) =>
      xml.replace(
        '</worksheet>',
        '<colBreaks count="1" manualBreakCount="1"><brk id="2" max="1048575" man="1"/></colBreaks></worksheet>',
      ),
    );
    expect((await textsOf(columns)).map((text) => text.trim().split(/\s+/))).toEqual([['a', 'b'], ['c']]);
  });

  test('pages go down first, or over first', async () => {
    const firsts = async (pageOrder: 'downThenOver' | 'overThenDown'): Promise<string[]> => {
      const texts = await textsOf(await rowsBook(wide, ({ pageSetup }) => (pageSetup.pageOrder = pageOrder)));
      return texts.map((text) => text.trim().split(/\s+/)[0]!);
    };
    const [down, over] = await Promise.all([firsts('downThenOver'), firsts('overThenDown')]);
    expect(down[1]).toMatch(/-0$/);
    expect(over[1]).toMatch(/^0-/);
    expect(down.toSorted()).toEqual(over.toSorted());
  });

  test('its scale, and so many pages wide', async () => {
    const heightOf = async (setup: object): Promise<number> => {
      const bytes = await rowsBook([['Sum', 1]], (sheet) => Object.assign(sheet.pageSetup, setup));
      const [places] = wordPlaces((await take('book.xlsx', bytes)).bytes);
      return places!.find(({ word }) => word === '1')!.x;
    };
    const [full, half] = [await heightOf({}), await heightOf({ scale: 50 })];
    // Measured from the left margin of 0.7 inches.
    expect((half - 50.4) / (full - 50.4)).toBeCloseTo(0.5, 1);
    const bytes = await rowsBook(wide, ({ pageSetup }) =>
      Object.assign(pageSetup, { fitToPage: true, fitToWidth: 1, fitToHeight: 0 }),
    );
    for (const text of await textsOf(bytes)) expect(text).toMatch(/-0 .*-19\n/);
    expect((await take('book.xlsx', bytes)).laid?.taken).toMatchObject({ fit: 'width' });
  });

  test('hidden rows and columns, or those too', async () => {
    const bytes = await rowsBook(
      [
        ['a', 'b', 'c'],
        ['d', 'e', 'f'],
        ['g', 'h', 'i'],
      ],
      (sheet) => {
        sheet.getRow(2).hidden = true;
        sheet.getColumn(2).hidden = true;
      },
    );
    const words = async (form: object): Promise<string[]> => (await textsOf(bytes, form))[0]!.trim().split(/\s+/);
    expect(await words({})).toEqual(['a', 'c', 'g', 'i']);
    expect(await words({ hidden: true })).toEqual(['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h', 'i']);
  });

  test('lines at head and foot with page, pages, sheet, file and day', async () => {
    const bytes = await rowsBook(names(120), ({ headerFooter }) => {
      headerFooter.oddHeader = '&L&"Arial,Bold"&12&F&C&A && all&R&D';
      headerFooter.oddFooter = 'Page &P of &N';
    });
    const texts = await textsOf(bytes);
    expect(texts[0]).toMatch(/book\.xlsx +Sheet & all +2026-09-01/);
    expect(texts.map((text) => /Page \d of \d/.exec(text)?.[0])).toEqual(
      texts.map((_, at) => `Page ${at + 1} of ${texts.length}`),
    );
  });

  test('sheets from right to left begin at the right', async () => {
    const bytes = await rowsBook([['first', 'second', 'third']], (sheet) => (sheet.views = [{ rightToLeft: true }]));
    const [places] = wordPlaces((await take('book.xlsx', bytes)).bytes);
    expect(places!.toSorted((one, other) => other.x - one.x).map(({ word }) => word)).toEqual([
      'first',
      'second',
      'third',
    ]);
  });

  test('names of columns and rows, and lines between cells, where they are asked for', async () => {
    const bytes = await rowsBook([['one', 'two']]);
    expect((await textsOf(bytes, { headings: true }))[0]!.trim().split(/\s+/)).toEqual(['A', 'B', '1', 'one', 'two']);
    const ink = async (form: object): Promise<number> =>
      renderColour((await take('book.xlsx', bytes, form)).bytes, 1, 50).pixels.filter((value) => value < 250).length;
    expect(await ink({ gridLines: true })).toBeGreaterThan((await ink({})) * 1.5);
  });
});

describe('as large as can be read', () => {
  test('the fewest pages on which the smallest text is 7 points high, turned where that takes fewer', async () => {
    const bytes = await rowsBook(
      Array.from({ length: 90 }, (_, row) => Array.from({ length: 11 }, (__, column) => `${row}.${column}`)),
    );
    const actual = await take('book.xlsx', bytes, { fit: 'actual' });
    const readable = await take('book.xlsx', bytes, { fit: 'readable' });
    expect(readable.facts.pages.length).toBeLessThan(actual.facts.pages.length);
    const { pages } = await allFacts(readable.facts);
    // Text of 11 points; nothing below 7, and not so small that a larger one would do on as many pages.
    const { readDetails } = await import('@foglio/pdf');
    const smallest: number[] = [];
    await readDetails(readable.bytes, 'all', (_, details) => void smallest.push(details.smallestText ?? 99));
    expect(Math.min(...smallest)).toBeGreaterThanOrEqual(6.99);
    expect(pages).toHaveLength(smallest.length);
  });

  test('what is made smaller than that is told', async () => {
    const bytes = await rowsBook([Array.from({ length: 60 }, (_, column) => `column ${column}`)]);
    expect((await take('book.xlsx', bytes, { fit: 'width' })).remarks).toEqual([
      expect.stringMatching(/^Small to read: “Sheet”: text from [\d.]+ pt\. Choose “as large as can be read”\.$/),
    ]);
  });
});

describe('values', () => {
  const formats = [
    ['0.00', 1234.5],
    ['#,##0.00', -1234.5],
    ['0%', 0.256],
    ['0.0%', 0.256],
    ['#,##0;[Red]-#,##0', -5],
    ['"€" #,##0.00', 12.5],
    ['yyyy-mm-dd', 46266],
    ['d mmm yyyy', 46266],
    ['h:mm', 0.5],
    ['[h]:mm', 1.5],
    ['0.00E+00', 12345],
    ['# ?/?', 1.5],
    ['000', 7],
    ['@', 7],
    ['General', 1 / 3],
    ['General', 1e15],
    ['#,##0.00_);(#,##0.00)', -3],
    ['0" pieces"', 4],
  ] as const;

  test('numbers in their formats are as another reader has them', async () => {
    const bytes = await rowsBook(
      formats.map(([, value]) => [value]),
      (sheet) => formats.forEach(([format], at) => (sheet.getCell(at + 1, 1).numFmt = format)),
    );
    const { tables } = await readWorkbook(bytes, {}, '2026-09-01');
    const sheet = XLSX.read(bytes, { cellNF: true }).Sheets['Sheet']!;
    formats.forEach(([format], at) => {
      const other = (sheet[`A${at + 1}`] as XLSX.CellObject).w;
      const ours = tables[0]!.rows[at]!.cells[0]!.text;
      expect([format, ours.trim()]).toEqual([format, other!.trim()]);
    });
  });

  test('all kinds of cells, as another reader has them', async () => {
    const bytes = await rowsBook(
      [
        [
          'text',
          true,
          false,
          12,
          new Date('2026-09-01T00:00:00Z'),
          { formula: 'D1*2', result: 24 },
          { richText: [{ text: 'rich ' }, { text: 'text' }] },
          { error: '#DIV/0!' },
          { formula: 'A1', result: 'from text' },
          { formula: 'NA()', result: { error: '#N/A' } },
        ],
      ],
      (sheet) => (sheet.getCell('E1').numFmt = 'dd/mm/yyyy'),
    );
    const { tables } = await readWorkbook(bytes, {}, '2026-09-01');
    const other = XLSX.read(bytes).Sheets['Sheet']!;
    const cells = tables[0]!.rows[0]!.cells;
    expect(cells.map(({ text }) => text)).toEqual(
      cells.map(({ column }) => (other[XLSX.utils.encode_cell({ r: 0, c: column })] as XLSX.CellObject).w),
    );
    expect(cells.map(({ text }) => text)).toEqual([
      'text',
      'TRUE',
      'FALSE',
      '12',
      '01/09/2026',
      '24',
      'rich text',
      '#DIV/0!',
      'from text',
      '#N/A',
    ]);
  });

  test('negative ones are red where their format says so', async () => {
    const bytes = await rowsBook([[-5]], (sheet) => (sheet.getCell('A1').numFmt = '0;[Red]-0'));
    const { pixels } = renderColour((await take('book.xlsx', bytes)).bytes, 1, 100);
    const isRed = (at: number): boolean => pixels[at]! > 180 && pixels[at + 1]! < 80 && pixels[at + 2]! < 80;
    expect(Array.from({ length: pixels.length / 3 }, (_, at) => at * 3).some(isRed)).toBe(true);
  });

  test('a formula without a value says so', async () => {
    const bytes = await rowsBook([[1, 2, { formula: 'A1+B1' }]]);
    const { bytes: pdf, remarks } = await take('book.xlsx', bytes);
    expect(pageTexts(pdf)[0]).toContain('not calculated');
    expect(remarks).toEqual([
      'One formula has no value in the file and print as “not calculated”; open the workbook where it was made and save it.',
    ]);
  });

  test('days count from 1904 where the workbook says so', async () => {
    const bytes = withPart(
      await rowsBook([[1]], (sheet) => (sheet.getCell('A1').numFmt = 'yyyy-mm-dd')),
      'xl/workbook.xml',
      (xml) => xml.replace(/<workbookPr[^>]*\/>/, '<workbookPr date1904="1"/>'),
    );
    expect((await textsOf(bytes))[0]).toContain('1904-01-02');
  });
});

describe('how cells look', () => {
  test('merged cells, wrapped text and alignment stand where they should', async () => {
    const bytes = await rowsBook(
      [
        ['Title over three', null, null],
        ['left', 'middle', 'right'],
      ],
      (sheet) => {
        sheet.mergeCells('A1:C1');
        sheet.getCell('A1').alignment = { horizontal: 'center' };
        sheet.getCell('B2').alignment = { horizontal: 'center' };
        sheet.getCell('C2').alignment = { horizontal: 'right' };
      },
    );
    const [places] = wordPlaces((await take('book.xlsx', bytes)).bytes);
    const at = (word: string): number => places!.find((one) => one.word === word)!.x;
    // Three columns of 48 points after a margin of 0.7 inches.
    expect(Math.abs((at('Title') + at('three')) / 2 - (50.4 + 72))).toBeLessThan(8);
    expect(Math.abs(at('middle') - (50.4 + 72))).toBeLessThan(2);
    expect(at('right')).toBeGreaterThan(50.4 + 96 + 24);
  });

  test('a long text goes on over empty cells, and a number is never cut', async () => {
    const bytes = await rowsBook([['a text that is much longer than its cell'], [123456789.25]], (sheet) => {
      sheet.getColumn(1).width = 6;
      sheet.getCell('A2').numFmt = '#,##0.00';
    });
    const [text] = await textsOf(bytes);
    expect(text).toContain('a text that is much longer than its cell');
    expect(text).toContain('123,456,789.25');
  });

  test('a text that the next cell cuts is told', async () => {
    const bytes = await rowsBook([['a text that is much longer than its cell', 'next']]);
    expect((await take('book.xlsx', bytes)).remarks).toEqual([
      'One text is longer than its cell and cut, as it is on a screen: A1 of “Sheet”.',
    ]);
  });
});

test('a password is asked for, and opens it', async () => {
  const open = await rowsBook([['behind a password']]);
  const bytes = new Uint8Array(office.encrypt(Buffer.from(open), { password: 'cello' }));
  const taking = { name: 'book.xlsx', form: {}, today: '2026-09-01' };
  await expect(takeInDocument(bytes, { ...taking, password: null })).rejects.toMatchObject({ trouble: 'locked' });
  await expect(takeInDocument(bytes, { ...taking, password: 'viola' })).rejects.toMatchObject({
    trouble: 'wrong-password',
  });
  const taken = await takeInDocument(bytes, { ...taking, password: 'cello' });
  expect(pageTexts(taken.bytes)[0]).toContain('behind a password');
});

describe('what is not printed, and what is refused', () => {
  test('charts, pictures, macros and colours by value are told', async () => {
    let bytes = await rowsBook([['a']], (sheet) =>
      sheet.addConditionalFormatting({
        ref: 'A1',
        rules: [{ type: 'cellIs', operator: 'equal', formulae: [1], priority: 1, style: {} }],
      }),
    );
    for (const name of ['xl/charts/chart1.xml', 'xl/media/image1.png', 'xl/media/image2.png', 'xl/vbaProject.bin'])
      bytes = withPart(bytes, name, () => 'x');
    expect((await take('book.xlsm', bytes)).remarks).toEqual([
      'A chart is not printed.',
      '2 pictures are not printed.',
      'It holds macros; they were not run.',
      'Colours that depend on values are not printed (“Sheet”).',
    ]);
  });

  test.each<[string, () => Promise<Uint8Array>, RegExp]>([
    [
      'an old one',
      () => Promise.resolve(new Uint8Array([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1, 0])),
      /Save it as \.xlsx, or as PDF, and take that\.$/,
    ],
    ['half of one', async () => (await rowsBook(names(2000))).slice(0, 9_000), /damaged|Foglio takes/],
    [
      'one that is no XML',
      async () => withPart(await rowsBook([['a']]), 'xl/worksheets/sheet1.xml', () => '<worksheet><sheetData><row><c>'),
      /damaged/,
    ],
    [
      'entities that grow',
      async () =>
        withPart(
          await rowsBook([['a']]),
          'xl/sharedStrings.xml',
          () => `<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><sst><si><t>&b;</t></si></sst>`,
        ),
      /damaged/,
    ],
    ['an empty one', () => rowsBook([]), /nothing stands in its sheets/],
    [
      'another ZIP file',
      () =>
        Promise.resolve(
          withPart(
            letters('PK') && new Uint8Array([0x50, 0x4b, 0x05, 0x06, ...Array.from({ length: 18 }, () => 0)]),
            'a.txt',
            () => 'a',
          ),
        ),
      /^Foglio takes/,
    ],
  ])('%s', async (_what, make, said) => {
    await expect(take('book.xlsx', await make())).rejects.toThrow(said);
  });
});
