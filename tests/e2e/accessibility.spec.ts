import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { numberedPdf } from '../../packages/pdf/test/make-pdf';
import { query } from './databases';
import { JobPrinter } from './job-printer';
import { StrangePrinters } from './strange-printers';
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
  // Only what is wrong is described: to name every node that is right takes most of the time. No view has frames, for
  // which alone it would open a page of its own each time.
  const { violations } = await new AxeBuilder({ page })
    .options({ resultTypes: ['violations'] })
    .setLegacyMode()
    .analyze();
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
  const [file] = (await world.jobs())[0]!.ticket.documents;
  for (let made = 0; made < 30; made += 1) {
    const ticket = { version: 1, title: `Letter ${made}`, documents: [file] };
    await world.api('/jobs', { ticket });
  }
  await expect(page.getByText('Jobs 1 to 25 of 31')).toBeVisible();
  await expectNothingFound(page);
  await page.getByRole('button', { name: 'Next page' }).click();
  await expect(page.locator('.title')).toHaveText([
    'Letter 4',
    'Letter 3',
    'Letter 2',
    'Letter 1',
    'Letter 0',
    'contract',
  ]);
  await page.getByRole('searchbox').fill('LETTER 12');
  await expect(page.locator('.title')).toHaveText(['Letter 12']);
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
  await page.getByRole('button', { name: 'And also, of route 1' }).click();
  await expectNothingFound(page);
  await page.getByRole('button', { name: 'Colour or grey' }).click();
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
  await page.getByRole('button', { name: 'Magnifier' }).click();
  await page.getByRole('button', { name: 'What to do with contract.pdf' }).click();
  await expect(page.getByRole('menuitem', { name: 'Add it again, for other pages' })).toBeVisible();
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
  await world.api('/sendings', { jobId: job, revision: 1, sheets: 4, confirmed: ['outside-printable'] });
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

test('Printers: one that asks who is asking, and what announces itself on the net', async ({ page, world }) => {
  const printers = new StrangePrinters();
  try {
    const { uri } = await printers.switchOn('locked');
    await page.goto(`${world.base}/printers`);
    await page.getByLabel('Add a printer by its address').fill(uri);
    await page.getByLabel('Add a printer by its address').press('Enter');
    await expect(page.getByText('It asks for a name and a password.')).toBeVisible();
    await expectNothingFound(page);
    await page.getByLabel('Name', { exact: true }).fill('anna');
    await page.getByLabel('Password').fill('Seven doors');
    await page.getByLabel('Password').press('Enter');
    await expect(page.getByText('It does not take this name and password.')).toBeVisible();
    await page.getByRole('button', { name: 'Look for printers on the net' }).press('Enter');
    await expect(page.getByRole('button', { name: 'Look again' })).toBeEnabled();
    await expectNothingFound(page);
  } finally {
    await printers.stop();
  }
});

test('Spend: nothing yet, as a chart with its calendar, as a table, and by set-up', async ({
  quietPage: page,
  world,
}) => {
  await page.goto(`${world.base}/spend`);
  await expect(page.getByText('Nothing was printed in these days.')).toBeVisible();
  await expectNothingFound(page);
  const job = await world.demoJob('contract', { tray: 'tray-1' });
  await world.api('/sendings', { jobId: job, revision: 1, sheets: 14 });
  await expect(page.getByText('sheets, of 14 sides')).toBeVisible();
  await expectNothingFound(page);
  await page.locator('fo-day-phrase').first().getByRole('button').click();
  await expect(page.getByRole('grid')).toBeVisible();
  await expectNothingFound(page);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'As a table' }).click();
  await page.getByRole('button', { name: 'By set-up' }).click();
  await expect(page.getByRole('row', { name: /^set up by hand/ })).toBeVisible();
  await expectNothingFound(page);
});

test('Guide', async ({ quietPage: page, world }) => {
  await world.demoJob('contract');
  await page.goto(`${world.base}/guide`);
  await expect(page.getByText('Its document of the demo is not here any more.').first()).toBeVisible();
  await expectNothingFound(page);
});

test('Print from other programs: nothing yet, and with what came in', async ({ quietPage: page, world }) => {
  await page.goto(`${world.base}/print-from-programs`);
  await expect(page.getByText('Nothing has been printed to Foglio yet.')).toBeVisible();
  await expectNothingFound(page);
  const ticket = { version: 1, documents: [{ file: '*' }], tray: 'tray-2' };
  const { id } = await world.api<{ id: string }>('/setups', { name: 'Letters', ticket, printerId: 'upper-office' });
  await world.api(`/setups/${id}`, { offered: true }, 'PUT');
  await expect(page.getByText(world.queueUri('letters'))).toBeVisible();
  const wide = Buffer.from(numberedPdf(1, 842, 1191));
  for (const queue of ['desk', 'letters']) {
    await new JobPrinter(world.queueUri(queue)).print({ name: `To ${queue}`, user: 'anna' }, wide);
  }
  await expect(page.getByText('It waits on the Desk: Tray 2 holds A4')).toBeVisible();
  await expectNothingFound(page);
  await page.goto(`${world.base}/set-ups/${id}`);
  await expect(page.getByText(world.queueUri('letters'))).toBeVisible();
  await expectNothingFound(page);
  await page.goto(world.base);
  await expect(page.getByText('printed by anna to Letters; waits')).toBeVisible();
  await expectNothingFound(page);
});

