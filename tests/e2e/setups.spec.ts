import { readFileSync } from 'node:fs';
import { Ajv } from 'ajv';
import { ticketSchema } from '@foglio/core';
import { numberedPdf } from '../../packages/pdf/test/make-pdf';
import { BenchPage } from './bench-page';
import { expect, test } from './world';

/** What was set up once is had again: saved, taken for other files, changed, and started from. */

const CONTRACT = {
  title: 'Season contract',
  copies: 2,
  sides: 'two-sided',
  tray: 'tray-1',
  routes: [
    { name: 'Letterhead', pages: '1', tray: 'tray-2', sides: 'one-sided' },
    { name: 'Signatures', pages: '6, 14', tray: 'tray-3', sides: 'one-sided' },
  ],
};

test('the contract’s set-up is saved and taken for another contract of another length', async ({
  quietPage: page,
  world,
}) => {
  const bench = new BenchPage(page, world);
  await bench.open(await world.demoJob('contract', CONTRACT));
  await page.getByRole('button', { name: 'set-ups …' }).click();
  await page.getByRole('button', { name: 'Save what is set now as a set-up' }).click();
  const keep = page.getByRole('dialog', { name: 'Save as a set-up' });
  await keep.getByLabel('Name').fill('Contracts to be signed');
  // Page 6 has no name that fits any file, so it will be asked for.
  await expect(keep.getByText('Asked for whenever the set-up is taken')).toBeVisible();
  await keep.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved as “Contracts to be signed”')).toBeVisible();

  const file = await world.upload(Buffer.from(numberedPdf(9)), 'small-contract.pdf');
  const { id } = await world.api<{ id: string }>('/jobs', { ticket: { version: 1, documents: [{ file }] } });
  await bench.open(id);
  await page.getByRole('button', { name: 'set-ups …' }).click();
  const apply = page.getByRole('dialog', { name: 'Take a saved set-up' });
  await apply.getByRole('button', { name: 'Contracts to be signed' }).click();
  // Nothing is changed yet; what would be is told, and what this file has not, asked for.
  await expect(apply.getByRole('row', { name: /How many copies one copy 2 copies/ })).toBeVisible();
  await expect(apply.getByText('page 14 is not in small-contract.pdf, whose last page is 9')).toBeVisible();
  await expect(apply.getByRole('button', { name: 'Take “Contracts to be signed”' })).toBeDisabled();
  await expect(bench.sentence).toContainText('one copy');
  await apply.getByLabel(/Which pages come from Tray 3/).fill('5, last');
  await expect(apply.getByText(/14 sheets/)).toBeVisible();
  await apply.getByRole('button', { name: 'Take “Contracts to be signed”' }).click();
  await expect(bench.sentence).toContainText(
    'Page 1 comes from Tray 2, on one side; pages 5 and 9 come from Tray 3, on one side',
  );
  await bench.send(14);
  // 1 | 2-3 | 4 | 5 | 6-7 | 8 | 9
  const set = ['tray-2', 'tray-1', 'tray-1', 'tray-3', 'tray-1', 'tray-1', 'tray-3'];
  expect((await bench.delivered()).map(([tray]) => tray)).toEqual([...set, ...set]);
});

