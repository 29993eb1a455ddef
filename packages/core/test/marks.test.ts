import fc from 'fast-check';
import {
  countMarked,
  isMarked,
  marksFrom,
  marksOf,
  marksOfSheets,
  MarksError,
  minusMarks,
  parseMarks,
  plusMarks,
  sayMarks,
  writeMarks,
} from '../src';
import { RUNS } from './any-job';

const WHOLE = { sets: 2, sheets: 9 };

test.each([
  ['7-8, 2:1', '7-8, 2:1', '7 and 8 of set 1, 1 of set 2', 3],
  ['8,7', '7-8', '7 and 8 of set 1', 2],
  ['3, 1-4; 6', '1-4, 6', '1 to 4 and 6 of set 1', 5],
  ['2:all', '2:1-9', '1 to 9 of set 2', 9],
  ['all:5', '1-2:5', '5 of sets 1 and 2', 2],
  ['1 – 2 : 2', '1-2:2', '2 of sets 1 and 2', 2],
  ['5, 2:5, 2:7', '5, 2:5, 2:7', '5 of set 1, 5 and 7 of set 2', 3],
])('“%s” marks %s: %s', (text, written, said, count) => {
  const marks = parseMarks(text, WHOLE);
  expect(writeMarks(marks)).toBe(written);
  expect(sayMarks(marks, WHOLE)).toBe(said);
  expect(countMarked(marks)).toBe(count);
});

test('of one set nothing is said of sets', () => {
  expect(sayMarks(parseMarks('2-4, 6', { sets: 1, sheets: 9 }), { sets: 1 })).toBe('2 to 4 and 6');
});

test.each([
  ['', 'No sheet is named'],
  [' , ', 'No sheet is named'],
  ['7-x', '“7-x” is no sheet: write numbers'],
  ['b:1', '“b:1” is no set: write numbers'],
  ['8-7', '“8-7” runs backwards: write “7-8”.'],
  ['10', '“10” is not there: there are sheets 1 to 9.'],
  ['0', '“0” is not there: there are sheets 1 to 9.'],
  ['3:1', '“3:1” is not there: there are sets 1 to 2.'],
  ['1:2:3', '“1:2:3” has two colons'],
])('“%s” is refused: %s', (text, message) => {
  expect(() => parseMarks(text, WHOLE)).toThrow(MarksError);
  expect(() => parseMarks(text, WHOLE)).toThrow(message);
});

test('sheets and sets by themselves; what is left out is all', () => {
  expect(writeMarks(marksOf({ sheets: '3-4', sets: '2' }, WHOLE))).toBe('2:3-4');
  expect(writeMarks(marksOf({ sheets: '3, 5' }, WHOLE))).toBe('1-2:3, 1-2:5');
  expect(writeMarks(marksOf({ sets: '2' }, WHOLE))).toBe('2:1-9');
  expect(() => marksOf({ sets: '2' }, { sets: 1, sheets: 9 })).toThrow('“2” is not there: there is only one set.');
});

test('from a sheet on: all that follow, in its set and in those after it', () => {
  expect(writeMarks(marksFrom({ set: 1, sheet: 7 }, WHOLE))).toBe('7-9, 2:1-9');
  expect(writeMarks(marksFrom({ set: 2, sheet: 9 }, WHOLE))).toBe('2:9');
});

const sheet = fc.record({ set: fc.integer({ min: 1, max: 6 }), sheet: fc.integer({ min: 1, max: 12 }) });

test('law: what is marked is marked, once, and is read again as it is written', () => {
  fc.assert(
    fc.property(fc.array(sheet, { minLength: 1, maxLength: 30 }), (sheets) => {
      const marks = marksOfSheets(sheets);
      const wanted = new Set(sheets.map((one) => `${one.set}:${one.sheet}`));
      expect(countMarked(marks)).toBe(wanted.size);
      for (let set = 1; set <= 6; set += 1) {
        for (let one = 1; one <= 12; one += 1) {
          expect(isMarked(marks, { set, sheet: one })).toBe(wanted.has(`${set}:${one}`));
        }
      }
      const [some, others] = [marksOfSheets(sheets.slice(0, 3)), marksOfSheets(sheets.slice(3).concat(sheets[0]!))];
      expect(plusMarks(some, others)).toEqual(marks);
      const left = minusMarks(marks, some);
      expect(countMarked(left)).toBe(countMarked(marks) - countMarked(some));
      expect(plusMarks(left, some)).toEqual(marks);
      expect(parseMarks(writeMarks(marks), { sets: 6, sheets: 12 })).toEqual(marks);
    }),
    RUNS,
  );
});
