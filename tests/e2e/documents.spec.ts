import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import { expect, test } from './world';

/** What people bring besides a PDF that simply opens. */

let folder: string;
test.beforeEach(({ world }) => {
  folder = mkdtempSync(join(tmpdir(), 'foglio-documents-'));
  writeFileSync(join(folder, 'contract.pdf'), world.source('contract'));
});
test.afterEach(() => rmSync(folder, { recursive: true, force: true }));

const at = (name: string): string => join(folder, name);
const DROP = 'Drop a document here to set up its printing';

test('a locked PDF asks for its password, again where it is wrong, and is then a job like any other', async ({
  page,
  world,
}) => {
  execFileSync('qpdf', ['--encrypt', 'sésame', 'owner', '256', '--', at('contract.pdf'), at('locked.pdf')]);
  await page.goto(world.base);
  await page.getByLabel(DROP).setInputFiles(at('locked.pdf'));
  const dialog = page.getByRole('dialog', { name: '“locked.pdf” is locked' });
  await expect(dialog).toContainText('locked with a password');
  const password = dialog.getByLabel('Password');
  await expect(password).toBeFocused();
  expect((await new AxeBuilder({ page }).include('mat-dialog-container').analyze()).violations).toEqual([]);
  await password.fill('guess');
  await page.keyboard.press('Enter');
  await expect(dialog).toContainText('This is not the password');
  await password.fill('sésame');
  await dialog.getByRole('button', { name: 'Open it' }).click();
  await expect(page.getByText('14 of 14 printed')).toBeVisible({ timeout: 30_000 });
});

test('while a document is on its way, what will plan and draw it has begun already', async ({
  quietPage: page,
  world,
}) => {
  const held: (() => Promise<void>)[] = [];
  await page.route('**/api/files?*', (route) => void held.push(() => route.continue()));
  await page.goto(world.base);
  expect(page.workers()).toEqual([]);
  await page.getByLabel(DROP).setInputFiles(at('contract.pdf'));
  await expect.poll(() => page.workers().length).toBe(2);
  expect(held).toHaveLength(1);
  await held[0]!();
  await expect(page.getByText('14 of 14 printed')).toBeVisible();
  await expect(page.locator('fo-lanes fo-page-image[data-state="drawn"]').first()).toBeVisible();
  // No others were made for it.
  expect(page.workers()).toHaveLength(2);
});

test('left out, it makes no job, and the Desk is as before', async ({ page, world }) => {
  execFileSync('qpdf', ['--encrypt', '', 'owner', '256', '--print=none', '--', at('contract.pdf'), at('kept.pdf')]);
  await page.goto(world.base);
  await page.getByLabel(DROP).setInputFiles(at('kept.pdf'));
  const dialog = page.getByRole('dialog', { name: '“kept.pdf” is locked' });
  await expect(dialog).toContainText('does not allow it to be printed');
  await dialog.getByRole('button', { name: 'Leave the file out' }).click();
  await expect(page.getByRole('status')).toBeHidden();
  await expect(dialog).toHaveCount(0);
  await expect(page.getByText('No jobs yet.')).toBeVisible();
  expect(await world.jobs()).toEqual([]);
});

test('a text and a damaged PDF become pages of one job; what should be known of each is said', async ({
  page,
  world,
}) => {
  writeFileSync(at('letter.txt'), 'Dear colleague,\n\nthe next page is blank.\f\n');
  const contract = world.source('contract').toString('latin1');
  writeFileSync(at('broken.pdf'), Buffer.from(contract.replace(/startxref\s+\d+/, 'startxref\n7'), 'latin1'));
  await page.goto(world.base);
  await page.getByLabel(DROP).setInputFiles([at('letter.txt'), at('broken.pdf')]);
  await expect(page.getByText('2 of 2 printed')).toBeVisible();
  await page.getByRole('button', { name: '2. broken.pdf' }).click();
  await expect(page.getByRole('note')).toContainText('was damaged; what could be saved of it is here');
  await expect(page.getByText('14 of 14 printed')).toBeVisible({ timeout: 30_000 });
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
});

test('what Foglio does not know is refused, with what it takes', async ({ page, world }) => {
  writeFileSync(at('letter.doc'), '{\\rtf1 a letter}');
  await page.goto(world.base);
  await page.getByLabel(DROP).setInputFiles(at('letter.doc'));
  await expect(page.getByRole('alert')).toContainText(
    'letter.doc: Foglio takes PDF, pictures (PNG, JPEG, TIFF), workbooks (.xlsx), text documents (.docx), CSV, web pages, mail (.eml), Markdown and plain text',
  );
});

test('of several files one that is refused does not keep the others from being taken', async ({ page, world }) => {
  writeFileSync(at('letter.doc'), '{\\rtf1 a letter}');
  writeFileSync(at('notes.txt'), 'Bring a pencil.\n');
  writeFileSync(at('list.txt'), 'Pencils\n');
  await page.goto(world.base);
  await page.getByLabel(DROP).setInputFiles([at('letter.doc'), at('notes.txt')]);
  await expect(page.getByRole('alert')).toContainText(
    'letter.doc: Foglio takes PDF, pictures (PNG, JPEG, TIFF), workbooks (.xlsx), text documents (.docx), CSV, web pages, mail (.eml), Markdown and plain text',
  );
  await page.getByRole('link', { name: /notes/ }).click();
  await expect(page.getByText('1 of 1 printed')).toBeVisible();
  await page.getByLabel('Add a document to this job').setInputFiles([at('letter.doc'), at('list.txt')]);
  await expect(page.getByRole('alert')).toContainText(
    'letter.doc: Foglio takes PDF, pictures (PNG, JPEG, TIFF), workbooks (.xlsx), text documents (.docx), CSV, web pages, mail (.eml), Markdown and plain text',
  );
  await expect(page.getByRole('button', { name: '2. list.txt' })).toBeVisible();
});
