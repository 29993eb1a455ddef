import { ownDatabase } from './own-database';
import { expect, test, type World } from './world';

/** What goes wrong in the middle of a job: nothing is lost, and nothing is printed twice. */

test.use({ ownWorld: true });

interface Sending {
  readonly id: string;
  readonly state: string;
  readonly message: string | null;
  readonly printerJobs: readonly number[];
  readonly sheetsDone: number;
}

const follow = (world: World, id: string) => (): Promise<Sending> => world.api<Sending>(`/sendings/${id}`);

/** The manual, 63 pages on both sides, sent off however much paper there is, and although some of its lines run off it. */
async function sendManual(world: World): Promise<() => Promise<Sending>> {
  const file = await world.upload(world.manual(), 'manual.pdf');
  const ticket = { version: 1, title: 'Manual', documents: [{ file }], sides: 'two-sided', tray: 'tray-1' };
  const { id: jobId } = await world.api<{ id: string }>('/jobs', { ticket });
  const { id } = await world.api<Sending>('/sendings', {
    jobId,
    revision: 1,
    sheets: 32,
    confirmed: ['tray-short', 'outside-printable'],
  });
  return follow(world, id);
}

/** All that came out of the printer, whichever of its jobs it was. */
async function cameOut(world: World, jobs: number): Promise<number[]> {
  const each = await Promise.all(Array.from({ length: jobs }, (_, index) => world.delivered(index + 1)));
  return each.flat().map(({ front }) => front);
}

const FRONTS = Array.from({ length: 32 }, (_, index) => 2 * index + 1);

test.describe('the printer vanishes', () => {
  // Some seconds for the document of about half a megabyte.
  test.use({ printerOptions: { intakeKb: 120 } });

  test('while the document is being sent, and comes back: it is sent again by itself', async ({ world }) => {
    const now = await sendManual(world);
    await expect.poll(async () => (await now()).printerJobs).toEqual([1]);
    expect((await now()).state).toBe('sending');
    await world.killPrinter();
    await expect.poll(async () => (await now()).message).toContain('the printer does not answer');
    expect((await now()).state).toBe('sending');
    await world.startPrinter();
    await expect.poll(async () => (await now()).message).toContain('printed nothing of it. It is sent again.');
    await expect.poll(async () => (await now()).state, { timeout: 40_000 }).toBe('completed');
    expect((await now()).printerJobs).toEqual([2]);
    expect(await cameOut(world, 2)).toEqual(FRONTS);
  });
});

/** Moments at which a person may think better of it, each told by how its sending stands. */
const MOMENTS: readonly [string, (now: Sending) => boolean][] = [
  ['entered', () => true],
  ['being imposed', ({ state }) => state === 'sending'],
  ['on its way', ({ printerJobs }) => printerJobs.length === 1],
  ['at the printer', ({ state }) => state === 'printing'],
  ['half printed', ({ sheetsDone }) => sheetsDone === 16],
];

test.describe('cancelled at any moment', () => {
  // Some seconds for the document of about half a megabyte.
  test.use({ printerOptions: { intakeKb: 240 } });

  test('waiting, being imposed, on its way or being printed: it ends, and no further sheet comes out', async ({
    world,
  }) => {
    // With this it stops in the middle of the last one.
    await world.load('tray-1', 16);
    for (const [moment, isThere] of MOMENTS) {
      if (moment === 'at the printer') await world.api('/printers/upper-office/panel/paused', { paused: true }, 'PUT');
      const now = await sendManual(world);
      await expect.poll(async () => isThere(await now()), { message: moment, timeout: 30_000 }).toBe(true);
      await world.api(`/sendings/${(await now()).id}/cancel`, {});
      await expect.poll(async () => (await now()).state, { message: moment }).toBe('canceled');
      if (moment === 'at the printer') await world.api('/printers/upper-office/panel/paused', { paused: false }, 'PUT');
    }
    const sheets = await cameOut(world, 5);
    expect(sheets).toEqual(FRONTS.slice(0, 16));
    // Nothing of them keeps the printer from the next, nor comes out before or after it.
    await world.load('tray-1', 500);
    const contract = await world.demoJob('contract');
    const { id } = await world.api<Sending>('/sendings', { jobId: contract, revision: 1, sheets: 14 });
    await expect.poll(async () => (await follow(world, id)()).state, { timeout: 30_000 }).toBe('completed');
    expect(await cameOut(world, 6)).toHaveLength(sheets.length + 14);
  });
});

