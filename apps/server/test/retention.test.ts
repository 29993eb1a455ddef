import { randomUUID } from 'node:crypto';
import { numberedPdf } from '../../../packages/pdf/test/make-pdf';
import { readTicket } from '@foglio/core/validate';
import { eq, sql } from 'drizzle-orm';
import supertest from 'supertest';
import {
  contentChunks,
  contents,
  files,
  incoming,
  jobs,
  pastSendings,
  sendings,
  series,
  seriesRows,
  sources,
} from '../src/database/schema';
import { spent } from '../src/database/spent-schema';
import { enqueueReading } from '../src/files/reading-queue';
import { sweep } from '../src/retention/sweep';
import { releaseTasks, sweepTasks } from '../src/retention/tasks';
import { Presence } from '../src/sendings/presence';
import { PROFILE, startServer, type RunningServer } from './running-server';
import { until } from './until';

let server: RunningServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());
beforeEach(async () => {
  await server.db.delete(incoming);
  for (const table of [sendings, seriesRows, series, jobs, files, contents, sources, pastSendings]) {
    await server.db.delete(table);
  }
});

const DAY = 24 * 60 * 60_000;
const ago = (days: number): Date => new Date(Date.now() - days * DAY);
const LIMITS = { keepDays: 90, graceHours: 24 };
/** Sendings whose sheets are not added to what was spent. */
const uncounted = async (): Promise<number> => {
  const { rows } = await server.db.execute<{ count: number }>(sql`
    select count(*)::int as count from sendings where state = 'completed' and sheets_done > 0
    and not exists (select from spent where spent.id = sendings.id)`);
  return rows[0]!.count;
};
const swept = async (limits = LIMITS) => {
  await until(uncounted, (left) => left === 0);
  return sweep(server.db, server.pool, limits);
};

async function fileOf(age = 30): Promise<string> {
  const created = { createdAt: ago(age) };
  const [source] = await server.db
    .insert(sources)
    .values({ sha256: randomUUID(), bytes: 1, ...created })
    .returning();
  const [content] = await server.db
    .insert(contents)
    .values({ ...created, sha256: randomUUID() })
    .returning();
  await server.db.insert(contentChunks).values({ contentId: content!.id, position: 0, data: Buffer.from('x') });
  const values = { contentId: content!.id, name: 'a.pdf', sourceId: source!.id, ...created };
  return (await server.db.insert(files).values(values).returning())[0]!.id;
}
const ticketOf = (file: string) => readTicket({ version: 1, documents: [{ file }] });
async function jobOf(file: string): Promise<string> {
  const values = { ticket: ticketOf(file), printerId: 'test-office' };
  return (await server.db.insert(jobs).values(values).returning())[0]!.id;
}
async function sendingOf(file: string, age: number, more: Partial<typeof sendings.$inferInsert> = {}): Promise<string> {
  const values = { printerId: 'test-office', ticket: ticketOf(file), profile: PROFILE, sheets: 9, sheetsDone: 7 };
  const [sending] = await server.db
    .insert(sendings)
    .values({ ...values, state: 'completed', createdAt: ago(age), updatedAt: ago(age), ...more })
    .returning();
  return sending!.id;
}
const filesLeft = async (): Promise<string[]> => (await server.db.query.files.findMany()).map(({ id }) => id).sort();
const count = async (table: 'contents' | 'content_chunks' | 'sources' | 'sendings' | 'incoming'): Promise<number> => {
  const { rows } = await server.db.execute<{ count: number }>(sql.raw(`select count(*)::int as count from ${table}`));
  return rows[0]!.count;
};

test('a document that nothing refers to goes a day after that was found, with all that is stored of it', async () => {
  const [kept, left] = [await fileOf(), await fileOf()];
  await jobOf(kept);
  expect(await swept()).toMatchObject({ files: 0, documents: 0 });
  expect(await filesLeft()).toEqual([kept, left].sort());
  await server.db
    .update(files)
    .set({ leftSince: ago(0.9) })
    .where(eq(files.id, left));
  expect(await swept()).toMatchObject({ files: 0, documents: 0 });
  await server.db
    .update(files)
    .set({ leftSince: ago(1.1) })
    .where(eq(files.id, left));
  expect(await swept()).toMatchObject({ files: 1, documents: 1 });
  expect(await filesLeft()).toEqual([kept]);
  expect([await count('contents'), await count('content_chunks'), await count('sources')]).toEqual([1, 1, 1]);
  expect(await swept()).toMatchObject({ files: 0, documents: 0 });
});

