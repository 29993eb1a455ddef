import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';
import { BenchPage, textOf } from './bench-page';
import { expect, ROOT, test } from './world';

const FOGLIO = join(ROOT, 'apps/cli/bin/foglio.mjs');

/** A sheet before the job that says what it is. */

test('an information sheet: seen, given another tray, saved, sent, delivered before all else', async ({
  quietPage: page,
  world,
}, testInfo) => {
  const bench = new BenchPage(page, world);
  await bench.open(await world.demoJob('contract', { copies: 2, sides: 'two-sided', tray: 'tray-1' }));
  await bench.phrase('and also …').click();
  await page.getByRole('button', { name: 'An information sheet before the job' }).click();
  await page.getByLabel('Printed by').fill('Ada Quill');
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(bench.sentence).toContainText('with an information sheet before it, printed by Ada Quill');
  await expect(bench.tally).toContainText('sheets in 2 sets, 1 before');

  // It stands before sheet 1, and goes to another tray by that tray's number.
  const sheet = bench.lanes.locator('[data-sheet="0"]');
  await expect(sheet).toHaveAccessibleName(/^Information sheet before the job, Tray 1/);
  await sheet.click();
  await expect(bench.panel).toContainText('Front, what the job is');
  await expect(bench.panel.locator('.texts text', { hasText: 'Ada Quill' }).first()).toBeVisible();
  await page.keyboard.press('3');
  await expect(bench.sentence).toContainText('that sheet from Tray 3');
  await expect(sheet).toHaveAccessibleName(/^Information sheet before the job, Tray 3/);
  await page.keyboard.press('ArrowRight');
  await expect(bench.panel.getByLabel('Sheet number')).toHaveValue('1');
  await page.keyboard.press('ArrowLeft');
  await expect(bench.panel.getByLabel('Sheet number')).toHaveValue('Info');

  const path = await bench.save(testInfo);
  const said = textOf(path, 1);
  expect(said).toContain('Ada Quill');
  expect(said).toContain('contract.pdf: 14 pages');
  expect(said).toMatch(/14 from Tray 1, A4/);
  expect(said).toMatch(/1 from Tray 3, A4/);
  expect(said.replace(/\s+/g, ' ')).toContain('2 copies as complete sets, on both sides');

  await bench.send(15);
  await expect.poll(async () => (await world.delivered(1)).length, { timeout: 30_000 }).toBe(15);
  const trays = (await world.delivered(1)).map(({ tray }) => tray);
  expect(trays).toEqual(['tray-3', ...Array<string>(14).fill('tray-1')]);
  const sent = testInfo.outputPath('sent.pdf');
  writeFileSync(sent, await world.document(1));
  expect(textOf(sent, 1)).toContain('Ada Quill');
});

test('from the command line it names who runs it', ({ world }) => {
  const folder = mkdtempSync(join(tmpdir(), 'foglio-information-'));
  writeFileSync(join(folder, 'contract.pdf'), world.source('contract'));
  const ticket = { version: 1, documents: [{ file: 'contract.pdf' }], informationSheet: { print: true } };
  writeFileSync(join(folder, 'job.json'), JSON.stringify(ticket));
  const output = join(folder, 'out.pdf');
  execFileSync(process.execPath, [FOGLIO, 'impose', join(folder, 'job.json'), '-o', output]);
  const said = textOf(output, 1);
  expect(said).toContain(userInfo().username);
  expect(said).toContain('contract.pdf: 14 pages');
});
