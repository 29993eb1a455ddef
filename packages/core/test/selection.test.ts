import fc from 'fast-check';
import { listPages, sayPages, SelectionError, selectPages, writeSelection, type SelectionContext } from '../src';
import { errorIn } from './selection-errors';
import { A3, A4, documentOf, documentWith, LETTER, turned } from './jobs';

const TEN: SelectionContext = { facts: documentOf(10), rotate: 0, forgiving: false };
const read = (text: string, context = TEN): number[] => selectPages(text, context);

const errorOf = (text: string): SelectionError => errorIn(() => read(text));

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
    ['1 to 3', [1, 2, 3]],
    ['page 2', [2]],
    ['Pages 4 and 6', [4, 6]],
    ['pages 1 to 3, page 9 and last', [1, 2, 3, 9, 10]],
    ['8 to', [8, 9, 10]],
    ['all but pages 2 and 4 to 9', [1, 3, 10]],
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

  test.each([
    ['2-', []],
    ['2-last', []],
    ['last-2', []],
    ['2-4', []],
    ['-2', [1]],
    ['3-1', [1]],
    ['1-', [1]],
  ])('of one page, read forgivingly, %s is %j', (text, pages) => {
    expect(read(text, { facts: documentOf(1), rotate: 0, forgiving: true })).toEqual(pages);
  });
});

describe('sections and headings', () => {
  // Pages 1 and 2 are before the first section; section 2 begins and ends on page 6.
  const facts = documentWith(
    Array.from({ length: 12 }, () => ({})),
    [
      { title: 'Opening', level: 1, page: 3, top: 0 },
      { title: 'Terms', level: 2, page: 4, top: 0.5 },
      { title: 'Fees', level: 2, page: 5, top: 0.6 },
      { title: 'Notes', level: 1, page: 6, top: 0.05 },
      { title: 'Annex  “A”', level: 1, page: 6, top: 0.7 },
      { title: 'fees', level: 2, page: 10, top: 0.05 },
      { title: 'Last', level: 2, page: 12, top: 0 },
    ],
  );
  const context = { facts, rotate: 0, forgiving: false };
  const pages = (text: string, forgiving = false): number[] => selectPages(text, { ...context, forgiving });
  const wrongIn = (text: string): SelectionError => errorIn(() => pages(text));

  test.each<[string, number[]]>([
    ['1:', [3, 4, 5]],
    ['2:', [6]],
    ['3:', [6, 7, 8, 9, 10, 11, 12]],
    ['1:2', [4]],
    ['3:1-4', [6, 7, 8, 9]],
    ['3:last', [12]],
    ['3:4-last', [9, 10, 11, 12]],
    ['3:4-2', [9, 8, 7]],
    ['1:3-3:2', [5, 6, 7]],
    ['1:2-3:', [4, 5, 6, 7, 8, 9, 10, 11, 12]],
    ['3: odd', [7, 9, 11]],
    ['section 2', [6]],
    ['section 1 and section 2', [3, 4, 5, 6]],
    ['all but section 3', [1, 2, 3, 4, 5]],
    ['1: x2, 1', [3, 4, 5, 3, 4, 5, 1]],
    ['all but 3:, 1:', [1, 2]],
    // To the page before the next heading of the same or a higher level; that page too where it starts further down.
    ['"Opening"', [3, 4, 5]],
    ['"Terms"', [4, 5]],
    ['"terms"', [4, 5]],
    ['"Notes"', [6]],
    ['\u201cAnnex A\u201d', [6, 7, 8, 9, 10, 11, 12]],
    ['"Last"', [12]],
    // Two headings of one title: both.
    ['"Fees"', [5, 10, 11]],
  ])('%s', (text, expected) => {
    expect(pages(text)).toEqual(expected);
  });

  test.each<[string, number, string | null, string]>([
    ['4:', 0, '3', 'section 4 is not in manual.pdf, which has 3'],
    ['1, 1:4', 5, '3', 'page 4 is not in this section, whose last page is 3'],
    ['1:0', 2, '1', 'page 0 is not in this section, whose last page is 3'],
    ['1:2-', 4, null, 'a range in a section lacks its last page'],
    ['section 4', 8, '3', 'section 4 is not in manual.pdf, which has 3'],
    ['section "Fees"', 8, null, '"section" needs a number'],
    ['"Term"', 0, '"Terms"', '"Term" is not a heading of manual.pdf'],
    ['"Index"', 0, null, '"Index" is not a heading of manual.pdf'],
    ['1, "Fees', 3, '"Fees"', 'this quotation mark is not closed'],
  ])('%s is an error', (text, position, repair, message) => {
    const error = wrongIn(text);
    expect([error.position, error.repair, error.message]).toEqual([position, repair, message]);
  });

  test('a forgiving reading takes what is there', () => {
    expect(pages('9:, "Index", 1:9', true)).toEqual([]);
    expect(pages('3:6-9', true)).toEqual([11, 12]);
    expect(pages('1:2-9:1', true)).toEqual([]);
    expect(pages('3:8-9', true)).toEqual([]);
    expect(pages('1:0-2', true)).toEqual([3, 4]);
  });

  test('a document without an outline has neither', () => {
    expect(errorOf('1:').message).toBe('section 1 is not in manual.pdf, which has no sections');
    expect(errorOf('"Fees"').expected).toBe('page numbers: the document has no headings');
  });
});

