import fc from 'fast-check';
import { selectPages, type SelectionError, type SelectionContext } from '../src';
import { documentOf } from './jobs';
import { errorIn } from './selection-errors';

const TEN: SelectionContext = { facts: documentOf(10), rotate: 0, forgiving: false };
const read = (text: string): number[] => selectPages(text, TEN);

const errorOf = (text: string): SelectionError => errorIn(() => read(text));

describe('a word that is none of the language', () => {
  test.each<[string, string | null]>([
    // Shortened words before a number: a size would be a wholly other thing.
    ['s2', 'section '],
    ['p2', 'page '],
    ['pp 2 to 4', 'pages '],
    ['si2', null],
    ['siz a4', 'size'],
    ['al', 'all'],
    ['evens', 'even'],
    ['grey', null],
  ])('%s', (text, repair) => {
    const error = errorOf(text);
    expect([error.position, error.repair]).toEqual([0, repair]);
    if (repair?.startsWith('p')) expect(() => read(repair + text.slice(error.length))).not.toThrow();
  });

  test.each(['pages', 'page and 2', 'page x2'])('pages are named after “%s”', (text) => {
    expect(errorOf(text).expected).toBe('a page number, "last" or "all"');
  });

  test('law: said in words, a range is the same', () => {
    const page = fc.integer({ min: 1, max: 10 });
    fc.assert(
      fc.property(page, page, page, (from, to, other) => {
        expect(read(`pages ${from} to ${to} and ${other}`)).toEqual(read(`${from}-${to}, ${other}`));
      }),
    );
  });
});
