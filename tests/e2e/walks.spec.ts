import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { Chance } from './chance';
import { numberedPages, printedSheets } from './printed-sheets';
import { RoughNetwork } from './rough-network';
import { seeAndSend, type SeenJob, type SheetOnPaper } from './seen-sheets';
import { Walker } from './walker';
import { expect, ROOT, test, type World } from './world';

/**
 * A person at the Bench, played by chance, on a network where answers come late, in another order, or not at all, with
 * a second window open on the same job: what is printed is what stood on the screen when Send was pressed, at the printer
 * that was named there, once.
 */

const WALKS = Number(process.env['FOGLIO_WALKS'] ?? 2);
const DELAY_MS = Number(process.env['FOGLIO_WALK_DELAY'] ?? 300);
/** The same ones each time, so that a walk that fails has found something in the change; 0: by chance, for `npm run walks`. */
const seed = process.env['FOGLIO_WALK_SEED'] ?? '1';
// Chosen once: whoever runs one test of this file finds it in the environment.
const SEED = Number((process.env['FOGLIO_WALK_SEED'] = seed === '0' ? String(Date.now() % 1_000_000) : seed));
const ACTIONS = 15;
const PRINTERS = ['upper-office', 'library', 'box-office'];

interface Sending {
  readonly id: string;
  readonly printerId: string;
  readonly printerJobs: readonly number[];
  readonly state: string;
}

interface Profile {
  readonly name: string;
  readonly trays: readonly { readonly id: string; readonly name?: string }[];
}

const profileOf = (printer: string): Profile =>
  JSON.parse(readFileSync(join(ROOT, `demo/printers/${printer}.json`), 'utf8')) as Profile;

/** Sheets in any order: what one set holds. */
const asSet = (sheets: readonly SheetOnPaper[]): string[] => sheets.map((sheet) => JSON.stringify(sheet)).sort();

for (let walk = 0; walk < WALKS; walk += 1) {
  const own = SEED + walk;

  test(`walk ${walk + 1}, seed ${own}`, async ({ page, context, world }) => {
    test.setTimeout(180_000 + ACTIONS * DELAY_MS * 20);
    const chance = new Chance(own);
    const network = new RoughNetwork(new Chance(own + 0.5), DELAY_MS);
    const pages = await numberedPages(6);
    const file = await world.upload(pages, 'pages.pdf');
    const ticket = { version: 1, title: 'Walk', documents: [{ file }], tray: 'auto' };
    const { id } = await world.api<{ id: string }>('/jobs', { ticket });
    const address = `${world.base}/jobs/${id}`;
    await network.begin(context);
    const windows = [page, await context.newPage()].map((one) => new Walker(one, address, chance, pages));
    for (const { page: one } of windows) {
      // All sheets of a job lie side by side.
      await one.setViewportSize({ width: 2600, height: 900 });
      await one.goto(address);
    }
    const sent: SeenJob[] = [];
    for (let action = 0; action < ACTIONS; action += 1) {
      const walker = windows[chance.below(4) === 0 ? 1 : 0]!;
      if (chance.below(3) === 0) await send(walker, network, world, sent, chance);
      else await walker.act();
    }

    // At the end on a network that is well: whatever happened before, the job as it stands can be sent, and is.
    network.calm();
    await network.settled();
    const [first] = windows as [Walker, Walker];
    // What a window still has to save goes on its way as it is left.
    for (const { page: one } of windows) await one.goto('about:blank');
    await expect(async () => {
      await network.settled();
      const stands = await world.api<{ revision: number; ticket: { documents: object[] } }>(`/jobs/${id}`);
      const documents = stands.ticket.documents.map((one) => ({ ...one, pages: '1-3' }));
      await world.api(`/jobs/${id}`, { ticket: { ...stands.ticket, documents }, revision: stands.revision }, 'PUT');
    }).toPass();
    await first.page.goto(address);
    await expect(first.page.locator('fo-lanes .sheet').first()).toBeVisible();
    if ((await first.page.locator('fo-lanes .pass').count()) === 0) {
      await expect(first.page.getByRole('button', { name: /^Send \d/ })).toBeEnabled();
      const before = sent.length;
      await send(first, network, world, sent, chance, 'as it is');
      const isShort = (await first.page.getByText('runs out').count()) > 0;
      expect(sent.length).toBe(before + (isShort ? 0 : 1));
    }
    await requireAllPrinted(world, sent);
    const tried = windows.map(({ tried: { done, left } }) => `${done} acts done and ${left} left`);
    console.log(`seed ${own}: ${tried.join(', in the other window ')}; ${sent.length} sent, all as seen`);
  });
}

