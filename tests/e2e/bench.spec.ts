import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { BenchPage } from './bench-page';
import { expect, test } from './world';

test('a sheet dragged to another lane comes from that tray; Ctrl+Z takes it back', async ({
  quietPage: page,
  world,
}) => {
  const job = await world.demoJob('contract', { sides: 'two-sided', tray: 'tray-1' });
  await page.goto(`${world.base}/jobs/${job}`);
  const sheet = page.getByRole('button', { name: /^Sheet 2 of 7, Tray 1/ });
  await sheet.hover();
  await page.mouse.down();
  const lane = (await page.locator('[data-tray="tray-3"]').boundingBox())!;
  await page.mouse.move(lane.x + 300, lane.y + 10, { steps: 12 });
  await page.mouse.move(lane.x + 305, lane.y + 18, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'Sheet 2 of 7, Tray 3, front page 3, back page 4' })).toBeVisible();
  await expect(page.locator('fo-sentence-bar')).toContainText('Pages 3 and 4 come from Tray 3');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'Sheet 2 of 7, Tray 1, front page 3, back page 4' })).toBeVisible();
  await page.keyboard.press('Control+Shift+z');
  await expect(page.locator('[data-tray="tray-3"]')).toContainText('takes 1 of 40 loaded');
});

test('by keyboard alone: sheets chosen with Shift and arrows, routed, taken back, sent', async ({
  quietPage: page,
  world,
}) => {
  const job = await world.demoJob('contract', { sides: 'two-sided', tray: 'tray-1' });
  await page.goto(`${world.base}/jobs/${job}`);
  await expect(page.getByRole('button', { name: /^Sheet 1 of 7/ })).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('2');
  await expect(page.locator('[data-tray="tray-2"]')).toContainText('takes 2 of 220 loaded');
  await page.keyboard.press('0');
  await expect(page.locator('[data-tray="tray-2"]')).toContainText('not used');
  await page.keyboard.press('/');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('1-4');
  await expect(page.getByRole('button', { name: 'Send 2 sheets' })).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('completed, 2 of 2 sheets')).toBeVisible();
  expect(await world.delivered(1)).toHaveLength(2);
});

