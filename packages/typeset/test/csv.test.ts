import fc from 'fast-check';
import { pageSizes, pageTexts, qpdfComplaints, wordPlaces } from '../../pdf/test/poppler';
import { delimiterOf, hasHeader, recordsOf } from '../src/csv/guess';
import { readCsv } from '../src/csv/csv-table';
import { letters, take } from './take';

describe('the cases of RFC 4180, section 2', () => {
  test.each<[string, string, string[][]]>([
    [
      '1: lines of records',
      'aaa,bbb,ccc\r\nzzz,yyy,xxx\r\n',
      [
        ['aaa', 'bbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    [
      '2: the last without its end',
      'aaa,bbb,ccc\r\nzzz,yyy,xxx',
      [
        ['aaa', 'bbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    ['4: spaces are of the field', 'aaa, bbb ,ccc', [['aaa', ' bbb ', 'ccc']]],
    [
      '5: quoted or not',
      '"aaa","bbb","ccc"\r\nzzz,yyy,xxx',
      [
        ['aaa', 'bbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    [
      '6: a line within quotes',
      '"aaa","b\r\nbb","ccc"\r\nzzz,yyy,xxx',
      [
        ['aaa', 'b\r\nbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    ['6: a comma within quotes', '"a,aa",bbb', [['a,aa', 'bbb']]],
    ['7: a quote within quotes', '"aaa","b""bb","ccc"', [['aaa', 'b"bb', 'ccc']]],
  ])('%s', (_what, text, records) => {
    expect(recordsOf(text, ',')).toEqual(records);
  });

  test('whatever the fields hold, they are read as they were written', () => {
    const field = fc.string({ unit: fc.constantFrom('a', ',', '"', '\n', ';', ' ', 'é', '1') });
    const records = fc.array(fc.array(field, { minLength: 2, maxLength: 4 }), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(records, (written) => {
        const text = written.map((one) => one.map((part) => `"${part.replaceAll('"', '""')}"`).join(',')).join('\r\n');
        expect(recordsOf(text, ',')).toEqual(written);
      }),
    );
  });
});

test.each<[string, string, string]>([
  ['commas', 'name,count\nReed,3\nBow,4\n', ','],
  ['semicolons beside decimal commas', 'name;price\nReed;3,50\nBow;4,25\n', ';'],
  ['tabs', 'name\tcount\nReed\t3\n', '\t'],
  ['bars', 'name|count\nReed|3\n', '|'],
  ['a first line that says so', 'sep=|\nname|count, note\nReed|3, one\n', '|'],
  ['commas within quotes', '"Reed, Ann";3\n"Bow, Tom";4\n', ';'],
])('%s are found between the fields', (_what, text, delimiter) => {
  expect(delimiterOf(text)).toBe(delimiter);
});

test.each<[string, string[][], boolean]>([
  [
    'words over numbers',
    [
      ['name', 'count'],
      ['Reed', '3'],
    ],
    true,
  ],
  [
    'numbers in the first line too',
    [
      ['Reed', '3'],
      ['Bow', '4'],
    ],
    false,
  ],
  [
    'one word twice',
    [
      ['name', 'name'],
      ['a', 'b'],
    ],
    false,
  ],
  ['one line alone', [['name', 'count']], false],
])('a header: %s', (_what, records, has) => {
  expect(hasHeader(records)).toBe(has);
});

const rows = (count: number): string =>
  [
    'No;Player;Instrument;Fee',
    ...Array.from({ length: count }, (_, at) => `${at + 1};Player ${at + 1};Viola;${at},50`),
  ].join('\n');

test('every row is printed once and in order, under the header of each page', async () => {
  const { bytes, facts, laid, remarks } = await take('players.csv', letters(rows(150)));
  expect(laid).toMatchObject({ kind: 'csv', taken: { delimiter: ';', header: true, encoding: 'utf-8', fit: 'width' } });
  expect(remarks).toEqual([]);
  expect(qpdfComplaints(bytes)).toBe('');
  const texts = pageTexts(bytes);
  expect(texts).toHaveLength(facts.pages.length);
  for (const text of texts) expect(text).toMatch(/^\s*No +Player +Instrument +Fee\n/);
  const printed = texts.flatMap((text) => [...text.matchAll(/Player (\d+) /g)].map(([, number]) => Number(number)));
  expect(printed).toEqual(Array.from({ length: 150 }, (_, at) => at + 1));
});

test('what was guessed can be said: no header, other letters', async () => {
  const bytes = new Uint8Array([...letters('Caf'), 0xe9, ...letters(',1\nBar,2\n')]);
  expect(readCsv(bytes, 'a.csv', {}).laid.taken).toMatchObject({ encoding: 'windows-1252', header: false });
  expect(readCsv(bytes, 'a.csv', { encoding: 'macintosh', header: true }).laid).toMatchObject({
    form: { encoding: 'macintosh', header: true },
    taken: { delimiter: ',' },
  });
  const { bytes: pdf } = await take('a.csv', bytes);
  expect(pageTexts(pdf)[0]).toMatch(/Café +1/);
});

test('wide tables go sideways, then smaller, and never below 7 points', async () => {
  const wide = (columns: number): Uint8Array =>
    letters(
      [0, 1].map((row) => Array.from({ length: columns }, (_, at) => `r${row} column ${at}`).join(',')).join('\n'),
    );
  const [few, some, many] = await Promise.all([6, 12, 30].map((columns) => take('a.csv', wide(columns))));
  expect([few, some, many].map((one) => one!.laid?.taken)).toMatchObject([
    { orientation: 'portrait', fit: 'width' },
    { orientation: 'landscape', fit: 'width' },
    { orientation: 'landscape', fit: 'readable' },
  ]);
  expect(pageSizes(some!.bytes).map(({ width }) => Math.round(width))).toEqual([842]);
  expect(
    pageTexts(many!.bytes)
      .join('')
      .match(/r0 column \d+/g),
  ).toHaveLength(30);
});

test('numbers stand under each other at the right, words at the left', async () => {
  const { bytes } = await take('a.csv', letters('item,count\nreed,1000\nbow,7\n'));
  const [places] = wordPlaces(bytes);
  const at = (word: string) => places!.find((one) => one.word === word)!;
  expect(at('7').x).toBeGreaterThan(at('1000').x);
  expect(at('bow').x).toBeLessThan(at('reed').x + 10);
});

test('a long text goes on in the next line, and its row is as high as it needs', async () => {
  const text = 'Reeds of cane, cut by hand and kept dry until the concert, '.repeat(6).trim();
  const { bytes } = await take('a.csv', letters(`item,note\nreed,"${text}"\nbow,short\n`));
  const [page] = pageTexts(bytes);
  expect(page!.replace(/\s+/g, ' ')).toContain('until the concert');
  const [places] = wordPlaces(bytes);
  const lowest = Math.min(...places!.filter(({ word }) => word === 'concert,').map(({ y }) => y));
  expect(places!.find(({ word }) => word === 'bow')!.y).toBeLessThan(lowest);
});

test('a table without anything in it is told', async () => {
  await expect(take('a.csv', letters(',,\n,,\n'))).rejects.toThrow(
    'It cannot be laid out so: no field of it holds anything. Look at how its fields are parted.',
  );
});
