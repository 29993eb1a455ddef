import { parse } from 'csv-parse/sync';
import supertest from 'supertest';
import type { SeriesRecord } from '@foglio/api';
import { sendings } from '../src/database/schema';
import { changeSending, takeNext } from '../src/sendings/sending-store';
import { numberedPdf } from '../../../packages/pdf/test/make-pdf';
import { binary, PROFILE, startServer, type RunningServer } from './running-server';

let server: RunningServer;

beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

const api = () => supertest(server.base);
const setup = {
  version: 1,
  documents: [{ file: '*' }],
  sides: 'two-sided',
  routes: [{ pages: '1', tray: 'tray-2', sides: 'one-sided' }],
};

async function upload(name: string, pages: number): Promise<string> {
  const bytes = numberedPdf(pages);
  const sent = api().post('/api/files').query({ name }).set('Content-Type', 'application/pdf').send(Buffer.from(bytes));
  return ((await sent).body as { id: string }).id;
}

async function begin(...files: object[]): Promise<SeriesRecord> {
  const begun = await api().post('/api/series').send({ title: 'Contracts', setup, printerId: 'test-office' });
  expect(begun.status).toBe(201);
  const { id } = begun.body as SeriesRecord;
  return (await api().post(`/api/series/${id}/rows`).send({ files })).body as SeriesRecord;
}

const names = ({ rows }: SeriesRecord): string[] => rows.map(({ name }) => name);

test('files become rows with the set-up, and such as cannot be read stand there with the reason', async () => {
  const a = await upload('a.pdf', 2);
  const series = await begin({ name: 'a.pdf', file: a }, { name: 'bad.pdf', trouble: 'It is damaged.' });
  expect(series).toMatchObject({ state: 'draft', title: 'Contracts' });
  expect(series.rows).toMatchObject([
    { name: 'a.pdf', file: a, changed: false, trouble: null, ticket: { title: 'a', routes: [{ pages: '1' }] } },
    { name: 'bad.pdf', jobId: null, trouble: 'It is damaged.' },
  ]);
  // Its jobs are found here and not on the Desk.
  expect((await api().get('/api/jobs')).body).toEqual({ jobs: [], total: 0 });
  expect((await api().get(`/api/series/${series.id}/documents`)).body).toMatchObject([{ id: a, name: 'a.pdf' }]);
  expect((await api().get('/api/series')).body).toMatchObject([{ id: series.id, files: 2, state: 'draft' }]);
});

test('the order is changed, rows are taken out and left out', async () => {
  const files = [];
  for (const name of ['a.pdf', 'b.pdf', 'c.pdf']) files.push({ name, file: await upload(name, 1) });
  const series = await begin(...files);
  const [a, b, c] = series.rows.map(({ id }) => id);
  const path = `/api/series/${series.id}`;
  const ordered = (
    await api()
      .put(`${path}/rows`)
      .send({ rows: [c, a], out: [b] })
  ).body as SeriesRecord;
  expect(names(ordered)).toEqual(['c.pdf', 'a.pdf']);
  const skipped = (await api().put(`${path}/rows/${c}`).send({ skipped: true })).body as SeriesRecord;
  expect(skipped.rows.map((row) => row.skipped)).toEqual([true, false]);
  expect((await api().put(`${path}/rows/${b}`).send({ skipped: true })).status).toBe(404);
  expect((await api().delete(path)).status).toBe(204);
  expect((await api().get(path)).status).toBe(404);
});

test('another set-up is for all files but those with settings of their own', async () => {
  const series = await begin(
    { name: 'a.pdf', file: await upload('a.pdf', 1) },
    { name: 'b.pdf', file: await upload('b.pdf', 1) },
  );
  const [a] = series.rows;
  await api()
    .put(`/api/jobs/${a!.jobId}`)
    .send({ ticket: { ...a!.ticket, copies: 2 }, revision: 1 });
  const path = `/api/series/${series.id}`;
  const next = { ...setup, copies: 5 };
  const changed = (await api().put(path).send({ setup: next, title: 'All' })).body as SeriesRecord;
  expect(changed.rows.map((row) => [row.changed, row.ticket?.copies])).toEqual([
    [true, 2],
    [false, 5],
  ]);
  expect((await api().put(path).send({ printerId: 'nowhere' })).status).toBe(404);
});