test.describe('the server is killed', () => {
  test.use({ printerOptions: { as: 'library', intakeKb: 25 } });

  test('between the jobs of one sending: those that are missing follow, and each comes out once', async ({ world }) => {
    const routes = [{ pages: '1-4', layout: { kind: 'booklet' } }];
    const job = await world.demoJob('programme', { sides: 'two-sided', copies: 2, routes });
    const confirmed = ['separate-jobs', 'color-on-mono', 'outside-printable', 'text-too-small'];
    const { id } = await world.api<Sending>('/sendings', { jobId: job, revision: 1, sheets: 6, confirmed });
    const now = follow(world, id);
    await expect.poll(async () => (await now()).printerJobs.length, { timeout: 30_000 }).toBe(2);
    await world.killServer();
    await world.startServer();
    await expect.poll(async () => (await now()).state, { timeout: 60_000 }).toBe('completed');
    const { printerJobs } = await now();
    expect(printerJobs).toHaveLength(4);
    const sides = await Promise.all(
      printerJobs.map(async (number) => (await world.delivered(number)).map((one) => one.sides)),
    );
    const [short, long] = ['two-sided-short-edge', 'two-sided-long-edge'];
    expect(sides).toEqual([[short], [long, long], [short], [long, long]]);
    // What the printer had begun to take in when the server died was not printed.
    const all = await Promise.all(Array.from({ length: 6 }, (_, index) => world.delivered(index + 1)));
    expect(all.flat()).toHaveLength(6);
  });
});

test.describe('the database stops', () => {
  // They stop the same one: one after the other.
  test.describe.configure({ mode: 'default' });
  test.use({ ownServer: true });

  test('while a job is printed and another is sent: both come out once', async ({ world, page }) => {
    await world.load('tray-1', 5);
    const now = await sendManual(world);
    await expect.poll(async () => (await now()).sheetsDone).toBe(5);
    const contract = await world.demoJob('contract');
    const { id } = await world.api<Sending>('/sendings', {
      jobId: contract,
      revision: 1,
      sheets: 14,
      confirmed: ['tray-short'],
    });
    await page.goto(`${world.base}/queue/${id}`);
    ownDatabase('stop');
    const answer = await fetch(`${world.base}/api/jobs`);
    expect([answer.status, await answer.json()]).toMatchObject([503, { code: 'database-away' }]);
    const said = page.getByRole('alert').filter({ hasText: 'Foglio’s database is away' });
    await expect(said).toBeVisible();
    // The printer knows nothing of it, and goes on to its end.
    await world.load('tray-1', 500);
    await expect.poll(async () => (await world.delivered(1)).length).toBe(32);
    ownDatabase('start');
    await expect.poll(async () => (await follow(world, id)()).state, { timeout: 40_000 }).toBe('completed');
    expect((await now()).state).toBe('completed');
    expect(await cameOut(world, 2)).toEqual([...FRONTS, ...Array.from({ length: 14 }, (_, index) => index + 1)]);
    // The page heard of it without being loaded again.
    await expect(page.getByText('completed, 14 of 14 sheets')).toBeVisible();
    await expect(said).toBeHidden();
  });

  test('and the printer too, between the first set and the others, and in a part that is printed again: all of it, once', async ({
    world,
  }) => {
    const job = await world.demoJob('contract', { tray: 'tray-1', copies: 3, proof: true });
    const first = await world.api<Sending>('/sendings', { jobId: job, revision: 1, sheets: 42 });
    const first14 = follow(world, first.id);
    await expect.poll(async () => (await first14()).state).toBe('proofed');
    /** Both go away with whatever is under way, and come again. */
    const blow = async (): Promise<void> => {
      ownDatabase('stop');
      await world.stopPrinter();
      await world.startPrinter();
      ownDatabase('start');
      await expect.poll(async () => (await fetch(`${world.base}/api/sendings`)).status).toBe(200);
    };
    await blow();
    expect((await first14()).state).toBe('proofed');
    const key = 'the-other-two-sets-2';
    const others = await world.api<Sending>(`/sendings/${first.id}/other-sets`, { key });
    await blow();
    // The answer was lost: it is asked for once more.
    expect((await world.api<Sending>(`/sendings/${first.id}/other-sets`, { key })).id).toBe(others.id);
    await expect.poll(async () => (await follow(world, others.id)()).state, { timeout: 60_000 }).toBe('completed');
    const again = await world.api<Sending>(`/sendings/${others.id}/again`, {
      marks: [{ sets: [2, 3], sheets: [[7, 8]] }],
    });
    await blow();
    const part = follow(world, again.id);
    await expect.poll(async () => (await part()).state, { timeout: 60_000 }).toBe('completed');
    // By the pages of the document that stand on what came out.
    type Stack = {
      readonly delivered: readonly { job: number; front: number }[];
      readonly pages: readonly { job: number; page: number; cells: readonly { page: number }[] }[];
    };
    const pagesOf = async (id: string): Promise<number[]> => {
      const { delivered, pages } = await world.api<Stack>(`/sendings/${id}/stack`);
      const cellsOf = ({ job, front }: Stack['delivered'][number]) =>
        pages.find((one) => one.job === job && one.page === front)!.cells;
      return delivered.flatMap((sheet) => cellsOf(sheet).map(({ page }) => page));
    };
    const set = Array.from({ length: 14 }, (_, index) => index + 1);
    expect(await Promise.all([first, others, again].map(({ id }) => pagesOf(id)))).toEqual([
      set,
      [...set, ...set],
      [7, 8, 7, 8],
    ]);
    expect(await cameOut(world, 8)).toHaveLength(46);
  });
});
