import { writeFileSync } from 'node:fs';
import { numberedPdf } from '../../packages/pdf/test/make-pdf';
import { BenchPage, textOf, wordsOf } from './bench-page';
import { expect, test } from './world';

/** What is printed besides the pages themselves, and one file printed in two ways. */

test('page numbers at the foot: seen, saved, sent', async ({ quietPage: page, world }, testInfo) => {
  const bench = new BenchPage(page, world);
  const file = await world.upload(Buffer.from(numberedPdf(14)), 'season.pdf');
  const ticket = { version: 1, documents: [{ file }], sides: 'two-sided' };
  await bench.open((await world.api<{ id: string }>('/jobs', { ticket })).id);
  await bench.also('A line at the foot: page numbers, file name, date', 'The page’s number and how many there are');
  await expect(bench.sentence).toContainText('with “Page ‹page› of ‹pages›” at the foot');
  await expect(bench.panel.locator('.texts text').first()).toHaveText('Page 1 of 14');
  await bench.also('The line at the foot at the left or right', 'At the right');
  await expect(bench.sentence).toContainText('at the foot at the right');
  const path = await bench.save(testInfo);
  for (const number of [1, 9, 14]) expect(textOf(path, number)).toContain(`Page ${number} of 14`);
  // Within what the printer can print on: 4.2 mm from the edge, at the right and at the foot.
  const last = wordsOf(path, 9)
    .filter(({ word }) => word === '14')
    .at(-1)!;
  expect(last.x).toBeGreaterThan(540);
  expect(last.y).toBeGreaterThan(800);
  expect(last.y).toBeLessThan(841.89 - 11.9);

  await bench.send(7);
  const sent = testInfo.outputPath('sent.pdf');
  writeFileSync(sent, await world.document(1));
  expect(textOf(sent, 1)).toContain('Page 1 of 14');
});

test('a line over what is on a page is told of, and settled by its button', async ({ quietPage: page, world }) => {
  const bench = new BenchPage(page, world);
  const lines = [{ at: 'top-left', text: '{file}', size: 60 }];
  await bench.open(await world.demoJob('contract', { lines }));
  const summary = bench.tally.locator('.summary');
  await expect(summary).toContainText('A line of text lies over the content of', { timeout: 30_000 });
  await summary.click();
  const checks = page.getByRole('list', { name: 'Checks' });
  await checks.getByRole('button', { name: /^Fit the pages within a margin of/ }).click();
  await expect(bench.sentence).toContainText('keeping');
  await expect(summary).not.toContainText('lies over');
});

test('one file in two ways within one job: the office’s copy on other paper than the customer’s', async ({
  quietPage: page,
  world,
}) => {
  const file = await world.upload(Buffer.from(numberedPdf(3)), 'invoice.pdf');
  const ticket = { version: 1, documents: [{ file }], tray: 'tray-1' };
  const { id } = await world.api<{ id: string }>('/jobs', { ticket });
  const bench = new BenchPage(page, world);
  await bench.open(id);
  await page.getByRole('button', { name: 'What to do with invoice.pdf' }).click();
  await page.getByRole('menuitem', { name: 'Add it again, with other settings' }).click();
  await bench.phrase(/of document 2 are printed like the rest/).click();
  await page.getByLabel('Tray of route 1').selectOption({ label: 'Tray 3, A4 cream, 40 sheets' });
  await page.keyboard.press('Escape');
  await expect(bench.sentence).toContainText('come from Tray 3');
  await bench.send(6);
  expect((await bench.delivered()).map(([tray]) => tray)).toEqual([
    ...['tray-1', 'tray-1', 'tray-1'],
    ...['tray-3', 'tray-3', 'tray-3'],
  ]);
  expect(await world.delivered(2)).toEqual([]);
});
