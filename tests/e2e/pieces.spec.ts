import { BenchPage, countPages, textOf, wordsOf } from './bench-page';
import { numberedPdf } from '../../packages/pdf/test/make-pdf';
import { numberedPages, printedSheets } from './printed-sheets';
import { expect, test, type World } from './world';

/** Parts of pages, pieces, cards and posters, from the open Bench to what the printer recorded or the file that is saved. */

const A6 = [297.638, 419.528] as const;
const mm = (value: number): number => (value * 72) / 25.4;
/** The Upper office keeps so much of each edge free, in millimetres. */
const MARGIN = 4.2;

async function jobOf(world: World, files: readonly [string, Uint8Array][], settings: object = {}): Promise<string> {
  const ids = await Promise.all(files.map(([name, bytes]) => world.upload(Buffer.from(bytes), name)));
  const ticket = { version: 1, title: 'Job', documents: ids.map((file) => ({ file })), tray: 'tray-1', ...settings };
  return (await world.api<{ id: string }>('/jobs', { ticket })).id;
}

test('a table of a report, drawn over and put right by numbers, as large as fits', async ({
  quietPage: page,
  world,
}, info) => {
  const bench = new BenchPage(page, world);
  await bench.open(await jobOf(world, [['report.pdf', numberedPdf(3)]]));
  await page.getByRole('button', { name: 'in part …' }).click();
  const dialog = page.getByRole('dialog', { name: 'The part that is printed' });
  await expect(dialog.locator('fo-page-image[data-state="drawn"]')).toBeVisible();
  const sheet = (await dialog.locator('.sheet').boundingBox())!;
  await page.mouse.move(sheet.x + 30, sheet.y + 40);
  await page.mouse.down();
  await page.mouse.move(sheet.x + 200, sheet.y + 140, { steps: 4 });
  await page.mouse.up();
  const part = dialog.getByRole('group', { name: /^Part: / });
  await expect(part).not.toHaveAccessibleName(/210 × 297 mm/);
  for (const [field, value] of Object.entries({ 'From the left': 10, 'From the top': 15, Width: 70, Height: 44 })) {
    const number = dialog.getByRole('spinbutton', { name: field });
    await number.fill(String(value));
    await number.press('Tab');
  }
  // By keys: a millimetre more at the lower edge.
  await part.press('Shift+ArrowDown');
  await expect(part).toHaveAccessibleName(/^Part: 70 × 45 mm, 10 mm from the left and 15 mm from the top/);
  await dialog.getByRole('radio', { name: 'Of page 1 alone' }).check();
  await dialog.getByRole('button', { name: 'Print this part' }).click();
  await expect(bench.sentence).toContainText('Page 1 is printed in part (70 × 45 mm)');
  await bench.take(/made smaller only/, 'As large as fits');
  await expect(bench.tally.getByText('Saved')).toBeVisible();
  const path = await bench.save(info);
  expect(countPages(path)).toBe(3);
  // Landscape: as high as 201.6 mm, or as wide as 288.6 mm, whichever is reached first.
  const scale = (297 - 2 * MARGIN) / 70;
  const [word] = wordsOf(path, 1);
  expect(word!.word).toBe('page1');
  expect(word!.x).toBeCloseTo(mm(MARGIN) + (50 - mm(10)) * scale, 0);
  await bench.send(3);
  expect(await bench.delivered()).toHaveLength(3);
});

test('87 place cards with backs, one for each guest, cut from eleven sheets', async ({
  quietPage: page,
  world,
}, info) => {
  const bench = new BenchPage(page, world);
  await bench.open(await jobOf(world, [['cards.pdf', numberedPdf(174, 210, 297.6)]]));
  await bench.take('each page’s own paper size', 'All on A4');
  await bench.take('1 page a side', '8 pages a side');
  await bench.also('Cards: each back behind its own front', /^Its own back/);
  await expect(bench.sentence).toContainText('on both sides turning like a book');
  await expect(bench.sentence).toContainText('each back behind its own front');
  await expect(bench.tally.getByText('Saved')).toBeVisible();
  const path = await bench.save(info);
  expect(countPages(path)).toBe(22);
  for (const sheet of [1, 6]) {
    const [fronts, backs] = [wordsOf(path, 2 * sheet - 1), wordsOf(path, 2 * sheet)];
    expect(fronts).toHaveLength(8);
    const sums = fronts.map(({ word, x, y }) => {
      const number = Number(word.slice(4));
      const back = backs.find((one) => one.word === `page${number + 1}`)!;
      expect(number % 2).toBe(1);
      expect(back.y).toBeCloseTo(y, 0);
      return Math.round(x + back.x);
    });
    // Mirrored: what is so far from the left on the front is as far from the right on the back.
    expect(new Set(sums).size).toBe(1);
  }
  await bench.send(11);
  const sheets = await bench.delivered();
  expect(sheets.map(([tray, , back]) => [tray, back !== null])).toEqual(Array(11).fill(['tray-1', true]));
});

test('120 flyers of two designs in turn, four on a sheet', async ({ quietPage: page, world }) => {
  const bench = new BenchPage(page, world);
  const job = await jobOf(world, [
    ['red.pdf', numberedPdf(1, ...A6)],
    ['blue.pdf', numberedPdf(1, ...A6)],
  ]);
  await bench.open(job);
  await bench.take('each page’s own paper size', 'All on A4');
  await bench.take('1 page a side', '4 pages a side');
  await bench.also('The documents in turn', /^In turn/);
  await bench.phrase('and also …').click();
  await page.getByRole('button', { name: /^So many pieces/ }).click();
  await page.getByRole('spinbutton', { name: /^Pieces in a set/ }).fill('120');
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(bench.sentence).toContainText('a page of each in turn, 120 pieces');
  await expect(bench.tally).toContainText('120pieces');
  await bench.send(30);
  expect(await bench.delivered()).toHaveLength(30);
  await page.goBack();
  await expect(bench.lanes.locator('.sheet').first()).toContainText(
    'front page 1 of red, page 1 of blue, page 1 of red and page 1 of blue',
  );
});