test('a printer that is away is said before anything is entered', async () => {
  const series = await begin({ name: 'a.pdf', file: await upload('a.pdf', 1) });
  const answer = await api().post(`/api/series/${series.id}/start`).send({ sheets: 1 });
  expect(answer.body).toMatchObject({ code: 'printer-away' });
  expect((await api().get(`/api/series/${series.id}`)).body).toMatchObject({ state: 'draft' });
  expect((await api().post(`/api/series/${series.id}/pause`).send({})).body).toMatchObject({ code: 'series-sent' });
});

/** A series under way whose files are entered by hand, since no printer takes them here. */
async function underWay(count: number) {
  const files = [];
  for (let at = 1; at <= count; at += 1) files.push({ name: `${at}.pdf`, file: await upload(`${at}.pdf`, 1) });
  const series = await begin(...files);
  await server.pool.query(`update series set state = 'running', started_at = now() where id = $1`, [series.id]);
  const ids: string[] = [];
  for (const { jobId, ticket } of series.rows) {
    const values = {
      jobId,
      ticket: ticket!,
      seriesId: series.id,
      printerId: 'test-office',
      profile: PROFILE,
      sheets: 1,
    };
    const [entered] = await server.db.insert(sendings).values(values).returning();
    ids.push(entered!.id);
  }
  return { series, ids, path: `/api/series/${series.id}` };
}

const take = async (): Promise<string | null> =>
  (await takeNext(server.db, 'test-office', server.presence.server))?.id ?? null;
/** The printer is away, so that nobody hears that it is over. */
const toPrinter = (id: string) =>
  changeSending(server.db, id, ['sending'], { state: 'printing', printerJobs: [1], server: null });

test('files go one after the other, two at most under way; one that went wrong stops those after it', async () => {
  const { ids, path } = await underWay(4);
  expect(await take()).toBe(ids[0]);
  await toPrinter(ids[0]!);
  expect(await take()).toBe(ids[1]);
  await toPrinter(ids[1]!);
  expect(await take()).toBeNull();
  await changeSending(server.db, ids[0]!, ['printing'], { state: 'completed', sheetsDone: 1 });
  await changeSending(server.db, ids[1]!, ['printing'], { state: 'aborted', message: 'Paper was torn.' });
  expect((await api().get(path)).body).toMatchObject({
    state: 'paused',
    message: 'It stopped at “2”: Paper was torn.',
  });
  expect(await take()).toBeNull();
  const report: string[][] = parse((await api().get(`${path}/report.csv`)).text, { bom: true });
  expect(report.slice(1).map((row) => [row[1], row[4], row[5]])).toEqual([
    ['1.pdf', '1', 'delivered'],
    ['2.pdf', '0', 'broken off'],
    ['3.pdf', '0', 'waiting'],
    ['4.pdf', '0', 'waiting'],
  ]);
  // Once more goes before what waits.
  const resumed = (await api().post(`${path}/resume`).send({ again: true })).body as SeriesRecord;
  expect(resumed.state).toBe('running');
  const again = resumed.rows[1]!.sending!.id;
  expect(ids).not.toContain(again);
  await server.pool.query(`update sendings set state = 'canceled' where series_id = $1`, [resumed.id]);
  expect((await api().get(path)).body).toMatchObject({ state: 'done' });
});

test('a paused series keeps nobody else waiting, and goes on where it stopped', async () => {
  const { series, ids, path } = await underWay(2);
  expect((await api().post(`${path}/pause`).send({})).body).toMatchObject({ state: 'paused' });
  const { jobId, ticket } = series.rows[0]!;
  const values = { jobId, ticket: ticket!, printerId: 'test-office', profile: PROFILE, sheets: 1 };
  const [other] = await server.db.insert(sendings).values(values).returning();
  expect(await take()).toBe(other!.id);
  await changeSending(server.db, other!.id, ['sending'], { state: 'canceled' });
  expect(await take()).toBeNull();
  await server.pool.query(`update series set state = 'running' where id = $1`, [series.id]);
  expect(await take()).toBe(ids[0]);
  await server.pool.query(`update sendings set state = 'canceled' where series_id = $1`, [series.id]);
});

test('what was sent cannot be set up anew, and the report can be printed', async () => {
  const { path } = await underWay(1);
  for (const change of [{ setup }, { printerId: 'test-office', setup }]) {
    expect((await api().put(path).send(change)).body).toMatchObject({ code: 'series-sent' });
  }
  expect((await api().delete(path)).body).toMatchObject({ code: 'series-sent' });
  const pdf = await api().get(`${path}/report.pdf`).buffer(true).parse(binary);
  expect((pdf.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
  await server.pool.query(`update sendings set state = 'canceled'`);
});
