import { BenchPage } from './bench-page';
import { Wire } from './wire';
import { expect, test, type World } from './world';

const panel = (world: World, part: string, what: object): Promise<unknown> =>
  world.api(`/printers/upper-office/panel/${part}`, what, 'PUT');

test('the Bench and the bar tell by themselves that the printer stops, and what lies in its trays', async ({
  quietPage: page,
  world,
}) => {
  const bench = new BenchPage(page, world);
  await bench.open(await world.demoJob('contract', { tray: 'tray-1' }));
  const bar = page.getByRole('banner');
  await expect(bar).toContainText('Upper office · ready');
  await panel(world, 'paused', { paused: true });
  await expect(bar).toContainText('Upper office · paused');
  await expect(bench.tally.getByText('Upper office is paused: what is sent waits for it.')).toBeVisible();
  await panel(world, 'paused', { paused: false });
  await world.api('/printers/upper-office/trays/tray-1', { type: 'labels' }, 'PUT');
  await expect(bench.lanes.getByText('A4 labels')).toBeVisible();
  // Said at the printer itself, which nobody here was told of.
  await world.load('tray-1', 3);
  await expect(page.getByText(/Tray 1 holds 3 of the 14 sheets needed/).first()).toBeVisible();
});

test('without a connection it is said that the screen may be out of date; with it, it catches up', async ({
  page,
  world,
}) => {
  const wire = new Wire();
  await wire.begin(page);
  const bench = new BenchPage(page, world);
  const job = await world.demoJob('contract', { tray: 'tray-1' });
  await bench.open(job);
  await wire.cut();
  const lost = page.getByText('No connection to Foglio’s server. What you see may be out of date.');
  await expect(lost).toBeVisible();
  await world.api('/printers/upper-office/trays/tray-1', { type: 'labels' }, 'PUT');
  const { ticket, revision } = await world.api<{ ticket: object; revision: number }>(`/jobs/${job}`);
  await world.api(`/jobs/${job}`, { ticket: { ...ticket, copies: 2 }, revision }, 'PUT');
  wire.mend();
  await expect(lost).toBeHidden();
  await expect(bench.lanes.getByText('A4 labels')).toBeVisible();
  await expect(page.getByText('Another window changed this job.')).toBeVisible();
});

test('a change in another window is told at once, before anything is lost or sent', async ({
  quietPage: page,
  world,
}) => {
  const bench = new BenchPage(page, world);
  const job = await world.demoJob('contract');
  await bench.open(job);
  const other = new BenchPage(await page.context().newPage(), world);
  await other.open(job);
  await other.typePages('1-4');
  await expect(page.getByText('Another window changed this job.')).toBeVisible();
  await expect(bench.tally.getByRole('button', { name: 'Send 14 sheets', exact: true })).toBeDisabled();
  await page.getByRole('button', { name: 'Show how it stands now' }).click();
  await expect(bench.tally.getByRole('button', { name: 'Send 4 sheets', exact: true })).toBeVisible();
  // Where it was changed nothing is said of it.
  await expect(other.page.getByText('Another window')).toBeHidden();
});

test('with eight windows open each hears of what is sent, and the server still answers all', async ({
  page,
  world,
}) => {
  const pages = [page];
  while (pages.length < 8) pages.push(await page.context().newPage());
  for (const one of pages) {
    await one.goto(`${world.base}/queue`);
    await expect(one.getByText('Nothing has been sent yet.')).toBeVisible();
  }
  const jobId = await world.demoJob('contract');
  await world.api('/sendings', { jobId, revision: 1, sheets: 14 });
  for (const one of pages) await expect(one.getByText('completed, 14 of 14 sheets')).toBeVisible();
});
