import { numberedPdf } from '../../packages/pdf/test/make-pdf';
import { BenchPage } from './bench-page';
import { JobPrinter, type JobTold } from './job-printer';
import { expect, test, type World } from './world';

/** What other programs print to Foglio: from their print dialog to the record of the printer, by a client that is not ours. */

const LETTERHEAD = {
  version: 1,
  documents: [{ file: '*' }],
  sides: 'two-sided',
  tray: 'tray-1',
  routes: [{ name: 'Letterhead', pages: '1', tray: 'tray-2', sides: 'one-sided' }],
};

interface Setup {
  readonly id: string;
  readonly queue: string | null;
}

/** A set-up that is offered as a printer. */
async function offered(world: World, name: string, ticket: object = LETTERHEAD): Promise<JobPrinter> {
  const { id } = await world.api<Setup>('/setups', { name, ticket, printerId: 'upper-office' });
  const { queue } = await world.api<Setup>(`/setups/${id}`, { offered: true }, 'PUT');
  return new JobPrinter(world.queueUri(queue!));
}

/** Jobs that come at the same time. */
const AT_ONCE = 4;

const LETTER = { name: 'Letter to Mrs Vale', user: 'anna' };

test('printed to the Desk with three copies, on both sides, pages 2 to 5: exactly that lies there', async ({
  quietPage: page,
  world,
}) => {
  await page.goto(world.base);
  await expect(page.getByText('No jobs yet')).toBeVisible();
  const desk = new JobPrinter(world.queueUri('desk'));
  const wishes = { copies: 3, sides: 'two-sided-long-edge', 'page-ranges': [[2, 5]] };
  await desk.print({ name: 'Season contract', user: 'anna' }, Buffer.from(numberedPdf(14)), wishes);
  // It appears by itself, with who printed it.
  const entry = page.getByRole('link', { name: /^Season contract/ });
  await expect(entry).toContainText('printed by anna');
  await entry.click();
  const bench = new BenchPage(page, world);
  await expect(bench.sentence).toContainText('Print pages 2 to 5 of Season contract, 3 copies');
  await expect(bench.sentence).toContainText('on both sides turning like a book');
  await expect(bench.tally.getByRole('button', { name: 'Send 6 sheets' })).toBeVisible();
  const [job] = await world.jobs();
  const { ticket: house } = (await world.api<{ ticket: object }[]>('/setups'))[0]!;
  expect(job!.ticket).toEqual({
    ...house,
    title: 'Season contract',
    copies: 3,
    sides: 'two-sided',
    documents: [expect.objectContaining({ pages: '2-5' })],
  });
});

test('a letter printed to a set-up comes out of the right trays, and nobody touches Foglio', async ({ world }) => {
  const printer = await offered(world, 'Contract on letterhead');
  const told = await printer.attributes();
  expect(told).toMatchObject({
    'printer-name': 'Contract on letterhead',
    'sides-supported': 'two-sided-long-edge',
    'sides-default': 'two-sided-long-edge',
  });
  const job = await printer.print(LETTER, Buffer.from(numberedPdf(3)), { copies: 2 });
  expect(['pending', 'processing', 'completed']).toContain(job['job-state']);
  const over = await printer.until(job['job-id'], 'completed');
  expect(over).toMatchObject({
    'job-state-reasons': 'job-completed-successfully',
    'job-media-sheets': 4,
    'job-media-sheets-completed': 4,
    'job-impressions': 6,
    'job-impressions-completed': 6,
  });
  const sheets = await world.delivered(1);
  expect(sheets.map(({ tray, front, back }) => [tray, front, back])).toEqual([
    ['tray-2', 1, null],
    ['tray-1', 2, 3],
    ['tray-2', 1, null],
    ['tray-1', 2, 3],
  ]);
});

test('one that does not fit waits with the reason, is settled on the Bench, and goes on; the program sees each state', async ({
  quietPage: page,
  world,
}) => {
  const printer = await offered(world, 'Contract on letterhead');
  await page.goto(world.base);
  await expect(page.getByText('No jobs yet')).toBeVisible();
  const { 'job-id': id } = await printer.print(LETTER, Buffer.from(numberedPdf(2, 842, 1191)));
  const held = await printer.until(id, 'pending-held');
  expect(held['job-state-message']).toContain('holds A4');
  // It comes to the Desk at once, and that it waits a moment later.
  const entry = page.getByRole('link', { name: /^Letter to Mrs Vale/ });
  await expect(entry).toContainText('waits');
  await entry.click();
  const bench = new BenchPage(page, world);
  await expect(page.getByRole('note').first()).toContainText('Printed by anna to Contract on letterhead');
  await bench.take('each page’s own paper size', 'All on A4');
  const send = bench.tally.getByRole('button', { name: 'Send 2 sheets' });
  await send.click();
  await page.getByText('completed, 2 of 2 sheets').or(page.getByRole('dialog')).first().waitFor();
  const anyway = page.getByRole('dialog').getByRole('button', { name: /all the same/ });
  if (await anyway.isVisible()) await anyway.click();
  await expect(page.getByText('completed, 2 of 2 sheets')).toBeVisible({ timeout: 30_000 });
  await printer.until(id, 'completed');
  expect((await world.delivered(1)).map(({ tray }) => tray)).toEqual(['tray-2', 'tray-1']);
});

