import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import PDFDocument from 'pdfkit';
import { BenchPage, countPages, textOf, wordsOf } from './bench-page';
import { expect, ROOT, test } from './world';

/** Whole jobs as people set them up, from the open Bench to what the printer delivered or poppler reads in the file. */

/** So many A4 pages with their number in large letters and lines of text of a given size. */
function textPages(count: number, points = 12, name = 'Page'): Promise<Buffer> {
  const document = new PDFDocument({ autoFirstPage: false, size: 'A4' });
  const parts: Buffer[] = [];
  document.on('data', (part: Buffer) => parts.push(part));
  for (let page = 1; page <= count; page += 1) {
    document.addPage().fontSize(30).text(`${name} ${page}`, 72, 72);
    document.fontSize(points).text('The hall opens at seven and the doors close when the tuning begins.', 72, 140);
  }
  document.end();
  return new Promise((resolve) => document.on('end', () => resolve(Buffer.concat(parts))));
}

/** The trays of a set of the contract, two-sided, with page 1 from tray 2 and pages 6 and 9 from tray 3. */
const A_SET = ['tray-2', 'tray-1', 'tray-1', 'tray-3', 'tray-1', 'tray-3', 'tray-1', 'tray-1', 'tray-1'];

test('(a) the season contract by keys: letterhead, signature pages, two sides, complete sets', async ({
  quietPage: page,
  world,
}) => {
  const bench = new BenchPage(page, world);
  await bench.open(await world.demoJob('contract'));
  // No mouse from here on: the phrases and the shelf are reached by their places in the order of Tab.
  const press = async (...keys: string[]): Promise<void> => {
    for (const key of keys) await page.keyboard.press(key);
  };
  await bench.phrase('one side').focus();
  await press('Enter');
  await expect(page.getByRole('radio', { name: /^One side/ })).toBeFocused();
  await press('ArrowUp');
  await expect(bench.phrase('both sides')).toBeVisible();
  await press('Escape');
  await expect(bench.phrase('both sides')).toBeFocused();
  await bench.phrase('one copy').focus();
  await press('Enter');
  await expect(page.getByRole('spinbutton', { name: 'Copies' })).toBeFocused();
  await page.keyboard.type('3');
  await press('Enter');
  await expect(bench.phrase('3 copies')).toBeFocused();
  await page.getByRole('button', { name: /^Page 1, / }).focus();
  await press('Enter', '2');
  await expect(bench.sentence).toContainText('Page 1 comes from Tray 2');
  await page.getByRole('button', { name: /^Page 6, / }).focus();
  await press('Enter', '3');
  await page.getByRole('button', { name: /^Page 9, / }).focus();
  await press('Enter', '3');
  await expect(bench.sentence).toContainText('pages 6 and 9 come from Tray 3');
  await press('Control+Enter');
  await expect(page.getByText('completed, 27 of 27 sheets')).toBeVisible();
  expect((await bench.delivered()).map(([tray]) => tray)).toEqual([...A_SET, ...A_SET, ...A_SET]);
});

test('(a) the same by dragging sheets to the lanes of their trays', async ({ quietPage: page, world }) => {
  const bench = new BenchPage(page, world);
  await bench.open(await world.demoJob('contract', { tray: 'tray-1', copies: 2 }));
  // One-sided, so that every sheet is a page; the backs come afterwards.
  const drag = async (sheet: number, tray: string): Promise<void> => {
    await page.locator(`[data-sheet="${sheet}"]`).hover();
    await page.mouse.down();
    // A lane reaches beyond what is seen of it.
    const seen = (await bench.lanes.boundingBox())!;
    const lane = (await page.locator(`[data-tray="${tray}"]`).boundingBox())!;
    await page.mouse.move(seen.x + 300, lane.y + 10, { steps: 10 });
    await page.mouse.move(seen.x + 306, lane.y + 18, { steps: 4 });
    await page.mouse.up();
    await expect(page.locator(`[data-tray="${tray}"] [data-sheet="${sheet}"]`)).toBeVisible();
  };
  await drag(1, 'tray-2');
  await drag(6, 'tray-3');
  await drag(9, 'tray-3');
  await bench.take('one side', 'Both sides of the sheet');
  await expect(bench.sentence).toContainText('Page 1 comes from Tray 2; pages 6 and 9 come from Tray 3');
  await bench.send(18);
  expect((await bench.delivered()).map(([tray]) => tray)).toEqual([...A_SET, ...A_SET]);
});

