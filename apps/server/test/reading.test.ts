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
import { LookedAt } from '../src/files/looked-at';
import { Intake } from '../src/pdf/intake';
import { Stopped, WorkersClosed } from '../src/pdf/pdf-workers';
import { startServer, store, type RunningServer } from './running-server';

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
  await until(
    () => kept(id),
    (content) => content?.outline !== null,
  );
  // A reader that looks at the next page only when the one before is known.
  const slow: DetailsWorkers = {
    intake: new Intake(),
    lookedAt: new LookedAt(),
    readDetails: async (_file, pages, { page }) => {
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

/** Asks until it is so. */
async function until<T>(ask: () => Promise<T>, so: (answer: T) => boolean): Promise<T> {
  for (;;) {
    const answer = await ask();
    if (so(answer)) return answer;
    await wait(20);
  }
}

test('labels of all pages and the outline come by themselves, soon after the upload', async () => {
  const { id, pages, outline } = await stored('navigation', LONG);
  expect([outline, pages[0]]).toEqual([
    null,
    { width: expect.any(Number) as number, height: expect.any(Number) as number },
  ]);
  const known = await until(
    () => kept(id),
    (content) => content?.outline !== null,
  );
  expect(known?.outline).toContainEqual({
    title: 'First steps',
    level: 1,
    page: 12,
    top: expect.any(Number) as number,
  });
  expect(known?.pages.map(({ label }) => label).slice(0, 8)).toEqual(['i', 'ii', 'iii', 'iv', 'v', 'vi', '1', '2']);
  expect(known?.detailsRead).toBe(0);
});

test('an answer from the first page on has them as soon as they are known, and later ones leave them out', async () => {
  const { id } = await stored('asked', LONG);
  await server.db.insert(files).values({ id, contentId: id, name: 'asked.pdf' });
  const { outline, pages, read } = await until(
    () => facts(id, 0),
    (answer) => answer.outline !== undefined,
  );
  expect([outline!.length, pages.length, read]).toEqual([18, 20, 0]);
  expect(await facts(id, 1)).not.toHaveProperty('outline');
});

test('where they were lost with the server, they are read before the details', async () => {
  const { id, pages } = await stored('lost');
  const { outline } = (await until(
    () => kept(id),
    (content) => content?.outline !== null,
  ))!;
  await server.db.update(contents).set({ outline: null, pages }).where(eq(contents.id, id));
  const reading = readContentDetails(server.db, id, server.workers);
  const first = await until(
    () => kept(id),
    (content) => content!.outline !== null,
  );
  expect(first).toMatchObject({
    outline,
    pages: expect.arrayContaining([expect.objectContaining({ label: 'ii' })]) as object,
  });
  await reading;
  const after = (await kept(id))!;
  expect(after.pages.every(({ label, color }) => label !== undefined && color !== undefined)).toBe(true);
});

test('labels that came meanwhile stay where nothing more can be read', async () => {
  const complaint = jest.spyOn(log, 'error').mockImplementation(() => undefined);
  const { id, pages } = await stored('meanwhile');
  const labelled = (await until(
    () => kept(id),
    (content) => content?.outline !== null,
  ))!;
  await server.db.update(contents).set({ outline: null, pages }).where(eq(contents.id, id));
  const reading = readContentDetails(server.db, id, server.workers, { ms: 60, memoryMb: 5 });
  const meanwhile = { outline: labelled.outline, pages: labelled.pages };
  await server.db.update(contents).set(meanwhile).where(eq(contents.id, id));
  await reading;
  complaint.mockRestore();
  expect(await kept(id)).toMatchObject({ ...meanwhile, detailsRead: PAGES });
});

test('pages chosen by a heading are planned right after the upload: the plan waits for the headings', async () => {
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

describe('a long document', () => {
  const MANY = 2_600;
  const found = { color: false, looksGray: false, smallestText: 9, content: null };

  /** A content of many pages, of which only the number is looked at here. */
  async function long(mark: string): Promise<string> {
    const { id, pages } = await stored(mark);
    const many = Array.from({ length: MANY }, () => pages[0]!);
    await server.db.update(contents).set({ pages: many, outline: [], detailsRead: 0 }).where(eq(contents.id, id));
    return id;
  }

  /** Workers that read what is let go on, and note the slices they were given. */
  function workers() {
    const [intake, lookedAt] = [new Intake(), new LookedAt()];
    const slices: { first: number; pages: number; isStopped: boolean }[] = [];
    const waiting: (() => void)[] = [];
    const readDetails: DetailsWorkers['readDetails'] = async (_file, pages, { page }, { signal } = {}) => {
      const slice = { first: pages[0]!, pages: pages.length, isStopped: false };
      slices.push(slice);
      // The first page of each is found at once, the rest when it is let go on.
      page(pages[0]!, found);
      await new Promise<void>((resolve, reject) => {
        waiting.push(resolve);
        signal!.addEventListener('abort', () => {
          slice.isStopped = true;
          reject(new Stopped('made way'));
        });
      });
      for (const one of pages.slice(1)) page(one, found);
    };
    return { intake, lookedAt, slices, readDetails, goOn: () => waiting.splice(0).forEach((resolve) => resolve()) };
  }

  /** Goes on as soon as so many slices were begun. */
  const begun = (one: ReturnType<typeof workers>, slices: number): Promise<unknown> =>
    until(
      () => Promise.resolve(one.slices.length),
      (length) => length >= slices,
    );

  test('is read in slices, two at the same time, and others have their turn after some of them', async () => {
    const id = await long('slices');
    const two = workers();
    const reading = readContentDetails(server.db, id, two);
    for (const slices of [2, 4]) {
      await begun(two, slices);
      two.goOn();
    }
    expect(await reading).toBe(MANY - 2_000);
    expect(two.slices.map(({ first, pages }) => [first, pages])).toEqual([
      [1, 500],
      [501, 500],
      [1_001, 500],
      [1_501, 500],
    ]);
    const known = (await kept(id))!;
    expect(known.detailsRead).toBe(2_000);
    expect(known.pages.map(({ color }) => color === false)).toEqual(known.pages.map((_, index) => index < 2_000));
  });

  test('leaves one core to what is being taken in, and all of its memory to what takes long; nothing is read twice', async () => {
    const id = await long('makes way');
    const two = workers();
    const reading = readContentDetails(server.db, id, two);
    await begun(two, 2);
    const taking = two.intake.begin();
    expect(two.slices.map(({ isStopped }) => isStopped)).toEqual([false, true]);
    taking.grows();
    expect(two.slices.map(({ isStopped }) => isStopped)).toEqual([true, true]);
    expect(await reading).toBe(MANY - 1);
    // As long as it takes, none is begun.
    expect(await readContentDetails(server.db, id, two)).toBe(MANY - 1);
    expect(two.slices).toHaveLength(2);
    taking.end();
    const next = readContentDetails(server.db, id, two);
    await begun(two, 4);
    // Of the second slice the first page is known.
    expect(two.slices.slice(2).map(({ first }) => first)).toEqual([2, 503]);
    const again = two.intake.begin();
    again.grows();
    await next;
    again.end();
  });

  test('is read where somebody looks at it, at once; then it goes on, and no page is read twice', async () => {
    const id = await long('looked at');
    const two = workers();
    const reading = readContentDetails(server.db, id, two);
    await begun(two, 2);
    two.lookedAt.look(id, 2_500);
    await begun(two, 3);
    // The one that is farther from the beginning made way.
    expect(two.slices.map(({ first, isStopped }) => [first, isStopped])).toEqual([
      [1, false],
      [501, true],
      [2_498, false],
    ]);
    // What is being read already need not be looked for, nor what is known.
    two.lookedAt.look(id, 2_510);
    two.lookedAt.look(id, 1);
    two.lookedAt.look('another', 9);
    expect(two.slices).toHaveLength(3);
    two.goOn();
    await begun(two, 5);
    expect(two.slices.slice(3).map(({ first, pages }) => [first, pages])).toEqual([
      [502, 499],
      [1_001, 500],
    ]);
    for (let slices = 6; (await Promise.race([reading, Promise.resolve(null)])) === null; slices += 1) {
      two.goOn();
      await wait(5);
    }
    const known = (await kept(id))!;
    expect(known.detailsRead).toBe(2_000);
    // Known ahead, they are passed over when it is their turn.
    expect(known.pages.slice(2_497, 2_540).every(({ color }) => color === false)).toBe(true);
    const next = workers();
    const after = readContentDetails(server.db, id, next);
    await begun(next, 2);
    next.goOn();
    expect(await after).toBe(0);
    expect(next.slices.map(({ first, pages }) => [first, pages])).toEqual([
      [2_001, 500],
      [2_544, 57],
    ]);
    expect((await kept(id))!.detailsRead).toBe(MANY);
  });

  test('is done where all that was left of it was looked at before', async () => {
    const id = await long('looked at to the end');
    const { pages } = (await kept(id))!;
    const known = pages.map((page) => ({ ...page, ...found }));
    await server.db.update(contents).set({ pages: known, detailsRead: 2_000 }).where(eq(contents.id, id));
    expect(await readContentDetails(server.db, id, workers())).toBe(0);
    expect((await kept(id))!.detailsRead).toBe(MANY);
  });

  test('is given up as a whole where a slice takes too much, and what was found of it stays', async () => {
    const complaint = jest.spyOn(log, 'error').mockImplementation(() => undefined);
    const id = await long('given up');
    const two = workers();
    const { readDetails } = two;
    two.readDetails = (file, pages, hear, how) =>
      pages[0] === 501 ? Promise.reject(new Error('it takes too much')) : readDetails(file, pages, hear, how);
    expect(await readContentDetails(server.db, id, two)).toBe(0);
    expect(complaint.mock.calls.flat().join(' ')).toContain('it takes too much');
    complaint.mockRestore();
    const known = (await kept(id))!;
    expect([known.detailsRead, known.pages.filter(({ color }) => color === false).length]).toEqual([MANY, 1]);
  });
});

test('a full disk is no fault of the document: it is not given up, and what was read stays', async () => {
  const { id } = await stored('no room');
  await until(
    () => kept(id),
    (content) => content?.outline !== null,
  );
  const full: DetailsWorkers = {
    intake: new Intake(),
    lookedAt: new LookedAt(),
    readDetails: (_file, _pages, { page }) => {
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
