import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { BenchPage } from './bench-page';
import { query } from './databases';
import { numberedPages, printedSheets } from './printed-sheets';
import { expect, ROOT, test, type World } from './world';

/** One set first, and only the sheets that went wrong. */

interface Sending {
  readonly id: string;
  readonly state: string;
  readonly sheetsDone: number;
}

const until = (world: World, id: string, state: string) =>
  expect
    .poll(async () => (await world.api<Sending>(`/sendings/${id}`)).state, {
      message: 'how it stands',
      timeout: 60_000,
    })
    .toBe(state);

/** Enters a job of pages that say their numbers, and sends it. */
async function send(world: World, pages: number, settings: object, sheets: number, printerId = 'upper-office') {
  const file = await world.upload(await numberedPages(pages), 'numbered.pdf');
  const ticket = { version: 1, title: 'Numbered', documents: [{ file }], ...settings };
  const { id: jobId } = await world.api<{ id: string }>('/jobs', { ticket, printerId });
  const sent = await world.api<Sending>('/sendings', { jobId, revision: 1, sheets, confirmed: CONFIRMED });
  return { ...sent, jobId };
}

const CONFIRMED = ['two-passes', 'large-run', 'size-changed', 'outside-printable', 'tray-short'];

test('a proof is found wrong and changed, then another is right, and the rest is printed', async ({ page, world }) => {
  const bench = new BenchPage(page, world);
  const job = await world.demoJob('contract', { tray: 'tray-1', copies: 24 });
  await bench.open(job);
  await bench.also('One set first, to look at', /^One set first/);
  await expect(bench.sentence).toContainText('24 copies as complete sets, one of them first');
  await expect(bench.tally).toContainText(/ready about \d\d:\d\d/);
  const first = bench.tally.getByRole('button', { name: 'Send one set first, 14 sheets' });
  await first.click();
  await page.getByRole('button', { name: 'Send 14 sheets all the same' }).click();
  await expect(page.getByText('one set is out: look at it, 14 of 14 sheets')).toBeVisible();
  await expect(page.getByText('It prints the first of 24 sets.')).toBeVisible();
  expect((await world.delivered(1)).map(({ set }) => set)).toEqual(Array.from({ length: 14 }, () => 1));

  await page.getByRole('link', { name: 'Change it' }).click();
  await bench.typePages('1-2, 4-14');
  await bench.tally.getByRole('button', { name: 'Send one set first, 13 sheets' }).click();
  await page.getByRole('button', { name: /all the same$/ }).click();
  await expect(page.getByText('one set is out: look at it, 13 of 13 sheets')).toBeVisible();
  await page.getByRole('button', { name: 'Print the other 23 sets' }).press('Enter');
  await expect(page.getByRole('heading', { name: 'contract' })).toBeFocused();
  await expect(page.getByText('It was sent anew; of this one')).toHaveCount(0);
  await page.getByRole('link', { name: /^the other 23 sets/ }).click();
  await expect(page.getByText(`completed, ${23 * 13} of ${23 * 13} sheets`)).toBeVisible({ timeout: 60_000 });
  const delivered = await Promise.all([1, 2, 3, 4].map(async (number) => (await world.delivered(number)).length));
  expect(delivered).toEqual([14, 13, 23 * 13, 0]);
  const states = (await world.api<(Sending & { message: string | null })[]>('/sendings')).map((one) => one.state);
  expect(states).toEqual(['completed', 'completed', 'completed']);
});

test('left at one set, nothing more is printed; the key of what is printed once cannot be lost', async ({
  page,
  world,
}) => {
  const { id } = await send(world, 2, { copies: 3, tray: 'tray-1', proof: true }, 6);
  await until(world, id, 'proofed');
  await page.goto(`${world.base}/queue/${id}`);
  await page.getByRole('button', { name: 'Leave it at one' }).click();
  await expect(page.getByText('completed, 2 of 2 sheets')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Print the other/ })).toHaveCount(0);
  expect(await world.api<Sending[]>('/sendings')).toHaveLength(1);
});

