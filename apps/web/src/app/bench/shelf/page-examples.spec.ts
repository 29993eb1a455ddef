import { selectPages, type DocumentFacts } from '@foglio/core';
import { examplesOf } from './page-examples';

const documentOf = (pages: number, ...titles: readonly string[]): DocumentFacts => ({
  name: 'a.pdf',
  pages: Array.from({ length: pages }, () => ({ width: 595, height: 842 })),
  outline: titles.map((title, index) => ({ title, level: 1, page: index + 1, top: 0 })),
});

test.each<[number, readonly string[], readonly string[]]>([
  [1, [], []],
  [2, [], ['1 to 2', '1, last', '1 x4']],
  [14, [], ['2 to 4', '1, last', 'all but 3']],
  [14, ['Letter', 'A heading that is long'], ['section 2', '"Letter"', '2 to 4']],
])('of %i pages with the headings %j: %j', (pages, titles, examples) => {
  expect(examplesOf(documentOf(pages, ...titles))).toEqual(examples);
});

test('each can be written as it stands', () => {
  const facts = documentOf(9, 'One', 'Two');
  for (const text of examplesOf(facts))
    expect(selectPages(text, { facts, rotate: 0, forgiving: false })).not.toEqual([]);
});
