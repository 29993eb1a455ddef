import type { SheetsRecord } from '@foglio/api';
import { writeMarks } from '@foglio/core';
import { markedAs, NOTHING_MARKED, pressed, sayPages, written } from './sheet-marks';

const sheet = (front: number, back: number | null, document = 1): SheetsRecord['sheets'][number] => ({
  tray: 'tray-1',
  slip: false,
  orientation: 'portrait',
  front: [{ document, page: front }],
  back: back === null ? null : [{ document, page: back }],
});
const RECORD: SheetsRecord = {
  sets: 2,
  documents: ['contract.pdf'],
  sheets: [sheet(1, 2), sheet(3, 4), sheet(5, null)],
  prints: null,
  missing: null,
};

test('a sheet is marked, and marked no more', () => {
  const one = pressed(NOTHING_MARKED, { set: 2, sheet: 3 }, false, RECORD);
  expect(one.text).toBe('2:3');
  expect(pressed(one, { set: 2, sheet: 3 }, false, RECORD).text).toBe('');
});

test('Shift marks the stretch from the one before, either way and over the end of a set', () => {
  const one = pressed(NOTHING_MARKED, { set: 1, sheet: 2 }, false, RECORD);
  expect(pressed(one, { set: 2, sheet: 1 }, true, RECORD).text).toBe('2-3, 2:1');
  expect(pressed(one, { set: 1, sheet: 1 }, true, RECORD).text).toBe('1-2');
  // Without one before it is as without Shift.
  expect(pressed(NOTHING_MARKED, { set: 1, sheet: 2 }, true, RECORD).text).toBe('2');
});

test('a line is read as it is written; one that cannot be keeps what was marked, and says why', () => {
  const before = written(NOTHING_MARKED, '1, 2:2-3', RECORD);
  expect(writeMarks(before.marks)).toBe('1, 2:2-3');
  const wrong = written(before, '1, 2:4', RECORD);
  expect(wrong).toMatchObject({ text: '1, 2:4', marks: before.marks });
  expect(wrong.trouble).toBe('“2:4” is not there: there are sheets 1 to 3.');
  expect(written(wrong, ' ', RECORD)).toMatchObject({ marks: [], trouble: null });
});

test('what is marked is said by its pages, of several documents with their names', () => {
  const { marks } = written(NOTHING_MARKED, '1-2', RECORD);
  expect(sayPages(marks, RECORD)).toBe('pages 1 to 4');
  expect(sayPages(written(NOTHING_MARKED, '3', RECORD).marks, RECORD)).toBe('page 5');
  const two = { documents: ['a.pdf', 'b.pdf'], sheets: [sheet(1, 2), sheet(7, null, 2)] };
  expect(sayPages(marks, two)).toBe('pages 1 to 2 of a.pdf, page 7 of b.pdf');
  expect(sayPages(markedAs([]).marks, RECORD)).toBe('');
});