test.describe('a printer that takes a while for a sheet', () => {
  test.use({ printerOptions: { sheetMs: 400 } });

  test('while it prints, it is told when it will be ready, on the title of the page too', async ({ page, world }) => {
    const { id } = await send(world, 150, { tray: 'tray-1' }, 150);
    await page.goto(`${world.base}/queue/${id}`);
    await expect(page.getByText(/^Ready about \d\d:\d\d\.$/)).toBeVisible();
    await expect(page).toHaveTitle(/^about \d\d:\d\d: Numbered · Foglio$/);
    await page.getByRole('button', { name: 'Cancel', exact: true }).click();
    await expect(page.getByText(/^cancelled, \d+ of 150 sheets/)).toBeVisible();
    await expect(page).toHaveTitle('Queue · Foglio');
  });

  test('out of paper at sheet 7 of 18 and called off: from there on again, and no other sheet', async ({
    page,
    world,
  }) => {
    const { id } = await send(world, 18, { tray: 'tray-1' }, 18);
    // Before its first sheet, or after few: it was whole when it was sent.
    await world.load('tray-1', 6);
    await expect
      .poll(async () => (await world.api<{ message: string | null }>(`/sendings/${id}`)).message)
      .toMatch(/Tray 1/);
    await page.goto(`${world.base}/queue/${id}`);
    // Nobody knows how long a person takes to load it.
    await expect(page.getByText(/^Ready about/)).toHaveCount(0);
    await expect(page).toHaveTitle('Queue · Foglio');
    await page.getByRole('button', { name: 'Cancel', exact: true }).click();
    await expect(page.getByText(/^cancelled, \d+ of 18 sheets/)).toBeVisible();
    await world.load('tray-1', 100);
    const out = (await world.delivered(1)).length;
    expect(out).toBeLessThan(17);

    await page.getByRole('button', { name: 'Print sheets again' }).click();
    await page.getByRole('button', { name: `from sheet ${out + 1} on, where it broke off` }).click();
    await expect(page.getByRole('status').filter({ hasText: 'marked' })).toContainText(
      `${18 - out} marked to be printed again: ${out + 1} to 18 · pages ${out + 1} to 18`,
    );
    await page.getByRole('button', { name: `Print these ${18 - out} sheets again` }).click();
    await expect.poll(async () => (await world.delivered(2)).length, { timeout: 30_000 }).toBe(18 - out);
    const nameOf = (tray: string): string => tray;
    const printed = await printedSheets(world, [1, 2], 'upper-office', nameOf);
    expect(printed.map(({ sheet }) => sheet.front)).toEqual(Array.from({ length: 18 }, (_, page) => [page + 1]));
  });
});

test('whatever one looks at, it is told at the printer’s name what waits for paper, and what is ready', async ({
  page,
  world,
}) => {
  const listed = page.waitForResponse((answer) => answer.url().endsWith('/api/sendings'));
  await page.goto(`${world.base}/printers`);
  await listed;
  await world.load('tray-1', 2);
  const { id } = await send(world, 6, { tray: 'tray-1' }, 6);
  const notices = page.getByRole('region', { name: 'Notices' }).getByRole('article');
  await expect(notices).toContainText('Upper office');
  await expect(notices).toContainText('“Numbered” waits. Tray 1 is empty: load paper, and it goes on.');
  await expect(page.getByRole('banner').getByRole('link', { name: 'one job asks for you' })).toBeVisible();
  await world.load('tray-1', 100);
  await expect(notices).toContainText('“Numbered” is ready.');
  await notices.getByRole('link', { name: 'Show' }).click();
  await expect(page).toHaveURL(`${world.base}/queue/${id}`);
  await expect(notices).toHaveCount(0);
});