test('(b) two designs alternating four on a side, with cut marks', async ({ quietPage: page, world }, info) => {
  const bench = new BenchPage(page, world);
  await bench.open(await world.demoJob('flyer'));
  await bench.typePages('(1, 2) x2');
  await expect(page.getByText('4 pages', { exact: false }).first()).toBeVisible();
  await bench.take('each page’s own paper size', 'All on A4');
  await bench.take('1 page a side', '4 pages a side');
  await bench.also('Cut marks', 'Cut marks at the corners of each page');
  await expect(bench.sentence).toContainText('4 pages a side, with cut marks');
  const path = await bench.save(info);
  expect(countPages(path)).toBe(1);
  const words = wordsOf(path, 1);
  const opens = words.filter(({ word }) => word === 'Open');
  const comes = words.filter(({ word }) => word === 'Come');
  expect([opens.length, comes.length]).toEqual([2, 2]);
  // Alternating: the one design on the left, the other on the right.
  expect(Math.max(...opens.map(({ x }) => x))).toBeLessThan(Math.min(...comes.map(({ x }) => x)));
});

test('(c) the players’ notes four a side in grey, without the fingering charts', async ({
  quietPage: page,
  world,
}, info) => {
  const bench = new BenchPage(page, world);
  await bench.open(await world.demoJob('players-notes'));
  await bench.typePages('all but 3, 7, 11');
  await expect(page.getByText('9 of 12 printed')).toBeVisible();
  await bench.take('1 page a side', '4 pages a side');
  await bench.take('colour', 'Everything in grey');
  await expect(bench.sentence).toContainText('in grey');
  const path = await bench.save(info);
  expect(countPages(path)).toBe(3);
  const text = [1, 2, 3].map((side) => textOf(path, side)).join('\n');
  expect(text).not.toContain('Fingerings');
  expect(text).toContain('Cues 1, Symphony in E minor');
});

test('(d) a 16-page booklet with its cover from another tray', async ({ quietPage: page, world }) => {
  const file = await world.upload(await textPages(16), 'season.pdf');
  const ticket = { version: 1, title: 'Season', documents: [{ file }], tray: 'tray-1' };
  const bench = new BenchPage(page, world);
  await bench.open((await world.api<{ id: string }>('/jobs', { ticket })).id);
  await bench.take('1 page a side', /booklet/);
  await bench.also('A cover from another tray', 'Tray 2');
  await expect(bench.sentence).toContainText('folded as a booklet, its cover from Tray 2');
  await expect(bench.lanes).toContainText('folded together in the middle');
  // As it will lie in the hand.
  await page.keyboard.press('p');
  await page.getByRole('button', { name: 'Next leaf' }).click();
  await expect(page.getByRole('dialog')).toContainText('Sheet 1, back, left half, Tray 2: page 2');
  await expect(page.getByRole('dialog')).toContainText('Sheet 2, front, right half, Tray 1: page 3');
  await page.keyboard.press('Escape');
  await bench.send(4);
  expect(await bench.delivered()).toEqual([
    ['tray-2', 1, 2],
    ['tray-1', 3, 4],
    ['tray-1', 5, 6],
    ['tray-1', 7, 8],
  ]);
});

test.describe('with Letter and Legal in two trays', () => {
  test.use({ printerOptions: { papers: { 'tray-3': 'na_letter_8.5x11in', 'tray-4': 'na_legal_8.5x14in' } } });

  test('(e) a mix of Letter and Legal, each page from the tray with its paper', async ({ quietPage: page, world }) => {
    const bench = new BenchPage(page, world);
    await bench.open(await world.demoJob('grant-return', { paper: { size: 'iso_a4_210x297mm' } }));
    await bench.take('A4', 'Each page on paper of its own size');
    await expect(bench.sentence).toContainText('on each page’s own paper size');
    await expect(bench.lanes.locator('[data-tray="tray-4"]')).toContainText('takes 2 of');
    await bench.send(5);
    expect((await bench.delivered()).map(([tray]) => tray)).toEqual(['tray-3', 'tray-4', 'tray-3', 'tray-4', 'tray-3']);
  });
});

test('(f) a portrait first page and landscape pages after it, two-sided in one job', async ({
  quietPage: page,
  world,
}, info) => {
  const bench = new BenchPage(page, world);
  await bench.open(await world.demoJob('timetable'));
  await bench.take('one side', 'Both sides of the sheet');
  await expect(bench.phrase('like a book')).toBeVisible();
  // Three of four sides are landscape: the set is held that way, and its backs are upright when it is leafed through.
  await page.keyboard.press('p');
  await page.getByRole('button', { name: 'Next leaf' }).click();
  await expect(page.getByRole('dialog')).toContainText('Sheet 1, back, Tray 1: page 2');
  await page.keyboard.press('Escape');
  const path = await bench.save(info);
  expect(countPages(path)).toBe(4);
  expect(textOf(path, 1)).toContain('Rehearsals this autumn');
  expect(textOf(path, 4)).toContain('November');
  await bench.send(2);
  expect(await world.delivered(1)).toMatchObject([
    { sides: 'two-sided-short-edge', front: 1, back: 2 },
    { sides: 'two-sided-short-edge', front: 3, back: 4 },
  ]);
});

