import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import type { Page, TestInfo } from '@playwright/test';
import { parse } from 'csv-parse/sync';
import { numberedPdf } from '../../packages/pdf/test/make-pdf';
import { expect, test, type World } from './world';

const FILES = 16;
const [DAMAGED, LOCKED, WIDE, OWN] = [7, 10, 12, 3];
/** All but the damaged and the wide one. */
const PRINTED = FILES - 2;
const PASSWORD = 'marrowbridge';
const nameOf = (number: number): string => `contract-${number}.pdf`;

const SETUP = {
  version: 1,
  documents: [{ file: '*' }],
  sides: 'two-sided',
  tray: 'tray-1',
  routes: [{ name: 'Letterhead', pages: '1, 6', tray: 'tray-2', sides: 'one-sided' }],
};

/** Sheets of one file of eight pages: 1 | 2-3 | 4-5 | 6 | 7-8. */
const SHEETS = 5;
const TRAYS = ['tray-2', 'tray-1', 'tray-1', 'tray-2', 'tray-1'];

/** Contracts of eight pages: one damaged, one locked, one of A3 pages. */
function contracts(info: TestInfo): string[] {
  return Array.from({ length: FILES }, (_, at) => {
    const number = at + 1;
    const path = info.outputPath(nameOf(number));
    writeFileSync(
      path,
      number === DAMAGED ? '%PDF-1.7\nrubbish' : number === WIDE ? numberedPdf(8, 842, 1191) : numberedPdf(8),
    );
    if (number === LOCKED) lock(path);
    return path;
  });
}

function lock(path: string): void {
  const open = `${path}.open`;
  writeFileSync(open, readFileSync(path));
  execFileSync('qpdf', ['--encrypt', PASSWORD, 'owner', '256', '--', open, path]);
}

interface ReportRow {
  readonly File: string;
  readonly Sheets: string;
  readonly Delivered: string;
  readonly Outcome: string;
  readonly 'Printer job': string;
}

async function report(page: Page, info: TestInfo): Promise<ReportRow[]> {
  const downloading = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Report for a spreadsheet' }).click();
  const path = info.outputPath('report.csv');
  await (await downloading).saveAs(path);
  return parse(readFileSync(path), { bom: true, columns: true });
}

const seriesOf = async (page: Page, world: World) =>
  world.api<{ rows: { name: string; sending: { sheetsDone: number } | null }[] }>(
    page.url().replace(/^.*\/series/, '/series'),
  );

