import { makePdf, numberedPdf, stream } from '../../packages/pdf/test/make-pdf';
import { expect, test, type World } from './world';

const PLACE = 'Drop a file here to print it straight away';

const pdf = (name: string, bytes: Uint8Array) => ({ name, mimeType: 'application/pdf', buffer: Buffer.from(bytes) });

test('a file without a caution is printed in one gesture, and may be taken back', async ({
  quietPage: page,
  world,
}) => {
  await page.clock.install();
  await page.goto(world.base);
  const place = page.getByLabel(PLACE).last();
  await place.setInputFiles(pdf('letter.pdf', numberedPdf(3)));
  await expect(page.getByText(/3 sheets of letter go to Upper office in \d s/)).toBeVisible();
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(page.getByText('Taken back; nothing of letter was printed.')).toBeVisible();
  // Longer than it would have waited.
  await page.clock.runFor(6000);
  expect(await world.api('/sendings')).toEqual([]);

  await place.setInputFiles(pdf('second.pdf', numberedPdf(2)));
  await expect(page.getByText(/2 sheets of second go to Upper office in \d s/)).toBeVisible();
  await page.clock.runFor(5000);
  await expect(page.getByText('Sent: 2 sheets of second')).toBeVisible();
  await page.getByRole('link', { name: 'See it in the Queue' }).click();
  await expect(page.getByText('completed, 2 of 2 sheets')).toBeVisible();
  expect((await world.delivered(1)).map(({ tray, front }) => [tray, front])).toEqual([
    ['tray-1', 1],
    ['tray-1', 2],
  ]);
});

/** A page whose text is four points large. */
const TINY = makePdf({
  1: '<< /Type /Catalog /Pages 2 0 R >>',
  2: '<< /Type /Pages /Kids [10 0 R] /Count 1 /MediaBox [0 0 595.276 841.89] /Resources << /Font << /F1 9 0 R >> >> >>',
  9: '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
  10: '<< /Type /Page /Parent 2 0 R /Contents 11 0 R >>',
  11: stream('BT /F1 4 Tf 60 700 Td (hardly to be read) Tj ET'),
});

for (const [what, bytes, said] of [
  ['a caution', () => TINY, '1 thing to confirm: '],
  ['a stop', (world: World) => world.source('grant-return'), 'to settle: '],
] as const) {
  test(`a file with ${what} opens on the Bench, and nothing is printed`, async ({ quietPage: page, world }) => {
    await page.clock.install();
    await page.goto(world.base);
    await page
      .getByLabel(PLACE)
      .last()
      .setInputFiles(pdf('one.pdf', bytes(world)));
    await expect(page).toHaveURL(/\/jobs\//, { timeout: 30_000 });
    await expect(page.locator('fo-tally-bar .summary')).toContainText(said);
    // Longer than it would have waited.
    await page.clock.runFor(6000);
    expect(await world.api('/sendings')).toEqual([]);
  });
}

test('several files, and one that cannot be read, are refused in words', async ({ page, world }) => {
  await page.goto(world.base);
  const place = page.getByLabel(PLACE).last();
  await place.setInputFiles([pdf('a.pdf', numberedPdf(1)), pdf('b.pdf', numberedPdf(1))]);
  await expect(page.getByRole('alert')).toContainText('One file at a time is printed straight away');
  await place.setInputFiles(pdf('bad.pdf', Buffer.from('%PDF-1.7\nrubbish')));
  await expect(page.getByRole('alert')).toContainText('bad.pdf: ');
});
