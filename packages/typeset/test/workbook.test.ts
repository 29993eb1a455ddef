import { sectionsOf, type Form } from '@foglio/core';
import { seasonBudget } from '../../../demo/src/season-budget';
import {
  navigationByQpdf,
  pageSizes,
  pageTexts,
  qpdfComplaints,
  renderColour,
  wordPlaces,
} from '../../pdf/test/poppler';
import { rowsBook, withPart, workbook } from './make-workbook';
import { take } from './take';

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
    expect(sectionsOf({ name: 'season-budget.xlsx', ...taken.facts })).toEqual([
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

  test.each([
    ['whole columns', '$B:$C', ['0-1', '0-2', '59-1', '59-2']],
    ['whole rows', '$2:$2', ['1-0', '1-19']],
  ])('a print area of %s goes as far as anything is held', async (_what, area, held) => {
    const bytes = withPart(
      await rowsBook(wide, ({ pageSetup }) => (pageSetup.printArea = 'A1:B2')),
      'xl/workbook.xml',
      (xml) => xml.replace(/>[^<]*<\/definedName>/, () => `>Sheet!${area}</definedName>`),
    );
    const text = (await textsOf(bytes)).join(' ');
    const words = text.trim().split(/\s+/);
    expect(words).toEqual(expect.arrayContaining(held));
    expect(words.length).toBe(area === '$2:$2' ? 20 : 120);
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
    const { pages } = readable.facts;
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
