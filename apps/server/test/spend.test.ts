import { randomUUID } from 'node:crypto';
import type { SpendRecord } from '@foglio/api';
import { plan, setupOf, type Portion, type Printer } from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { eq, sql } from 'drizzle-orm';
import supertest from 'supertest';
import { contents, files, jobs, printers, sendings, setups } from '../src/database/schema';
import { spent } from '../src/database/spent-schema';
import { log } from '../src/log';
import { stepOf } from '../src/spend/spend-store';
import { PROFILE, startServer, type RunningServer } from './running-server';
import { until } from './until';

/** What was delivered, counted once it is over, and added up. */

let server: RunningServer;
const printer: Printer = readPrinter({
  ...PROFILE,
  color: true,
  duplex: true,
  prices: { mono: 0.011, color: 0.057, blackOfColors: 'mono' as const },
  trays: [
    { ...PROFILE.trays[0]!, type: 'stationery', price: 0.0123 },
    { ...PROFILE.trays[1]!, type: 'stationery-letterhead', price: 0.04 },
  ],
});

beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());
beforeEach(async () => {
  await server.db.delete(sendings);
  await server.db.delete(spent);
});

interface Made {
  readonly title?: string;
  readonly settings?: object;
  readonly sheets: number;
  readonly done?: number;
  readonly state?: 'completed' | 'aborted' | 'uncertain' | 'printing';
  readonly on?: string;
  readonly againOf?: string;
  readonly portion?: Portion;
  readonly printerId?: string;
  readonly message?: string;
}

/** A sending of eight grey pages, of which the first is coded in colour, that is over. */
async function delivered(made: Made, profile: Printer = printer): Promise<string> {
  const { title = 'Minutes', settings = {}, sheets, done = sheets, state = 'completed', on = '2026-09-01' } = made;
  const { againOf, portion, printerId = 'test-office', message = null } = made;
  const page = { width: 595.276, height: 841.89, smallestText: 10 };
  const pages = Array.from({ length: 8 }, (_, at) =>
    at > 0 ? { ...page, color: false } : { ...page, color: true, looksGray: true },
  );
  const [content] = await server.db.insert(contents).values({ pages, detailsRead: 8 }).returning();
  const [file] = await server.db.insert(files).values({ contentId: content!.id, name: 'minutes.pdf' }).returning();
  const ticket = readTicket({ version: 1, title, documents: [{ file: file!.id }], tray: 'tray-1', ...settings });
  const [job] = await server.db.insert(jobs).values({ ticket, printerId }).returning();
  // As it is kept when it is sent.
  const { tally } = plan(ticket, [{ name: 'minutes.pdf', pages }], profile);
  const times = { endedAt: state === 'printing' ? null : new Date(`${on}T12:00`) };
  const values = {
    jobId: job!.id,
    printerId,
    ticket,
    profile,
    tally,
    sheets,
    sheetsDone: done,
    state,
    message,
    ...times,
  };
  const more = { againOf: againOf ?? null, portion: portion ?? null };
  const [sending] = await server.db
    .insert(sendings)
    .values({ ...values, ...more })
    .returning();
  return sending!.id;
}

const counted = (count: number) =>
  until(
    () => server.db.select().from(spent),
    (rows) => rows.length === count,
  );

async function spend(query: Record<string, string> = {}): Promise<SpendRecord> {
  const answer = await supertest(server.base)
    .get('/api/spend')
    .query({ from: '2026-09-01', to: '2026-11-30', ...query });
  expect(answer.status).toBe(200);
  return answer.body as SpendRecord;
}

test('what came out is counted once it is over, by the paper, the click and the kind', async () => {
  const id = await delivered({ sheets: 8 });
  await delivered({ sheets: 8, state: 'printing' });
  const [row] = await counted(1);
  expect(row).toMatchObject({
    ...{ id, day: '2026-09-01', printerName: 'Test office', title: 'Minutes', kind: 'one-sided', setupId: null },
    ...{ sheets: 8, sides: 8, colorSides: 1, graySides: 1, gray: 0.046, again: null },
    ...{ paper: 0.0984, printing: 0.134, saved: 0, cheaperWay: 'two-sided', cheaperSaves: 0.0492 },
  });
  const { total, papers, periods, step, since } = await spend();
  expect(total).toMatchObject({ deliveries: 1, sheets: 8, paper: 0.0984, printing: 0.134, gray: 0.046 });
  expect(papers).toEqual([{ size: 'iso_a4_210x297mm', type: 'stationery', sheets: 8, cost: 0.0984 }]);
  // The first of September of 2026 is a Tuesday; its week begins on Monday (ISO 8601).
  expect([step, since, periods.map(({ from }) => from)]).toEqual(['week', '2026-09-01', ['2026-08-31']]);
});

