import { commonSpans, daysFrom, localDate, localDay, periodsBetween, sayDay, sayPeriod } from './days';

test.each([
  ['2026-09-01', '2026-09-21', 'week', ['2026-08-31', '2026-09-07', '2026-09-14', '2026-09-21']],
  // The first week of 2027 begins on the fourth of January; the one before it in 2026 (ISO 8601, 53 weeks).
  ['2026-12-28', '2027-01-04', 'week', ['2026-12-28', '2027-01-04']],
  ['2026-02-27', '2026-03-01', 'day', ['2026-02-27', '2026-02-28', '2026-03-01']],
  ['2028-02-28', '2028-03-01', 'day', ['2028-02-28', '2028-02-29', '2028-03-01']],
  ['2026-11-15', '2027-01-02', 'month', ['2026-11-01', '2026-12-01', '2027-01-01']],
  // Where clocks are put back a day has 25 hours, and is still one.
  ['2026-10-24', '2026-10-26', 'day', ['2026-10-24', '2026-10-25', '2026-10-26']],
] as const)('from %s to %s by the %s', (from, to, step, periods) => {
  expect(periodsBetween(from, to, step)).toEqual(periods);
});

test.each([
  [null, null, { from: '2026-10-01', to: '2026-12-01' }],
  ['2026-11-05', null, { from: '2026-11-05', to: '2026-12-01' }],
  // In the other order they are the same days.
  ['2026-11-05', '2026-11-01', { from: '2026-11-01', to: '2026-11-05' }],
  ['2026-02-31', 'yesterday', { from: '2026-10-01', to: '2026-12-01' }],
])('an address with %s and %s', (from, to, days) => expect(daysFrom(from, to, '2026-12-01')).toEqual(days));

test('a day is the same day on the calendar of this machine, whatever its hour', () => {
  expect(localDay(localDate('2026-03-29'))).toBe('2026-03-29');
  expect(localDay(new Date(2026, 0, 5, 23, 59))).toBe('2026-01-05');
});

test('days and periods in words', () => {
  expect(sayDay('2026-09-01', '2026-12-01')).toBe('1 September 2026');
  expect(sayDay('2026-12-01', '2026-12-01')).toBe('today');
  expect(sayPeriod('2026-08-31', 'week')).toBe('31 Aug');
  expect(sayPeriod('2026-12-01', 'month')).toBe('Dec 2026');
});

test('spans that are often asked for', () => {
  const spans = (since: string | null) =>
    commonSpans('2026-03-01', since).map(({ name, from, to }) => [name, from, to]);
  expect(spans('2025-05-04')).toEqual([
    ['this month', '2026-03-01', '2026-03-01'],
    ['last month', '2026-02-01', '2026-02-28'],
    ['three months', '2026-01-01', '2026-03-01'],
    ['this year', '2026-01-01', '2026-03-01'],
    ['all there is', '2025-05-04', '2026-03-01'],
  ]);
  expect(spans(null)).toHaveLength(4);
});