test.describe('a series', () => {
  test('unfit ones are told before, exceptions made, a jam gone on from, and the report is the printer’s', async ({
    page,
    world,
  }, testInfo) => {
    // It waits for letterhead in the middle, before the 8th file, however fast it is.
    await world.load('tray-2', 14);
    await world.api('/setups', { name: 'Contracts', ticket: SETUP, printerId: 'upper-office' });
    await page.goto(`${world.base}/series`);
    await page.getByRole('button', { name: /^Contracts/ }).click();
    const paths = contracts(testInfo);
    await page.getByLabel('Drop the files or a folder here').last().setInputFiles(paths);
    const totals = page.getByRole('complementary', { name: 'Totals' });
    await expect(totals).toContainText('3 files cannot be printed so', { timeout: 90_000 });
    const send = totals.getByRole('button', { name: /^Send/ });
    await expect(send).toBeDisabled();
    // In the order a person counts in, and each that does not fit with its reason.
    const rows = page.getByRole('row');
    await expect(rows.nth(2)).toContainText('contract-2.pdf');
    const rowOf = (number: number) => page.locator('.row', { hasText: nameOf(number) });
    const next = totals.getByRole('button', { name: 'Show the next of them' });
    const act = async (number: number, what: string): Promise<void> => {
      await page.getByRole('button', { name: `What to do with ${nameOf(number)}` }).click();
      await page.getByRole('menuitem', { name: what }).click();
    };
    await next.click();
    await expect(rowOf(DAMAGED)).toContainText(/damaged|cannot be read|not a PDF/i);
    await act(DAMAGED, 'Leave out');
    await expect(totals).toContainText('2 files cannot be printed so');
    await next.click();
    await expect(rowOf(LOCKED)).toContainText('Drop it here by itself to give its password');
    await act(LOCKED, 'Take out of the series');
    await expect(totals).toContainText('1 file cannot be printed so');
    await next.click();
    await expect(rowOf(WIDE)).toContainText('Tray 2 holds A4');
    // Both at once, the damaged one once more among them.
    await act(DAMAGED, 'Take in again');
    await totals.getByRole('button', { name: 'Leave out all 2 of them' }).click();
    await expect(totals).not.toContainText('cannot be printed so');
    await expect(rowOf(DAMAGED)).toContainText('left out');
    await expect(rowOf(WIDE)).toContainText('left out');

    // The locked one by itself, with its password; then in its place again.
    await page
      .getByLabel('Drop more files here')
      .last()
      .setInputFiles(paths[LOCKED - 1]!);
    await page.getByRole('dialog').getByLabel('Password').fill(PASSWORD);
    await page.getByRole('dialog').getByRole('button', { name: 'Open it' }).click();
    await expect(totals).toContainText(`${PRINTED * SHEETS}sheets`, { timeout: 30_000 });
    await page.getByRole('button', { name: 'in order of names' }).click();
    await page.locator('cdk-virtual-scroll-viewport').evaluate((element) => element.scrollTo(0, 0));
    await expect(rows.nth(2)).toContainText('contract-2.pdf');

    // One of them in two copies.
    await act(OWN, 'Settings of its own');
    const small = page.getByRole('dialog', { name: `${nameOf(OWN)}, with settings of its own` });
    await small.getByRole('button', { name: 'one copy' }).click();
    await page.getByRole('spinbutton', { name: 'Copies' }).fill('2');
    await page.getByRole('button', { name: 'Done' }).last().click();
    await expect(small).toContainText('10 sheets');
    await small.getByRole('button', { name: 'Done' }).click();
    await expect(rowOf(OWN)).toContainText('own settings');
    // The focus comes back to where it was opened from.
    await expect(rowOf(OWN).getByRole('button', { name: /^What to do with/ })).toBeFocused();
    const sheets = (PRINTED + 1) * SHEETS;
    await expect(totals).toContainText('I have seen this');
    await totals.getByRole('checkbox').check();
    await totals.getByRole('button', { name: `Send ${PRINTED} files, ${sheets} sheets` }).click();

    // A jam in the middle: nothing more comes out until it is cleared.
    const done = async (): Promise<number> => {
      const { rows: all } = await seriesOf(page, world);
      return all.reduce((sum, { sending }) => sum + (sending?.sheetsDone ?? 0), 0);
    };
    await expect.poll(done, { timeout: 60_000 }).toBe(7 * SHEETS);
    await world.api('/printers/upper-office/panel/fault', { fault: 'media-jam' }, 'PUT');
    await expect(totals).toContainText('Paper is jammed', { timeout: 20_000 });
    const stuck = await done();
    expect(stuck).toBeLessThan(sheets);
    // Paused while it is jammed; what comes after waits also when the jam is cleared.
    await totals.getByRole('button', { name: 'Pause' }).click();
    await expect(totals).toContainText('paused');
    await world.load('tray-2', 100);
    await world.api('/printers/upper-office/panel/fault', { fault: null }, 'PUT');
    await expect.poll(done).toBeGreaterThan(stuck);
    await totals.getByRole('button', { name: 'Go on' }).click();
    await expect(totals).toContainText(`${PRINTED} of ${PRINTED} files, ${sheets} of ${sheets} sheets`, {
      timeout: 180_000,
    });
    await expect(totals).toContainText('over');

    // The report against the printer's own record of what it delivered.
    const told = await report(page, testInfo);
    const printed = told.filter(({ Outcome }) => Outcome === 'delivered');
    expect(told.filter(({ Outcome }) => Outcome === 'left out').map(({ File }) => File)).toEqual([
      nameOf(DAMAGED),
      nameOf(WIDE),
    ]);
    expect(printed).toHaveLength(PRINTED);
    for (const row of printed) {
      const job = Number(row['Printer job']);
      const trays = (await world.delivered(job)).map(({ tray }) => tray);
      const expected = row.File === nameOf(OWN) ? [...TRAYS, ...TRAYS] : TRAYS;
      expect([row.File, row.Delivered, trays]).toEqual([row.File, String(expected.length), expected]);
    }
    // In order, and none between.
    const jobs = printed.map((row) => Number(row['Printer job']));
    expect(jobs).toEqual(Array.from({ length: PRINTED }, (_, at) => at + 1));
    const numbers = printed.map(({ File }) => Number(/\d+/.exec(File)?.[0]));
    expect(numbers).toEqual([...numbers].sort((a, b) => a - b));
    const downloading = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Report to print' }).click();
    const path = testInfo.outputPath('report.pdf');
    await (await downloading).saveAs(path);
    const text = execFileSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' });
    expect(text).toContain(`${PRINTED} of ${FILES} files delivered, ${sheets} sheets.`);
    expect(execFileSync('qpdf', ['--check', path], { encoding: 'utf8' })).toContain(
      'No syntax or stream encoding errors',
    );
  });

  test('a file that was damaged is told in its row, and nothing is sent until that is seen', async ({
    quietPage: page,
    world,
  }, testInfo) => {
    await world.api('/setups', { name: 'Plain', ticket: { ...SETUP, routes: [] }, printerId: 'upper-office' });
    const [sound, broken] = [testInfo.outputPath('sound.pdf'), testInfo.outputPath('broken.pdf')];
    const whole = Buffer.from(numberedPdf(4));
    writeFileSync(sound, whole);
    // Its table of objects is not where it says: all of it is there, but no reader can tell.
    writeFileSync(broken, whole.toString('latin1').replace(/startxref\s+\d+/, 'startxref\n7'), 'latin1');
    await page.goto(`${world.base}/series`);
    await page.getByRole('button', { name: /^Plain/ }).click();
    await page.getByLabel('Drop the files or a folder here').last().setInputFiles([sound, broken]);
    const row = page.locator('.row', { hasText: 'broken.pdf' });
    await expect(row).toContainText('The file was damaged; what could be saved of it is here');
    await expect(page.locator('.row', { hasText: 'sound.pdf' })).toContainText('nothing to settle');
    const totals = page.getByRole('complementary', { name: 'Totals' });
    await expect(totals).toContainText('broken.pdf: The file was damaged');
    const send = totals.getByRole('button', { name: /^Send 2 files, 4 sheets/ });
    await expect(send).toBeDisabled();
    await totals.getByRole('checkbox', { name: 'I have seen this' }).check();
    await send.click();
    await expect(totals).toContainText('2 of 2 files', { timeout: 30_000 });
  });
});