test('Foglio prints to Foglio: to a set-up, whose sheets come out at the real printer; what differs by pages stays so', async ({
  world,
}) => {
  await offered(world, 'Contract on letterhead');
  const added = new Map<string, string>();
  for (const queue of ['contract-on-letterhead', 'desk']) {
    added.set(queue, (await world.api<{ id: string }>('/printers', { uri: world.queueUri(queue) })).id);
  }
  /** Sends a job to a queue as to any other printer, and waits until that has it all. */
  const send = async (queue: string, settings: object, sheets: number): Promise<void> => {
    const file = await world.upload(Buffer.from(numberedPdf(4)), 'contract.pdf');
    const ticket = { version: 1, title: `To ${queue}`, documents: [{ file }], ...settings };
    const { id } = await world.api<{ id: string }>('/jobs', { ticket, printerId: added.get(queue) });
    const sending = await world.api<{ id: string }>('/sendings', { jobId: id, revision: 1, sheets });
    await expect(async () => {
      const { state, message } = await world.api<{ state: string; message: string }>(`/sendings/${sending.id}`);
      expect([state, message]).toEqual(['completed', null]);
    }).toPass({ timeout: 60_000 });
  };
  await send('contract-on-letterhead', { copies: 2, sides: 'two-sided' }, 4);
  await expect(async () => {
    expect((await world.delivered(1)).map(({ tray, front, back }) => [tray, front, back])).toEqual([
      ['tray-2', 1, null],
      ['tray-1', 2, 3],
      // Its back is blank.
      ['tray-1', 4, 5],
      ['tray-2', 1, null],
      ['tray-1', 2, 3],
      ['tray-1', 4, 5],
    ]);
  }).toPass({ timeout: 60_000 });
  const own = { sides: 'two-sided', tray: 'tray-1', routes: [{ pages: '1', tray: 'tray-3', sides: 'one-sided' }] };
  await send('desk', own, 3);
  const came = (await world.jobs()).find((job) => job.came !== null && job.ticket.title.startsWith('To desk'));
  // The sheet that is not as most are is a route: its page, its tray and its one side.
  expect(came?.ticket).toMatchObject({ sides: 'two-sided', tray: 'tray-1' });
  expect(came?.ticket.routes).toMatchObject([{ pages: '1', tray: 'tray-3', sides: 'one-sided' }]);
});

test('cancelled from the program: waiting, it goes from the Desk; being printed, it ends at the printer', async ({
  world,
}) => {
  const printer = await offered(world, 'Contract on letterhead');
  const { 'job-id': waiting } = await printer.print(LETTER, Buffer.from(numberedPdf(2, 842, 1191)));
  await printer.until(waiting, 'pending-held');
  await printer.cancel(waiting);
  expect(await printer.until(waiting, 'canceled')).toMatchObject({ 'job-state-reasons': 'job-canceled-by-user' });
  expect(await world.jobs()).toEqual([]);
  // Nothing comes out while it is jammed.
  await world.api('/printers/upper-office/panel/fault', { fault: 'media-jam' }, 'PUT');
  const { 'job-id': moving } = await printer.print(LETTER, Buffer.from(numberedPdf(1)), { copies: 40 });
  expect(await printer.until(moving, 'processing-stopped')).toMatchObject({
    'job-state-reasons': 'printer-stopped',
    'job-state-message': expect.stringContaining('jam'),
  });
  await printer.cancel(moving);
  await printer.until(moving, 'canceled');
  expect(await world.delivered(1)).toEqual([]);
});

test.describe('the server is killed', () => {
  test.use({ ownWorld: true });

  test('at any moment: what was answered as accepted is there, what was not is not', async ({ world }) => {
    const printer = await offered(world, 'Straight on', { version: 1, documents: [{ file: '*' }], tray: 'tray-1' });
    const accepted = new Map<string, JobTold>();
    const lost: string[] = [];
    // In each round after so many answers: from before the first to after the last.
    for (let round = 0; round <= AT_ONCE; round += 1) {
      let answered: () => void = () => undefined;
      const enough = new Promise<void>((resolve) => (answered = resolve));
      let answers = 0;
      const printing = Array.from({ length: AT_ONCE }, async (_, at) => {
        const name = `round ${round}, job ${at}`;
        try {
          accepted.set(name, await printer.print({ name, user: 'anna' }, Buffer.from(numberedPdf(1 + at))));
        } catch {
          lost.push(name);
        }
        answers += 1;
        if (answers >= round) answered();
      });
      if (round > 0) await enough;
      await world.killServer();
      await Promise.all(printing);
      await world.startServer();
    }
    for (const { 'job-id': id } of accepted.values()) await printer.until(id, 'completed');
    const came = await world.api<{ name: string; state: string }[]>('/incoming');
    for (const name of accepted.keys()) expect(came.filter((one) => one.name === name)).toHaveLength(1);
    // What was not answered for was taken whole, where the answer was lost, or is nowhere.
    for (const name of lost) {
      const [found, ...more] = came.filter((one) => one.name === name);
      expect(more).toEqual([]);
      expect(['sent', 'aborted', undefined]).toContain(found?.state);
    }
    expect(accepted.size + lost.length).toBe(AT_ONCE * (AT_ONCE + 1));
  });
});
