import fc from 'fast-check';
import { listPages, sayPages, SelectionError, selectPages, writeSelection } from '../src';
import { A4, documentOf, turned } from './jobs';

const TEN = { facts: documentOf(10), rotate: 0, forgiving: false };
const read = (text: string, context = TEN): number[] => selectPages(text, context);

function errorOf(text: string): SelectionError {
  try {
    read(text);
  } catch (error) {
    if (error instanceof SelectionError) return error;
    throw error;
  }
  throw new Error(`"${text}" was read without an error`);
}

describe('reading a selection', () => {
  test.each<[string, number[]]>([
    ['all', [1, 2, 3, 4, 5, 6, 7, 8, 9, 10]],
    ['3', [3]],
    ['1-4', [1, 2, 3, 4]],
    ['8-', [8, 9, 10]],
    ['-3', [1, 2, 3]],
    ['5-2', [5, 4, 3, 2]],
    ['last', [10]],
    ['last-8', [10, 9, 8]],
    ['2,2, 2', [2, 2, 2]],
    ['1 x4', [1, 1, 1, 1]],
    ['(1,2) x2', [1, 2, 1, 2]],
    ['odd', [1, 3, 5, 7, 9]],
    ['even', [2, 4, 6, 8, 10]],
    ['3-8 odd', [3, 5, 7]],
    ['ALL Odd', [1, 3, 5, 7, 9]],
    ['all but 3, 6', [1, 2, 4, 5, 7, 8, 9, 10]],
    ['all but odd', [2, 4, 6, 8, 10]],
    ['(all but 3), 3', [1, 2, 4, 5, 6, 7, 8, 9, 10, 3]],
    ['1\u20133', [1, 2, 3]],
    ['  1 -  3 ,5 ', [1, 2, 3, 5]],
  ])('%s', (text, pages) => {
    expect(read(text)).toEqual(pages);
  });

  test('portrait and landscape look at the page after the ticket has turned it', () => {
    const facts = { name: 'mixed.pdf', pages: [A4, turned(A4), A4] };
    expect(selectPages('landscape', { facts, rotate: 0, forgiving: false })).toEqual([2]);
    expect(selectPages('landscape', { facts, rotate: 90, forgiving: false })).toEqual([1, 3]);
  });

  test('a forgiving reading drops what is not there', () => {
    expect(read('8-20, 3, 99', { ...TEN, forgiving: true })).toEqual([8, 9, 10, 3]);
    expect(read('99', { ...TEN, forgiving: true })).toEqual([]);
  });
});

describe('errors of a selection', () => {
  test.each<[string, number, string | null]>([
    ['1-4, 12', 5, '10'],
    ['0', 0, '1'],
    ['1;2', 1, ','],
    ['1 2', 2, ', 2'],
    ['1,', 2, null],
    ['1,,2', 2, ''],
    ['(1, 2', 5, ')'],
    ['1)', 1, ''],
    ['1 x0', 3, '1'],
    ['1 x', 3, null],
    ['1 x12345', 3, '9999'],
    ['al', 0, 'all'],
    ['3--', 2, ''],
    ['12345678901', 0, null],
    ['', 0, null],
  ])('%s: at character %i', (text, position, repair) => {
    const error = errorOf(text);
    expect([error.position, error.repair]).toEqual([position, repair]);
    expect(error.expected).not.toBe('');
  });

  test('a page that is not there names page, document and last page', () => {
    expect(errorOf('12').message).toBe('page 12 is not in manual.pdf, whose last page is 10');
  });

  test('a selection that comes to no page is an error', () => {
    expect(errorOf('2 odd').message).toBe('this chooses no page of manual.pdf');
  });

  test('limits: characters, nesting, pages in all', () => {
    expect(errorOf('1,'.repeat(5001)).position).toBe(10_000);
    expect(errorOf('('.repeat(21) + '1' + ')'.repeat(21)).message).toContain('too many parentheses');
    expect(read('('.repeat(20) + '1' + ')'.repeat(20))).toEqual([1]);
    expect(errorOf('((all x9999) x9999)').message).toContain('more than 100000 pages');
  });

  test('law: no text makes the reader throw anything but its own error', () => {
    const piece = fc.constantFrom('1', '12', '-', ',', 'x', 'all', 'but', 'odd', 'last', '(', ')', ' ', '\u2013', 'é');
    const text = fc.oneof(
      fc.string(),
      fc.array(piece, { maxLength: 40 }).map((parts) => parts.join('')),
    );
    fc.assert(
      fc.property(text, (any) => {
        try {
          const pages = read(any);
          return pages.length > 0 && pages.every((page) => page >= 1 && page <= 10);
        } catch (error) {
          return error instanceof SelectionError && error.position >= 0 && error.position <= any.length;
        }
      }),
      { numRuns: 2000 },
    );
  });
});

describe('writing a selection', () => {
  test.each<[number[], string]>([
    [[1, 2, 3, 4, 5, 6, 7, 8, 9, 10], 'all'],
    [[1, 2, 3], '1-3'],
    [[8, 9, 10], '8-'],
    [[5, 4, 3], '5-3'],
    [[1, 3, 5], '1, 3, 5'],
    [[7], '7'],
  ])('%j', (pages, text) => {
    expect(writeSelection(pages, 10)).toBe(text);
  });

  test('law: reading back what was written gives the same pages', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 10 }), { minLength: 1, maxLength: 60 }), (pages) => {
        expect(read(writeSelection(pages, 10))).toEqual(pages);
      }),
      { numRuns: 2000 },
    );
  });

  test('in words', () => {
    expect(sayPages([1, 2, 3, 5])).toBe('pages 1 to 3, then 5; 4 pages');
    expect(sayPages([5, 4, 3, 2])).toBe('pages 5 to 2 backwards; 4 pages');
    expect(sayPages([7])).toBe('page 7');
    expect(sayPages([])).toBe('no pages');
    expect(listPages([1, 6, 9, 10, 11])).toBe('pages 1, 6 and 9 to 11');
    expect(listPages([4])).toBe('page 4');
  });
});
