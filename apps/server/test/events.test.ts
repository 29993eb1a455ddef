import { setTimeout as wait } from 'node:timers/promises';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readTicket } from '@foglio/core/validate';
import { deliveries } from '../src/database/schema';
import { changeDelivery } from '../src/deliveries/delivery-store';
import { files } from '../src/database/schema';
import { PROFILE, startServer, store, type RunningServer } from './running-server';

let server: RunningServer;

beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

async function enterDelivery(): Promise<string> {
  const bytes = new Uint8Array(readFileSync(join(__dirname, '../../../.foglio/demo/seasonContract.pdf')));
  const content = await store(server, bytes);
  const [file] = await server.db.insert(files).values({ contentId: content.id, name: 'contract.pdf' }).returning();
  const ticket = readTicket({ version: 1, title: 'Contract', documents: [{ file: file!.id }] });
  const values = {
    printerId: 'test-office',
    ticket,
    profile: PROFILE,
    sheets: 14,
    state: 'sending' as const,
    server: server.presence.server,
  };
  const [delivery] = await server.db.insert(deliveries).values(values).returning();
  return delivery!.id;
}

/** The events of a stream, as they come (WHATWG HTML, section 9.2.5). */
async function listen(signal: AbortSignal, heard: { event: string; data: string }[]): Promise<void> {
  const answer = await fetch(`${server.base}/api/events`, { signal });
  expect(answer.headers.get('content-type')).toContain('text/event-stream');
  const decoder = new TextDecoder();
  let text = '';
  const reader = answer.body!.getReader();
  for (;;) {
    const { done, value } = (await reader.read()) as { done: boolean; value: Uint8Array };
    if (done) return;
    text += decoder.decode(value, { stream: true });
    const blocks = text.split('\n\n');
    text = blocks.pop() ?? '';
    for (const block of blocks) {
      const event = /^event: (.*)$/m.exec(block)?.[1];
      if (event) heard.push({ event, data: /^data: (.*)$/m.exec(block)?.[1] ?? '' });
    }
  }
}

/** Waits for something to come about, however slow the machine is today. */
async function until(comeAbout: () => boolean): Promise<void> {
  for (let turn = 0; turn < 500 && !comeAbout(); turn += 1) await wait(20);
  expect(comeAbout()).toBe(true);
}

test('every change of a delivery reaches all who listen, and nobody after they have gone', async () => {
  const id = await enterDelivery();
  // The keeper hears of them too.
  const before = server.presence.listenerCount('delivery');
  const [first, second] = [new AbortController(), new AbortController()];
  const [heardFirst, heardSecond]: { event: string; data: string }[][] = [[], []];
  const listening = [listen(first.signal, heardFirst!), listen(second.signal, heardSecond!)].map((one) =>
    one.catch((error: Error) => expect(error.name).toBe('AbortError')),
  );
  const listeners = (): number => server.presence.listenerCount('delivery') - before;
  await until(() => listeners() === 2);
  await changeDelivery(server.db, id, ['sending'], { printerJobs: [7] });
  await until(() => heardFirst!.length === 1 && heardSecond!.length === 1);
  second.abort();
  await until(() => listeners() === 1);
  await changeDelivery(server.db, id, ['sending'], { state: 'failed', message: 'Nothing was printed.' });
  await until(() => heardFirst!.length === 2);
  first.abort();
  await Promise.all(listening);
  const told = heardFirst!.map(({ event, data }) => [event, (JSON.parse(data) as { id: string; state: string }).state]);
  expect(told).toEqual([
    ['delivery', 'sending'],
    ['delivery', 'failed'],
  ]);
  expect(heardSecond).toHaveLength(1);
  expect(JSON.parse(heardFirst![1]!.data)).toMatchObject({
    id,
    title: 'Contract',
    sheets: 14,
    message: 'Nothing was printed.',
  });
  // Only what a client may know is told: not the ticket, nor the printer's profile.
  expect(Object.keys(JSON.parse(heardFirst![0]!.data) as object)).not.toContain('profile');
  await until(() => listeners() === 0);
});