/** Presses Send where that can be done, and waits until it is known what became of it; what was entered is noted as seen. */
async function send(
  walker: Walker,
  network: RoughNetwork,
  world: World,
  sent: SeenJob[],
  chance: Chance,
  how: 'as it is' | 'perhaps changed' = 'perhaps changed',
): Promise<void> {
  const { page } = walker;
  const before = (await world.api<Sending[]>('/sendings')).length;
  if (how !== 'as it is' && chance.below(3) > 0) await walker.changeQuickly();
  const seen = await seeAndSend(page);
  if (!seen) return;
  await confirm(page);
  // Sometimes the person does not wait to see what becomes of it.
  if (how !== 'as it is' && chance.below(3) === 0) await page.getByRole('link', { name: 'Desk' }).click();
  else await expect(page.locator('fo-tally-bar .state:text-is("Sending")')).toHaveCount(0);
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await network.settled();
  const entered = (await world.api<Sending[]>('/sendings')).length - before;
  expect(entered, 'sendings entered by one press').toBeLessThanOrEqual(1);
  if (entered === 1) sent.push(seen);
}

/** Confirms what is to be confirmed, also what only the server knows of; but that paper runs out: nobody is there to load it. */
async function confirm(page: Page): Promise<void> {
  const question = page.getByRole('button', { name: /all the same$/ });
  for (;;) {
    // Whoever went elsewhere just before is there by now.
    const elsewhere = 'fo-queue, fo-desk, fo-setups';
    const over = page.locator(`${elsewhere}, fo-tally-bar .state:not(:text-is("Sending"))`);
    await expect(question.or(over).first()).toBeVisible();
    if (!(await question.isVisible())) return;
    const runsOut = (await page.getByRole('dialog').getByText('runs out').count()) > 0;
    await (runsOut ? page.getByRole('button', { name: 'Look again' }) : question).click();
    await expect(question).toHaveCount(0);
  }
}

/** Compares each sending, the first one first, with the record of the printer that was named on the screen. */
async function requireAllPrinted(world: World, sent: readonly SeenJob[]): Promise<void> {
  const sendings = (await world.api<Sending[]>('/sendings')).toReversed();
  expect(sendings).toHaveLength(sent.length);
  const jobs = new Set<string>();
  for (const [at, seen] of sent.entries()) {
    const { id, printerId } = sendings[at]!;
    expect(profileOf(printerId).name).toBe(seen.printer);
    const now = (): Promise<Sending> => world.api<Sending>(`/sendings/${id}`);
    await expect.poll(async () => (await now()).state, { message: 'how it stands' }).toBe('completed');
    const { printerJobs } = await now();
    for (const job of printerJobs) jobs.add(`${printerId} ${job}`);
    const { trays } = profileOf(printerId);
    const nameOf = (tray: string): string => trays.find((one) => one.id === tray)?.name ?? tray;
    const printed = await printedSheets(world, printerJobs, printerId, nameOf);
    for (let set = 1; set <= seen.sets; set += 1) {
      const ofSet = printed.filter((one) => one.set === set).map(({ sheet }) => sheet);
      expect(asSet(ofSet), `set ${set} of sending ${at + 1}`).toEqual(asSet(seen.sheets));
    }
    expect(printed).toHaveLength(seen.sets * seen.sheets.length);
  }
  // Nothing but these reached any printer.
  for (const printer of PRINTERS) {
    const known = [...jobs].filter((job) => job.startsWith(`${printer} `)).length;
    expect(await world.delivered(known + 1, printer), `a job more at ${printer}`).toEqual([]);
  }
}
