import { expect, test, type World } from './world';

test.use({ ownWorld: true });

interface Sending {
  readonly id: string;
  readonly state: string;
  readonly message: string | null;
  readonly printerJobs: readonly number[];
}

const CONTRACT = {
  copies: 2,
  sides: 'two-sided',
  tray: 'tray-1',
  routes: [{ pages: '1, 6', tray: 'tray-2', sides: 'one-sided' }],
};

/** Everything that came out of the printer: of the job that a sending was begun with, and of those it was begun again with. */
async function allDelivered(world: World): Promise<number> {
  const jobs = await Promise.all([1, 2, 3, 4].map((job) => world.delivered(job)));
  return jobs.flat().length;
}

test('kill -9 between upload and send: file and job are there, and are sent', async ({ world }) => {
  const job = await world.demoJob('contract', CONTRACT);
  await world.killServer();
  await world.startServer();
  const kept = await world.api<{ ticket: { copies: number }; documents: { pages: object[] }[] }>(`/jobs/${job}`);
  expect([kept.ticket.copies, kept.documents[0]?.pages.length]).toEqual([2, 14]);
  const sending = await world.api<Sending>('/sendings', { jobId: job, revision: 1, sheets: 16 });
  await expect.poll(async () => (await world.api<Sending>(`/sendings/${sending.id}`)).state).toBe('completed');
  expect(await world.delivered(1)).toHaveLength(16);
});

test('kill -9 right after a job was accepted for sending: it is printed, once', async ({ world }) => {
  const job = await world.demoJob('contract', CONTRACT);
  const sending = await world.api<Sending>('/sendings', { jobId: job, revision: 1, sheets: 16 });
  await world.killServer();
  await world.startServer();
  const settled = async (): Promise<string> => (await world.api<Sending>(`/sendings/${sending.id}`)).state;
  await expect.poll(settled, { timeout: 30_000 }).toBe('completed');
  expect(await allDelivered(world)).toBe(16);
});

test.describe('in the middle of sending', () => {
  // Some seconds for the document of about half a megabyte.
  test.use({ printerOptions: { intakeKb: 120 } });

  test('kill -9: what the printer got a part of is called off there, and sent again by itself', async ({
    quietPage: page,
    world,
  }) => {
    const file = await world.upload(world.manual(), 'manual.pdf');
    const ticket = {
      version: 1,
      title: 'Manual',
      documents: [{ file }],
      copies: 1,
      sides: 'two-sided',
      tray: 'tray-1',
    };
    const { id: job } = await world.api<{ id: string }>('/jobs', { ticket });
    const sending = await world.api<Sending>('/sendings', {
      jobId: job,
      revision: 1,
      sheets: 32,
      confirmed: ['outside-printable'],
    });
    const now = (): Promise<Sending> => world.api<Sending>(`/sendings/${sending.id}`);
    // The printer has made a job of it, and the document is on its way.
    await expect.poll(async () => (await now()).printerJobs).toEqual([1]);
    expect((await now()).state).toBe('sending');
    await world.killServer();
    await world.startServer();
    await page.goto(`${world.base}/queue/${sending.id}`);
    await expect(page.locator('aside').getByText('32 sheets · completed')).toBeVisible({ timeout: 60_000 });
    expect(await world.delivered(1)).toEqual([]);
    expect(await allDelivered(world)).toBe(32);
  });
});

test.describe('in the middle of printing', () => {
  // With so much paper it stops in the middle, however fast it is.
  const LOADED = 5;

  async function stopInTheMiddle(world: World): Promise<() => Promise<Sending>> {
    await world.load('tray-1', LOADED);
    const job = await world.demoJob('contract', { ...CONTRACT, routes: [] });
    const { id } = await world.api<Sending>('/sendings', {
      jobId: job,
      revision: 1,
      sheets: 14,
      confirmed: ['tray-short'],
    });
    await expect.poll(async () => (await world.delivered(1)).length).toBe(LOADED);
    return () => world.api<Sending>(`/sendings/${id}`);
  }

  test('kill -9: the printer goes on, and the server takes up following it', async ({ world }) => {
    const now = await stopInTheMiddle(world);
    await expect.poll(async () => (await now()).state).toBe('printing');
    await world.killServer();
    await world.load('tray-1', 500);
    await world.startServer();
    await expect.poll(async () => (await now()).state, { timeout: 20_000 }).toBe('completed');
    expect(await world.delivered(1)).toHaveLength(14);
  });

  test('the printer switched off and on again: said meanwhile, and nothing comes out twice', async ({ world }) => {
    const now = await stopInTheMiddle(world);
    await world.stopPrinter();
    await expect.poll(async () => (await now()).message).toContain('The printer does not answer');
    await world.startPrinter();
    await world.load('tray-1', 500);
    await expect.poll(async () => (await now()).state).toBe('completed');
    expect((await world.delivered(1)).map(({ index }) => index)).toEqual(
      Array.from({ length: 14 }, (_, index) => index + 1),
    );
  });
});

