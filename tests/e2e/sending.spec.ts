import { randomUUID } from 'node:crypto';
import type { Route } from '@playwright/test';
import { BenchPage } from './bench-page';
import { Wire } from './wire';
import { expect, test, type World } from './world';

/** One sending is one sending, however often its request comes. */

interface Sending {
  readonly id: string;
  readonly state: string;
}

const completed = (world: World, id: string) =>
  expect
    .poll(async () => (await world.api<Sending>(`/sendings/${id}`)).state, { message: 'how it stands' })
    .toBe('completed');

test('a hundred equal requests at once enter one sending, and it comes out once', async ({ world }) => {
  const jobId = await world.demoJob('contract');
  const body = { jobId, revision: 1, sheets: 14, key: randomUUID() };
  const answers = await Promise.all(Array.from({ length: 100 }, () => world.api<Sending>('/sendings', body)));
  expect(new Set(answers.map(({ id }) => id)).size).toBe(1);
  expect(await world.api<Sending[]>('/sendings')).toHaveLength(1);
  const [{ id }] = answers as [Sending];
  await completed(world, id);

  // Also when it is over, and the job another since: what was entered is told, and nothing is sent.
  const { ticket } = await world.api<{ ticket: object }>(`/jobs/${jobId}`);
  await world.api(`/jobs/${jobId}`, { ticket: { ...ticket, copies: 3 }, revision: 1 }, 'PUT');
  expect(await world.api<Sending>('/sendings', body)).toMatchObject({ id, state: 'completed' });
  expect(await world.delivered(1)).toHaveLength(14);
  expect(await world.delivered(2)).toEqual([]);

  // Sent again it is another sending, and that too only once.
  const key = randomUUID();
  const again = await Promise.all(
    Array.from({ length: 5 }, () => world.api<Sending>(`/sendings/${id}/again`, { key })),
  );
  expect(new Set(again.map((one) => one.id)).size).toBe(1);
  await completed(world, again[0]!.id);
  expect(await world.delivered(2)).toHaveLength(14);
  expect(await world.delivered(3)).toEqual([]);
});

test('a key of another job’s sending is refused in words', async ({ world }) => {
  const [contract, flyer] = [await world.demoJob('contract'), await world.demoJob('flyer')];
  const key = randomUUID();
  await world.api('/sendings', { jobId: contract, revision: 1, sheets: 14, key });
  await expect(world.api('/sendings', { jobId: flyer, revision: 1, sheets: 1, key })).rejects.toThrow(
    'This key is of another sending; make a new one.',
  );
});

test('an answer that is lost on its way: Send pressed once more sends nothing twice', async ({ page, world }) => {
  const bench = new BenchPage(page, world);
  await bench.open(await world.demoJob('contract', { tray: 'tray-1' }));
  let lost = 0;
  await page.route('**/api/sendings', async (route) => {
    if (route.request().method() !== 'POST' || lost > 0) return route.continue();
    lost += 1;
    await route.fetch();
    await route.abort();
  });
  const press = bench.tally.getByRole('button', { name: 'Send 14 sheets', exact: true });
  await press.click();
  await expect(page.getByText('Foglio’s server does not answer.')).toBeVisible();
  expect(await world.api<Sending[]>('/sendings')).toHaveLength(1);
  await press.click();
  await expect(page.getByText('completed, 14 of 14 sheets')).toBeVisible();
  expect(await world.api<Sending[]>('/sendings')).toHaveLength(1);
  expect(await world.delivered(1)).toHaveLength(14);
  expect(await world.delivered(2)).toEqual([]);
});

