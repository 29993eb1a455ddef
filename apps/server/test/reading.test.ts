import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { eq, sql } from 'drizzle-orm';
import supertest from 'supertest';
import { labelledPdf } from '../../cli/test/labelled-pdf';
import { contents, files } from '../src/database/schema';
import { readContentDetails, type DetailsWorkers } from '../src/files/details-reader';
import { enqueueReading } from '../src/files/reading-queue';
import { log } from '../src/log';
import { LookedAt } from '../src/pdf/looked-at';
import { Intake } from '../src/pdf/intake';
import { WorkersClosed } from '../src/pdf/pdf-workers';
import { startServer, store, type RunningServer } from './running-server';
import { until } from './until';

/** The first pages of a manual that this project did not write. */
const excerpt = (pages: number): Buffer =>
  readFileSync(join(__dirname, `../../../.foglio/manual/maint-guide.en-${pages}.pdf`));
const SHORT = 8;
const MANUAL = excerpt(SHORT);
const LONG = excerpt(20);

/** With labels and headings, and quickly read. */
const LABELLED: Buffer = Buffer.from(labelledPdf());
const PAGES = 20;

let server: RunningServer;

beforeAll(async () => {
  server = await startServer({ reads: true });
});
afterAll(() => server.stop());

const api = () => supertest(server.base);

interface Facts {
  readonly read: number;
  readonly pages: { readonly color?: boolean; readonly smallestText?: number | null }[];
  readonly outline?: object[];
}
const facts = async (id: string, from: number): Promise<Facts> =>
  (await api().get(`/api/files/${id}/facts`).query({ from })).body as Facts;

/** Stored without being entered to be read. */
async function stored(mark: string, pdf: Buffer = LABELLED) {
  const bytes = new Uint8Array(Buffer.concat([pdf, Buffer.from(`\n% ${mark}\n`)]));
  return store(server, bytes);
}
const kept = (id: string) => server.db.query.contents.findFirst({ where: eq(contents.id, id) });

test('an upload is answered at once; what is on its pages becomes known afterwards, and is kept', async () => {
  const answer = await api()
    .post('/api/files')
    .query({ name: 'manual.pdf' })
    .set('Content-Type', 'application/pdf')
    .send(MANUAL);
  const { id, read } = answer.body as { id: string; read: number };
  expect([answer.status, read]).toEqual([201, 0]);
  let known = 0;
  const pages: Facts['pages'] = [];
  while (known < SHORT) {
    const more = await facts(id, known);
    pages.splice(known, more.pages.length, ...more.pages);
    known = more.read;
    await wait(20);
  }
  expect(pages).toHaveLength(SHORT);
  expect(pages[5]).toMatchObject({ color: true, smallestText: expect.closeTo(8.966, 2) as number });
  expect((await facts(id, SHORT)).pages).toEqual([]);
  expect((await api().get(`/api/files/${id}`)).body).toMatchObject({ read: SHORT, pages });
});

test('the first pages are known before the last are read', async () => {
  const { id } = await stored('little by little');
  // A reader that looks at the next page only when the one before is known.
  const slow: DetailsWorkers = {
    intake: new Intake(),
    lookedAt: new LookedAt(),
    readDetails: async (_file, pages, page) => {
      for (const number of pages) {
        page(number, { color: false, looksGray: false, smallestText: number, content: null });
        if (number < 4) {
          await until(
            () => kept(id),
            (content) => content?.detailsRead === number,
          );
        }
      }
    },
  };
  await readContentDetails(server.db, id, slow);
  expect((await kept(id))?.pages.map(({ smallestText }) => smallestText)).toEqual(
    Array.from({ length: PAGES }, (_, at) => at + 1),
  );
});

test('labels of all pages and the outline are stored with the document', async () => {
  const { id } = await stored('navigation', LONG);
  const known = await kept(id);
  expect(known?.outline).toContainEqual({
    title: 'First steps',
    level: 1,
    page: 12,
    top: expect.any(Number) as number,
  });
  expect(known?.pages.map(({ label }) => label).slice(0, 8)).toEqual(['i', 'ii', 'iii', 'iv', 'v', 'vi', '1', '2']);
  expect(known?.detailsRead).toBe(0);
});

test('an answer from the first page on has them, and later ones leave them out', async () => {
  const { id } = await stored('asked', LONG);
  await server.db.insert(files).values({ id, contentId: id, name: 'asked.pdf' });
  const { outline, pages, read } = await facts(id, 0);
  expect([outline!.length, pages.length, read]).toEqual([18, 20, 0]);
  expect(await facts(id, 1)).not.toHaveProperty('outline');
});

test('pages chosen by a heading are planned right after the upload', async () => {
  const bytes = Buffer.concat([LONG, Buffer.from('\n% planned at once\n')]);
  const upload = await api()
    .post('/api/files')
    .query({ name: 'm.pdf' })
    .set('Content-Type', 'application/pdf')
    .send(bytes);
  const { id: file } = upload.body as { id: string };
  const documents = [{ file, pages: '"First steps"' }];
  const job = await api()
    .post('/api/jobs')
    .send({ ticket: { version: 1, documents } });
  const list = await api().get(`/api/jobs/${(job.body as { id: string }).id}/sheets.csv`);
  expect(list.status).toBe(200);
  // Pages 12 to 18, up to the next chapter, and a line that names the columns.
  expect(list.text.trim().split('\n')).toHaveLength(8);
});