describe('printed labels', () => {
  // Front matter in Roman numerals, then two parts that both begin at 1.
  const facts = documentWith(['i', 'ii', 'iii', 'x', '1', '2', '3', '1', '2'].map((label) => ({ label })));
  const context = { facts, rotate: 0, numbering: 'labels' as const, forgiving: false };

  test.each<[string, number[]]>([
    ['1-3', [5, 6, 7]],
    ['ii-2', [2, 3, 4, 5, 6]],
    ['X x2', [4, 4]],
    ['x', [4]],
    ['iii-x, 01', [3, 4, 5]],
    ['3-', [7, 8, 9]],
    ['-ii', [1, 2]],
    ['last', [9]],
    ['all odd', [1, 3, 5, 7, 9]],
  ])('%s', (text, pages) => {
    expect(selectPages(text, context)).toEqual(pages);
  });

  test('a label that is on no page is an error; forgiving, it matches nothing', () => {
    expect(() => selectPages('4', context)).toThrow('no page of manual.pdf is labelled "4"; its last page is 3');
    expect(() => selectPages('xi', context)).toThrow('no page of manual.pdf is labelled "xi"');
    expect(selectPages('4, xi-3, ii', { ...context, forgiving: true })).toEqual([2]);
  });

  test('pages without labels are known by their place', () => {
    expect(selectPages('2-3', { ...context, facts: documentOf(4) })).toEqual([2, 3]);
  });

  test('without labels, such words have no meaning', () => {
    expect(errorOf('ii').message).toBe('"ii" is not a word of the selection');
    expect(errorOf('1 iv').message).toBe('"iv" is not a word of the selection');
  });
});

describe('filters by what is on the page', () => {
  const facts = documentWith([
    { color: true, blank: false },
    { color: false, blank: true, ...A3 },
    { color: false, blank: false, ...turned(A3) },
    { color: true, blank: false, ...LETTER },
    { color: false, blank: false, width: 595, height: 842 },
  ]);
  const read = (text: string): number[] => selectPages(text, { facts, rotate: 0, forgiving: false });

  test.each<[string, number[]]>([
    ['color', [1, 4]],
    ['all colour', [1, 4]],
    ['blank', [2]],
    ['all but blank', [1, 3, 4, 5]],
    ['size A4', [1, 5]],
    ['all size a3 landscape', [3]],
    ['size letter, size iso_a3_297x420mm', [4, 2, 3]],
    ['size iso_a3', [2, 3]],
    ['size a5, 1', [1]],
  ])('%s', (text, pages) => {
    expect(read(text)).toEqual(pages);
  });

  test('a size of no name is an error with the nearest one', () => {
    try {
      read('all size lett');
    } catch (error) {
      expect(error).toMatchObject({
        position: 9,
        length: 4,
        repair: 'letter',
        message: 'no paper size is called "lett"',
      });
    }
    expect(() => read('all size lett')).toThrow(SelectionError);
    expect(() => read('all size')).toThrow('"size" needs a name');
    expect(() => read('size zz')).toThrow('no paper size is called "zz"');
  });

  test('what is not known of a document is said, not guessed', () => {
    expect(errorOf('all color').message).toBe('whether page 1 of manual.pdf holds colour is not known yet');
    expect(errorOf('blank').message).toBe('whether page 1 of manual.pdf is blank is not known yet');
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
    ['', 0, 'all'],
    ['  ', 0, 'all'],
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
    expect(errorOf(`all${' x9999'.repeat(200)}`).message).toContain('more than 100000 pages');
    expect(errorOf('1-4 x25000').repair).toBe('9999');
    expect(read('1-10 x2 x5 x1000')).toHaveLength(100_000);
    expect(errorOf('1-10 x2 x5 x1000, 1').message).toContain('more than 100000 pages');
    const long = { facts: documentOf(100_000), rotate: 0, forgiving: false };
    expect(() => selectPages(`all but ${'1-, '.repeat(20)}1`, long)).toThrow('more than 1000000 pages');
    expect(() => selectPages('2 odd x9999 x9999', long)).toThrow('this chooses no page');
  });

  test('law: no text makes the reader throw anything but its own error', () => {
    const piece = fc.constantFrom(
      ...['1', '12', '-', ',', 'x', 'all', 'but', 'odd', 'last', '(', ')', ' ', '\u2013', 'é', ':', '"', 'size', 'a4'],
      ...['"Fees"', '2:', 'colour', 'blank', 'portrait', 'iv'],
    );
    const outline = [
      { title: 'Fees', level: 1, page: 2, top: 0 },
      { title: 'Terms', level: 1, page: 5, top: 0 },
    ];
    const facts = documentWith(
      Array.from({ length: 10 }, (_, index) => ({ label: `${index + 1}`, color: true })),
      outline,
    );
    const text = fc.oneof(
      fc.string(),
      fc.array(piece, { maxLength: 40 }).map((parts) => parts.join('')),
    );
    fc.assert(
      fc.property(
        text,
        fc.constantFrom('position' as const, 'labels' as const),
        fc.boolean(),
        (any, numbering, forgiving) => {
          try {
            const pages = read(any, { facts, rotate: 0, numbering, forgiving });
            if (forgiving && pages.length === 0) return true;
            return pages.length > 0 && pages.every((page) => page >= 1 && page <= 10);
          } catch (error) {
            return error instanceof SelectionError && error.position >= 0 && error.position <= any.length;
          }
        },
      ),
      { numRuns: 5000 },
    );
  });
});

