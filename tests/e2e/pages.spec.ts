import { BenchPage, countPages, wordsOf } from './bench-page';
import { numberedPdf } from '../../packages/pdf/test/make-pdf';
import { expect, test } from './world';

/** Pages as people want them on paper: bound, in turn, chosen in words. From the open Bench to the file that is saved. */

const A4_WIDTH = 595.276;
const mm = (value: number): number => (value * 72) / 25.4;

test('a thesis with a binding margin on both sides', async ({ quietPage: page, world }, info) => {
  const file = await world.upload(Buffer.from(numberedPdf(6)), 'thesis.pdf');
  const ticket = { version: 1, title: 'Thesis', documents: [{ file }], sides: 'two-sided', tray: 'tray-1' };
  const { id } = await world.api<{ id: string }>('/jobs', { ticket });
  const bench = new BenchPage(page, world);
  await bench.open(id);
  const before = await bench.save(info);
  const source = [1, 2].map((number) => wordsOf(before, number)[0]!.x);
  await bench.phrase('and also …').click();
  await page.getByRole('button', { name: 'A margin for binding' }).click();
  await page.getByRole('spinbutton', { name: 'Binding margin' }).fill('20');
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(bench.sentence).toContainText('leaving 20 mm for the binding');
  await expect(bench.tally.getByText('Saved')).toBeVisible();
  const path = await bench.save(info);
  expect(countPages(path)).toBe(6);
  // Each page is as large as fits beside the margin: the words of a front begin further from the left edge than before,
  // those of a back nearer to it, by what is free at the right.
  const printer = mm(4.2);
  const scale = (A4_WIDTH - mm(20) - printer) / A4_WIDTH;
  const [front, back] = [1, 2].map((number) => wordsOf(path, number)[0]!.x);
  expect(front).toBeCloseTo(mm(20) + source[0]! * scale, 0);
  expect(back).toBeCloseTo(printer + source[1]! * scale, 0);
});

test('the first pages of two files in turn, chosen in words, with the sheets saying which is which', async ({
  quietPage: page,
  world,
}, info) => {
  const files = await Promise.all(
    ['flyer.pdf', 'letter.pdf'].map((name, at) => world.upload(Buffer.from(numberedPdf(3 + at)), name)),
  );
  const ticket = { version: 1, title: 'Both', documents: files.map((file) => ({ file })), tray: 'tray-1' };
  const { id } = await world.api<{ id: string }>('/jobs', { ticket });
  const bench = new BenchPage(page, world);
  await bench.open(id);
  await bench.typePages('pages 1 to 2');
  await expect(page.getByText('2 of 3 printed')).toBeVisible();
  await page.getByRole('button', { name: '2. letter.pdf' }).click();
  await bench.typePages('page 1 and page 4');
  await expect(page.getByText('2 of 4 printed')).toBeVisible();
  await bench.also('The documents in turn', /^In turn/);
  await expect(bench.sentence).toContainText('a page of each in turn');
  const sheets = bench.lanes.locator('.sheet');
  await expect(sheets).toHaveCount(4);
  await expect(sheets.nth(1)).toContainText('front page 1 of letter');
  await expect(sheets.nth(3)).toContainText('front page 4 of letter');
  await expect(sheets.nth(3).locator('.page-number')).toHaveText('2. 4');
  await expect(bench.tally.getByText('Saved')).toBeVisible();
  const path = await bench.save(info);
  expect([1, 2, 3, 4].map((number) => wordsOf(path, number)[0]!.word)).toEqual(['page1', 'page1', 'page2', 'page4']);
});

test('only these, all but these, and none', async ({ quietPage: page, world }) => {
  const bench = new BenchPage(page, world);
  await bench.open(await world.demoJob('contract'));
  const line = page.getByLabel('Pages to print');
  const choose = (name: string) => page.getByRole('button', { name, exact: true });
  await expect(choose('Only these chosen pages')).toBeDisabled();
  await page.getByRole('button', { name: /^Page 2, / }).click();
  await page.getByRole('button', { name: /^Page 4, / }).click({ modifiers: ['Shift'] });
  await choose('All but these chosen pages').click();
  await expect(line).toHaveValue('1, 5-');
  await choose('Only these chosen pages').click();
  await expect(line).toHaveValue('2-4');
  await choose('All').click();
  await choose('None').click();
  await expect(page.getByText('No page is chosen')).toBeVisible();
  // From none, pages are chosen by their ticks.
  await page.getByRole('button', { name: 'Print page 3', exact: true }).click();
  await expect(line).toHaveValue('3');
  await expect(bench.lanes.locator('.sheet')).toHaveCount(1);
});
