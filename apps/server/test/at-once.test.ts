import supertest from 'supertest';
import type { SeriesRecord, SetupRecord } from '@foglio/api';
import { numberedPdf } from '../../../packages/pdf/test/make-pdf';
import { startServer, type RunningServer } from './running-server';

/** What several people, or several windows, change at the same moment: each change is there in the end, or was refused. */

let server: RunningServer;

beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

const api = () => supertest(server.base);
const setup = { version: 1, documents: [{ file: '*' }] };

async function upload(name: string): Promise<string> {
  const sent = api().post('/api/files').query({ name }).set('Content-Type', 'application/pdf');
  return ((await sent.send(Buffer.from(numberedPdf(1)))).body as { id: string }).id;
}

async function begin(count: number): Promise<SeriesRecord> {
  const { id } = (await api().post('/api/series').send({ title: 'Letters', setup, printerId: 'test-office' }))
    .body as SeriesRecord;
  const files = [];
  for (let at = 1; at <= count; at += 1) files.push({ name: `${at}.pdf`, file: await upload(`${at}.pdf`) });
  return (await api().post(`/api/series/${id}/rows`).send({ files })).body as SeriesRecord;
}

const shuffled = <T>(all: readonly T[]): T[] =>
  all
    .map((one) => ({ one, at: Math.random() }))
    .sort((a, b) => a.at - b.at)
    .map(({ one }) => one);

test('a hundred changes of a series, its set-up, its files and their order', async () => {
  const series = await begin(30);
  const path = `/api/series/${series.id}`;
  const file = await upload('more.pdf');
  const rows = series.rows.map(({ id }) => id);
  const own = series.rows.map(
    (row) => () =>
      api()
        .put(`/api/jobs/${row.jobId}`)
        .send({ ticket: { ...row.ticket, copies: 7 }, revision: 1 }),
  );
  const setups = Array.from(
    { length: 20 },
    (_, at) => () =>
      api()
        .put(path)
        .send({ setup: { ...setup, copies: 20 + at } }),
  );
  const added = Array.from(
    { length: 20 },
    (_, at) => () =>
      api()
        .post(`${path}/rows`)
        .send({ files: [{ name: `more ${at}.pdf`, file }] }),
  );
  const skipped = rows.slice(0, 20).map((row) => () => api().put(`${path}/rows/${row}`).send({ skipped: true }));
  const ordered = Array.from(
    { length: 10 },
    () => () =>
      api()
        .put(`${path}/rows`)
        .send({ rows: shuffled(rows) }),
  );
  const all = shuffled([...own, ...setups, ...added, ...skipped, ...ordered]);
  expect(all).toHaveLength(100);
  const answers = new Map(await Promise.all(all.map(async (ask) => [ask, (await ask()).status] as const)));
  const statusOf = (asks: readonly (() => unknown)[]) => asks.map((ask) => answers.get(ask as (typeof all)[number]));

  // Whatever is not about the very same thing is done; a file's settings meet a set-up that is given to it just then.
  expect(new Set(statusOf([...setups, ...added, ...skipped, ...ordered]))).toEqual(new Set([200]));
  const now = (await api().get(path)).body as SeriesRecord;
  const byId = new Map(now.rows.map((row) => [row.id, row]));
  for (const [at, status] of statusOf(own).entries()) {
    const row = byId.get(rows[at]!)!;
    expect([status, row.ticket?.copies === 7]).toEqual(row.changed ? [200, true] : [409, false]);
    if (!row.changed) expect(row.ticket?.copies).toBe(now.setup.copies);
  }
  expect(now.setup.copies).toBeGreaterThanOrEqual(20);
  expect(now.rows.map(({ name }) => name).sort()).toEqual(
    [...series.rows.map(({ name }) => name), ...added.map((_, at) => `more ${at}.pdf`)].sort(),
  );
  expect(rows.slice(0, 20).every((row) => byId.get(row)!.skipped)).toBe(true);
});

test('a hundred changes of a set-up that begin from one state: one is made, the others are refused', async () => {
  const saved = await saveSetup('From one state');
  const answers = await Promise.all(
    Array.from({ length: 100 }, (_, at) =>
      change(saved, { ticket: { ...setup, copies: at + 2 }, revision: saved.revision }),
    ),
  );
  const made = answers.filter(({ status }) => status === 200).map(({ body }) => body as SetupRecord);
  expect(made).toHaveLength(1);
  const refused = answers.filter(({ status }) => status !== 200);
  expect(new Set(refused.map(({ body }) => (body as { code: string }).code))).toEqual(new Set(['setup-changed']));
  expect(await setupNow(saved)).toEqual(made[0]);
});

test('a hundred changes of one thing each: what a change does not name it does not undo', async () => {
  const saved = await saveSetup('Of one thing each');
  const changes = [
    { name: 'Renamed' },
    { printerId: 'test-office' },
    { ticket: { ...setup, copies: 5 } },
    { starts: 'printer', printerId: 'test-office' },
  ];
  const answers = await Promise.all(Array.from({ length: 100 }, (_, at) => change(saved, changes[at % 4]!)));
  expect(new Set(answers.map(({ status }) => status))).toEqual(new Set([200]));
  expect(await setupNow(saved)).toMatchObject({
    name: 'Renamed',
    printerId: 'test-office',
    starts: 'printer',
    ticket: { copies: 5 },
    revision: saved.revision + 100,
  });
});

async function saveSetup(name: string): Promise<SetupRecord> {
  return (await api().post('/api/setups').send({ name, ticket: setup })).body as SetupRecord;
}

const change = ({ id }: SetupRecord, what: object) => api().put(`/api/setups/${id}`).send(what);

const setupNow = async ({ id }: SetupRecord): Promise<SetupRecord | undefined> =>
  ((await api().get('/api/setups')).body as SetupRecord[]).find((one) => one.id === id);