test('of what was broken off, its share; once a person says that all came out, all of it', async () => {
  const id = await delivered({ sheets: 8, done: 2, state: 'uncertain' });
  const [share] = await counted(1);
  expect(share).toMatchObject({ sheets: 2, sides: 2, paper: 0.0246, printing: 0.0335 });
  expect((await supertest(server.base).post(`/api/sendings/${id}/came-out`).send({})).status).toBe(200);
  await until(spend, ({ total }) => total.sheets === 8);
  expect((await spend()).total).toMatchObject({ deliveries: 1, paper: 0.0984, printing: 0.134 });
});

test('what cannot be counted keeps nothing else from being so, and is told in the log', async () => {
  const complaint = jest.spyOn(log, 'error').mockImplementation(() => undefined);
  // More than there is room for.
  const dear = { ...printer, prices: { ...printer.prices, mono: 1e12 } };
  const id = await delivered({ title: 'Too dear', sheets: 8 }, dear);
  await delivered({ title: 'Usual', sheets: 8, on: '2026-09-02' });
  expect((await counted(1)).map(({ title }) => title)).toEqual(['Usual']);
  expect(complaint.mock.calls).toContainEqual([expect.objectContaining({ sending: id }), 'counting what was spent']);
  complaint.mockRestore();
});

test('printed again: after it was broken off, or because somebody wished it', async () => {
  const jam = await delivered({ sheets: 8, done: 3, state: 'aborted', message: 'Paper jam.' });
  await delivered({ sheets: 5, againOf: jam, portion: [{ sets: [1, 1], sheets: [[4, 8]] }], on: '2026-09-02' });
  const whole = await delivered({ title: 'Notes', sheets: 8, on: '2026-09-03' });
  await delivered({ title: 'Notes', sheets: 8, againOf: whole, on: '2026-09-03' });
  await counted(4);
  const { again, total, cheaper } = await spend();
  expect(again.map(({ title, why, said, times, sheets }) => [title, why, said, times, sheets])).toEqual([
    ['Notes', 'wished', null, 1, 8],
    ['Minutes', 'broken-off', 'Paper jam.', 1, 5],
  ]);
  expect([total.againSheets, total.again]).toEqual([13, again[0]!.cost + again[1]!.cost]);
  // Who prints five sheets again has no cheaper way; the three of the first time had one.
  expect(cheaper.map(({ title, way, times }) => [title, way, times])).toEqual([
    ['Notes', 'two-sided', 2],
    ['Minutes', 'two-sided', 1],
  ]);
});

test('by printer, kind and set-up, under the names of today; what is gone keeps its name and is not led to', async () => {
  await server.db
    .insert(printers)
    .values({ id: 'attic', name: 'Attic', uri: 'ipp://127.0.0.1:9/attic', profile: printer })
    .onConflictDoNothing();
  const settings = { sides: 'two-sided', copies: 2 };
  const ticket = setupOf(
    readTicket({ version: 1, documents: [{ file: randomUUID() }], tray: 'tray-1', ...settings, copies: 9 }),
  );
  const [setup] = await server.db.insert(setups).values({ name: 'Two sides', ticket }).returning();
  await delivered({ sheets: 8, settings });
  await delivered({
    sheets: 4,
    settings: { sides: 'two-sided', layout: { kind: 'grid', pagesPerSide: 2 } },
    printerId: 'attic',
  });
  await counted(2);
  await server.db.update(setups).set({ name: 'Both sides' }).where(eq(setups.id, setup!.id));
  const now = await spend();
  expect(now.printers.map(({ name, sheets }) => [name, sheets])).toEqual([
    ['Test office', 8],
    ['Attic', 4],
  ]);
  expect(now.kinds.map(({ kind }) => kind)).toEqual(['two-sided', 'several-a-side']);
  expect(now.setups.map(({ id, name }) => [id, name])).toEqual([
    [setup!.id, 'Both sides'],
    [null, null],
  ]);
  expect((await spend({ printer: 'attic' })).total).toMatchObject({ deliveries: 1, sheets: 4 });
  await server.db.delete(setups).where(eq(setups.id, setup!.id));
  expect((await spend()).setups[0]).toMatchObject({ id: null, name: 'Two sides' });
});

