import fc from 'fast-check';
import { pageTexts, qpdfComplaints } from '../../pdf/test/poppler';
import { documentKind } from '../src/kind';
import { encodingOf, lettersOf } from '../src/text/letters';
import { textPages } from '../src/text/text-pages';
import { letters, take } from './take';

/** A page of A4 at the usual size. */
const A4 = { letters: 80, lines: 60, columns: 1 };
const pagesOf = (text: string): string[][] => textPages(text, A4);

test('a text becomes pages of A4 that read as it does', async () => {
  const text = `Dear colleague,\n\n\tŁódź, 5 €\nlast line of page one\fpage two\n`;
  const { bytes, facts, remarks, laid } = await take('letter.txt', letters(text));
  expect(facts.pages.map(({ width, height }) => [width, height].map(Math.round))).toEqual([
    [595, 842],
    [595, 842],
  ]);
  expect(remarks).toEqual([]);
  expect(laid).toMatchObject({ kind: 'text', form: {}, taken: { typeSize: 10, columns: 1, encoding: 'utf-8' } });
  expect(qpdfComplaints(bytes)).toBe('');
  const [first, second] = pageTexts(bytes);
  expect(first?.trim().split(/\s*\n\s*/)).toEqual(['Dear colleague,', 'Łódź, 5 €', 'last line of page one']);
  expect(second?.trim()).toBe('page two');
});

test('letters that the font has not are named', async () => {
  expect((await take('letter.txt', letters('ends with 日本'))).remarks).toEqual([
    '2 letters (日 本) are not in the font and print as boxes.',
  ]);
});

test.each<[string, readonly number[], string]>([
  ['UTF-8', [0xc3, 0xa9], 'é'],
  ['UTF-8 with its mark', [0xef, 0xbb, 0xbf, 0xc3, 0xa9], 'é'],
  ['UTF-16, little end first', [0xff, 0xfe, 0xe9, 0x00], 'é'],
  ['UTF-16, big end first', [0xfe, 0xff, 0x00, 0xe9], 'é'],
  ['UTF-16 without its mark', [0x61, 0x00, 0x62, 0x00], 'ab'],
  ['Windows-1252', [0xe9, 0x20, 0x80], 'é €'],
])('%s is read', (_what, numbers, text) => {
  const bytes = new Uint8Array(numbers);
  expect(lettersOf(bytes, encodingOf(bytes))).toBe(text);
});

test.each<[string, Uint8Array, string | null]>([
  ['nothing', new Uint8Array(), null],
  ['a program for a printer', letters('%!PS-Adobe-3.0\n'), null],
  ['a word processor’s text', letters('{\\rtf1 hello}'), null],
  ['a PDF after a banner', letters('banner\n%PDF-1.7'), 'pdf'],
  ['a table', letters('name;count\n'), 'text'],
])('%s', async (_what, bytes, kind) => {
  expect(documentKind(bytes, 'letter.txt')).toBe(kind);
  if (kind === null) await expect(take('letter.txt', bytes)).rejects.toThrow(/^Foglio takes PDF, pictures/);
});

test('no letter is lost, none added, and no line is longer than the paper', () => {
  const texts = fc.string({
    unit: fc.constantFrom('a', 'é', ' ', '\t', '\n', '\r\n', '\f', '0123456789'),
    maxLength: 3000,
  });
  fc.assert(
    fc.property(texts, (text) => {
      const pages = pagesOf(text);
      const bare = (one: string): string => one.replace(/\s/g, '');
      expect(bare(pages.flat().join(''))).toBe(bare(text));
      expect(Math.max(0, ...pages.flat().map((line) => line.length))).toBeLessThanOrEqual(80);
      expect(Math.max(0, ...pages.map((page) => page.length))).toBeLessThanOrEqual(60);
      expect(pages.length).toBeGreaterThan(0);
    }),
    { numRuns: 300 },
  );
});

test('lines break at a space, long words in the middle, and indentation stays', () => {
  expect(pagesOf(`    ${'word '.repeat(20)}`)[0]).toEqual([`    ${'word '.repeat(15).trimEnd()}`, 'word '.repeat(5)]);
  expect(pagesOf('x'.repeat(100))[0]).toEqual(['x'.repeat(80), 'x'.repeat(20)]);
  expect(pagesOf('a\tb')[0]).toEqual(['a       b']);
  expect(pagesOf(Array.from({ length: 61 }, String).join('\n')).map((page) => page.length)).toEqual([60, 1]);
});

test('a line of a megabyte takes no longer than its letters in lines', () => {
  const [short, long] = [50_000, 1_000_000].map((count) => textPages('word '.repeat(count / 5), A4).flat());
  expect([short!.length, long!.length]).toEqual([625, 12_500]);
});

test('type size and columns are as asked', async () => {
  const text = Array.from({ length: 130 }, (_, at) => `line ${at + 1}`).join('\n');
  const pages = async (form: object): Promise<number> => (await take('a.txt', letters(text), form)).facts.pages.length;
  expect(await Promise.all([{}, { columns: 3 }, { typeSize: 20 }, { orientation: 'landscape' }].map(pages))).toEqual([
    3, 1, 5, 4,
  ]);
  const { bytes } = await take('a.txt', letters(text), { columns: 2, typeSize: 8 });
  expect(pageTexts(bytes)[0]).toMatch(/line 1 +line 76\n/);
});