test('one that is ended with the server goes on where it stood', async () => {
  const { id } = await stored('ended');
  const ended: DetailsWorkers = {
    intake: new Intake(),
    lookedAt: new LookedAt(),
    readDetails: async (file, pages, hear) => {
      await server.workers.readDetails(file, pages.slice(0, 3), hear);
      throw new WorkersClosed('the server is being stopped');
    },
  };
  await readContentDetails(server.db, id, ended);
  const before = (await kept(id))!;
  expect(before.detailsRead).toBe(3);
  expect(before.pages.filter(({ color }) => color !== undefined)).toHaveLength(3);
  await readContentDetails(server.db, id, server.workers);
  expect((await kept(id))?.pages.every(({ color }) => color !== undefined)).toBe(true);
});

test('a full disk is no fault of the document: it is not given up, and what was read stays', async () => {
  const { id } = await stored('no room');
  const full: DetailsWorkers = {
    intake: new Intake(),
    lookedAt: new LookedAt(),
    readDetails: (_file, _pages, page) => {
      page(1, { smallestText: 7 });
      return Promise.reject(Object.assign(new Error('no space left on device'), { code: 'ENOSPC' }));
    },
  };
  await expect(readContentDetails(server.db, id, full)).rejects.toMatchObject({ code: 'ENOSPC' });
  const { detailsRead, pages } = (await kept(id))!;
  expect([detailsRead, pages[0]?.smallestText]).toEqual([1, 7]);
  expect(await readContentDetails(server.db, id, server.workers)).toBe(0);
  expect((await kept(id))!.pages.every(({ smallestText }) => smallestText !== undefined)).toBe(true);
});

test('short documents are entered before long ones, which wait for one another', async () => {
  const long = await stored('entered long');
  await server.db
    .update(contents)
    .set({ pages: Array.from({ length: 300 }, () => long.pages[0]!), outline: [], detailsRead: 0 })
    .where(eq(contents.id, long.id));
  const short = await stored('entered short');
  for (const { id } of [long, short]) await enqueueReading(server.db, id, 3_600);
  const { rows } = await server.db.execute<{ key: string; priority: number; queue_name: string }>(
    sql`select key, priority, queue_name from graphile_worker.jobs where key in (${`details ${long.id}`}, ${`details ${short.id}`}) order by priority`,
  );
  expect(rows).toEqual([
    { key: `details ${short.id}`, priority: PAGES, queue_name: `details ${short.id}` },
    { key: `details ${long.id}`, priority: 300, queue_name: 'long documents' },
  ]);
});

test('a reading that broke off goes on where it stood', async () => {
  const { id, pages } = await stored('resumed');
  const marked = pages.map((page, index) => (index < PAGES - 2 ? { ...page, smallestText: 1 } : page));
  await server.db
    .update(contents)
    .set({ pages: marked, detailsRead: PAGES - 2 })
    .where(eq(contents.id, id));
  await readContentDetails(server.db, id, server.workers);
  const after = await kept(id);
  expect(after?.detailsRead).toBe(PAGES);
  expect(after?.pages.map(({ color }) => color !== undefined)).toEqual(marked.map((_, index) => index >= PAGES - 2));
  expect(after?.pages.map(({ smallestText }) => smallestText === 1)).toEqual(
    marked.map((_, index) => index < PAGES - 2),
  );
});

test.each([
  ['too long', { ms: 60, memoryMb: 1_500 }],
  ['too much memory', { ms: 60_000, memoryMb: 5 }],
])('one that takes %s is ended, for good: its pages are printed without these facts', async (why, limits) => {
  const complaint = jest.spyOn(log, 'error').mockImplementation(() => undefined);
  const { id } = await stored(why);
  await readContentDetails(server.db, id, server.workers, limits);
  expect(complaint.mock.calls).toContainEqual([
    { content: id, page: expect.any(Number) as number },
    expect.stringMatching(/^reading details: ./),
  ]);
  complaint.mockRestore();
  const { detailsRead, pages, outline } = (await kept(id))!;
  expect(detailsRead).toBe(PAGES);
  expect(outline).not.toBeNull();
  expect(pages.at(-1)).not.toHaveProperty('color');
});

test('whoever looks at a page is told what is known about it, ahead of those before', async () => {
  const { id, pages } = await stored('told ahead');
  await server.db.insert(files).values({ id, contentId: id, name: 'ahead.pdf' });
  const known = pages.map((page, index) => (index === 9 ? { ...page, smallestText: 5 } : page));
  await server.db.update(contents).set({ pages: known, outline: [], detailsRead: 3 }).where(eq(contents.id, id));
  const looked = jest.spyOn(server.workers.lookedAt, 'look');
  const ask = async (look: number) =>
    (await api().get(`/api/files/${id}/facts`).query({ from: 3, look })).body as object;
  expect(await ask(10)).toMatchObject({ read: 3, pages: [], ahead: { from: 8, pages: known.slice(7) } });
  expect(looked.mock.calls).toEqual([[id, 10]]);
  // What is known anyway, and pages that are not there, are nothing to look for.
  expect(await ask(99)).not.toHaveProperty('ahead');
  expect(await ask(1)).toMatchObject({ ahead: { from: 4 } });
  looked.mockRestore();
});

test.each([['-1'], ['1.5'], ['x']])('facts from %s are refused', async (from) => {
  const answer = await api().post('/api/files').query({ name: 'm.pdf' }).send(MANUAL);
  const { id } = answer.body as { id: string };
  expect((await api().get(`/api/files/${id}/facts`).query({ from })).status).toBe(400);
});
