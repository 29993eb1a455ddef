import { collection, integer, keyword, rangeOf, type Attributes } from '@foglio/ipp';
import { sheetsOfJob, type ReceivedDocument, type SheetsOfJob, type SheetToPrint } from '../src/sheet-order';

const A4 = { x: 21000, y: 29700 };
const documentOf = (pages: number, attributes: Attributes = {}): ReceivedDocument => ({
  attributes,
  pages: Array.from({ length: pages }, () => A4),
});

const listOf = ({ count, sheet }: SheetsOfJob): SheetToPrint[] =>
  Array.from({ length: count }, (_, index) => sheet(index));

const brief = (attributes: Attributes, pages: number): string[] =>
  listOf(sheetsOfJob(attributes, [documentOf(pages)])).map(
    ({ set, source, front, back }) => `${set} ${source ?? 'any'}: ${front}${back ? `|${back}` : ''}`,
  );

const from = (source: string) => [collection({ 'media-source': [keyword(source)] })];

test('without attributes: a sheet a page, from any tray', () => {
  expect(brief({}, 3)).toEqual(['1 any: 1', '1 any: 2', '1 any: 3']);
});

test('two-sided: pages in pairs, the last alone', () => {
  expect(brief({ sides: [keyword('two-sided-long-edge')] }, 3)).toEqual(['1 any: 1|2', '1 any: 3']);
});

test('overrides lie over the job’s own; pages of different settings share no sheet (PWG 5100.6)', () => {
  const attributes = {
    sides: [keyword('two-sided-long-edge')],
    'media-col': from('tray-1'),
    overrides: [
      collection({ pages: [rangeOf(2, 2)], 'media-col': from('tray-2') }),
      collection({ pages: [rangeOf(5, 6)], sides: [keyword('one-sided')] }),
    ],
  };
  expect(brief(attributes, 7)).toEqual([
    '1 tray-1: 1',
    '1 tray-2: 2',
    '1 tray-1: 3|4',
    '1 tray-1: 5',
    '1 tray-1: 6',
    '1 tray-1: 7',
  ]);
});

test('copies in sets, or sheet by sheet', () => {
  const copies = [integer(2)];
  expect(brief({ copies }, 2)).toEqual(['1 any: 1', '1 any: 2', '2 any: 1', '2 any: 2']);
  expect(brief({ copies, 'sheet-collate': [keyword('uncollated')] }, 2)).toEqual([
    '1 any: 1',
    '2 any: 1',
    '1 any: 2',
    '2 any: 2',
  ]);
});

test('of 2,000 pages 9,999 times each sheet is found when it is its turn, in sets and sheet by sheet', () => {
  const copies = { copies: [integer(9_999)] };
  const told = (attributes: Attributes, index: number) => {
    const { set, document, front } = sheetsOfJob(attributes, [documentOf(1_500), documentOf(500)]).sheet(index);
    return [set, document, front];
  };
  expect(sheetsOfJob(copies, [documentOf(2_000)]).count).toBe(19_998_000);
  expect([told(copies, 0), told(copies, 1_500), told(copies, 19_997_999)]).toEqual([
    [1, 1, 1],
    [1, 2, 1],
    [9_999, 2, 500],
  ]);
  const uncollated = { ...copies, 'sheet-collate': [keyword('uncollated')] };
  expect([told(uncollated, 9_998), told(uncollated, 9_999)]).toEqual([
    [9_999, 1, 1],
    [1, 1, 2],
  ]);
  const byDocument = { ...copies, 'multiple-document-handling': [keyword('separate-documents-uncollated-copies')] };
  expect([told(byDocument, 1_500), told(byDocument, 1_500 * 9_999)]).toEqual([
    [2, 1, 1],
    [1, 2, 1],
  ]);
});
