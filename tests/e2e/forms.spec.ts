import { writeFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import sharp from 'sharp';
import { hallLetter } from '../../demo/src/hall-letter';
import { seasonBudget } from '../../demo/src/season-budget';
import { numberedPdf } from '../../packages/pdf/test/make-pdf';
import { mailFile } from '../../packages/typeset/test/make-mail';
import { workbook } from '../../packages/typeset/test/make-workbook';
import { BenchPage, countPages, textOf } from './bench-page';
import { expect, test } from './world';

/** Documents that have no pages of their own, from the file to the paper. */

const DROP = 'Drop a document here to set up its printing';

test('a budget: two of four sheets, all columns on A4 sideways, the first page on letterhead', async ({
  quietPage: page,
  world,
}, testInfo) => {
  const bench = new BenchPage(page, world);
  const path = testInfo.outputPath('season-budget.xlsx');
  writeFileSync(path, await seasonBudget());
  await page.goto(world.base);
  await page.getByLabel(DROP).setInputFiles(path);
  await expect(page.getByText('9 of 9 printed')).toBeVisible();
  await bench.phrase('four sheets, at its own size').click();
  const form = page.getByRole('dialog', { name: 'How it is laid out' });
  await expect(form.getByRole('heading')).toBeFocused();
  await form.getByRole('checkbox', { name: 'Income' }).uncheck();
  await form.getByRole('checkbox', { name: 'Concerts' }).uncheck();
  await form.getByLabel('How large').selectOption('All columns on one page');
  await form.getByLabel('Which way').selectOption('Sideways');
  await expect(form.getByRole('status')).toHaveText('2 pages');
  expect((await new AxeBuilder({ page }).include('.popover').analyze()).violations).toEqual([]);
  const earlier = form.getByRole('button', { name: 'Print Expenses earlier' });
  await earlier.press('Enter');
  await expect(form.getByRole('checkbox').first()).toHaveAccessibleName('Expenses');
  await expect(earlier).toBeFocused();
  // There is nothing before it any more.
  await earlier.press('Enter');
  await expect(earlier).toBeFocused();
  await form.getByRole('button', { name: 'Print Expenses later' }).press('Enter');
  await form.getByRole('button', { name: 'Done' }).click();
  await expect(bench.phrase('two sheets, all columns on one page')).toBeFocused();
  await bench.typePages('1-2');
  await page.getByRole('button', { name: /^Page 1, / }).press('2');
  await expect(bench.sentence).toContainText('Page 1 comes from Tray 2');
  // What was laid out in another way is there again after a reload, and after one step back.
  await expect(bench.tally).toContainText('Saved');
  await page.reload();
  await expect(bench.phrase('two sheets, all columns on one page')).toBeVisible();
  const saved = await bench.save(testInfo);
  expect([countPages(saved), textOf(saved, 1), textOf(saved, 2)]).toEqual([
    2,
    expect.stringContaining('Budget of the season'),
    expect.stringContaining('Musicians’ fees'),
  ]);
  await bench.send(2);
  expect((await bench.delivered()).map(([tray]) => tray)).toEqual(['tray-2', 'tray-1']);
});

const LOREM =
  'The orchestra rehearses on Mondays, and the strings stay for another hour of sectional work afterwards. ';

const NEWS = `<!doctype html><html><head><meta charset="utf-8"><title>Season news</title></head><body>
<nav>${'<p><a href="/">Another page of the orchestra’s</a></p>'.repeat(40)}</nav>
<article><h1>Season news</h1>${Array.from({ length: 14 }, (_, at) => `<p>Paragraph ${at}. ${LOREM.repeat(4)}</p>`).join('')}
<h2>Dates</h2><table><tr>${Array.from({ length: 16 }, (_, at) => `<td style="white-space:nowrap">column number ${at}</td>`).join('')}</tr></table></article>
${'<aside><h3>Advertisement</h3><p>Buy strings.</p></aside>'.repeat(40)}</body></html>`;

test('a web page with a wide table: as it is, and its article alone on 40 % fewer sheets', async ({
  quietPage: page,
  world,
}, testInfo) => {
  const bench = new BenchPage(page, world);
  const path = testInfo.outputPath('news.html');
  writeFileSync(path, NEWS);
  await page.goto(world.base);
  await page.getByLabel(DROP).setInputFiles(path);
  const pages = page.getByText(/^\d+ of \d+ printed$/);
  await expect(pages).toBeVisible();
  await expect(page.getByText('A wide table is made smaller to fit the width.')).toBeVisible();
  const before = Number.parseInt((await pages.textContent())!, 10);
  await bench.phrase('a web page as it is, without backgrounds').click();
  const form = page.getByRole('dialog', { name: 'How it is laid out' });
  await form.getByLabel('Printed').selectOption('The article alone, to be read');
  await form.getByRole('button', { name: 'Done' }).click();
  await expect(bench.phrase('the article alone, in 11 pt')).toBeVisible();
  await expect(bench.tally).toContainText('Saved');
  await expect(bench.tally).not.toContainText('not laid out');
  await expect.poll(async () => Number.parseInt((await pages.textContent())!, 10)).toBeLessThanOrEqual(0.6 * before);
  const saved = await bench.save(testInfo);
  expect(textOf(saved, 1)).toContain('Season news');
  expect(textOf(saved, 1)).not.toContain('Another page of');
});

test('thirty workbooks by one set-up: of each the sheet that is asked for, on one page', async ({
  page,
  world,
}, testInfo) => {
  const paths: string[] = [];
  for (let at = 1; at <= 30; at += 1) {
    const path = testInfo.outputPath(`branch-${at}.xlsx`);
    const book = await workbook((one) => {
      for (const name of ['Cover', 'Figures']) {
        one.addWorksheet(name).addRows(Array.from({ length: 80 }, (_, row) => [`${name} of branch ${at}`, row]));
      }
    });
    writeFileSync(path, book);
    paths.push(path);
  }
  const form = { sheets: ['Figures'], fit: 'page' };
  const ticket = { version: 1, documents: [{ file: '*', form }], tray: 'tray-1' };
  await world.api('/setups', { name: 'Figures alone', ticket, printerId: 'upper-office' });
  await page.goto(`${world.base}/series`);
  await page.getByRole('button', { name: /^Figures alone/ }).click();
  await page.getByLabel('Drop the files or a folder here').last().setInputFiles(paths);
  const totals = page.getByRole('complementary', { name: 'Totals' });
  await expect(totals).toContainText('30sheets', { timeout: 180_000 });
  await totals.getByRole('button', { name: /^Send/ }).click();
  const series = page.url().replace(/^.*\/series/, '/series');
  const printed = async (): Promise<number> => {
    const { rows } = await world.api<{ rows: { sending: { sheetsDone: number } | null }[] }>(series);
    return rows.filter(({ sending }) => sending?.sheetsDone === 1).length;
  };
  await expect.poll(printed, { timeout: 120_000 }).toBe(30);
});

test('an answer that comes late: it is said, nothing is sent meanwhile, and who went elsewhere finds it done', async ({
  quietPage: page,
  world,
}) => {
  const bench = new BenchPage(page, world);
  const table = Buffer.from(Array.from({ length: 40 }, (_, at) => `player ${at},${at}`).join('\n'));
  const { id } = await world.api<{ id: string }>('/jobs', {
    ticket: { version: 1, documents: [{ file: await world.upload(table, 'players.csv') }] },
  });
  const held: (() => Promise<void>)[] = [];
  await page.route('**/forms', (route) => void held.push(() => route.continue()));
  await bench.open(id);
  await bench.phrase('a table without a header, all columns on one page').click();
  const form = page.getByRole('dialog', { name: 'How it is laid out' });
  await form.getByLabel('Which way').selectOption('Sideways');
  await expect(form.getByRole('status')).toHaveText('Being laid out …');
  await form.getByRole('button', { name: 'Done' }).click();
  await expect(bench.tally).toContainText('is not laid out as you asked yet');
  await expect(bench.tally.getByRole('button', { name: /^Send/ })).toBeDisabled();
  await expect.poll(() => held.length).toBe(1);
  // The answer comes while nobody looks; on coming back it is asked for again, and is there.
  await page.getByRole('link', { name: 'Desk', exact: true }).click();
  await held[0]!().catch(() => undefined);
  await page.unrouteAll();
  await bench.open(id);
  await expect(bench.panel).toContainText('A4 landscape');
  await expect(bench.tally.getByRole('button', { name: /^Send/ })).toBeEnabled();
});

test('a long table: how far it is, stopped by a press, and laid out after all in another form', async ({
  quietPage: page,
  world,
}) => {
  const bench = new BenchPage(page, world);
  const rows = Array.from({ length: 80_000 }, (_, at) => `member ${at},${at},viola,Hohenfels`).join('\n');
  await page.goto(world.base);
  const dropped = { name: 'members.csv', mimeType: 'text/csv', buffer: Buffer.from(rows) };
  await page.getByLabel(DROP).setInputFiles(dropped);
  await expect(page.locator('fo-laying-line')).toContainText(/\d of [\d,]+ pages/, { timeout: 30_000 });
  await expect(bench.tally.getByRole('button', { name: /^Send/ })).toBeDisabled();
  await page.getByRole('button', { name: 'Stop laying it out' }).click();
  await expect(page.getByRole('button', { name: 'Stop laying it out' })).toHaveCount(0);
  await expect(bench.tally).toContainText('Only the first pages of members.csv are here: It was stopped');
});

test('a letter with an annex on its side: on both sides of one sheet, with its notes, heads and page numbers', async ({
  quietPage: page,
  world,
}, testInfo) => {
  const bench = new BenchPage(page, world);
  const path = testInfo.outputPath('letter.docx');
  writeFileSync(path, await hallLetter());
  await page.goto(world.base);
  await page.getByLabel(DROP).setInputFiles(path);
  await expect(page.getByText('2 of 2 printed')).toBeVisible();
  await expect(bench.phrase('a text in its final form')).toBeVisible();
  await bench.take('one side', /^Both sides/);
  await bench.phrase('a text in its final form').click();
  const form = page.getByRole('dialog', { name: 'How it is laid out' });
  await form.getByLabel('Comments, at the end').check();
  await expect(form.getByRole('status')).toHaveText('2 pages');
  expect((await new AxeBuilder({ page }).include('.popover').analyze()).violations).toEqual([]);
  await form.getByRole('button', { name: 'Done' }).click();
  await expect(bench.phrase('a text in its final form, with its comments')).toBeFocused();
  await expect(bench.tally).toContainText('Saved');
  const saved = await bench.save(testInfo);
  expect([textOf(saved, 1), textOf(saved, 2)]).toEqual([
    expect.stringMatching(/Marrowbridge Town Orchestra[\s\S]*By the tariff of 1 January 2026[\s\S]*Page 1 of 2/),
    expect.stringMatching(/Annex: our evenings in the hall[\s\S]*Season’s End[\s\S]*Page 2 of 2/),
  ]);
  await bench.send(1);
  const [sheet, ...others] = await bench.delivered();
  expect([sheet?.slice(1), others]).toEqual([[1, 2], []]);
});

test('a mail with three attachments: its message and each of them documents of one job, sent together', async ({
  quietPage: page,
  world,
}, testInfo) => {
  const bench = new BenchPage(page, world);
  const path = testInfo.outputPath('season.eml');
  const mail = mailFile({ plain: 'Dear Bo,\nsee what is attached.\nAda' }, [
    { type: 'application/octet-stream', name: 'budget.xlsx', bytes: await seasonBudget() },
    { type: 'application/pdf', name: 'plan.pdf', bytes: numberedPdf(3) },
    { type: 'text/csv', name: 'seats.csv', bytes: Buffer.from('hall,seats\nTown Hall,520') },
    { type: 'application/octet-stream', name: 'setup.exe', bytes: Buffer.from([0x4d, 0x5a, 0, 1]) },
  ]);
  writeFileSync(path, mail);
  await page.goto(world.base);
  await page.getByLabel(DROP).setInputFiles(path);
  const documents = page.getByRole('list', { name: 'Documents' }).getByRole('listitem');
  await expect(documents).toHaveCount(4);
  for (const [at, name] of ['season.eml', 'budget.xlsx', 'plan.pdf', 'seats.csv'].entries()) {
    await expect(documents.nth(at)).toContainText(name);
  }
  await expect(page.getByText('not printed: setup.exe')).toBeVisible();
  await expect(bench.tally).toContainText('Saved');
  // Of four documents the sentence does not say how each is laid out; the list says it of the one that is looked at.
  await documents.nth(1).getByRole('button', { name: 'budget.xlsx' }).first().click();
  const laid = page.getByRole('button', { name: 'Laid out: four sheets, at its own size' });
  await laid.click();
  const form = page.getByRole('dialog', { name: 'How it is laid out' });
  await form.getByLabel('How large').selectOption('All columns on one page');
  await expect(form.getByRole('status')).toHaveText('4 pages');
  await page.screenshot({ path: testInfo.outputPath('mail-form.png') });
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Laid out: four sheets, all columns on one page' })).toBeFocused();
  await expect(bench.tally).toContainText('Saved');
  // What has pages of its own was not laid out.
  await documents.nth(2).getByRole('button', { name: 'plan.pdf' }).first().click();
  await expect(page.getByRole('button', { name: /^Laid out/ })).toHaveCount(0);
  // After a reload each of them is still what it was.
  await page.reload();
  await expect(documents).toHaveCount(4);
  await expect(bench.tally).not.toContainText('not laid out');
  const saved = await bench.save(testInfo);
  expect(textOf(saved, 1)).toMatch(/From: Ada Reed[\s\S]*see what is attached/);
  expect(countPages(saved)).toBe(1 + 4 + 3 + 1);
  await page.screenshot({ path: testInfo.outputPath('mail.png') });
});

test('a page and its picture that are dropped together are one document, and so are pictures', async ({
  quietPage: page,
  world,
}, testInfo) => {
  const files = ['page.html', 'hall.png', 'scan 2.png', 'scan 10.png'].map((name) => testInfo.outputPath(name));
  writeFileSync(files[0]!, '<!doctype html><p>The hall: <img src="hall.png">');
  for (const file of files.slice(1)) {
    const one = sharp({ create: { width: 90, height: 60, channels: 3, background: '#a03020' } });
    await one.png().toFile(file);
  }
  await page.goto(world.base);
  await page.getByLabel(DROP).setInputFiles(files);
  const documents = page.getByRole('list', { name: 'Documents' }).getByRole('listitem');
  await expect(documents).toHaveCount(2);
  await expect(documents.nth(0)).toContainText('page.html');
  await expect(documents.nth(1)).toContainText('scan 2.png and 1 more');
  await expect(page.getByText('Not with the file')).toHaveCount(0);
});