describe('writing a selection', () => {
  // Rows that repeat, rise, fall or skip, as people's do, besides pages at random.
  const page = fc.integer({ min: 1, max: 10 });
  const random = fc.array(page, { minLength: 1, maxLength: 40 });
  const repeated = fc
    .tuple(fc.array(page, { minLength: 1, maxLength: 4 }), fc.integer({ min: 1, max: 9 }))
    .map(([row, times]) => Array.from({ length: times }, () => row).flat());
  const gaps = fc.uniqueArray(page, { minLength: 1 }).map((list) => list.sort((a, b) => a - b));
  const lists = fc.oneof(
    random,
    repeated,
    gaps,
    fc.tuple(gaps, repeated).map((both) => both.flat()),
  );

  test.each<[number[], string]>([
    [[1, 2, 3, 4, 5, 6, 7, 8, 9, 10], 'all'],
    [[1, 2, 3], '1-3'],
    [[8, 9, 10], '8-'],
    [[5, 4, 3], '5-3'],
    [[1, 3, 5], '1, 3, 5'],
    [[7], '7'],
    [[1, 1], '1, 1'],
    [[1, 1, 1], '1 x3'],
    [[1, 2, 1, 2, 1, 2], '1-2 x3'],
    [[1, 5, 1, 5, 1, 5], '(1, 5) x3'],
    [[1, 3, 5, 7, 9], 'all odd'],
    [[2, 4, 6, 8, 10], 'all even'],
    [[4, 6, 8, 10], '4- even'],
    [[3, 5, 7, 9], '3- odd'],
    [[3, 5, 7, 9, 2, 4, 6, 8], '3- odd, 2-8 even'],
    [[1, 2, 4, 5, 7, 8, 10], 'all but 3, 6, 9'],
    [[2, 4, 5, 7, 8, 10], '2- but 3, 6, 9'],
    [[2, 3, 5, 6, 8, 9], '2-9 but 4, 7'],
    [[], ''],
  ])('%j', (pages, text) => {
    expect(writeSelection(pages, 10)).toBe(text);
  });

  test('law: reading back what was written gives the same pages; it is no longer than the pages one by one', () => {
    fc.assert(
      fc.property(lists, (pages) => {
        const text = writeSelection(pages, 10);
        expect(read(text)).toEqual(pages);
        expect(text.length).toBeLessThanOrEqual(pages.join(', ').length);
      }),
      { numRuns: 5000 },
    );
  });

  test('in words', () => {
    expect(sayPages([1, 2, 3, 5])).toBe('pages 1 to 3, then 5; 4 pages');
    expect(sayPages([5, 4, 3, 2])).toBe('pages 5 to 2 backwards; 4 pages');
    expect(sayPages([1, 1, 1, 4])).toBe('pages 1 (3 times), then 4; 4 pages');
    expect(sayPages([1, 3, 5, 7, 2])).toBe('pages every second from 1 to 7, then 2; 5 pages');
    expect(sayPages([7])).toBe('page 7');
    expect(sayPages([])).toBe('no pages');
    expect(listPages([1, 6, 9, 10, 11])).toBe('pages 1, 6 and 9 to 11');
    expect(listPages([4])).toBe('page 4');
  });
});