test('sheets are marked by click, by Shift and by a line of text; a line that cannot be read says why', async ({
  page,
  world,
}) => {
  const { id } = await send(world, 12, { copies: 2, sides: 'two-sided', tray: 'tray-1' }, 12);
  await until(world, id, 'completed');
  await page.goto(`${world.base}/queue/${id}`);
  await page.getByRole('button', { name: 'Print sheets again' }).click();
  const line = page.getByRole('textbox', { name: /^Click a sheet/ });
  const sheet = (name: RegExp) => page.getByRole('button', { name });
  await sheet(/^Sheet 5 of set 1/).click();
  await sheet(/^Sheet 2 of set 2/).click({ modifiers: ['Shift'] });
  await expect(line).toHaveValue('5-6, 2:1-2');
  await sheet(/^Sheet 6 of set 1/).click();
  await expect(line).toHaveValue('5, 2:1-2');
  await line.fill('7');
  await expect(page.getByText('“7” is not there: there are sheets 1 to 6.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Print these/ })).toBeDisabled();
  await line.fill('3, 2:1');
  await expect(page.getByRole('status').filter({ hasText: 'marked' })).toContainText('3 of set 1, 1 of set 2');
  await page.getByRole('button', { name: 'Print these 2 sheets again' }).press('Enter');
  await expect(line).toHaveValue('');
  await expect(line).toBeFocused();
  await expect.poll(async () => (await world.delivered(2)).length).toBe(2);
  const printed = await printedSheets(world, [2], 'upper-office', (tray) => tray);
  expect(printed.map(({ sheet: { front, back } }) => [front, back])).toEqual([
    [[5], [6]],
    [[1], [2]],
  ]);

  // All of it is never printed by surprise.
  await page.getByRole('button', { name: 'Send again' }).click();
  const asked = page.getByRole('dialog', { name: 'Print all of it again?' });
  await expect(asked).toContainText('“Numbered” comes out at Upper office once more, 12 sheets.');
  await asked.getByRole('button', { name: 'Leave it' }).click();
  await page.getByRole('link', { name: /^sheets 3 of set 1, 1 of set 2 again/ }).click();
  await expect(page.getByText('It prints sheets 3 of set 1, 1 of set 2 again.')).toBeVisible();
  expect(await world.delivered(3)).toEqual([]);
});

test.describe('a printer that prints one side only', () => {
  test.use({ printerOptions: { also: ['box-office'] } });

  test('in two passes a back comes again behind its front', async ({ world }) => {
    const { id } = await send(world, 8, { sides: 'two-sided', copies: 2 }, 8, 'box-office');
    const bothPasses = async (sending: string): Promise<void> => {
      await until(world, sending, 'turning');
      await world.api('/printers/box-office/panel/refeed', { turned: true }, 'PUT');
      await world.api(`/sendings/${sending}/second-pass`, {});
      await until(world, sending, 'completed');
    };
    await bothPasses(id);
    const marks = [
      { sets: [1, 1], sheets: [[2, 3]] },
      { sets: [2, 2], sheets: [[1, 1]] },
    ];
    const again = await world.api<Sending>(`/sendings/${id}/again`, { marks });
    await bothPasses(again.id);
    const { printerJobs } = await world.api<{ printerJobs: number[] }>(`/sendings/${again.id}`);
    const stack = await world.api<{ delivered: { upper: object | null; lower: object | null; spoilt: boolean }[] }>(
      `/sendings/${again.id}/stack`,
    );
    expect(stack.delivered).toHaveLength(3);
    expect(stack.delivered.every(({ upper, lower, spoilt }) => upper && lower && !spoilt)).toBe(true);
    const [backs] = printerJobs as [number];
    const nameOf = (tray: string): string => tray;
    const fronts = await printedSheets(world, [backs - 1], 'box-office', nameOf);
    const behind = await printedSheets(world, [backs], 'box-office', nameOf);
    const ofFace = (sheets: typeof fronts): number[] =>
      sheets.flatMap(({ sheet }) => sheet.front).sort((a, b) => a - b);
    expect([ofFace(fronts), ofFace(behind)]).toEqual([
      [1, 3, 5],
      [2, 4, 6],
    ]);
  });
});

test('at the command line: a set first, and sheets by their numbers', async ({ world }, testInfo) => {
  writeFileSync(testInfo.outputPath('numbered.pdf'), await numberedPages(6));
  const ticket = { version: 1, documents: [{ file: 'numbered.pdf' }], copies: 3, tray: 'tray-1', proof: true };
  writeFileSync(testInfo.outputPath('ticket.json'), JSON.stringify(ticket));
  const send = (...args: string[]): string =>
    execFileSync(
      process.execPath,
      [join(ROOT, 'apps/cli/bin/foglio.mjs'), 'send', 'ticket.json', '--to', world.printerUri, '--yes', ...args],
      { cwd: testInfo.outputDir, encoding: 'utf8' },
    );
  const [job, held] = send().split('\n');
  expect(job).toMatch(/^job 1 \w+: 6 sheets$/);
  expect(held).toBe(
    `the other 2 sets were not sent: look at the first, then foglio send ticket.json --to ${world.printerUri} --sets 2-3`,
  );
  send('--sets', '2-3');
  expect(send('--sheets', '3-4', '--sets', '2')).toMatch(/^job 3 \w+: 2 sheets\n$/);
  await expect.poll(async () => (await world.delivered(3)).length).toBe(2);
  expect(await world.delivered(1)).toHaveLength(6);
  expect(await world.delivered(2)).toHaveLength(12);
  const printed = await printedSheets(world, [3], 'upper-office', (tray) => tray);
  expect(printed.map(({ sheet }) => sheet.front)).toEqual([[3], [4]]);
  expect(() => send('--sheets', '9')).toThrow('“9” is not there: there are sheets 1 to 6.');
});

test('sending is paused in the Queue, and what was sent waits there until it goes on; it is found by its title', async ({
  page,
  world,
}) => {
  await page.goto(`${world.base}/queue`);
  await page.getByText('Sending to every printer').click();
  await page.getByRole('button', { name: 'Pause sending to Upper office' }).click();
  await expect(page.getByText('Sending is paused')).toBeVisible();
  const { id } = await send(world, 2, { tray: 'tray-1' }, 2);
  // The bar names it too while it is printed.
  const entry = page.locator('fo-queue').getByRole('link', { name: 'Numbered' });
  await expect(entry).toContainText('waiting: sending is paused here');
  await page.getByRole('searchbox', { name: 'Title to look for' }).fill('contract');
  await expect(entry).toHaveCount(0);
  await page.getByRole('searchbox', { name: 'Title to look for' }).fill('number');
  await expect(entry).toBeVisible();
  expect(await world.delivered(1)).toEqual([]);
  await page.getByRole('button', { name: 'Send on to Upper office' }).click();
  await until(world, id, 'completed');
  await expect(entry).toContainText('completed');
});

test('what waits is put sooner or later, by keyboard and by hand, and is printed in that order', async ({
  page,
  world,
}) => {
  await world.api('/printers/upper-office/held-back', { held: true }, 'PUT');
  const titles = ['First', 'Second', 'Third'];
  const sent: Sending[] = [];
  for (const [at, title] of titles.entries()) sent.push(await send(world, at + 1, { title, tray: 'tray-1' }, at + 1));
  await page.goto(`${world.base}/queue/${sent[2]!.id}`);
  const order = () =>
    page
      .locator('.cdk-drop-list a [matlistitemtitle], .cdk-drop-list a .mdc-list-item__primary-text')
      .allTextContents();
  const stands = (...wanted: string[]) =>
    expect.poll(async () => (await order()).map((one) => one.trim())).toEqual(wanted);
  await expect(page.getByRole('heading', { name: 'Waiting here, the next first' })).toBeVisible();
  await stands('First', 'Second', 'Third');
  const sooner = page.getByRole('button', { name: 'Sooner' });
  await sooner.press('Enter');
  await stands('First', 'Third', 'Second');
  await expect(sooner).toBeFocused();
  await sooner.press('Enter');
  await stands('Third', 'First', 'Second');
  // There is nothing before it; the button keeps the focus.
  await expect(sooner).toHaveAttribute('aria-disabled', 'true');
  await expect(sooner).toBeFocused();
  await page.getByRole('button', { name: 'Later' }).press('Enter');
  await stands('First', 'Third', 'Second');

  const entry = (name: string) => page.locator('.cdk-drop-list a').filter({ hasText: name });
  const [from, to] = [(await entry('Second').boundingBox())!, (await entry('First').boundingBox())!];
  await page.mouse.move(from.x + 40, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + 40, from.y - 10, { steps: 5 });
  await page.mouse.move(to.x + 40, to.y + 5, { steps: 10 });
  await page.mouse.up();
  await stands('Second', 'First', 'Third');
  // The list shows at once what the server may not have heard of yet.
  const turns = async (): Promise<string[]> => {
    const all = await world.api<{ title: string; turnAt: string }[]>('/sendings');
    return all.sort((one, other) => one.turnAt.localeCompare(other.turnAt)).map(({ title }) => title);
  };
  await expect.poll(turns).toEqual(['Second', 'First', 'Third']);
  await world.api('/printers/upper-office/held-back', { held: false }, 'PUT');
  for (const { id } of sent) await until(world, id, 'completed');
  const sheets = await Promise.all([1, 2, 3].map(async (job) => (await world.delivered(job)).length));
  expect(sheets).toEqual([2, 1, 3]);
});

test('what left the list comes back by one press, and has the focus', async ({ page, world }) => {
  const { id } = await send(world, 1, { tray: 'tray-1' }, 1);
  await until(world, id, 'completed');
  await query(world.database, `update sendings set updated_at = now() - interval '2 days'`);
  await page.goto(`${world.base}/queue`);
  await page.getByRole('button', { name: 'One more, done over a day ago' }).press('Enter');
  await expect(page.getByRole('link', { name: 'Numbered' })).toBeFocused();
});
