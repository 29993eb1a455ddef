import { randomUUID } from 'node:crypto';
import { BenchPage } from './bench-page';
import { expect, test, type World } from './world';

/** One sending is one delivery, however often its request comes. */

interface Delivery {
  readonly id: string;
  readonly state: string;
}

const completed = (world: World, id: string) =>
  expect
    .poll(async () => (await world.api<Delivery>(`/deliveries/${id}`)).state, { message: 'how it stands' })
    .toBe('completed');

test('a hundred equal requests at once enter one delivery, and it comes out once', async ({ world }) => {
  const jobId = await world.demoJob('contract');
  const body = { jobId, revision: 1, sheets: 14, key: randomUUID() };
  const answers = await Promise.all(Array.from({ length: 100 }, () => world.api<Delivery>('/deliveries', body)));
  expect(new Set(answers.map(({ id }) => id)).size).toBe(1);
  expect(await world.api<Delivery[]>('/deliveries')).toHaveLength(1);
  const [{ id }] = answers as [Delivery];
  await completed(world, id);

  // Also when it is over, and the job another since: what was entered is told, and nothing is sent.
  const { ticket } = await world.api<{ ticket: object }>(`/jobs/${jobId}`);
  await world.api(`/jobs/${jobId}`, { ticket: { ...ticket, copies: 3 }, revision: 1 }, 'PUT');
  expect(await world.api<Delivery>('/deliveries', body)).toMatchObject({ id, state: 'completed' });
  expect(await world.delivered(1)).toHaveLength(14);
  expect(await world.delivered(2)).toEqual([]);

  // Sent again it is another sending, and that too only once.
  const key = randomUUID();
  const again = await Promise.all(
    Array.from({ length: 5 }, () => world.api<Delivery>(`/deliveries/${id}/again`, { key })),
  );
  expect(new Set(again.map((one) => one.id)).size).toBe(1);
  await completed(world, again[0]!.id);
  expect(await world.delivered(2)).toHaveLength(14);
  expect(await world.delivered(3)).toEqual([]);
});

test('a key of another job’s sending is refused in words', async ({ world }) => {
  const [contract, flyer] = [await world.demoJob('contract'), await world.demoJob('flyer')];
  const key = randomUUID();
  await world.api('/deliveries', { jobId: contract, revision: 1, sheets: 14, key });
  await expect(world.api('/deliveries', { jobId: flyer, revision: 1, sheets: 1, key })).rejects.toThrow(
    'This key is of another sending; make a new one.',
  );
});

test('an answer that is lost on its way: Send pressed once more sends nothing twice', async ({ page, world }) => {
  const bench = new BenchPage(page, world);
  await bench.open(await world.demoJob('contract', { tray: 'tray-1' }));
  let lost = 0;
  await page.route('**/api/deliveries', async (route) => {
    if (route.request().method() !== 'POST' || lost > 0) return route.continue();
    lost += 1;
    await route.fetch();
    await route.abort();
  });
  const press = bench.tally.getByRole('button', { name: 'Send 14 sheets', exact: true });
  await press.click();
  await expect(page.getByText('Foglio’s server does not answer.')).toBeVisible();
  expect(await world.api<Delivery[]>('/deliveries')).toHaveLength(1);
  await press.click();
  await expect(page.getByText('completed, 14 of 14 sheets')).toBeVisible();
  expect(await world.api<Delivery[]>('/deliveries')).toHaveLength(1);
  expect(await world.delivered(1)).toHaveLength(14);
  expect(await world.delivered(2)).toEqual([]);
});