test('left while its last change is being saved, it is not sent, and that is said', async ({ page, world }) => {
  const bench = new BenchPage(page, world);
  const job = await world.demoJob('contract', { tray: 'tray-1' });
  await bench.open(job);
  const saves: Route[] = [];
  await page.route('**/api/jobs/*', (route) =>
    route.request().method() === 'PUT' ? void saves.push(route) : route.continue(),
  );
  await bench.typePages('1-4');
  await bench.tally.getByRole('button', { name: 'Send 4 sheets', exact: true }).click();
  await expect.poll(() => saves.length).toBe(1);
  await page.getByRole('link', { name: 'Desk', exact: true }).click();
  await expect(
    page.getByText('“contract” was not sent: you left it while its last change was being saved.'),
  ).toBeVisible();
  await saves[0]!.continue();
  await expect.poll(async () => (await world.api<{ revision: number }>(`/jobs/${job}`)).revision).toBe(2);
  expect(await world.api<Sending[]>('/sendings')).toEqual([]);
});

test('what the screen could not know yet: another paper in the tray is refused in words, shown, and then sent', async ({
  page,
  world,
}) => {
  const bench = new BenchPage(page, world);
  // News does not reach this window.
  const wire = new Wire();
  await wire.begin(page);
  await wire.cut();
  await bench.open(await world.demoJob('contract', { tray: 'tray-1' }));
  await world.api('/printers/upper-office/trays/tray-1', { type: 'labels' }, 'PUT');
  const press = bench.tally.getByRole('button', { name: 'Send 14 sheets', exact: true });
  await press.click();
  await expect(page.getByText('Since you looked, this changed: the paper.')).toBeVisible();
  expect(await world.api<Sending[]>('/sendings')).toEqual([]);
  await expect(bench.lanes.getByText('A4 labels')).toBeVisible();
  wire.mend();
  await press.click();
  await expect(page.getByText('completed, 14 of 14 sheets')).toBeVisible();
});

test('of many files too: other paper than was planned is refused in words', async ({ page, world }) => {
  const file = await world.upload(world.source('contract'), 'contract.pdf');
  const setup = { version: 1, documents: [{ file: '*' }], tray: 'tray-1' };
  const { id } = await world.api<{ id: string }>('/series', { title: 'Contracts', setup, printerId: 'upper-office' });
  await world.api(`/series/${id}/rows`, { files: ['a.pdf', 'b.pdf'].map((name) => ({ name, file })) });
  const wire = new Wire();
  await wire.begin(page);
  await wire.cut();
  await page.goto(`${world.base}/series/${id}`);
  const press = page.getByRole('button', { name: /^Send/ });
  await expect(press).toBeEnabled();
  await world.api('/printers/upper-office/trays/tray-1', { type: 'labels' }, 'PUT');
  await press.click();
  await expect(page.getByText('Since you looked, this changed: the paper.')).toBeVisible();
  expect(await world.api<Sending[]>('/sendings')).toEqual([]);
  // It asks the printer then, plans anew, and sends what is seen now.
  await expect(async () => {
    if (await press.isVisible()) await press.click({ timeout: 1_000 }).catch(() => undefined);
    expect(await world.api<Sending[]>('/sendings')).toHaveLength(2);
  }).toPass();
});

test('a file never gets into a series that is on its way, and a series is begun once', async ({ world }) => {
  const file = await world.upload(world.source('flyer'), 'flyer.pdf');
  const setup = { version: 1, documents: [{ file: '*' }] };
  const confirmed = ['outside-printable', 'gray-coded-as-color'];
  for (let round = 0; round < 5; round += 1) {
    const { id } = await world.api<{ id: string }>('/series', { title: 'Flyers', setup, printerId: 'upper-office' });
    const add = () => world.api(`/series/${id}/rows`, { files: [{ name: `${round}.pdf`, file }] });
    await add();
    const begin = { sheets: 1, confirmed, key: randomUUID() };
    const start = () => world.api(`/series/${id}/start`, begin);
    const both = await Promise.allSettled([start(), start(), ...Array.from({ length: 5 }, add)]);
    // Either the files were quicker, and it is not what was seen any more, or none of them is in it.
    const began = both.slice(0, 2).map(({ status }) => status);
    expect(new Set(began).size).toBe(1);
    const { rows, state } = await world.api<{ state: string; rows: { sending: object | null }[] }>(`/series/${id}`);
    expect(state === 'draft').toBe(began[0] === 'rejected');
    if (state !== 'draft') expect(rows.map(({ sending }) => sending !== null)).toEqual([true]);
  }
});