test('(g) 30 pages two-sided onto the fewest sheets that can be read at 7 pt, from Other ways', async ({
  quietPage: page,
  world,
}) => {
  const file = await world.upload(await textPages(30, 11), 'minutes.pdf');
  const ticket = { version: 1, title: 'Minutes', documents: [{ file }], tray: 'tray-1' };
  const bench = new BenchPage(page, world);
  await bench.open((await world.api<{ id: string }>('/jobs', { ticket })).id);
  await page.getByRole('button', { name: 'Other ways' }).click();
  const drawer = page.getByRole('region', { name: 'Other ways' });
  // 11 pt at the scale of two A4 pages on a side is 7.5 pt; four would be under 6.
  await expect(drawer).toContainText('on both sides, 2 pages a side', { timeout: 60_000 });
  await drawer.getByRole('button', { name: 'Take it' }).click();
  await expect(drawer.getByRole('button', { name: 'Set so now' })).toBeDisabled();
  await drawer.getByRole('button', { name: 'Close other ways' }).click();
  await expect(bench.sentence).toContainText('on both sides turning like a book, 2 pages a side');
  await bench.send(8);
  expect(await bench.delivered()).toHaveLength(8);
});

test('(h) a typed page that does not exist, repaired by its button', async ({ quietPage: page, world }) => {
  const bench = new BenchPage(page, world);
  await bench.open(await world.demoJob('programme', { tray: 'tray-1' }));
  await bench.typePages('1-4, 9');
  await page.getByRole('button', { name: 'Write 8 instead' }).click();
  await expect(bench.sentence).toContainText('pages 1 to 4 and 8');
  await bench.send(5);
  expect((await bench.delivered()).map(([, front]) => front)).toEqual([1, 2, 3, 4, 5]);
});

test('(i) the first page of each of five documents, three copies', async ({ quietPage: page, world }, info) => {
  const bench = new BenchPage(page, world);
  await page.goto(world.base);
  const files = await Promise.all(
    ['Oboe', 'Horn', 'Viola', 'Cello', 'Harp'].map(async (name) => ({
      name: `${name.toLowerCase()}.pdf`,
      mimeType: 'application/pdf',
      buffer: await textPages(3, 12, name),
    })),
  );
  await page.locator('fo-file-drop input').first().setInputFiles(files.slice(0, 1));
  await expect(page.getByText('3 of 3 printed')).toBeVisible();
  await bench.typePages('1');
  await page.getByLabel('Add a document to this job').setInputFiles(files.slice(1));
  await expect(page.getByRole('button', { name: '5. harp.pdf' })).toBeVisible({ timeout: 40_000 });
  for (const name of ['2. horn.pdf', '3. viola.pdf', '4. cello.pdf', '5. harp.pdf']) {
    await page.getByRole('button', { name }).click();
    // Nobody types before the field shows what is chosen of this document.
    await expect(page.getByLabel('Pages to print')).toHaveValue('all');
    await bench.typePages('1');
    await expect(page.getByText('1 of 3 printed')).toBeVisible();
  }
  await bench.type('one copy', 'Copies', 3);
  await expect(bench.sentence).toContainText('Print 5 pages of 5 documents, 3 copies as complete sets');
  const path = await bench.save(info);
  expect([1, 2, 3, 4, 5].map((side) => textOf(path, side).split('\n')[0])).toEqual([
    'Oboe 1',
    'Horn 1',
    'Viola 1',
    'Cello 1',
    'Harp 1',
  ]);
  await bench.send(15);
  expect(await world.delivered(1)).toHaveLength(15);
});

