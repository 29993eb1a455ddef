import office from 'officecrypto-tool';
import XLSX from 'xlsx';
import { pageTexts, renderColour, wordPlaces } from '../../pdf/test/poppler';
import { takeInDocument } from '../src';
import { readWorkbook } from '../src/workbook/read-workbook';
import { rowsBook, withPart } from './make-workbook';
import { letters, take } from './take';

const textsOf = async (bytes: Uint8Array, form = {}): Promise<string[]> =>
  pageTexts((await take('book.xlsx', bytes, form)).bytes);
const names = (count: number): string[][] => Array.from({ length: count }, (_, at) => [`row ${at + 1}`]);

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
      /Save it as \.xlsx, \.docx or \.eml, or as PDF, and take that\.$/,
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
