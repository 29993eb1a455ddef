import { BenchPage } from './bench-page';
import { numberedPdf } from '../../packages/pdf/test/make-pdf';
import { expect, test } from './world';

test('a job of the guide opens on the Bench as it is told, and once more as it was left', async ({
  quietPage: page,
  world,
}) => {
  const file = await world.upload(Buffer.from(numberedPdf(14)), 'season-contract.pdf');
  await world.api('/jobs', { ticket: { version: 1, title: 'Season contract', documents: [{ file }] } });
  await page.goto(`${world.base}/guide`);
  const contract = page.getByRole('button', { name: /^Open on the Bench: A contract/ });
  await contract.click();
  const bench = new BenchPage(page, world);
  await expect(bench.sentence).toContainText('Page 1 comes from Tray 2, on one side; pages 6 and 9 come from Tray 3');
  await bench.type('2 copies', 'Copies', 5);
  await expect(bench.tally.getByText('Saved')).toBeVisible();
  await page.getByRole('link', { name: 'Guide' }).click();
  // Where a document of the demo is gone, the button says why it does nothing.
  await expect(page.getByRole('button', { name: /^Open on the Bench: A poster/ })).toBeDisabled();
  await contract.click();
  await expect(bench.sentence).toContainText('5 copies');
  expect(await world.jobs()).toHaveLength(2);
});
