import type { PageFacts } from '@foglio/core';
import { picksOf, sayPrinted, ticked } from './page-picks';

const A4: PageFacts = { width: 595, height: 842 };
const A3: PageFacts = { width: 842, height: 1191 };

const offered = (pages: readonly PageFacts[], rotate = 0): string =>
  picksOf(pages, rotate)
    .map(({ label, pages: rule, some }) => (some ? `${label}: ${rule}` : `${label}: none`))
    .join(', ');

test.each<[string, readonly PageFacts[], number]>([
  ['All: all, Odd: none, Even: none', [A4], 0],
  ['All: all, Odd: odd, Even: even', [A4, A4], 0],
  [
    'All: all, Odd: odd, Even: even, Landscape: all landscape, Portrait: all portrait',
    [A4, { width: 842, height: 595 }],
    90,
  ],
  ['All: all, Odd: odd, Even: even, With colour: all color', [A4, { ...A4, color: true }], 0],
  ['All: all, Odd: odd, Even: even, A4: all size a4, A3: all size a3', [A4, A3], 0],
  // A size without a name cannot be written in a selection.
  ['All: all, Odd: odd, Even: even, A4: all size a4', [A4, { width: 300, height: 400 }], 0],
])('%s', (said, pages, rotate) => {
  expect(offered(pages, rotate)).toBe(said);
});

test('where all pages are printed, there is none to add: all can be taken back, to choose some', () => {
  expect(picksOf([A4, A4], 0, true)[0]).toEqual({ label: 'None', pages: '', some: true });
  // A document of one page is printed or taken out.
  expect(picksOf([A4], 0, true)[0]).toMatchObject({ label: 'None', some: false });
});

test('never more pages are printed than there are: one that is printed twice is told apart', () => {
  expect(sayPrinted([1, 3], 14)).toBe('2 of 14 printed');
  expect(sayPrinted([1, 2, 1, 2], 2)).toBe('2 of 2, 4 printed');
});

test('a page that is ticked takes its place among rising pages, and comes last in an order of one’s own', () => {
  expect(ticked([1, 2, 5], [4, 2], true)).toEqual([1, 2, 4, 5]);
  expect(ticked([5, 1, 2], [3], true)).toEqual([5, 1, 2, 3]);
  expect(ticked([5, 1, 2, 1], [1], false)).toEqual([5, 2]);
});