test('the figures are the sum of the tallies, to the cent: checked against a sum that SQL makes of what was sent', async () => {
  const ways = [
    { sheets: 8 },
    { sheets: 12, settings: { sides: 'two-sided', copies: 3 } },
    { sheets: 14, settings: { copies: 7, layout: { kind: 'grid', pagesPerSide: 4 } } },
    { sheets: 4, settings: { sides: 'two-sided', layout: { kind: 'booklet' }, copies: 2 } },
    { sheets: 8, settings: { copies: 1, routes: [{ pages: '1', tray: 'tray-2' }], color: 'monochrome' } },
  ];
  for (const [at, way] of [...ways, ...ways, ...ways].entries())
    await delivered({ ...way, on: `2026-${10 + (at % 2)}-0${1 + (at % 9)}` });
  await counted(15);
  const { total, periods, papers, printers: by, kinds, setups: bySetup } = await spend();
  const { rows } = await server.db.execute<{ sheets: number; cost: number }>(
    sql`select sum((tally ->> 'sheets')::int)::int as sheets, sum((tally ->> 'cost')::numeric)::float8 as cost from sendings`,
  );
  expect(total.sheets).toBe(rows[0]!.sheets);
  expect(total.paper + total.printing).toBeCloseTo(rows[0]!.cost, 4);
  expect(total.sheets).toBe(3 * (8 + 12 + 14 + 4 + 8));
  for (const groups of [periods, by, kinds, bySetup]) {
    for (const figure of ['sheets', 'paper', 'printing', 'saved', 'colorSides'] as const) {
      expect(groups.reduce((all, one) => all + one[figure], 0)).toBeCloseTo(total[figure], 4);
    }
  }
  expect(papers.reduce((all, { sheets }) => all + sheets, 0)).toBe(total.sheets);
  expect(papers.reduce((all, { cost }) => all + cost, 0)).toBeCloseTo(total.paper, 4);
  expect(periods.flatMap((one) => one.papers).reduce((all, { cost }) => all + cost, 0)).toBeCloseTo(total.paper, 4);
});

test('a line for each delivery, for a spreadsheet', async () => {
  await delivered({ sheets: 8, title: '=Minutes', on: '2026-09-02' });
  await counted(1);
  const answer = await supertest(server.base).get('/api/spend.csv').query({ from: '2026-09-01', to: '2026-09-30' });
  expect(answer.headers['content-disposition']).toContain('Spend%202026-09-01%20to%202026-09-30.csv');
  const [head, line, end] = answer.text.replace('\uFEFF', '').split('\r\n');
  expect(head!.split(',')).toHaveLength(19);
  expect(line).toBe(
    "2026-09-02,Test office,'=Minutes,,one-sided,8,0,8,1,1,0.0984,0.134,0.2324,0.046,0,0,,on both sides,0.0492",
  );
  expect(end).toBe('');
});

test.each([
  ['2026-09-02', '2026-09-01', 'ask for days in their order'],
  ['yesterday', '2026-09-01', 'from'],
])('from %s to %s is refused', async (from, to, why) => {
  const answer = await supertest(server.base).get('/api/spend').query({ from, to });
  expect([answer.status, answer.text.includes(why)]).toEqual([400, true]);
});

test.each([
  ['2026-09-01', '2026-10-01', 'day'],
  ['2026-09-01', '2026-10-02', 'week'],
  ['2026-01-01', '2026-12-31', 'month'],
])('from %s to %s it is told by the %s', (from, to, step) => expect(stepOf({ from, to })).toBe(step));