test('Queue: empty, and with a delivered stack', async ({ quietPage: page, world }) => {
  await page.goto(`${world.base}/queue`);
  await expect(page.getByText('Nothing has been sent yet.')).toBeVisible();
  await expectNothingFound(page);
  const job = await world.demoJob('programme', { sides: 'two-sided' });
  await world.api('/sendings', { jobId: job, revision: 1, sheets: 4, confirmed: ['outside-printable'] });
  await expect(page.getByText('completed, 4 of 4 sheets')).toBeVisible();
  await expect(page.locator('fo-stack-viewer fo-page-image[data-state="drawn"]')).toHaveCount(2);
  await expectNothingFound(page);
  await page.getByRole('button', { name: 'As the printer sees it' }).click();
  await expect(page.getByRole('table', { name: 'As the printer sees it' })).toBeVisible();
  await expectNothingFound(page);
  await page.getByRole('button', { name: 'Print sheets again' }).click();
  await page.getByRole('button', { name: /^Sheet 2:/ }).click();
  await expect(page.getByText('marked to be printed again')).toBeVisible();
  await expectNothingFound(page);
  await page.getByRole('button', { name: 'Send again' }).click();
  await expect(page.getByRole('dialog', { name: 'Print all of it again?' })).toBeVisible();
  await expectNothingFound(page);
});

test('Queue: one set that is to be looked at', async ({ quietPage: page, world }) => {
  const job = await world.demoJob('programme', { sides: 'two-sided', copies: 3, proof: true });
  await world.api('/sendings', { jobId: job, revision: 1, sheets: 12, confirmed: ['outside-printable'] });
  await page.goto(`${world.base}/queue`);
  await expect(page.getByRole('button', { name: 'Print the other 2 sets' })).toBeVisible();
  await expectNothingFound(page);
});

test('Queue: what may have been printed, until a person says that it was', async ({ quietPage: page, world }) => {
  const job = await world.demoJob('programme', { sides: 'two-sided' });
  const confirmed = ['outside-printable'];
  const { id } = await world.api<{ id: string }>('/sendings', { jobId: job, revision: 1, sheets: 4, confirmed });
  await expect.poll(async () => (await world.api<{ state: string }>(`/sendings/${id}`)).state).toBe('completed');
  const message = 'It may have been printed: the printer no longer knows this job. Look at its output.';
  await query(world.database, `update sendings set state = 'uncertain', sheets_done = 3, message = '${message}'`);
  await page.goto(`${world.base}/queue`);
  await expect(page.getByText(message)).toBeVisible();
  await expectNothingFound(page);
  await page.getByRole('button', { name: 'All of it came out' }).press('Enter');
  await expect(page.getByText('completed, 4 of 4 sheets')).toBeVisible();
});

test('Set-ups, taking one and saving one', async ({ quietPage: page, world }) => {
  const ticket = { version: 1, documents: [{ file: '*' }], routes: [{ pages: '3', tray: 'tray-2' }], copies: 2 };
  await world.api('/setups', { name: 'Contracts', ticket, printerId: 'upper-office' });
  await page.goto(`${world.base}/set-ups`);
  await expect(page.locator('fo-lanes .sheet').first()).toBeVisible();
  await expect(page.locator('fo-setup-picture svg').nth(1)).toBeVisible();
  await expectNothingFound(page);
  await page.goto(`${world.base}/jobs/${await world.demoJob('contract')}`);
  await page.getByRole('button', { name: 'set-ups …' }).click();
  await page.getByRole('button', { name: 'Contracts' }).click();
  await expect(page.getByRole('row', { name: /How many copies/ })).toBeVisible();
  await expectNothingFound(page);
  await page.getByRole('button', { name: 'Save what is set now as a set-up' }).click();
  await expect(page.getByRole('dialog', { name: 'Save as a set-up' })).toBeVisible();
  await expectNothingFound(page);
});

test('Many files: begun, set up, a file by itself, over', async ({ quietPage: page, world }) => {
  await page.goto(`${world.base}/series`);
  await expect(page.locator('fo-setup-picture svg').first()).toBeVisible();
  await expectNothingFound(page);
  const file = await world.upload(world.source('contract'), 'contract.pdf');
  const setup = { version: 1, documents: [{ file: '*' }] };
  const { id } = await world.api<{ id: string }>('/series', { title: 'Contracts', setup, printerId: 'upper-office' });
  const files = [
    { name: 'contract.pdf', file },
    { name: 'bad.pdf', trouble: 'It is damaged.' },
  ];
  const { rows } = await world.api<{ rows: { id: string }[] }>(`/series/${id}/rows`, { files });
  await page.goto(`${world.base}/series/${id}`);
  await expect(page.getByText('1 file cannot be printed so')).toBeVisible({ timeout: 30_000 });
  await expectNothingFound(page);
  await page.getByRole('button', { name: 'What to do with contract.pdf' }).click();
  await expect(page.getByRole('menuitem', { name: 'Leave out' })).toBeVisible();
  await expectNothingFound(page);
  await page.getByRole('menuitem', { name: 'Settings of its own' }).click();
  await expect(page.getByRole('dialog', { name: 'contract.pdf, with settings of its own' })).toContainText('14 sheets');
  await expectNothingFound(page);
  await page.getByRole('button', { name: 'Done' }).click();
  await world.api(`/series/${id}/rows/${rows[1]!.id}`, { skipped: true }, 'PUT');
  await world.api(`/series/${id}/start`, { sheets: 14 });
  await page.reload();
  await expect(page.getByText('1 of 1 file, 14 of 14 sheets')).toBeVisible({ timeout: 30_000 });
  await expectNothingFound(page);
});