test('routes by rule: the last page from another tray, in its order, with what an earlier one takes', async ({
  quietPage: page,
  world,
}) => {
  const bench = new BenchPage(page, world);
  await bench.open(await world.demoJob('programme', { tray: 'tray-1' }));
  await bench.phrase('and also …').click();
  await page.getByRole('button', { name: 'Pages with paper or settings of their own' }).click();
  const editor = page.getByRole('dialog', { name: 'Pages with paper or settings of their own' });
  await editor.getByRole('button', { name: 'Add a route' }).click();
  // A new one asks which pages, and changes nothing else yet; without pages there is none.
  const asked = editor.getByLabel('Pages of the new route');
  await expect(asked).toBeFocused();
  await asked.press('Escape');
  await expect(editor).toContainText('No page has paper or settings of its own yet.');
  // By keyboard from here: the focus is where one goes on.
  await expect(editor.getByRole('button', { name: 'Add a route' })).toBeFocused();
  await page.keyboard.press('Enter');
  await asked.fill('last');
  await asked.press('Enter');
  await expect(editor.getByLabel('Tray of route 1')).toBeFocused();
  await expect(editor.getByLabel('Pages of route 1')).toHaveValue('last');
  await expect(bench.sentence).toContainText('Page 8 comes from Tray 1');
  await editor.getByLabel('Tray of route 1').selectOption('tray-2');
  await editor.getByRole('button', { name: 'Add a route' }).click();
  await asked.fill('even');
  await asked.press('Tab');
  await editor.getByLabel('Tray of route 2').selectOption('tray-3');
  await expect(editor.getByRole('listitem').nth(1)).toContainText('3 pages; route 1 takes 1 more');
  await editor.getByRole('button', { name: 'Route 2 counts earlier' }).click();
  await expect(editor.getByRole('listitem').nth(1)).toContainText('no page; route 1 takes 1');
  await editor.getByRole('button', { name: 'Done' }).click();
  await bench.send(8);
  expect((await bench.delivered()).map(([tray]) => tray)).toEqual(
    [1, 2, 3, 4, 5, 6, 7, 8].map((number) => (number % 2 === 0 ? 'tray-3' : 'tray-1')),
  );
});

test('a stop is settled by its repair, and undone by Ctrl+Z like any change', async ({ quietPage: page, world }) => {
  const bench = new BenchPage(page, world);
  await bench.open(await world.demoJob('stage-plan', { tray: 'tray-1' }));
  await expect(bench.tally.getByRole('button', { name: /^Send/ })).toBeDisabled();
  await bench.tally.getByRole('button', { name: /1 thing to settle/ }).click();
  await page.getByRole('button', { name: 'Take A3 from Tray 4' }).click();
  await expect(bench.tally.getByRole('button', { name: 'Send 5 sheets' })).toBeEnabled();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await expect(bench.tally.getByRole('button', { name: /^Send/ })).toBeDisabled();
  await page.keyboard.press('Control+Shift+z');
  await bench.send(5);
  expect((await bench.delivered()).map(([tray]) => tray)).toEqual(['tray-1', 'tray-4', 'tray-1', 'tray-1', 'tray-1']);
});

test('documents are moved, turned, repeated and taken out, and all of it undone', async ({
  quietPage: page,
  world,
}) => {
  const bench = new BenchPage(page, world);
  await bench.open(await world.demoJob('programme', { tray: 'tray-1' }));
  const menu = async (document: string, item: string): Promise<void> => {
    await page
      .getByRole('button', { name: `What to do with ${document}` })
      .first()
      .click();
    await page.getByRole('menuitem', { name: item }).click();
  };
  await menu('programme.pdf', 'Add it again, for other pages');
  await expect(page.getByRole('button', { name: '2. programme.pdf' })).toBeVisible();
  await bench.typePages('1');
  await expect(bench.sentence).toContainText('all 8 pages of programme and page 1 of programme');
  await menu('programme.pdf', 'Print it later');
  await expect(bench.sentence).toContainText('page 1 of programme and all 8 pages of programme');
  await menu('programme.pdf', 'Take it out of the job');
  await expect(bench.sentence).toContainText('Print all 8 pages of');
  await menu('programme.pdf', 'Turn its pages a quarter clockwise');
  await expect(bench.sentence).toContainText('turned 90°');
  await expect(page.getByRole('button', { name: /^Page 1, landscape/ })).toBeVisible();
  for (let step = 0; step < 5; step += 1) await page.keyboard.press('Control+z');
  await expect(bench.sentence).not.toContainText('turned');
  await expect(bench.sentence).toContainText('Print all 8 pages of programme, one copy');
});

test('the notices of all that is shipped are at hand', async ({ quietPage: page, world }) => {
  await page.goto(world.base);
  const link = page.getByRole('link', { name: 'Notices of what Foglio is made with' });
  const answer = await fetch(world.base + (await link.getAttribute('href')));
  const text = await answer.text();
  const { dependencies } = JSON.parse(readFileSync(join(ROOT, 'apps/server/package.json'), 'utf8')) as {
    dependencies: Record<string, string>;
  };
  const named = [
    '@fontsource-variable/literata',
    '@embedpdf/pdfium',
    'pdfjs-dist',
    '@angular/core',
    ...Object.keys(dependencies),
  ];
  for (const name of named.filter((one) => !one.startsWith('@foglio/'))) {
    expect(text).toMatch(new RegExp(`^${name} \\d`, 'm'));
  }
  expect(text).toContain('PDFium Authors');
});
