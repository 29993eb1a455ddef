import fc from 'fast-check';
import { takeIn } from '../../src';
import { decodeText, kindOf } from '../../src/intake/kind';
import { pagesOf } from '../../src/intake/text-pages';
import { pageTexts, qpdfComplaints } from '../poppler';

const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);

test('a text becomes pages of A4 that read as it does', async () => {
  const text = `Dear colleague,\n\n\tŁódź, 5 €\nlast line of page one\fpage two\n`;
  const { bytes, facts, remarks } = await takeIn(utf8(text));
  expect(facts.pages).toEqual([expect.objectContaining({ width: 595.276, height: 841.89 }), expect.anything()]);
  expect(remarks).toEqual([]);
  expect(qpdfComplaints(bytes)).toBe('');
  const [first, second] = pageTexts(bytes);
  expect(first?.trim().split(/\s*\n\s*/)).toEqual(['Dear colleague,', 'Łódź, 5 €', 'last line of page one']);
  expect(second?.trim()).toBe('page two');
});

test('letters that the font has not are named', async () => {
  expect((await takeIn(utf8('ends with 日本'))).remarks).toEqual([
    '2 letters (日 本) are not in the font and print as boxes.',
  ]);
});

test.each<[string, readonly number[], string]>([
  ['UTF-8', [0xc3, 0xa9], 'é'],
  ['UTF-8 with its mark', [0xef, 0xbb, 0xbf, 0xc3, 0xa9], 'é'],
  ['UTF-16, little end first', [0xff, 0xfe, 0xe9, 0x00], 'é'],
  ['UTF-16, big end first', [0xfe, 0xff, 0x00, 0xe9], 'é'],
  ['Windows-1252', [0xe9, 0x20, 0x80], 'é €'],
])('%s is read', (_what, bytes, text) => {
  expect(decodeText(new Uint8Array(bytes))).toBe(text);
});

test.each<[string, Uint8Array, string | null]>([
  ['nothing', new Uint8Array(), null],
  ['a packed letter', utf8('PK\u0003\u0004 a letter'), null],
  ['a program for a printer', utf8('%!PS-Adobe-3.0\n'), null],
  ['a word processor’s text', utf8('{\\rtf1 hello}'), null],
  ['a PDF after a banner', utf8('banner\n%PDF-1.7'), 'pdf'],
  ['a table', utf8('name;count\n'), 'text'],
])('%s', async (_what, bytes, kind) => {
  expect(kindOf(bytes)).toBe(kind);
  if (kind === null) await expect(takeIn(bytes)).rejects.toThrow(/Foglio takes PDF, PNG, JPEG and plain text/);
});

test('no letter is lost, none added, and no line is longer than the paper', () => {
  const letters = fc.string({
    unit: fc.constantFrom('a', 'é', ' ', '\t', '\n', '\r\n', '\f', '0123456789'),
    maxLength: 3000,
  });
  fc.assert(
    fc.property(letters, (text) => {
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
