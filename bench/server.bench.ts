import { randomUUID } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { contentBomb, manyObjects, objectBomb } from '../packages/pdf/test/hostile-pdf';
import { numberedPdf } from '../packages/pdf/test/make-pdf';
import { query } from '../tests/e2e/databases';
import { expect, ROOT, test, type World } from '../tests/e2e/world';
import { holding, measured } from './held';
import { median, report } from './figures';
import { upload } from './upload';

/** For how long the server's own thread is held, whatever is asked of it: nobody is answered meanwhile. */

test.use({ ownWorld: true });
holding();

const held = <T>(world: World, what: string, work: () => Promise<T>): Promise<T> =>
  measured(world, what, 'under 100 ms', work);

const get = async (world: World, path: string): Promise<Response> => {
  const answer = await fetch(`${world.base}/api${path}`);
  expect(answer.status).toBe(200);
  return answer;
};

test('the server’s thread while the largest tickets are planned, listed and seen', async ({ world }) => {
  const file = await world.upload(Buffer.from(numberedPdf(50)), 'fifty.pdf');
  await wait(4_000);
  const job = async (ticket: object): Promise<string> =>
    (await world.api<{ id: string }>('/jobs', { ticket: { version: 1, ...ticket }, printerId: 'upper-office' })).id;
  // Compiled by now, and the threads that plan are there.
  for (let round = 0; round < 3; round += 1) await (await get(world, '/jobs')).text();
  const pages = Array.from({ length: 1_000 }, () => '1 x99').join(', ');
  const thousands = { title: 'Thousands', documents: [{ file, pages }], tray: 'tray-1' };
  const large = await held(world, 'entering 1,000 times 1 x99', () => job(thousands));
  await held(world, '  its list of 99,000 sheets', async () => (await get(world, `/jobs/${large}/sheets.csv`)).text());
  await held(world, '  the list of jobs with it', async () => (await get(world, '/jobs')).text());
  const foot = { lines: [{ at: 'bottom-center', text: '{page} of {pages}, {section}' }] };
  const footed = await job({ ...thousands, ...foot });
  await held(world, '  with a line at the foot of each', async () =>
    (await get(world, `/jobs/${footed}/sheets.csv`)).text(),
  );
  const slips = { documents: [{ file }], copies: 1_900, slips: { between: 'sets' }, tray: 'tray-1' };
  const written = await job(slips);
  const sheets = 1_900 * 51 - 1;
  const sent = await held(world, 'sending 1,900 sets of 50 sheets with slips', () =>
    world.api<{ id: string }>('/sendings', {
      jobId: written,
      revision: 1,
      sheets,
      confirmed: ['large-run', 'tray-short'],
    }),
  );
  await held(world, '  what the printer is told of its 96,899 sheets', async () =>
    (await get(world, `/sendings/${sent.id}/seen`)).text(),
  );
  await world.api(`/sendings/${sent.id}/cancel`, {});
});

for (const [what, make] of [
  ['a million objects', () => manyObjects(1_000_000)],
  ['objects that inflate to 700 MB', () => objectBomb(700)],
  ['content that inflates to gigabytes', () => contentBomb(700)],
  ['16,000 pages', () => numberedPdf(16_000)],
  ['20 MB in one line of text', () => new TextEncoder().encode('x'.repeat(20_000_000))],
] as const) {
  test(`the server’s thread while a file of ${what} is taken in`, async ({ world }) => {
    const file = join(ROOT, '.foglio/bench/hostile');
    writeFileSync(file, make());
    await get(world, '/jobs');
    await wait(4_000);
    const { status, id } = await held(world, `taking in ${what}`, () => upload(world, file));
    expect([201, 422]).toContain(status);
    if (status !== 201) return;
    await held(world, '  all that is known of its pages', async () =>
      (await get(world, `/files/${id}/facts?from=0`)).text(),
    );
    const job = await world.api<{ id: string }>('/jobs', { ticket: { version: 1, documents: [{ file: id }] } });
    await held(world, '  a job of it', async () => (await get(world, `/jobs/${job.id}`)).text());
    await held(world, '  its list of sheets', async () => (await get(world, `/jobs/${job.id}/sheets.csv`)).text());
  });
}

test('the list of jobs, with 10 of them and with 10,000', async ({ world }) => {
  const file = await world.upload(Buffer.from(numberedPdf(4)), 'four.pdf');
  for (let made = 0; made < 10; made += 1) {
    const ticket = { version: 1, title: `Job ${made}`, documents: [{ file }] };
    await world.api('/jobs', { ticket });
  }
  const rounds = async (path: string): Promise<number> => {
    const taken: number[] = [];
    for (let round = 0; round < 30; round += 1) {
      const start = performance.now();
      await (await get(world, path)).text();
      taken.push(performance.now() - start);
    }
    return median(taken.slice(5));
  };
  const few = await rounds('/jobs?most=10');
  const ids = Array.from({ length: 9_990 }, () => `('${randomUUID()}')`).join(', ');
  await query(
    world.database,
    `insert into jobs (id, ticket, printer_id) select v.id::uuid, ticket, printer_id
     from (values ${ids}) as v(id), (select ticket, printer_id from jobs limit 1) as one`,
    'analyze jobs',
  );
  const many = await rounds('/jobs?most=10');
  report('the first 10 of 10 jobs', few, 'ms');
  report('the first 10 of 10,000 jobs', many, 'ms', `under twice that: ${(2 * few).toFixed(1)} ms`);
  report('  searched for', await rounds('/jobs?most=10&search=job%207'), 'ms');
  await held(world, 'the first 50 of 10,000 jobs', async () => (await get(world, '/jobs')).text());
});
