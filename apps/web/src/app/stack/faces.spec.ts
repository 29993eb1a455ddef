import type { DeliveredSheet } from '@foglio/api';
import { facesOf } from './faces';

const sheet = (change: Partial<DeliveredSheet>): DeliveredSheet => ({
  job: 7,
  document: 1,
  index: 1,
  set: 1,
  tray: 'tray-1',
  sides: 'one-sided',
  front: 3,
  back: null,
  upper: null,
  lower: null,
  spoilt: false,
  at: '2026-11-25T10:00:00Z',
  ...change,
});
const face = (job: number, page: number) => ({ job, document: 1, page });

test('of a sheet printed at once both faces are of its own job', () => {
  expect(facesOf(sheet({ back: 4 }))).toEqual({ front: face(7, 3), back: face(7, 4) });
  expect(facesOf(sheet({ lower: face(7, 3) }))).toEqual({ front: face(7, 3), back: null });
});

test('of a sheet that went through twice, what was printed last is the back of what was there', () => {
  const both = sheet({ upper: face(6, 2), lower: face(7, 3) });
  expect(facesOf(both)).toEqual({ front: face(6, 2), back: face(7, 3) });
  expect(facesOf({ ...both, upper: both.lower, lower: both.upper })).toEqual(facesOf(both));
});