test('what is referred to again meanwhile stays, and its day begins anew', async () => {
  const file = await fileOf();
  await swept();
  await server.db.update(files).set({ leftSince: ago(2) });
  const job = await jobOf(file);
  await swept();
  expect((await server.db.query.files.findFirst())!.leftSince).toBeNull();
  await server.db.delete(jobs).where(eq(jobs.id, job));
  await swept();
  expect(await filesLeft()).toEqual([file]);
});

test.each<[string, (file: string) => Promise<unknown>]>([
  ['a sending that could be sent again', (file) => sendingOf(file, 80)],
  [
    'what came from a program and waits',
    (file) =>
      server.db
        .insert(incoming)
        .values({ queue: 'desk', name: 'x', userName: 'anna', wishes: {} as never, state: 'came', files: [file] }),
  ],
  [
    'nothing yet, since it has just come',
    (file) => server.db.update(files).set({ createdAt: new Date() }).where(eq(files.id, file)),
  ],
])('a document stays for %s', async (_, refer) => {
  const file = await fileOf();
  await refer(file);
  await server.db.update(files).set({ leftSince: ago(2) });
  await swept();
  expect(await filesLeft()).toEqual([file]);
});

test('one of two names of a document goes, and the document stays for the other', async () => {
  const file = await fileOf();
  const { contentId } = (await server.db.query.files.findFirst())!;
  const [other] = await server.db
    .insert(files)
    .values({ contentId, name: 'b.pdf', leftSince: ago(2), createdAt: ago(3) })
    .returning();
  await jobOf(file);
  expect(await swept()).toMatchObject({ files: 1, documents: 0 });
  expect(await filesLeft()).not.toContain(other!.id);
});

test('records of sendings go after the days that are set, and how much was printed stays, by printer and month', async () => {
  const file = await fileOf();
  await sendingOf(file, 91);
  await sendingOf(file, 91, { sheetsDone: 5 });
  await sendingOf(file, 89);
  await sendingOf(file, 200, { state: 'held' });
  await server.db
    .update(sendings)
    .set({ createdAt: new Date('2026-07-31T12:00Z') })
    .where(eq(sendings.state, 'completed'));
  expect(await swept()).toMatchObject({ sendings: 2 });
  expect(await swept()).toMatchObject({ sendings: 0 });
  expect(await count('sendings')).toBe(2);
  await sendingOf(file, 95, { createdAt: new Date('2026-07-02T12:00Z'), sheetsDone: 1 });
  await swept();
  expect(await server.db.select().from(pastSendings)).toEqual([
    { printerId: 'test-office', month: '2026-07-01', sendings: 3, sheets: 13 },
  ]);
  expect(await swept({ ...LIMITS, keepDays: 30 })).toMatchObject({ sendings: 1 });
});

test('what is not counted yet as spent stays until it is', async () => {
  await sendingOf(await fileOf(), 91);
  await until(uncounted, (left) => left === 0);
  await server.db.delete(spent);
  expect(await sweep(server.db, server.pool, LIMITS)).toMatchObject({ sendings: 0 });
  expect(await count('sendings')).toBe(1);
});

test('what came from programs goes with its sending, and not before it', async () => {
  const file = await fileOf();
  const came = async (sendingId: string): Promise<unknown> =>
    server.db.insert(incoming).values({
      queue: 'desk',
      name: 'x',
      userName: 'anna',
      wishes: {} as never,
      state: 'sent',
      sendingId,
      updatedAt: ago(100),
    });
  await came(await sendingOf(file, 100));
  await came(await sendingOf(file, 100, { state: 'printing' }));
  expect(await swept()).toMatchObject({ sendings: 1 });
  expect([await count('incoming'), await count('sendings')]).toEqual([1, 1]);
});

test('a series that is over goes whole; one that is not stays with all of its records', async () => {
  const make = async (state: 'completed' | 'printing'): Promise<string> => {
    const file = await fileOf();
    const values = { title: state, setup: ticketOf('*'), printerId: 'test-office', state: 'running' as const };
    const [one] = await server.db
      .insert(series)
      .values({ ...values, startedAt: ago(100) })
      .returning();
    const jobId = await jobOf(file);
    await server.db.insert(seriesRows).values({ seriesId: one!.id, place: 0, name: 'a.pdf', jobId });
    await sendingOf(file, 100, { seriesId: one!.id, jobId });
    await sendingOf(file, 100, { seriesId: one!.id, jobId, state });
    return one!.id;
  };
  await make('completed');
  const goesOn = await make('printing');
  expect(await swept()).toMatchObject({ sendings: 2 });
  expect((await server.db.query.series.findMany()).map(({ id }) => id)).toEqual([goesOn]);
  expect([await count('sendings'), (await server.db.query.jobs.findMany()).length]).toEqual([2, 1]);
});

