import { expect, test } from './world';

/** What nine sheets a set come to: tray, front and back page of the document; the file sent has a blank page 15. */
const ONE_SET = [
  ['tray-2', 1, null],
  ['tray-1', 2, 3],
  ['tray-1', 4, 5],
  ['tray-2', 6, null],
  ['tray-1', 7, 8],
  ['tray-3', 9, null],
  ['tray-1', 10, 11],
  ['tray-1', 12, 13],
  ['tray-1', 14, 15],
] as const;

test('a real PDF, chosen pages, three trays, one job, delivered sheets', async ({ quietPage: page, world }) => {
  await page.goto(world.base);
  // A comment after its end (ISO 32000-1, 7.5.5) makes it a document that was never read here.
  const manual = Buffer.concat([world.manual(), Buffer.from('\n% read anew\n')]);
  const dropped = await page.evaluateHandle((base64) => {
    const bytes = Uint8Array.from(atob(base64), (character) => character.charCodeAt(0));
    const transfer = new DataTransfer();
    transfer.items.add(new File([bytes], 'maint-guide.en.pdf', { type: 'application/pdf' }));
    return transfer;
  }, manual.toString('base64'));
  await page.locator('fo-file-drop button').first().dispatchEvent('drop', { dataTransfer: dropped });
  await expect(page.getByText('63 of 63 printed')).toBeVisible();

  // 1-14, two-sided, two copies, all else from tray 1.
  await page.getByLabel('Pages to print').fill('1-14');
  await expect(page.getByText('pages 1 to 14; 14 pages, in order')).toBeVisible();
  await page.getByRole('button', { name: 'one copy' }).click();
  await page.getByRole('spinbutton', { name: 'Copies' }).fill('2');
  await page.getByRole('spinbutton', { name: 'Copies' }).press('Enter');
  await page.getByRole('button', { name: 'one side', exact: true }).first().click();
  await page.getByRole('radio', { name: 'Both sides of the sheet' }).check();
  await page.getByRole('button', { name: 'Done' }).click();
  await page.getByRole('button', { name: 'whichever tray holds its paper' }).click();
  await page.getByRole('radio', { name: /^Tray 1/ }).check();
  await page.getByRole('button', { name: 'Done' }).click();

  // Pages 1 and 6 to tray 2 by its number key, 9 to tray 3, each on one side.
  await page.getByRole('button', { name: 'Page 1, Tray 1' }).click();
  await page.getByRole('button', { name: 'Page 6, Tray 1' }).click({ modifiers: ['Control'] });
  await page.keyboard.press('2');
  const panel = page.locator('fo-sheet-panel');
  await panel.getByRole('button', { name: 'one side' }).click();
  await page.getByRole('button', { name: 'Page 9, Tray 1' }).click();
  await page.keyboard.press('3');
  await panel.getByRole('button', { name: 'one side' }).click();

  // What the Bench says.
  await expect(page.locator('fo-sentence-bar')).toContainText(
    'Pages 1 and 6 come from Tray 2, on one side; page 9 comes from Tray 3, on one side; all else comes from Tray 1.',
  );
  await expect(page.getByText('9 sheets a set')).toBeVisible();
  await expect(page.locator('fo-tally-bar')).toContainText('18sheets in 2 sets');
  await expect(page.locator('[data-tray="tray-1"]')).toContainText('takes 12 of 500 loaded');
  await expect(page.locator('[data-tray="tray-2"]')).toContainText('takes 4 of 220 loaded');
  await expect(page.locator('[data-tray="tray-3"]')).toContainText('takes 2 of 40 loaded');
  await expect(page.locator('.lane').getByRole('button', { name: /back blank/ })).toHaveCount(1);
  await expect(page.getByRole('button', { name: 'Sheet 9 of 9, Tray 1, front page 14, back blank' })).toBeVisible();

  // Sent, and delivered: the Queue shows what the printer's own record says.
  // Once the pages have been looked through: some lines of this manual run off the paper.
  await expect(page.locator('fo-tally-bar')).toContainText('Content of pages 7, 10, 11 and 13 is cut off', {
    timeout: 60_000,
  });
  await page.getByRole('button', { name: 'Send 18 sheets' }).click();
  await page.getByRole('button', { name: 'Send 18 sheets all the same' }).click();
  await expect(page.getByRole('heading', { name: 'maint-guide.en' })).toBeVisible();
  await expect(page.getByText('completed, 18 of 18 sheets, 2 copies, Upper office')).toBeVisible();
  const record = await world.delivered(1);
  expect(record.map(({ set, tray, front, back }) => [set, tray, front, back])).toEqual(
    [1, 2].flatMap((set) => ONE_SET.map((sheet) => [set, ...sheet])),
  );
  const shown = page.locator('fo-stack-viewer').getByRole('button', { name: /^Sheet \d+, set/ });
  await expect(shown).toHaveCount(18);
  const names = await shown.locator('.heard').allTextContents();
  expect(names).toEqual(
    record.map(({ index, set, tray, front, back }) => {
      const name = tray.replace('tray-', 'Tray ');
      // By the document, which has no page 15: a blank side of the file that was sent.
      const behind = back === null ? 'not printed' : back === 15 ? 'blank' : `page ${back}`;
      return `Sheet ${index}, set ${set}, ${name}, front page ${front}, back ${behind}`;
    }),
  );

  // Leafed through with the real pages.
  await page.getByRole('button', { name: 'Next sheet' }).click();
  await expect(page.getByText('Sheet 2 of 18 delivered')).toBeVisible();
  await expect(page.locator('fo-stack-viewer fo-page-image[data-state="drawn"]')).toHaveCount(2);
});