test.describe('many at once', () => {
  test.use({ printerOptions: { also: ['library'] } });

  /** Each client has so many; `npm run soak` gives it five times as many. */
  const EACH = 2 * Number(process.env['FOGLIO_TIMES'] ?? 1);
  const JOBS = 10 * EACH;

  test('many jobs sent by ten clients: all are printed once, on each printer in the order they were sent off', async ({
    world,
  }) => {
    const file = await world.upload(world.source('contract'), 'contract.pdf');
    const printers = ['upper-office', 'library'];
    const jobs = await Promise.all(
      Array.from({ length: JOBS }, async (_, index) => {
        const pages = String((index % 14) + 1);
        const ticket = { version: 1, title: `Job ${index + 1}`, documents: [{ file, pages }], tray: 'tray-1' };
        const printerId = printers[index % 2];
        return (await world.api<{ id: string }>('/jobs', { ticket, printerId })).id;
      }),
    );
    const client = async (first: number): Promise<string[]> => {
      const sent: string[] = [];
      for (const jobId of jobs.slice(first, first + EACH)) {
        const confirmed = ['color-on-mono', 'gray-coded-as-color'];
        sent.push((await world.api<Sending>('/sendings', { jobId, revision: 1, sheets: 1, confirmed })).id);
      }
      return sent;
    };
    const ids = (await Promise.all(Array.from({ length: 10 }, (_, index) => client(index * EACH)))).flat();
    const all = (): Promise<(Sending & { printerId: string; createdAt: string })[]> => world.api('/sendings');
    await expect
      .poll(async () => (await all()).filter(({ state }) => state === 'completed').length, { timeout: 120_000 })
      .toBe(JOBS);
    const sendings = await all();
    expect(sendings.map(({ id }) => id).sort()).toEqual([...ids].sort());
    for (const printer of printers) {
      const here = sendings.filter(({ printerId }) => printerId === printer);
      // The list has the latest first.
      const inOrder = here.reverse().flatMap(({ printerJobs }) => printerJobs);
      // Numbers of its jobs: as many as were sent, none twice, each later one higher.
      expect(inOrder).toEqual(Array.from({ length: JOBS / 2 }, (_, index) => index + 1));
      for (const job of inOrder) expect(await world.delivered(job, printer)).toHaveLength(1);
    }
  });
});

test('kill -9 between the first set and the others, and in a part that is printed again: all of it, once', async ({
  world,
}) => {
  const job = await world.demoJob('contract', { tray: 'tray-1', copies: 3, proof: true });
  const first = await world.api<Sending>('/sendings', { jobId: job, revision: 1, sheets: 42 });
  const stateOf = async (id: string): Promise<string> => (await world.api<Sending>(`/sendings/${id}`)).state;
  await expect.poll(() => stateOf(first.id), { timeout: 30_000 }).toBe('proofed');
  await world.killServer();
  await world.startServer();
  expect(await stateOf(first.id)).toBe('proofed');
  const key = 'the-other-two-sets-1';
  const others = await world.api<Sending>(`/sendings/${first.id}/other-sets`, { key });
  await world.killServer();
  await world.startServer();
  // The answer was lost: it is asked for once more.
  expect((await world.api<Sending>(`/sendings/${first.id}/other-sets`, { key })).id).toBe(others.id);
  await expect.poll(() => stateOf(others.id), { timeout: 30_000 }).toBe('completed');
  expect(await allDelivered(world)).toBe(42);

  const marks = [{ sets: [2, 3], sheets: [[7, 8]] }];
  const again = await world.api<Sending>(`/sendings/${others.id}/again`, { marks });
  await world.killServer();
  await world.startServer();
  await expect.poll(() => stateOf(again.id), { timeout: 30_000 }).toBe('completed');
  expect(await allDelivered(world)).toBe(46);
});
