import { BenchPage } from './bench-page';
import { numberedPages } from './printed-sheets';
import { expect, test, type World } from './world';

/** Staples, holes and folds: chosen in the sentence, seen on the sheets, and in the printer's own record. */

const finishedIn = async (world: World, job: number): Promise<string[]> =>
  (await world.delivered(job)).map(({ set, finished }) => `${set}: ${finished?.finishings.join(' ') ?? 'loose'}`);

async function jobOf(world: World, pages: number, settings: object, isLandscape = false, printerId = 'upper-office') {
  const file = await world.upload(await numberedPages(pages, isLandscape), 'numbered.pdf');
  const documents = [{ file }];
  const ticket = { version: 1, title: 'Numbered', documents, tray: 'tray-1', ...settings };
  return (await world.api<{ id: string }>('/jobs', { ticket, printerId })).id;
}

test('sets read across are stapled at their upper left corner, on both sides, and seen so before', async ({
  page,
  world,
}) => {
  const bench = new BenchPage(page, world);
  await bench.open(await jobOf(world, 6, { copies: 2, sides: 'two-sided' }, true));
  await bench.also('Staples', 'A staple at the top left corner');
  await bench.also('Holes for a file', 'Two holes at the left edge');
  await expect(bench.sentence).toContainText('with a staple at the top left corner, with two holes at the left edge');
  // To the printer it is the lower left corner, and the lower edge, which it has no holes for.
  await expect(bench.tally).toContainText('Upper office has not two holes at the left edge.');
  await bench.tally.getByRole('button', { name: /1 thing to settle/ }).click();
  await page.getByRole('button', { name: 'Take two holes at the top edge' }).click();
  await page.keyboard.press('Escape');
  await expect(bench.sentence).toContainText('with two holes at the top edge');
  await expect(bench.panel).toContainText('a staple at the top left corner, two holes at the top edge');

  // Seen at the left of the front's upper edge, and at the right of the back's.
  const seen = (face: string) =>
    bench.panel.getByRole('button', { name: new RegExp(`^Open large: ${face}`) }).locator('line.staple');
  const placeOf = (face: string) =>
    seen(face).evaluate((line) => {
      const [mark, side] = [line.getBoundingClientRect(), line.closest('fo-side-view')!.getBoundingClientRect()];
      return [(mark.x + mark.width / 2 - side.x) / side.width, (mark.y + mark.height / 2 - side.y) / side.height];
    });
  const [front, back] = [await placeOf('Front'), await placeOf('Back')];
  expect([front[0]! < 0.1, front[1]! < 0.1, back[0]! > 0.9, back[1]! < 0.1]).toEqual([true, true, true, true]);
  await expect(bench.lanes.locator('line.staple')).toHaveCount(6);

  await bench.tally.getByRole('button', { name: 'Send 6 sheets' }).click();
  await expect(page.getByText('completed, 6 of 6 sheets')).toBeVisible();
  expect(await finishedIn(world, 1)).toEqual(
    [1, 1, 1, 2, 2, 2].map((set) => `${set}: staple-bottom-left punch-dual-left`),
  );
  await expect(page.getByRole('status').filter({ hasText: 'Sheet 1 of 6' })).toContainText(
    'a staple at the bottom left corner, two holes at the left edge (paper upright)',
  );
});

test('each document is stapled by itself, as a job of its own where the printer knows no other way', async ({
  page,
  world,
}) => {
  const bench = new BenchPage(page, world);
  const id = await jobOf(world, 3, { finishings: ['staple-top-left'], copies: 2 });
  const { ticket, revision } = await world.api<{ ticket: { documents: object[] }; revision: number }>(`/jobs/${id}`);
  const documents = [...ticket.documents, ...ticket.documents];
  await world.api(`/jobs/${id}`, { ticket: { ...ticket, documents }, revision }, 'PUT');
  await bench.open(id);
  await bench.also('Each document or section stapled by itself', 'Each document');
  await expect(bench.sentence).toContainText('with a staple at the top left corner, each document by itself');
  await expect(bench.panel).toContainText('a staple at the top left corner; part 1 of 2');
  await expect(bench.tally).toContainText(
    'Upper office finishes each job by itself, so each part goes as a job of its own.',
  );
  await bench.tally.getByRole('button', { name: 'Send 12 sheets' }).click();
  await page.getByRole('button', { name: /all the same$/ }).click();
  await expect(page.getByText('completed, 12 of 12 sheets')).toBeVisible({ timeout: 30_000 });
  for (const job of [1, 2, 3, 4])
    expect(await finishedIn(world, job)).toEqual(['1', '1', '1'].map((set) => `${set}: staple-top-left`));
});

test.describe('at a printer without a finisher', () => {
  test.use({ printerOptions: { also: ['library'] } });

  test('the job stops by name, and without staples it goes', async ({ page, world }) => {
    const bench = new BenchPage(page, world);
    await bench.open(await jobOf(world, 2, { finishings: ['staple-top-left'], tray: 'auto' }, false, 'library'));
    await expect(bench.tally).toContainText('Library has not a staple at the top left corner.');
    await bench.tally.getByRole('button', { name: /1 thing to settle/ }).click();
    await page.getByRole('button', { name: 'Do not staple' }).click();
    await page.keyboard.press('Escape');
    await expect(bench.sentence).not.toContainText('staple');
    await bench.tally.getByRole('button', { name: 'Send 2 sheets' }).click();
    await expect(page.getByText('completed, 2 of 2 sheets')).toBeVisible();
  });
});
