import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { readTicket } from '@foglio/core/validate';
import supertest from 'supertest';
import { contents, files, jobs, printers } from '../src/database/schema';
import { listJobs } from '../src/jobs/job-store';
import { briefer } from '../src/jobs/briefs';
import { Plans } from '../src/plans/plans';
import { PLANNER } from './test-database';
import { PROFILE, startServer, type RunningServer } from './running-server';

let server: RunningServer;
let file: string;

beforeAll(async () => {
  server = await startServer();
  file = await enter('Kammermusik Frühling.pdf', 4);
});
afterAll(() => server.stop());
beforeEach(() => server.db.delete(jobs));

async function enter(name: string, pages: number): Promise<string> {
  const [content] = await server.db
    .insert(contents)
    .values({ pages: Array.from({ length: pages }, () => ({ width: 595.276, height: 841.89 })), outline: [] })
    .returning();
  const [entered] = await server.db.insert(files).values({ contentId: content!.id, name }).returning();
  return entered!.id;
}

/** So many jobs, each changed a minute after the one before. */
async function enterJobs(titles: readonly string[], document = file): Promise<string[]> {
  const made = titles.map((title, at) => ({
    id: randomUUID(),
    ticket: readTicket({ version: 1, title, documents: [{ file: document }], tray: 'tray-1' }),
    printerId: 'test-office',
    updatedAt: new Date(Date.UTC(2026, 8, 1, 0, at)),
  }));
  for (let from = 0; from < made.length; from += 500) await server.db.insert(jobs).values(made.slice(from, from + 500));
  return made.map(({ id }) => id);
}

interface Listed {
  readonly total: number;
  readonly jobs: readonly {
    readonly id: string;
    readonly sheets?: number;
    readonly ticket: { readonly title: string };
  }[];
}
async function list(query: object = {}): Promise<Listed> {
  const answer = await supertest(server.base).get('/api/jobs').query(query);
  expect(answer.status).toBe(200);
  return answer.body as Listed;
}
const titles = ({ jobs: found }: Listed): string[] => found.map(({ ticket }) => ticket.title);

test('the list comes page by page, the latest changed first, nothing left out and nothing twice', async () => {
  await enterJobs(Array.from({ length: 120 }, (_, at) => `Job ${at}`));
  const pages = [await list(), await list({ from: 50 }), await list({ from: 100 }), await list({ from: 150 })];
  expect(pages.map(({ total, jobs: found }) => [total, found.length])).toEqual([
    [120, 50],
    [120, 50],
    [120, 20],
    [120, 0],
  ]);
  expect(pages.flatMap(titles)).toEqual(Array.from({ length: 120 }, (_, at) => `Job ${119 - at}`));
  expect((await list({ most: 3 })).jobs).toHaveLength(3);
});

test.each([
  ['a title, whatever its letters', 'contract', ['Season CONTRACT']],
  ['the name of a document', 'frühling', ['50 % off', 'Season CONTRACT']],
  ['an attachment’s own name', 'invoice', ['The mail']],
  ['signs that mean something elsewhere', '50 %', ['50 % off']],
  ['nothing that any job holds', '_', []],
  ['nothing but spaces', '  ', ['The mail', '50 % off', 'Season CONTRACT']],
])('a search finds %s', async (_, search, found) => {
  await enterJobs(['Season CONTRACT', '50 % off']);
  const [mail] = await enterJobs(['The mail'], await enter('mail.eml', 1));
  await server.db
    .update(jobs)
    .set({ updatedAt: new Date(Date.UTC(2026, 9, 1)) })
    .where(eq(jobs.id, mail!));
  await server.db
    .update(files)
    .set({ laid: { kind: 'mail', form: { attachment: 'Invoice.pdf' } } as never })
    .where(eq(files.name, 'mail.eml'));
  expect(titles(await list({ search }))).toEqual(found);
});

test.each([{ from: -1 }, { most: 0 }, { most: 101 }, { search: 'x'.repeat(201) }])(
  'a list of %o is refused',
  async (query) => {
    expect((await supertest(server.base).get('/api/jobs').query(query)).status).toBe(400);
  },
);

describe('what was planned', () => {
  const plans = new Plans(PLANNER);
  const ask = jest.spyOn(plans, 'ask');
  afterAll(() => plans.close());
  beforeEach(() => ask.mockClear());

  test('is kept until the job, its printer or what is known of its pages changes', async () => {
    const [id] = await enterJobs(['Once', 'Twice']);
    const briefs = briefer(server.db, plans);
    const sheets = async () => (await briefs((await listJobs(server.db, {})).jobs)).map((brief) => brief.sheets);
    const planned = async (): Promise<number> => {
      await sheets();
      const { length } = ask.mock.calls;
      ask.mockClear();
      return length;
    };
    expect(await sheets()).toEqual([4, 4]);
    ask.mockClear();
    expect(await planned()).toBe(0);
    await server.db.update(jobs).set({ revision: 2 }).where(eq(jobs.id, id!));
    expect([await planned(), await planned()]).toEqual([1, 0]);
    await server.db.update(contents).set({ detailsRead: 1 });
    expect([await planned(), await planned()]).toEqual([2, 0]);
    await server.db.update(printers).set({ profile: { ...PROFILE, duplex: true, name: 'Other' } });
    expect([await planned(), await planned()]).toEqual([2, 0]);
  });

  test('of ten thousand jobs only those of a page are looked at', async () => {
    await enterJobs(Array.from({ length: 10_000 }, (_, at) => `Job ${at}`));
    const briefs = briefer(server.db, plans);
    const { jobs: found, total } = await listJobs(server.db, {});
    expect([found.length, total]).toEqual([50, 10_000]);
    await briefs(found);
    expect(ask).toHaveBeenCalledTimes(50);
  });
});
