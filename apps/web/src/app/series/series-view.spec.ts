import type { JobDocument, SeriesRecord, SeriesRow } from '@foglio/api';
import { planRow, type RowOutcome } from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { areSameRows, keepSame, progressOf, rowsToPlan, rowViews, wholeOf, type SeriesParts } from './series-view';

const profile = readPrinter({
  jobs: { overrides: ['media-col', 'sides'] },
  name: 'Upper office',
  trays: [
    { id: 'tray-1', name: 'Tray 1', size: 'iso_a4_210x297mm', loaded: 10, price: 0.01 },
    { id: 'tray-2', name: 'Tray 2', size: 'iso_a4_210x297mm', loaded: 10 },
  ],
});

const documentOf = (id: string, count: number): JobDocument => ({
  id,
  name: `${id}.pdf`,
  pages: Array.from({ length: count }, () => ({ width: 595.276, height: 841.89 })),
  outline: [],
  about: {},
  remarks: [],
  sha256: '',
  read: count,
});

const ticketOf = (file: string) =>
  readTicket({
    version: 1,
    documents: [{ file }],
    routes: [{ name: 'Cover', document: 1, pages: '3', tray: 'tray-2' }],
  });

const rowOf = (id: string, change: Partial<SeriesRow> = {}): SeriesRow => ({
  id,
  name: `${id}.pdf`,
  trouble: null,
  skipped: false,
  changed: false,
  file: id,
  jobId: id,
  ticket: ticketOf(id),
  sending: null,
  ...change,
});

const sending = (state: string, sheets: number, sheetsDone: number, message: string | null = null) =>
  ({ id: 'd', state, sheets, sheetsDone, message }) as SeriesRow['sending'];

const seriesOf = (rows: SeriesRow[], state: SeriesRecord['state'] = 'draft'): SeriesRecord => ({
  id: 's',
  title: 'Contracts',
  printerId: 'p',
  state,
  message: null,
  revision: 1,
  createdAt: '',
  startedAt: null,
  setup: ticketOf('*'),
  rows,
});

function partsOf(rows: SeriesRow[], documents: JobDocument[]): SeriesParts {
  const series = seriesOf(rows);
  const planned = rowsToPlan({ series, documents });
  const outcomes = new Map<string, RowOutcome>(
    planned.map(({ id, ticket, documents: facts }) => [id, planRow(ticket, facts, profile, 'ipp://office')]),
  );
  return { series, documents, outcomes, profile };
}

test('a row tells its pages, sheets, trays and cost, and what is wrong with it', () => {
  const rows = [
    rowOf('a'),
    rowOf('short'),
    rowOf('bad', { file: null, jobId: null, ticket: null, trouble: 'Damaged.' }),
  ];
  const views = rowViews(partsOf(rows, [documentOf('a', 4), documentOf('short', 2)]));
  expect(views.map(({ number, pages, sheets, cost, mark, said }) => [number, pages, sheets, cost, mark, said])).toEqual(
    [
      [1, '4', '4', '€ 0.03', 'ready', 'nothing to settle'],
      [2, '2', '', '', 'unfit', expect.stringMatching(/^Cover: page 3 is not in short\.pdf, whose last page is 2;/)],
      [3, '', '', '', 'unfit', 'Damaged.'],
    ],
  );
  expect(views[0]!.trays.map(({ mark, said }) => [mark, said])).toEqual([
    ['1', 'Tray 1: 3 sheets'],
    ['2', 'Tray 2: 1 sheet'],
  ]);
});

test('the whole counts what is printed, and what keeps the rest from being sent', () => {
  const rows = [rowOf('a'), rowOf('b'), rowOf('c', { skipped: true }), rowOf('short')];
  const documents = ['a', 'b', 'c', 'short'].map((id) => documentOf(id, id === 'short' ? 2 : 6));
  const whole = wholeOf(partsOf(rows, documents))!;
  expect([whole.tally.files, whole.tally.sheets, whole.unfit, whole.planned, whole.toPrint]).toEqual([2, 12, 1, 3, 3]);
  const leftOut = wholeOf(partsOf([...rows.slice(0, 3), rowOf('short', { skipped: true })], documents))!;
  expect([leftOut.unfit, leftOut.readPages, leftOut.allPages]).toEqual([0, 20, 20]);
  const three = wholeOf(partsOf([rowOf('a'), rowOf('b'), rowOf('c')], documents))!;
  expect(three.checks.map(({ message }) => message)).toEqual([
    'Tray 1 holds 10 of the 15 sheets needed; it runs out at c.pdf.',
  ]);
});

test('how far it is, what went wrong and what the printer needs', () => {
  const rows = [
    rowOf('a', { sending: sending('completed', 5, 5) }),
    rowOf('b', { sending: sending('aborted', 5, 2, 'Torn.') }),
    rowOf('c', { sending: sending('printing', 5, 1, 'Paper is jammed.') }),
    rowOf('d', { sending: sending('queued', 5, 0) }),
  ];
  expect(progressOf(seriesOf(rows, 'paused'))).toMatchObject({
    filesDone: 1,
    files: 4,
    sheetsDone: 8,
    sheets: 20,
    percent: 40,
    broken: { id: 'b' },
    fault: 'Paper is jammed.',
  });
  expect(progressOf(seriesOf(rows, 'running')).broken).toBeNull();
  const [, torn] = rowViews({ ...partsOf(rows, []), series: seriesOf(rows, 'paused') });
  expect([torn!.mark, torn!.said]).toEqual(['unfit', 'aborted by the printer, 2 of 5 sheets. Torn.']);
});

test('rows that are as they were stay the same objects', () => {
  const before = seriesOf([rowOf('a'), rowOf('b')]);
  const after = keepSame(before, seriesOf([rowOf('a'), rowOf('b', { skipped: true })]));
  expect(after.rows[0]).toBe(before.rows[0]);
  expect(after.rows[1]).not.toBe(before.rows[1]);
});

test('a file that is being printed is not planned anew, and one that is set up otherwise is', () => {
  const documents = [documentOf('a', 4)];
  const before = seriesOf([rowOf('a')]);
  const planned = rowsToPlan({ series: before, documents });
  const printing = keepSame(before, seriesOf([rowOf('a', { sending: sending('printing', 4, 1) })], 'running'));
  expect(areSameRows(planned, rowsToPlan({ series: printing, documents }))).toBe(true);
  const changed = keepSame(before, seriesOf([rowOf('a', { ticket: { ...ticketOf('a'), copies: 2 } })]));
  expect(areSameRows(planned, rowsToPlan({ series: changed, documents }))).toBe(false);
  expect(areSameRows(planned, rowsToPlan({ series: before, documents: [documentOf('a', 4)] }))).toBe(false);
});