test('an A2 poster on A4, leafed through as it is joined', async ({ quietPage: page, world }, info) => {
  const bench = new BenchPage(page, world);
  const A2 = { width: 1190.551, height: 1683.78 };
  await bench.open(
    await jobOf(world, [['poster.pdf', numberedPdf(1, A2.width, A2.height)]], { paper: { size: 'iso_a4_210x297mm' } }),
  );
  await bench.take('1 page a side', /^A poster/);
  await expect(bench.sentence).toContainText(
    'each page over several sheets, 2 across and 2 down, overlapping by 10 mm',
  );
  await bench.also('Marks to join the sheets by', 'Short lines where the next sheet begins');
  await bench.take('as large as these let it be', 'At actual size');
  // 594 mm over areas of 201.6 mm and 420 mm over areas of 288.6 mm, landscape, with 10 mm in common: four by two.
  await expect(bench.tally.getByRole('button', { name: 'Send 8 sheets' })).toBeVisible();
  await page.getByRole('button', { name: 'Leaf through' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Sheets 1 to 8, joined');
  await expect(dialog.locator('fo-joined-page fo-page-image[data-state="drawn"]').first()).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(bench.tally.getByText('Saved')).toBeVisible();
  const path = await bench.save(info);
  // Where the word lies on the first sheet: the page is in the middle of what the sheets make together.
  const joined = 2 * (297 - 2 * MARGIN) - 10;
  const [word] = wordsOf(path, 1).filter((one) => one.word === 'page1');
  expect(word!.x).toBeCloseTo(mm(MARGIN) + mm((joined - 420) / 2) + 50, 0);
  await bench.send(8);
  expect((await bench.delivered()).every(([, , back]) => back === null)).toBe(true);
});

test('a wide sheet over two', async ({ quietPage: page, world }) => {
  const bench = new BenchPage(page, world);
  const wide = numberedPdf(1, mm(380), mm(190));
  await bench.open(await jobOf(world, [['table.pdf', wide]], { paper: { size: 'iso_a4_210x297mm' } }));
  await bench.take('1 page a side', /^A poster/);
  await bench.take('2 across and 2 down', /^As many sheets/);
  await expect(bench.sentence).toContainText('as many as its size needs');
  await expect(bench.sentence).toContainText('at actual size');
  await expect(bench.panel.getByText('100 %')).toBeVisible();
  await bench.send(2);
  expect(await bench.delivered()).toHaveLength(2);
});

test('the first page of each of five documents with one line; another line sets its document apart', async ({
  quietPage: page,
  world,
}) => {
  const bench = new BenchPage(page, world);
  const names = ['a', 'b', 'c', 'd', 'e'];
  await bench.open(
    await jobOf(
      world,
      names.map((name, at) => [`${name}.pdf`, numberedPdf(at + 2)]),
    ),
  );
  const forAll = page.getByRole('button', { name: 'For all 5 documents' });
  await forAll.click();
  await expect(forAll).toHaveAttribute('aria-pressed', 'true');
  await bench.typePages('1');
  await expect(bench.tally.getByRole('button', { name: 'Send 5 sheets' })).toBeVisible();
  await forAll.click();
  await page.getByRole('button', { name: '5. e.pdf' }).click();
  await bench.typePages('last');
  await expect(page.getByRole('list', { name: 'Documents' }).getByText('last')).toBeVisible();
  await expect(bench.lanes.locator('.sheet').last()).toContainText('page 6 of e');
  await bench.send(5);
  const first = await printedSheets(world, [1], 'upper-office', (tray) => tray);
  expect(first).toHaveLength(5);
});

test('fronts, then backs by hand, of a job with two pages on a side', async ({ quietPage: page, world }, info) => {
  const bench = new BenchPage(page, world);
  const settings = { layout: { kind: 'grid', pagesPerSide: 2 }, sides: 'two-sided' };
  const job = await jobOf(world, [['notes.pdf', await numberedPages(10)]], settings);
  await bench.open(job);
  await bench.also('Fronts or backs alone', 'The fronts alone');
  await expect(bench.lanes).toContainText('the fronts alone; the backs stay blank');
  await bench.send(3);
  await bench.open(job);
  await bench.take('the fronts alone', /^The backs alone/);
  await expect(bench.lanes).toContainText('the backs alone, onto printed fronts');
  await expect(bench.lanes.locator('.sheet').first()).toContainText('back pages 3 and 4');
  await bench.send(3);
  const printed = await printedSheets(world, [1, 2], 'upper-office', (tray) => tray);
  const faces = printed.map(({ sheet }) => [sheet.front, sheet.back]);
  // The Upper office prints on the lower face and delivers face down: fronts last to first, and so the backs.
  expect(faces).toEqual([
    [[9, 10], null],
    [[5, 6], null],
    [[1, 2], null],
    [[], null],
    [[7, 8], null],
    [[3, 4], null],
  ]);
  await bench.open(job);
  expect(textOf(await bench.save(info), 1)).toContain('Page-3-');
});
