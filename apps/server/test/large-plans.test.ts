import { readTicket } from '@foglio/core/validate';
import supertest from 'supertest';
import { contents, files, sendings } from '../src/database/schema';
import { planningNow } from '../src/plans/planning';
import { Plans } from '../src/plans/plans';
import { PLANNER } from './test-database';
import { PROFILE, startServer, type RunningServer } from './running-server';

/** A thousand times a page 99 times: 99,000 pages in 7,000 characters. */
const THOUSANDS = Array.from({ length: 1_000 }, () => '1 x99').join(', ');

let server: RunningServer;
let file: string;

beforeAll(async () => {
  server = await startServer();
  const [content] = await server.db
    .insert(contents)
    .values({
      pages: Array.from({ length: 50 }, () => ({ width: 595.276, height: 841.89 })),
      detailsRead: 50,
      outline: [],
    })
    .returning();
  const [entered] = await server.db.insert(files).values({ contentId: content!.id, name: 'a.pdf' }).returning();
  file = entered!.id;
});
afterAll(() => server.stop());

const api = () => supertest(server.base);

async function jobOf(ticket: object): Promise<string> {
  const made = await api()
    .post('/api/jobs')
    .send({ ticket: { version: 1, ...ticket } });
  expect(made.status).toBe(201);
  return (made.body as { id: string }).id;
}

test('99,000 pages are listed, and counted in the list of jobs', async () => {
  const id = await jobOf({ documents: [{ file, pages: THOUSANDS }] });
  const answer = await api().get(`/api/jobs/${id}/sheets.csv`);
  expect(answer.text.trimEnd().split('\r\n')).toHaveLength(1 + 99_000);
  const list = await api().get('/api/jobs');
  expect(list.body).toMatchObject({ total: 1, jobs: [{ id, sheets: 99_000, sheetsPerSet: 99_000 }] });
});

test('large plans are made beside the thread that asks, which does other things meanwhile; small ones at once', async () => {
  const plans = new Plans(PLANNER);
  const documents = [{ name: 'a.pdf', sha256: 'a', pages: [{ width: 595.276, height: 841.89 }] }];
  /** How often this thread came round while it waited for an answer. */
  const roundsFor = async (pages: string): Promise<[number, number]> => {
    let rounds = 0;
    let next = setImmediate(function round() {
      rounds += 1;
      next = setImmediate(round);
    });
    const ticket = readTicket({ version: 1, documents: [{ file: 'a.pdf', pages }] });
    const { sheets } = await plans.ask({ kind: 'brief' }, planningNow(ticket, PROFILE), documents);
    clearImmediate(next);
    return [sheets, rounds];
  };
  expect(await roundsFor('1 x9')).toEqual([9, 0]);
  const [sheets, rounds] = await roundsFor(THOUSANDS);
  await plans.close();
  expect(sheets).toBe(99_000);
  expect(rounds).toBeGreaterThan(0);
});

test('what the printer is told of many sheets is the same from beside the server as from it', async () => {
  const told = async (pages: string) => {
    const job = await jobOf({ documents: [{ file, pages }], copies: 3, slips: { between: 'sets' } });
    const stored = (await server.db.query.jobs.findMany()).find(({ id }) => id === job)!;
    const [sending] = await server.db
      .insert(sendings)
      .values({
        jobId: job,
        printerId: 'test-office',
        ticket: stored.ticket,
        profile: PROFILE,
        sheets: 1,
        state: 'failed',
      })
      .returning();
    const seen = await api().get(`/api/sendings/${sending!.id}/seen`);
    expect(seen.status).toBe(200);
    return seen.body as { jobs: number; sheets: { sheet: number; kind: string }[] };
  };
  const [few, many] = [await told('1-2'), await told(Array.from({ length: 600 }, () => '1-2').join(', '))];
  expect([few.sheets.length, many.sheets.length]).toEqual([3 * 2 + 2, 3 * 1_200 + 2]);
  expect(few.sheets.map(({ kind }) => kind).filter((kind) => kind === 'slip')).toHaveLength(2);
  expect(many.sheets.slice(0, 2)).toEqual(few.sheets.slice(0, 2));
});

test('more sheets than are written out are not sent; a mistake in a large ticket is told with its place', async () => {
  const documents = [{ file }];
  const job = await jobOf({ documents, copies: 100_000, slips: { between: 'sets' } });
  const asked = { jobId: job, revision: 1, sheets: 100_000 * 51 - 1, confirmed: ['large-run'] };
  const printer = await api().post('/api/sendings').send(asked);
  // Its printer answers to nothing here; nothing is planned without it.
  expect(printer.body).toMatchObject({ code: 'printer-away' });
  const imposed = await api().get(`/api/jobs/${job}/imposed.pdf`);
  expect(imposed.body).toMatchObject({ code: 'stop-stands', detail: expect.stringContaining('written out') as string });
  const broken = await jobOf({ documents: [{ file, pages: `${THOUSANDS}, 51` }] });
  const refused = await api().get(`/api/jobs/${broken}/sheets.csv`);
  expect([refused.status, (refused.body as { place: string }).place]).toEqual([422, 'documents[0].pages']);
});
