import { boolean, integer, keyword, rangeOf, type Attributes } from '../src';
import { takesValues, withinOctets } from '../src/serving';
import { dateTime } from '../src/serving/moments';
import { requested } from '../src/serving/requested';

test('a moment is DateAndTime in Universal Time', () => {
  // RFC 2579, section 2, has "1992-5-26,13:30:15.0,-4:0": the same moment in Universal Time.
  const moment = dateTime(new Date('1992-05-26T13:30:15-04:00'));
  expect(moment).toEqual({
    tag: 'dateTime',
    value: Uint8Array.from([0x07, 0xc8, 5, 26, 17, 30, 15, 0, 0x2b, 0, 0]),
  });
});

const media = (members: Attributes): Attributes[string] => [{ tag: 'collection', value: members }];
const size = (x: number, y = 29_700): Attributes => ({ 'x-dimension': [integer(x)], 'y-dimension': [integer(y)] });

const TOLD: Attributes = {
  'copies-supported': [rangeOf(1, 99)],
  'sides-supported': ['one-sided', 'two-sided-long-edge'].map(keyword),
  'media-source-supported': ['auto', 'tray-1'].map(keyword),
  'media-size-supported': [
    ...media(size(21_000)),
    ...media({ 'x-dimension': [rangeOf(5000, 9000)], 'y-dimension': [rangeOf(5000, 9000)] }),
  ],
};

test.each<[string, Attributes[string], boolean]>([
  ['copies', [integer(99)], true],
  ['copies', [integer(0)], false],
  ['copies', [integer(100)], false],
  ['copies', [keyword('3')], false],
  ['sides', [keyword('one-sided')], true],
  ['sides', [keyword('two-sided-short-edge')], false],
  ['sides', [], false],
  // RFC 8011, 5.2.7: ascending, and none over another.
  ['page-ranges', [rangeOf(1, 2), rangeOf(4, 4)], true],
  ['page-ranges', [rangeOf(4, 4), rangeOf(1, 2)], false],
  ['page-ranges', [rangeOf(1, 5), rangeOf(5, 6)], false],
  ['page-ranges', [rangeOf(0, 5)], false],
  ['page-ranges', [rangeOf(3, 2)], false],
  ['media-col', media({ 'media-source': [keyword('tray-1')] }), true],
  ['media-col', media({ 'media-source': [keyword('tray-9')] }), false],
  ['media-col', media({ 'media-size': media(size(21_000)) }), true],
  // Half a millimetre is lost on the way, and the paper may lie either way.
  ['media-col', media({ 'media-size': media(size(20_990, 29_704)) }), true],
  ['media-col', media({ 'media-size': media(size(29_700, 21_000)) }), true],
  ['media-col', media({ 'media-size': media(size(21_200)) }), false],
  ['media-col', media({ 'media-size': media(size(5500, 8500)) }), true],
  ['media-col', media({ 'media-size': media(size(5500, 9100)) }), false],
  ['media-col', media({ 'media-size': media(size(-1)) }), false],
  ['overrides', Array.from({ length: 501 }, () => integer(1)), false],
  ['media-col', [keyword('iso_a4_210x297mm')], false],
  ['job-sheets', [keyword('none')], false],
])('%s of %j is taken: %s', (name, values, taken) => {
  expect(takesValues(TOLD, name, values)).toBe(taken);
});

test('attributes are asked for one by one, or by their groups; what is long only by its name', () => {
  const all: Attributes = {
    'printer-name': [keyword('x')],
    'charset-supported': [keyword('x')],
    'sides-supported': [keyword('x')],
    'sides-default': [keyword('x')],
    'media-col-database': [keyword('x')],
    'color-supported': [boolean(true)],
  };
  const names = (...wanted: string[]): string[] =>
    Object.keys(requested(all, { 'requested-attributes': wanted.map(keyword) }, 'printer'));
  expect(names()).toEqual(Object.keys(all).filter((name) => name !== 'media-col-database'));
  expect(names('all')).toEqual(names());
  expect(names('job-template')).toEqual(['sides-supported', 'sides-default']);
  expect(names('printer-description')).toEqual(['printer-name', 'charset-supported', 'color-supported']);
  expect(names('media-col-database', 'printer-name')).toEqual(['printer-name', 'media-col-database']);
  expect(names('nothing-known')).toEqual([]);
});

test.each([
  ['Desk', 127, 'Desk'],
  ['Büro', 4, 'Bür'],
  ['Büro', 2, 'B'],
  ['€€', 5, '€'],
])('%j within %i octets is %j', (text, most, cut) => {
  expect(withinOctets(text, most)).toBe(cut);
});