test('several servers that sweep at once remove each thing once', async () => {
  const file = await fileOf();
  for (let made = 0; made < 20; made += 1) await sendingOf(file, 100);
  const all = await Promise.all([swept(), swept(), swept()]);
  expect(all.reduce((sum, { sendings: gone }) => sum + gone, 0)).toBe(20);
  const [past] = await server.db.select().from(pastSendings);
  expect(past?.sendings).toBe(20);
});

test('a document that comes once more stays for whoever brings it, though nothing referred to it before', async () => {
  const bytes = Buffer.from(numberedPdf(1));
  const upload = async (): Promise<string> =>
    ((await supertest(server.base).post('/api/files').query({ name: 'a.pdf' }).send(bytes)).body as { id: string }).id;
  const before = await upload();
  await server.db.update(files).set({ leftSince: ago(2), createdAt: ago(3) });
  await server.db.update(contents).set({ createdAt: ago(3) });
  // It is found by its bytes, and its file is not entered yet.
  const { contentId } = (await server.db.query.files.findFirst())!;
  await server.db.update(contents).set({ createdAt: new Date() }).where(eq(contents.id, contentId));
  expect(await swept()).toMatchObject({ files: 1, documents: 0 });
  const again = await upload();
  expect(again).not.toBe(before);
  expect((await server.db.query.contents.findMany()).map(({ id }) => id)).toEqual([contentId]);
  // Where it went before it was found, it is taken in anew.
  await server.db.delete(files);
  await server.db.update(contents).set({ createdAt: ago(3) });
  expect(await swept()).toMatchObject({ documents: 1 });
  const anew = await upload();
  expect((await supertest(server.base).get(`/api/files/${anew}/content`)).status).toBe(200);
});

test('a removed job’s documents are not there for anybody after the sweep', async () => {
  const file = await fileOf();
  expect((await supertest(server.base).get(`/api/files/${file}`)).status).toBe(200);
  await server.db.update(files).set({ leftSince: ago(2) });
  await swept();
  expect((await supertest(server.base).get(`/api/files/${file}`)).status).toBe(404);
  const answer = await supertest(server.base)
    .post('/api/jobs')
    .send({ ticket: { version: 1, documents: [{ file }] } });
  expect([answer.status, answer.body]).toMatchObject([422, { code: 'ticket-invalid' }]);
});

describe('tasks', () => {
  let key: string;
  /** Of the one document that a test enters: those of other tests may still come. */
  const tasks = async () =>
    (
      await server.db.execute<{ locked: boolean }>(
        sql`select locked_at is not null as locked from graphile_worker.jobs where key = ${key}`,
      )
    ).rows;
  const lock = (worker: string) =>
    sql`update graphile_worker._private_jobs set locked_at = now(), locked_by = ${worker} where key = ${key}`;
  beforeEach(async () => {
    const file = await server.db.query.files.findFirst({ where: eq(files.id, await fileOf()) });
    key = `details ${file!.contentId}`;
    await enqueueReading(server.db, file!.contentId, 3_600);
  });
  afterEach(() => server.db.execute(sql`delete from graphile_worker._private_jobs where key = ${key}`));

  test('that a killed server held are given back by the next one that is alone', async () => {
    await server.db.execute(lock('worker-of-before'));
    expect(await tasks()).toEqual([{ locked: true }]);
    const other = new Presence(server.databaseUrl);
    await other.open();
    expect([await other.isAlone(), await server.presence.isAlone()]).toEqual([false, false]);
    await other.close();
    expect(await server.presence.isAlone()).toBe(true);
    await releaseTasks(server.pool, server.db);
    expect(await tasks()).toEqual([{ locked: false }]);
  });

  test('that failed as often as they may go; those that wait stay', async () => {
    await sweepTasks(server.pool);
    expect(await tasks()).toHaveLength(1);
    await server.db.execute(sql`update graphile_worker._private_jobs set attempts = max_attempts where key = ${key}`);
    await sweepTasks(server.pool);
    expect(await tasks()).toHaveLength(0);
    const { rows } = await server.db.execute(
      sql`select from graphile_worker._private_job_queues where queue_name = ${key}`,
    );
    expect(rows).toHaveLength(0);
  });
});
