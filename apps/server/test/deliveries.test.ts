import { setTimeout as wait } from 'node:timers/promises';
import { readTicket } from '@foglio/core/validate';
import { contents, deliveries, files, jobs, type DeliveryState } from '../src/database/schema';
import { changeDelivery, findDelivery } from '../src/deliveries/delivery-store';
import { Presence } from '../src/deliveries/presence';
import { PROFILE, startServer, type RunningServer } from './running-server';

let server: RunningServer;

beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

async function enter(values: {
  state: DeliveryState;
  server?: number;
  printerJobId?: number;
  updatedAt?: Date;
}): Promise<string> {
  const [content] = await server.db
    .insert(contents)
    .values({ pages: [{ width: 595, height: 842 }] })
    .returning();
  const [file] = await server.db.insert(files).values({ contentId: content!.id, name: 'a.pdf' }).returning();
  const ticket = readTicket({ version: 1, documents: [{ file: file!.id }] });
  const [job] = await server.db.insert(jobs).values({ ticket, printerId: 'test-office' }).returning();
  const [delivery] = await server.db
    .insert(deliveries)
    .values({ jobId: job!.id, printerId: 'test-office', ticket, profile: PROFILE, sheets: 1, ...values })
    .returning();
  return delivery!.id;
}

async function until(id: string, state: DeliveryState): Promise<string | null> {
  for (let round = 0; round < 200; round += 1) {
    const delivery = await findDelivery(server.db, id);
    if (delivery.state === state) return delivery.message;
    await wait(20);
  }
  throw new Error(`${id} is ${(await findDelivery(server.db, id)).state}, not ${state}`);
}

test('of two that act at once only one changes a delivery', async () => {
  const id = await enter({ state: 'printing', printerJobId: 1 });
  const both = await Promise.all([1, 2].map(() => changeDelivery(server.db, id, ['printing'], { state: 'canceled' })));
  expect(both.filter((one) => one !== null)).toHaveLength(1);
});

test('a change is heard by every server', async () => {
  const other = new Presence(server.databaseUrl);
  await other.open();
  const id = await enter({ state: 'printing', printerJobId: 1 });
  const heard = new Promise<string>((resolve) => other.once('delivery', resolve));
  await changeDelivery(server.db, id, ['printing'], { state: 'completed' });
  expect(await heard).toBe(id);
  await other.close();
});

test('a living server is told from one that is gone', async () => {
  const other = new Presence(server.databaseUrl);
  await other.open();
  expect(await server.presence.lives(other.server)).toBe(true);
  await other.close();
  expect(await server.presence.lives(other.server)).toBe(false);
  expect(await server.presence.lives(server.presence.server)).toBe(true);
});

test('what a server that is gone was sending, before the printer had a job of it, ends as interrupted', async () => {
  const gone = new Presence(server.databaseUrl);
  const id = await enter({ state: 'sending', server: gone.server });
  expect(await until(id, 'interrupted')).toContain('Nothing was printed; send it again.');
});

test('with the printer away it is not known, and said so, rather than called done or interrupted', async () => {
  const gone = new Presence(server.databaseUrl);
  const id = await enter({ state: 'sending', server: gone.server, printerJobId: 7 });
  await wait(300);
  const { state, message } = await findDelivery(server.db, id);
  expect([state, message]).toEqual([
    'sending',
    'Sending was interrupted and the printer does not answer; it is asked again.',
  ]);
});

test('what a living server is sending is left alone', async () => {
  const id = await enter({ state: 'sending', server: server.presence.server });
  await wait(300);
  expect((await findDelivery(server.db, id)).state).toBe('sending');
});

test('a queued delivery that the queue has forgotten is taken up again, and its failure told', async () => {
  const id = await enter({ state: 'queued', updatedAt: new Date(Date.now() - 60_000) });
  expect(await until(id, 'failed')).toMatch(/^Nothing was printed: /);
});
