import { readFileSync } from 'node:fs';
import { parse } from 'csv-parse/sync';
import { query } from './databases';
import { expect, test, type World } from './world';

/** What was printed and paid for, as it is sent, delivered and counted. */

const CONFIRMED = ['outside-printable', 'large-run', 'tray-short', 'text-too-small'];

test.use({ printerOptions: { also: ['library'] } });

async function print(world: World, kind: 'contract', settings: object, at: { printer?: string; sheets: number }) {
  const { printer = 'upper-office', sheets } = at;
  const id = await world.demoJob(kind, settings);
  const job = await world.api<{ revision: number }>(`/jobs/${id}`);
  let { revision } = job;
  if (printer !== 'upper-office') {
    const changed = await world.api<{ revision: number }>(
      `/jobs/${id}/printer`,
      { printerId: printer, revision },
      'PUT',
    );
    revision = changed.revision;
  }
  return world.api<{ id: string }>('/sendings', { jobId: id, revision, sheets, confirmed: CONFIRMED });
}

test('what is delivered is added while one looks, as the chart, the tables and the list say alike', async ({
  quietPage: page,
  world,
}) => {
  await page.goto(`${world.base}/spend`);
  await expect(page.getByText('Whatever is sent from now on is added up here once it has come out.')).toBeVisible();
  await print(world, 'contract', { title: 'Contract', tray: 'tray-1', copies: 2 }, { sheets: 28 });
  await expect(page.getByText('sheets, of 28 sides')).toBeVisible();
  const second = await print(
    world,
    'contract',
    { title: 'Drafts', tray: 'tray-1', sides: 'two-sided' },
    { printer: 'library', sheets: 7 },
  );
  await expect(page.getByText('sheets, of 42 sides')).toBeVisible();
  await world.api(`/sendings/${second.id}/again`, { marks: [{ sets: [1, 1], sheets: [[3, 4]] }] });
  await expect(page.getByText('sheets, of 46 sides')).toBeVisible();
  await expect(page.getByText('2 sheets, once; though it had come out')).toBeVisible();

  // To the cent: a sum that SQL makes of what was kept when it was sent.
  const { rows } = await query<{ cost: string; sheets: number }>(
    world.database,
    `select to_char(sum((tally ->> 'cost')::numeric), 'FM990.00') as cost, sum(sheets)::int as sheets from sendings`,
  );
  const [{ cost, sheets }] = rows as [{ cost: string; sheets: number }];
  await expect(page.locator('.totals')).toContainText(`€ ${cost}`);
  expect(sheets).toBe(37);

  // The same as a table, and by set-up.
  await page.getByRole('button', { name: 'Sheets', exact: true }).click();
  await page.getByRole('button', { name: 'As a table' }).click();
  await expect(page.getByRole('group', { name: 'Over time, as a table' }).getByRole('row').last()).toContainText(
    / 37$|37\s*$/,
  );
  const table = page.getByRole('group', { name: 'What was spent by printer' });
  await expect(table.getByRole('row', { name: /^Upper office 28 0 %/ })).toBeVisible();
  await expect(table.getByRole('row', { name: /^Library 9 100 %/ })).toBeVisible();

  // Only the library's; the address keeps it, and the list is of the same.
  await page.getByLabel('At which printer').selectOption('Library');
  await expect(page.getByText('sheets, of 18 sides')).toBeVisible();
  await page.reload();
  await expect(page.getByText('sheets, of 18 sides')).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save as CSV' }).click(),
  ]);
  const list: string[][] = parse(readFileSync(await download.path(), 'utf8'), { bom: true });
  expect(list.map((row) => [row[1], row[2], row[5], row[16]])).toEqual([
    ['Printer', 'Job', 'Sheets', 'Printed again'],
    ['Library', 'Drafts', expect.stringMatching(/^[27]$/), expect.any(String)],
    ['Library', 'Drafts', expect.stringMatching(/^[27]$/), expect.any(String)],
  ]);
  await page.getByLabel('At which printer').selectOption('all printers');
  await page.goBack();
  await expect(page.getByText('sheets, of 18 sides')).toBeVisible();

  // What would have cost less leads to what to change.
  await page.goForward();
  const line = page.getByRole('listitem').filter({ hasText: 'on both sides' });
  await expect(line).toContainText('Contract');
  await line.getByRole('link', { name: 'Contract' }).click();
  await expect(page.getByRole('button', { name: /^Send 28/ })).toBeVisible();
});

test('by keyboard: other days by the calendar, and back', async ({ quietPage: page, world }) => {
  await print(world, 'contract', { tray: 'tray-1' }, { sheets: 14 });
  await page.goto(`${world.base}/spend`);
  await expect(page.getByText('sheets, of 14 sides')).toBeVisible();
  const from = page.locator('fo-day-phrase').first().getByRole('button');
  await from.press('Enter');
  await expect(page.getByRole('dialog', { name: 'The first day' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'this month' })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(from).toBeFocused();
  await from.press('Enter');
  await page.getByRole('button', { name: 'last month' }).press('Enter');
  await expect(page.getByText('Nothing was printed in these days. Choose other days, or all printers.')).toBeVisible();
  await expect(from).toBeFocused();
  const to = page.locator('fo-day-phrase').nth(1).getByRole('button');
  await to.press('Enter');
  await page.getByRole('button', { name: 'all there is' }).press('Enter');
  await expect(to).toBeFocused();
  await expect(page.getByText('sheets, of 14 sides')).toBeVisible();
  await expect(page.getByText(/day by day/)).toBeVisible();
});

test('a server that is killed before it counted a delivery counts it when it is back, once', async ({
  page,
  world,
}) => {
  const { id } = await print(world, 'contract', { tray: 'tray-1' }, { sheets: 14 });
  const counted = async () => Number((await query(world.database, 'select count(*) from spent')).rows[0]!['count']);
  await expect.poll(counted).toBe(1);
  await world.killServer();
  // As if it had been killed between the two.
  await query(world.database, 'delete from spent');
  await world.startServer();
  await expect.poll(counted).toBe(1);
  await page.goto(`${world.base}/spend`);
  await expect(page.getByText('sheets, of 14 sides')).toBeVisible();
  expect((await query(world.database, `select id from spent`)).rows).toEqual([{ id }]);
});
