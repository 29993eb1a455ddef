import { setTimeout as wait } from 'node:timers/promises';
import { eq } from 'drizzle-orm';
import { contents } from '../src/database/schema';
import { readContentDetails, type DetailsWorkers } from '../src/files/details-reader';
import { log } from '../src/log';
import { Intake } from '../src/pdf/intake';
import { LookedAt } from '../src/pdf/looked-at';
import { Stopped } from '../src/pdf/pdf-workers';
import { startServer, type RunningServer } from './running-server';
import { until } from './until';

/** Long documents, read by workers that the test lets go on. */

let server: RunningServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

const kept = (id: string) => server.db.query.contents.findFirst({ where: eq(contents.id, id) });

const MANY = 2_600;
const found = { color: false, looksGray: false, smallestText: 9, content: null };

/** A content of many pages, of which nothing but their number is stored. @returns its id */
async function long(): Promise<string> {
  const pages = Array.from({ length: MANY }, () => ({ width: 595.276, height: 841.89 }));
  const [content] = await server.db.insert(contents).values({ pages, outline: [] }).returning();
  return content!.id;
}

/** Workers that read what is let go on, and note the slices they were given. */
function workers() {
  const [intake, lookedAt] = [new Intake(), new LookedAt()];
  const slices: { first: number; pages: number; isStopped: boolean }[] = [];
  const waiting: (() => void)[] = [];
  const readDetails: DetailsWorkers['readDetails'] = async (_file, pages, page, { signal } = {}) => {
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

test('a long document is read in slices, two at the same time, and others have their turn after some of them', async () => {
  const id = await long();
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

test('a long document leaves one core to what is being taken in, and all of its memory to what takes long; nothing is read twice', async () => {
  const id = await long();
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

test('a long document is read where somebody looks at it, at once; then it goes on, and no page is read twice', async () => {
  const id = await long();
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
    [2_001, 279],
    [2_280, 278],
  ]);
  expect((await kept(id))!.detailsRead).toBe(MANY);
});

test('a long document is done where all that was left of it was looked at before', async () => {
  const id = await long();
  const { pages } = (await kept(id))!;
  const known = pages.map((page) => ({ ...page, ...found }));
  await server.db.update(contents).set({ pages: known, detailsRead: 2_000 }).where(eq(contents.id, id));
  expect(await readContentDetails(server.db, id, workers())).toBe(0);
  expect((await kept(id))!.detailsRead).toBe(MANY);
});

test('a long document is given up as a whole where a slice takes too much, and what was found of it stays', async () => {
  const complaint = jest.spyOn(log, 'error').mockImplementation(() => undefined);
  const id = await long();
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
