import { readFileSync } from 'node:fs';
import { parse } from 'csv-parse/sync';
import { BenchPage } from './bench-page';
import { expect, test } from './world';

/** What is saved instead of sent, under a name of the person's choice. */

const CONTRACT = {
  title: 'Season contract',
  copies: 2,
  sides: 'two-sided',
  tray: 'tray-1',
  routes: [{ pages: '1, 6', tray: 'tray-2', sides: 'one-sided' }],
};

test('the list of sheets, for a spreadsheet', async ({ quietPage: page, world }, testInfo) => {
  const bench = new BenchPage(page, world);
  await bench.open(await world.demoJob('contract', CONTRACT));
  const download = await bench.saveAs({ name: 'Sheets: contract', what: /list of the sheets/ });
  // What no file system takes in a name is left out.
  expect(download.suggestedFilename()).toBe('Sheets  contract.csv');
  const path = testInfo.outputPath('sheets.csv');
  await download.saveAs(path);
  const rows: Record<string, string>[] = parse(readFileSync(path), { bom: true, columns: true });
  expect(rows.map(({ Tray, Front, Back }) => [Tray, Front, Back])).toEqual([
    ['Tray 2', '1', ''],
    ['Tray 1', '2', '3'],
    ['Tray 1', '4', '5'],
    ['Tray 2', '6', ''],
    ['Tray 1', '7', '8'],
    ['Tray 1', '9', '10'],
    ['Tray 1', '11', '12'],
    ['Tray 1', '13', '14'],
  ]);
});

test('the set-up: saved, dropped on the Desk again, and the same', async ({ page, world }, testInfo) => {
  const bench = new BenchPage(page, world);
  const job = await world.demoJob('contract', CONTRACT);
  await bench.open(job);
  const download = await bench.saveAs({ name: 'Contracts as always', what: /set-up/ });
  expect(download.suggestedFilename()).toBe('Contracts as always.json');
  const path = testInfo.outputPath('Contracts as always.json');
  await download.saveAs(path);
  await page.goto(world.base);
  await page.getByLabel('Drop a document here to set up its printing').last().setInputFiles(path);
  await expect(page).toHaveURL(/\/jobs\//);
  expect(page.url()).not.toContain(job);
  await expect(page.getByRole('button', { name: '2 copies' })).toBeVisible();
  await expect(page.getByText('Pages 1 and 6 come from Tray 2, on one side')).toBeVisible();
  const taken = await world.api<{ ticket: object }>(`/jobs/${page.url().split('/').at(-1)}`);
  expect(taken.ticket).toEqual((await world.api<{ ticket: object }>(`/jobs/${job}`)).ticket);

  // With a document that is not here it is refused in words, and taken with the document beside it.
  const setup = JSON.parse(readFileSync(path, 'utf8')) as { documents: { file: string }[] };
  setup.documents[0]!.file = 'next-season.pdf';
  const asked = JSON.stringify(setup);
  await page.goto(world.base);
  const place = page.getByLabel('Drop a document here to set up its printing').last();
  await place.setInputFiles({ name: 'other.json', mimeType: 'application/json', buffer: Buffer.from(asked) });
  await expect(page.getByRole('alert')).toContainText('other.json: "next-season.pdf" is not');
  const contract = world.source('contract');
  await place.setInputFiles([
    { name: 'other.json', mimeType: 'application/json', buffer: Buffer.from(asked) },
    { name: 'next-season.pdf', mimeType: 'application/pdf', buffer: contract },
  ]);
  await expect(page).toHaveURL(/\/jobs\//);
  await expect(page.getByText('next-season.pdf')).toBeVisible();
  await expect(page.getByText('Pages 1 and 6 come from Tray 2, on one side')).toBeVisible();
});
