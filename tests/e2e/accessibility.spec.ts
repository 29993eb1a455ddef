import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, test } from './world';

/** What is still fading in has less contrast than it will have; what moves for ever is not waited for. */
const moving = (page: Page): Promise<number> =>
  page.evaluate(
    () =>
      document
        .getAnimations()
        .filter(({ playState, effect }) => playState === 'running' && effect?.getTiming().iterations !== Infinity)
        .length,
  );

async function expectNothingFound(page: Page): Promise<void> {
  await expect.poll(() => moving(page)).toBe(0);
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id, nodes }) => ({ id, where: nodes.map(({ html }) => html.slice(0, 160)) }))).toEqual([]);
}

test('Desk', async ({ quietPage: page, world }) => {
  await page.goto(world.base);
  await expect(page.getByText('No jobs yet.')).toBeVisible();
  await expectNothingFound(page);
  await world.demoJob('contract');
  await page.reload();
  await expect(page.getByText('Not sent yet')).toBeVisible();
  await expectNothingFound(page);
});

test('Bench: as it opens, with a popover, with a dialog, with an error', async ({ quietPage: page, world }) => {
  const job = await world.demoJob('contract', {
    sides: 'two-sided',
    tray: 'tray-1',
    copies: 30,
    routes: [{ pages: '6, 9', tray: 'tray-3' }],
  });
  await page.goto(`${world.base}/jobs/${job}`);
  await expect(page.locator('fo-shelf fo-page-image[data-state="drawn"]').first()).toBeVisible();
  await expectNothingFound(page);
  await page.getByRole('button', { name: /come from Tray 3/ }).click();
  await expect(page.getByText('Pages with paper or settings of their own')).toBeVisible();
  await page.getByRole('button', { name: 'More settings of route 1' }).click();
  await expectNothingFound(page);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: '30 copies' }).click();
  await expectNothingFound(page);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Send/ }).click();
  await expect(page.getByRole('dialog')).toContainText('This prints 270 sheets');
  await expectNothingFound(page);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('Ctrl+Shift+Z');
  await expectNothingFound(page);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Other ways' }).click();
  await expect(page.getByRole('button', { name: /^In grey/ })).toBeVisible();
  await expect(page.locator('fo-ways-chart canvas')).toBeVisible({ timeout: 30_000 });
  await expectNothingFound(page);
  await page.getByRole('button', { name: 'Close other ways' }).click();
  await page.keyboard.press('p');
  await expect(page.getByText('1 of 10 openings')).toBeVisible();
  await expectNothingFound(page);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('f');
  await page.getByRole('button', { name: 'Loupe' }).click();
  await page.getByRole('button', { name: 'What to do with contract.pdf' }).click();
  await expect(page.getByRole('menuitem', { name: 'Print it once more, with other pages' })).toBeVisible();
  await expectNothingFound(page);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'and also …' }).click();
  await expectNothingFound(page);
  await page.keyboard.press('Escape');
  await page.getByLabel('Pages to print').fill('1-4, 99');
  await expect(page.getByText('Page 99 is not in contract.pdf')).toBeVisible();
  await expectNothingFound(page);
});

test('Bench: saving as a file', async ({ quietPage: page, world }) => {
  await page.goto(`${world.base}/jobs/${await world.demoJob('contract')}`);
  await page.getByRole('button', { name: 'Save PDF' }).click();
  await expect(page.getByRole('dialog', { name: 'Save as a file' })).toBeVisible();
  await expectNothingFound(page);
});

test('Printers: all well, what is said of a paper, the output, and a fault', async ({ quietPage: page, world }) => {
  const job = await world.demoJob('programme', { sides: 'two-sided' });
  await world.api('/deliveries', { jobId: job, revision: 1, sheets: 4 });
  await expect.poll(async () => (await world.delivered(1)).length).toBe(4);
  await page.goto(`${world.base}/printers`);
  await expect(page.getByText('Ready.')).toBeVisible();
  await expectNothingFound(page);
  await page
    .getByRole('button', { name: /^Change/ })
    .first()
    .click();
  await expectNothingFound(page);
  await page.getByRole('button', { name: 'Output' }).click();
  await expect(page.locator('fo-stack-viewer fo-page-image[data-state="drawn"]')).toHaveCount(2);
  await expectNothingFound(page);
  await page.getByRole('button', { name: 'Trays' }).click();
  await page.getByRole('button', { name: 'Jam' }).click();
  await expect(page.getByText('Paper is jammed').first()).toBeVisible();
  await expectNothingFound(page);
});

test('Queue: empty, and with a delivered stack', async ({ quietPage: page, world }) => {
  await page.goto(`${world.base}/queue`);
  await expect(page.getByText('Nothing has been sent yet.')).toBeVisible();
  await expectNothingFound(page);
  const job = await world.demoJob('programme', { sides: 'two-sided' });
  await world.api('/deliveries', { jobId: job, revision: 1, sheets: 4 });
  await expect(page.getByText('completed, 4 of 4 sheets')).toBeVisible();
  await expect(page.locator('fo-stack-viewer fo-page-image[data-state="drawn"]')).toHaveCount(2);
  await expectNothingFound(page);
  await page.getByRole('button', { name: 'As the printer sees it' }).click();
  await expect(page.getByRole('table', { name: 'As the printer sees it' })).toBeVisible();
  await expectNothingFound(page);
});
