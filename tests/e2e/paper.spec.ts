import AxeBuilder from '@axe-core/playwright';
import { numberedPdf } from '../../packages/pdf/test/make-pdf';
import { BenchPage } from './bench-page';
import { expect, test, type World } from './world';

/** What lies in a tray, as the printer reports it and as a person has seen it. */

const A5 = [419.528, 595.276] as const;
const [SIZE_A3, SIZE_A4, SIZE_A5] = ['iso_a3_297x420mm', 'iso_a4_210x297mm', 'iso_a5_148x210mm'];

interface Told {
  readonly profile: { readonly trays: readonly { readonly id: string; readonly size: string }[] };
  readonly reportedSizes: Readonly<Record<string, string>>;
}

/** Puts paper of a size into a tray at the printer's own panel. */
const putIn = (world: World, tray: string, size: string): Promise<Told> =>
  world.api<Told>(`/printers/upper-office/panel/trays/${tray}`, { loaded: 40, size }, 'PUT');

const inTray3 = ({ profile, reportedSizes }: Told): (string | undefined)[] => [
  profile.trays.find(({ id }) => id === 'tray-3')?.size,
  reportedSizes['tray-3'],
];

test('a paper that no tray is said to hold is said to lie there, from the Bench, and printed once it does', async ({
  quietPage: page,
  world,
}) => {
  const file = await world.upload(Buffer.from(numberedPdf(2, ...A5)), 'cards.pdf');
  const ticket = { version: 1, title: 'Cards', documents: [{ file }] };
  const { id } = await world.api<{ id: string }>('/jobs', { ticket });
  const bench = new BenchPage(page, world);
  await bench.open(id);
  await expect(bench.tally).toContainText('No tray of Upper office holds A5');
  await bench.tally.getByRole('button', { name: /^1 thing to settle/ }).click();
  await page.getByRole('list', { name: 'Checks' }).getByRole('button', { name: 'Say what is in the trays' }).click();
  const dialog = page.getByRole('dialog', { name: 'What lies in the trays' });
  await dialog.getByRole('button', { name: /^Change .* in Tray 3$/ }).click();
  const size = dialog.getByRole('combobox', { name: 'Size' });
  await size.selectOption('A5');
  await expect(dialog).toContainText('The printer reports A4 here.');
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  await dialog.getByRole('button', { name: 'Done', exact: true }).last().click();
  // What it was opened by is settled and gone; one goes on with the next thing.
  await expect(bench.tally).not.toContainText('No tray');
  await expect(bench.tally.locator(':focus')).toHaveCount(1);
  await expect(bench.lanes.locator('[data-tray="tray-3"] .sheet')).toHaveCount(2);
  // The printer was not told, and stands before it takes a wrong paper.
  await page.getByRole('button', { name: 'Send 2 sheets' }).click();
  await expect(page.locator('p.message')).toContainText('needs other paper than its tray holds');
  // Whoever presses Send and is led to the Queue goes on there, not at the top of the page.
  await expect(page.locator('.screen')).toBeFocused();
  await putIn(world, 'tray-3', SIZE_A5);
  await expect(page.getByText('completed, 2 of 2 sheets')).toBeVisible({ timeout: 30_000 });
  expect((await world.delivered(1)).map(({ tray }) => tray)).toEqual(['tray-3', 'tray-3']);
});

test('what a person says of a size holds until the printer reports another, and never comes back by itself', async ({
  world,
}) => {
  const say = (said: object): Promise<Told> => world.api<Told>('/printers/upper-office/trays/tray-3', said, 'PUT');
  expect(inTray3(await say({ size: SIZE_A5, weight: 200 }))).toEqual([SIZE_A5, SIZE_A4]);
  // Something else said of it leaves that as it is.
  expect(inTray3(await say({ price: 0.2 }))).toEqual([SIZE_A5, SIZE_A4]);
  expect(inTray3(await say({ size: null }))).toEqual([SIZE_A4, undefined]);
  await say({ size: SIZE_A5 });
  expect(inTray3(await putIn(world, 'tray-3', SIZE_A3))).toEqual([SIZE_A3, undefined]);
  expect(inTray3(await putIn(world, 'tray-3', SIZE_A4))).toEqual([SIZE_A4, undefined]);
  // Of what was said and then came true nothing is left to be said.
  await say({ size: SIZE_A5 });
  expect(inTray3(await putIn(world, 'tray-3', SIZE_A5))).toEqual([SIZE_A5, undefined]);
  expect(inTray3(await putIn(world, 'tray-3', SIZE_A4))).toEqual([SIZE_A4, undefined]);
  await expect(say({ size: 'iso_a4_0x0mm' })).rejects.toThrow('is no size');
  await expect(say({ size: 'A4' })).rejects.toThrow('body-invalid');
});

test('at the front panel another paper is put in, and stays there', async ({ quietPage: page, world }) => {
  await page.goto(`${world.base}/printers/upper-office`);
  const panel = page.locator('fo-front-panel');
  await panel.getByRole('combobox', { name: 'Tray' }).selectOption({ label: 'Tray 3' });
  await panel.getByRole('combobox', { name: 'Paper' }).selectOption('A5');
  const drawer = page.locator('fo-cabinet [data-tray="tray-3"]');
  await expect(drawer).toContainText('Tray 3: A5');
  await page.reload();
  await expect(drawer).toContainText('Tray 3: A5');
});