test('a typed page that does not exist is told under the character, and mended by its button', async ({
  quietPage: page,
  world,
}) => {
  const job = await world.demoJob('programme');
  await page.goto(`${world.base}/jobs/${job}`);
  await page.getByLabel('Pages to print').fill('1-4, 9');
  await expect(page.locator('fo-selection-field .at')).toHaveText('9');
  await expect(page.getByText('Page 9 is not in programme.pdf, whose last page is 8.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Send/ })).toBeDisabled();
  await page.getByRole('button', { name: 'Write 8 instead' }).click();
  await expect(page.getByLabel('Pages to print')).toHaveValue('1-4, 8');
  await expect(page.getByRole('button', { name: 'Send 5 sheets' })).toBeEnabled();
});

test('ticks and text agree: a page taken out of the thumbnails leaves the text', async ({ quietPage: page, world }) => {
  const job = await world.demoJob('programme');
  await page.goto(`${world.base}/jobs/${job}`);
  await page.getByRole('button', { name: 'Print page 3' }).click();
  await expect(page.getByLabel('Pages to print')).toHaveValue('1-2, 4-');
  await expect(page.getByRole('button', { name: 'Print page 3' })).toHaveAttribute('aria-pressed', 'false');
  await page.getByRole('button', { name: 'Print page 3' }).click();
  await expect(page.getByLabel('Pages to print')).toHaveValue('all');
  await page.getByRole('button', { name: 'Even', exact: true }).click();
  await expect(page.getByText('4 of 8 printed')).toBeVisible();
});

test('a stop keeps it from being sent; a caution asks first', async ({ quietPage: page, world }) => {
  const job = await world.demoJob('contract', { tray: 'tray-3', copies: 3 });
  await page.goto(`${world.base}/jobs/${job}`);
  await page.getByRole('button', { name: 'Send 42 sheets' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Tray 3 holds 40 of the 42 sheets needed; it runs out at sheet 13 of set 3.');
  await dialog.getByRole('button', { name: 'Look again' }).click();
  await page
    .getByRole('button', { name: '4', exact: true })
    .or(page.getByRole('button', { name: /^Tray 4, A3/ }))
    .last()
    .click();
  await expect(page.getByText('Tray 4 holds A3, but these pages need A4.').first()).toBeVisible();
  await expect(page.getByRole('button', { name: /^Send/ })).toBeDisabled();
  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: 'Send 42 sheets' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Send 42 sheets all the same' }).click();
  await expect(page.getByText('Tray 3 is empty: load paper, and it goes on.')).toBeVisible();
  await expect(page.getByText(/40 of 42 sheets/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText('cancelled, 40 of 42 sheets')).toBeVisible();
});

test('pages of mixed sizes come from the trays that hold them', async ({ quietPage: page, world }) => {
  const job = await world.demoJob('stage-plan', { copies: 2 });
  await page.goto(`${world.base}/jobs/${job}`);
  await page.getByRole('button', { name: 'Send 10 sheets' }).click();
  await expect(page.getByText('completed, 10 of 10 sheets')).toBeVisible();
  expect((await world.delivered(1)).map(({ tray }) => tray).slice(0, 5)).toEqual([
    'tray-1',
    'tray-4',
    'tray-1',
    'tray-1',
    'tray-1',
  ]);
});

test('Save PDF gives one set, read by poppler', async ({ quietPage: page, world }, testInfo) => {
  const routes = [{ pages: '1', tray: 'tray-2', sides: 'one-sided' }];
  const job = await world.demoJob('programme', {
    title: 'Autumn programme',
    sides: 'two-sided',
    tray: 'tray-1',
    routes,
  });
  await page.goto(`${world.base}/jobs/${job}`);
  const download = await new BenchPage(page, world).saveAs({});
  expect(download.suggestedFilename()).toBe('Autumn programme.pdf');
  const path = testInfo.outputPath('saved.pdf');
  await download.saveAs(path);
  // Page 1 and its blank back, then 2-8 on four sheets, the last with a blank back.
  expect(execFileSync('pdfinfo', [path], { encoding: 'utf8' })).toMatch(/^Pages: +10$/m);
  expect(execFileSync('pdftotext', ['-f', '3', '-l', '3', path, '-'], { encoding: 'utf8' })).toContain('Tonight');
});

test('a change in another window is not overwritten', async ({ page, world }) => {
  const job = await world.demoJob('programme');
  await page.goto(`${world.base}/jobs/${job}`);
  await expect(page.getByText('8 of 8 printed')).toBeVisible();
  const { ticket } = await world.api<{ ticket: object }>(`/jobs/${job}`);
  await world.api(`/jobs/${job}`, { ticket: { ...ticket, copies: 7 }, revision: 1 }, 'PUT');
  await page.getByLabel('Pages to print').fill('1-4');
  await expect(page.getByText('Another window changed this job.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Send/ })).toBeDisabled();
  await page.getByRole('button', { name: 'Show how it stands now' }).click();
  await expect(page.getByRole('button', { name: '7 copies' })).toBeVisible();
});

test('what was set is there after a reload', async ({ quietPage: page, world }) => {
  const job = await world.demoJob('programme');
  await page.goto(`${world.base}/jobs/${job}`);
  await page.getByLabel('Pages to print').fill('1-4, 99');
  await expect(page.locator('fo-tally-bar').getByText('Saved')).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Pages to print')).toHaveValue('1-4, 99');
});

test('a reload comes back to the sheet one was at', async ({ quietPage: page, world }) => {
  const job = await world.demoJob('programme');
  await page.goto(`${world.base}/jobs/${job}`);
  await page.getByRole('textbox', { name: 'Sheet number' }).fill('6');
  await page.getByRole('textbox', { name: 'Sheet number' }).press('Enter');
  await expect(page.locator('fo-sheet-panel')).toContainText('Front, page 6');
  await page.getByRole('textbox', { name: 'Sheet number' }).fill('p4');
  await page.getByRole('textbox', { name: 'Sheet number' }).press('Enter');
  await expect(page.locator('fo-sheet-panel')).toContainText('Front, page 4');
  await page.getByRole('textbox', { name: 'Sheet number' }).fill('6');
  await page.getByRole('textbox', { name: 'Sheet number' }).press('Enter');
  await page.reload();
  await expect(page.locator('fo-sheet-panel')).toContainText('Front, page 6');
});

test('what was changed in the very moment of leaving is kept', async ({ page, world }) => {
  const [first, second] = [await world.demoJob('programme'), await world.demoJob('contract')];
  const pagesOf = async (job: string): Promise<string | undefined> =>
    (await world.api<{ ticket: { documents: { pages: string }[] } }>(`/jobs/${job}`)).ticket.documents[0]?.pages;
  await page.goto(`${world.base}/jobs/${first}`);
  await expect(page.getByText('8 of 8 printed')).toBeVisible();
  // To another page altogether.
  await page.getByLabel('Pages to print').fill('1-3');
  await page.goto(`${world.base}/jobs/${second}`);
  await expect.poll(() => pagesOf(first)).toBe('1-3');
  // To another job within the application, and back.
  await expect(page.getByText('14 of 14 printed')).toBeVisible();
  await page.getByLabel('Pages to print').fill('2-5');
  await page.evaluate((path) => {
    history.pushState(null, '', path);
    dispatchEvent(new PopStateEvent('popstate'));
  }, `/jobs/${first}`);
  await expect(page.getByLabel('Pages to print')).toHaveValue('1-3');
  await expect.poll(() => pagesOf(second)).toBe('2-5');
  expect(await pagesOf(first)).toBe('1-3');
});

test('a second document is added and planned with the first', async ({ quietPage: page, world }, testInfo) => {
  const job = await world.demoJob('programme', { tray: 'tray-1' });
  await page.goto(`${world.base}/jobs/${job}`);
  const path = testInfo.outputPath('contract.pdf');
  writeFileSync(path, world.source('contract'));
  await page.getByLabel('Add a document to this job').setInputFiles(path);
  await expect(page.getByText('14 of 14 printed')).toBeVisible();
  await expect(page.locator('fo-sentence-bar')).toContainText('all 8 pages of programme and all 14 pages of contract');
  await page.getByLabel('Pages to print').fill('last');
  // The programme's cover is printed to its very edge, which is found out once its pages have been looked through.
  await expect(page.locator('fo-tally-bar')).toContainText('Content of page 1 of document 1 is cut off');
  await page.getByRole('button', { name: 'Send 9 sheets' }).click();
  await page.getByRole('button', { name: 'Send 9 sheets all the same' }).click();
  await expect(page.getByText('completed, 9 of 9 sheets')).toBeVisible();
});

test('a job removed from the Desk is brought back by one press', async ({ quietPage: page, world }) => {
  await world.demoJob('programme', { copies: 20 });
  await page.goto(world.base);
  await page.getByRole('button', { name: 'Remove programme' }).click();
  await expect(page.getByText('No jobs yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(page.getByText('programme.pdf, 20 copies, one side: 160 sheets')).toBeVisible();
});