test('a set-up goes out as a file that is a ticket by its schema, and comes in again the same', async ({
  page,
  world,
}, testInfo) => {
  const ticket = { version: 1, documents: [{ file: '*' }], layout: { kind: 'booklet', cover: 'tray-3' }, copies: 20 };
  await world.api('/setups', { name: 'Programmes', ticket, printerId: 'upper-office' });
  await page.goto(`${world.base}/set-ups`);
  await page.getByRole('link', { name: /^Programmes/ }).click();
  await expect(page.locator('fo-sentence-bar')).toContainText(
    'Print all pages of a document, 20 copies as complete sets, folded as a booklet, its cover from Tray 3',
  );
  const downloading = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as a file' }).click();
  const download = await downloading;
  expect(download.suggestedFilename()).toBe('Programmes.json');
  const path = testInfo.outputPath('Our programmes.json');
  await download.saveAs(path);
  // The schema by itself, in another validator's hands than ours.
  const validate = new Ajv({ discriminator: true, allowUnionTypes: true, strictTuples: false }).compile(ticketSchema);
  expect([validate(JSON.parse(readFileSync(path, 'utf8'))), validate.errors]).toEqual([true, null]);

  await page.getByLabel('Drop a set-up file here').last().setInputFiles(path);
  await expect(page.getByLabel('Name')).toHaveValue('Our programmes');
  const setups = await world.api<{ name: string; ticket: object }[]>('/setups');
  const [mine, theirs] = ['Programmes', 'Our programmes'].map((name) => setups.find((one) => one.name === name));
  expect(theirs?.ticket).toEqual(mine?.ticket);
  const bad = Buffer.from('{"version":1,"documents":[{"file":"*"}],"copies":0}');
  await page
    .getByLabel('Drop a set-up file here')
    .last()
    .setInputFiles({ name: 'bad.json', mimeType: 'application/json', buffer: bad });
  await expect(page.getByRole('alert')).toContainText('bad.json: copies: out of range');
});

test('changed, renamed, duplicated, removed and brought back; new jobs start from the house set-up', async ({
  quietPage: page,
  world,
}) => {
  const bench = new BenchPage(page, world);
  await page.goto(`${world.base}/set-ups`);
  await expect(page.getByLabel('Name')).toHaveValue('House set-up');
  await page.getByRole('button', { name: 'Duplicate' }).click();
  await expect(page.getByLabel('Name')).toHaveValue('House set-up, copy');
  await page.getByLabel('Name').fill('In grey on both sides');
  await page.getByLabel('Name').press('Enter');
  await expect(page.getByRole('link', { name: /^In grey on both sides/ })).toBeVisible();
  await bench.take('one side', 'Both sides of the sheet');
  await bench.take('colour', 'Everything in grey');
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.getByRole('radio', { name: 'all: it is the house set-up' }).check();
  await expect(page.getByRole('link', { name: /^In grey on both sides House set-up/ })).toBeVisible();

  // The other one is removed, and brought back by one press.
  await page.getByRole('link', { name: /^House set-up/ }).click();
  await expect(page.getByLabel('Name')).toHaveValue('House set-up');
  await page.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByRole('link', { name: /^House set-up/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(page.getByRole('link', { name: /^House set-up/ })).toBeVisible();

  await page.goto(world.base);
  const contract = world.source('contract');
  await page
    .getByLabel('Drop a document here to set up its printing')
    .last()
    .setInputFiles({ name: 'contract.pdf', mimeType: 'application/pdf', buffer: contract });
  await expect(page).toHaveURL(/\/jobs\//);
  // What the house set-up has is quiet; what differs stands out.
  await expect(bench.phrase('grey')).toBeVisible();
  await expect(bench.sentence.locator('.strong')).toHaveCount(0);
  await bench.take('grey', 'Colour where a page holds any');
  await expect(bench.sentence.locator('.strong')).toHaveText(['colour']);
  await bench.phrase('colour').click();
  await page.getByRole('button', { name: 'Back to the usual' }).click();
  await expect(bench.sentence.locator('.strong')).toHaveCount(0);
});

test('another window changes the set-up meanwhile: nothing is undone unseen, and it goes on from how it stands', async ({
  page,
  world,
}) => {
  const bench = new BenchPage(page, world);
  await page.goto(`${world.base}/set-ups`);
  await expect(bench.phrase('one copy')).toBeVisible();
  const [house] = await world.api<{ id: string; ticket: object }[]>('/setups');
  await world.api(`/setups/${house!.id}`, { ticket: { ...house!.ticket, copies: 5 } }, 'PUT');
  await bench.take('one side', 'Both sides of the sheet');
  await expect(page.getByText('Not saved. Another window changed this set-up.')).toBeVisible();
  await page.getByRole('button', { name: 'Show how it stands now' }).click();
  await expect(bench.phrase('5 copies')).toBeVisible();
  await expect(bench.phrase('one side')).toBeVisible();
  await bench.take('one side', 'Both sides of the sheet');
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  expect((await world.api<{ ticket: object }[]>('/setups'))[0]!.ticket).toMatchObject({
    copies: 5,
    sides: 'two-sided',
  });
});
