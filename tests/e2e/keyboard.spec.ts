import type { Page } from '@playwright/test';
import { numberedPdf } from '../../packages/pdf/test/make-pdf';
import { BenchPage } from './bench-page';
import { expect, test, type World } from './world';

/** By Tab and the keys alone: whatever can be done is come to, and the focus is where one goes on. */

/** More than any screen has before the thing that is looked for. */
const MOST_TABS = 80;

/** Presses Tab until what has the focus is called so. */
async function tabTo(page: Page, name: string | RegExp): Promise<void> {
  const wanted = page.locator(':focus').and(page.getByRole('button', { name }).or(page.getByRole('link', { name })));
  for (let pressed = 0; pressed < MOST_TABS; pressed += 1) {
    await page.keyboard.press('Tab');
    if ((await wanted.count()) > 0) return;
  }
  throw new Error(`Tab does not come to ${String(name)}`);
}

/** The entry is chosen, and has the focus still. */
async function chosen(page: Page, name: string): Promise<void> {
  await expect(page.locator('mat-nav-list a.mdc-list-item--activated:focus')).toContainText(name);
}

async function jobOfTwo(world: World, settings: object = {}): Promise<string> {
  const files = await Promise.all(
    ['flyer.pdf', 'letter.pdf'].map((name, at) => world.upload(Buffer.from(numberedPdf(3 + at)), name)),
  );
  const ticket = { version: 1, title: 'Both', documents: files.map((file) => ({ file })), tray: 'tray-1', ...settings };
  return (await world.api<{ id: string }>('/jobs', { ticket })).id;
}

test('a route is written, a sheet opened large, and one line said for all documents', async ({
  quietPage: page,
  world,
}) => {
  const bench = new BenchPage(page, world);
  await bench.open(await jobOfTwo(world, { routes: [{ pages: '1', tray: 'tray-2' }] }));
  // The sentence is the first thing, and its phrases come in the order in which it is read.
  await tabTo(page, /^all 3 pages$/);
  await tabTo(page, /^Page 1 of each document comes from Tray 2/);
  await page.keyboard.press('Enter');
  // A key that comes before what was opened has the focus is a key to the screen behind it.
  await expect(page.locator('fo-routes-editor :focus')).toHaveCount(1);
  await tabTo(page, 'And also, of route 1');
  await page.keyboard.press('Enter');
  await expect(page.locator('fo-routes-editor .panel :focus')).toHaveCount(1);
  await tabTo(page, /^In grey or colour|^Grey|colour/i);
  await page.keyboard.press('Enter');
  await expect(page.locator(':focus').and(page.getByRole('radio'))).toHaveCount(1);
  await page.keyboard.press('ArrowDown');
  await expect(bench.sentence).toContainText(/comes from Tray 2.*(grey|colour)/);
  await page.keyboard.press('Escape');
  await expect(bench.phrase(/^Page 1 of each document/)).toBeFocused();

  await tabTo(page, 'For all 2 documents');
  await page.keyboard.press('Space');
  await expect(page.locator(':focus')).toHaveText('For all 2 documents');
  await page.keyboard.press('/');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('2');
  await expect(bench.lanes.locator('.sheet')).toHaveCount(2);

  await tabTo(page, /^Sheet 1 of 2/);
  await page.keyboard.press('o');
  const large = page.getByRole('dialog', { name: /^Sheet 1: Front, page 2 of flyer/ });
  await expect(large.getByRole('button', { name: 'Close' })).toBeFocused();
  await tabTo(page, 'Larger');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(bench.lanes.locator('.sheet').first()).toBeFocused();

  // Sent by the keys, one goes on in the Queue.
  await tabTo(page, 'Send 2 sheets');
  await page.keyboard.press('Enter');
  await expect(page.getByText('completed, 2 of 2 sheets')).toBeVisible({ timeout: 30_000 });
  await expect(page.locator('.screen')).toBeFocused();
  await tabTo(page, /^Both \d+ sheets? · completed/);
  await tabTo(page, 'Send again');
});

test.describe('lists', () => {
  test.use({ printerOptions: { also: ['library'] } });

  test('Printers and Set-ups: an entry of the list, and what there is to do with it', async ({ page, world }) => {
    for (const name of ['Contracts', 'Letters']) {
      const ticket = { version: 1, documents: [{ file: '*' }], tray: 'tray-1' };
      await world.api('/setups', { name, ticket, printerId: 'upper-office' });
    }
    await page.goto(`${world.base}/printers`);
    await expect(page.locator('fo-cabinet')).toBeVisible();
    // Not the one that is shown already.
    await tabTo(page, /^Library/);
    await page.keyboard.press('Enter');
    await chosen(page, 'Library');
    await page.keyboard.press('Shift+Tab');
    await page.keyboard.press('Enter');
    await chosen(page, 'Upper office');
    await tabTo(page, /^Change .* in Tray 1$/);
    await page.keyboard.press('Enter');
    const size = page.getByRole('combobox', { name: 'Size' });
    // What is opened is there a moment later: Tab would go past it.
    await expect(size).toBeVisible();
    await page.keyboard.press('Tab');
    await expect(size).toBeFocused();

    await page.goto(`${world.base}/set-ups`);
    await expect(page.locator('mat-nav-list a').first()).toBeVisible();
    await tabTo(page, /^Letters/);
    await page.keyboard.press('Enter');
    await chosen(page, 'Letters');
    await expect(page.getByRole('textbox', { name: 'Name' })).toHaveValue('Letters');
    await tabTo(page, /^one copy$/);
    await page.keyboard.press('Enter');
    await expect(page.locator('fo-phrase-popover :focus')).toHaveCount(1);
    await page.keyboard.press('Escape');
    await expect(page.locator(':focus')).toHaveText('one copy');
  });
});
