import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import { eq } from 'drizzle-orm';
import { readTicket } from '@foglio/core/validate';
import type { SendingState } from '@foglio/api';
import { contents, sendings, files, jobs, printers } from '../src/database/schema';
import { changeSending, findSending, takeNext } from '../src/sendings/sending-store';
import { Problem } from '../src/http/problem';
import { sendWaiting } from '../src/sendings/sender';
import { Presence } from '../src/sendings/presence';
import { enqueueSending } from '../src/sendings/enqueue';
import {
  decodeMessage,
  encodeMessage,
  enumeration,
  firstNumber,
  groupOf,
  integer,
  keyword,
  OPERATIONS,
  STATUS,
} from '@foglio/ipp';
import { findPrinter } from '../src/printers/printer-store';
import { PROFILE, startServer, type RunningServer } from './running-server';

let server: RunningServer;
let printer: Server;
let cancelled: number[];

/** What the printer says of a job, by its number; an array tells how it stands the first time, then after. */
const JOBS: Record<number, readonly (readonly [state: number, reason: string, sheets: number])[]> = {
  1: [[5, 'job-printing', 0]],
  21: [
    [3, 'job-incoming', 0],
    [7, 'job-canceled-by-user', 0],
  ],
  22: [[7, 'job-canceled-by-user', 3]],
  23: [
    [5, 'job-printing', 1],
    [9, 'job-completed-successfully', 1],
  ],
  24: [[8, 'aborted-by-system', 0]],
  25: [[7, 'job-canceled-at-device', 0]],
};

/** A printer that only tells of jobs: the least that the keeper asks for. */
async function startPrinter(): Promise<string> {
  const asked = new Map<number, number>();
  cancelled = [];
  printer = createServer((request, response) => {
    const parts: Buffer[] = [];
    request.on('data', (part: Buffer) => parts.push(part));
    request.on('end', () => {
      const { message } = decodeMessage(Buffer.concat(parts));
      const id = firstNumber(groupOf(message, 'operation'), 'job-id') ?? 0;
      const states = JOBS[id] ?? [];
      const time = asked.get(id) ?? 0;
      if (message.code === OPERATIONS.cancelJob) cancelled.push(id);
      else asked.set(id, time + 1);
      const [state, reason, sheets] = states[Math.min(time, states.length - 1)] ?? [0, '', 0];
      const attributes = {
        'job-state': [enumeration(state)],
        'job-state-reasons': [keyword(reason)],
        'job-media-sheets-completed': [integer(sheets)],
      };
      const code = states.length === 0 ? STATUS.notFound : STATUS.ok;
      response.end(encodeMessage({ version: [2, 0], code, requestId: 1, groups: [{ tag: 'job', attributes }] }));
    });
  });
  await new Promise<void>((resolve) => printer.listen(0, '127.0.0.1', resolve));
  return `ipp://127.0.0.1:${(printer.address() as AddressInfo).port}/ipp/print`;
}

beforeAll(async () => {
  server = await startServer({ printerUri: await startPrinter() });
});
afterAll(async () => {
  await server.stop();
  printer.close();
});

// What a test leaves in the middle of being sent would keep the printer from the next one.
afterEach(() => server.db.update(sendings).set({ state: 'failed' }).where(eq(sendings.state, 'sending')));

async function enter(values: {
  state: SendingState;
  server?: number;
  printerJobs?: readonly number[];
  updatedAt?: Date;
  attempts?: number;
  retryAt?: Date;
  printerId?: string;
  pass?: 1 | 2;
}): Promise<string> {
  const [content] = await server.db
    .insert(contents)
    .values({ pages: [{ width: 595, height: 842 }] })
    .returning();
  const [file] = await server.db.insert(files).values({ contentId: content!.id, name: 'a.pdf' }).returning();
  const ticket = readTicket({ version: 1, documents: [{ file: file!.id }] });
  const [job] = await server.db.insert(jobs).values({ ticket, printerId: 'test-office' }).returning();
  const [sending] = await server.db
    .insert(sendings)
    .values({ jobId: job!.id, printerId: 'test-office', ticket, profile: PROFILE, sheets: 1, ...values })
    .returning();
  return sending!.id;
}

async function until(id: string, state: SendingState): Promise<string | null> {
  for (let round = 0; round < 1000; round += 1) {
    const sending = await findSending(server.db, id);
    if (sending.state === state) return sending.message;
    await wait(20);
  }
  throw new Error(`${id} is ${(await findSending(server.db, id)).state}, not ${state}`);
}

/** Waits until a sending was begun again, with nothing of it at the printer, and takes it out so that nothing waits behind it. */
async function sentAgain(id: string): Promise<void> {
  let sending = await findSending(server.db, id);
  for (let round = 0; sending.attempts === 0 && round < 1000; round += 1) {
    await wait(20);
    sending = await findSending(server.db, id);
  }
  expect(sending).toMatchObject({ attempts: 1, printerJobs: [] });
  // This printer takes no jobs, so what was tried by now has failed.
  expect(['queued', 'sending', 'failed']).toContain(sending.state);
  await changeSending(server.db, id, ['queued', 'sending'], { state: 'canceled' });
}

test('of two that act at once only one changes a sending', async () => {
  const id = await enter({ state: 'printing', printerJobs: [1] });
  const both = await Promise.all([1, 2].map(() => changeSending(server.db, id, ['printing'], { state: 'canceled' })));
  expect(both.filter((one) => one !== null)).toHaveLength(1);
});

test('a change is heard by every server', async () => {
  const other = new Presence(server.databaseUrl);
  await other.open();
  const id = await enter({ state: 'printing', printerJobs: [1] });
  const heard = new Promise<string>((resolve) => other.once('sending', resolve));
  await changeSending(server.db, id, ['printing'], { state: 'completed' });
  expect(await heard).toBe(id);
  await other.close();
});

test('a second pass that is begun again with its key, since the answer was lost, is the same one', async () => {
  // Nothing is taken to the printer meanwhile.
  const before = await enter({ state: 'sending', server: server.presence.server });
  const id = await enter({ state: 'turning', pass: 1, printerJobs: [1] });
  const begin = (key: string) =>
    fetch(`${server.base}/api/sendings/${id}/second-pass`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ key }),
    });
  const answers = await Promise.all(Array.from({ length: 20 }, () => begin('the-stack-is-in-1')));
  expect(new Set(answers.map(({ status }) => status))).toEqual(new Set([200]));
  expect(await findSending(server.db, id)).toMatchObject({ pass: 2, earlierJobs: [1] });
  expect((await begin('the-stack-is-in-2')).status).toBe(409);
  for (const one of [id, before]) await changeSending(server.db, one, ['queued', 'sending'], { state: 'canceled' });
});

test('a living server is told from one that is gone', async () => {
  const other = new Presence(server.databaseUrl);
  await other.open();
  expect(await server.presence.lives(other.server)).toBe(true);
  await other.close();
  expect(await server.presence.lives(other.server)).toBe(false);
  expect(await server.presence.lives(server.presence.server)).toBe(true);
});

test('what a server that is gone was sending, before the printer had a job of it, is sent again', async () => {
  const gone = new Presence(server.databaseUrl);
  const id = await enter({ state: 'sending', server: gone.server });
  await sentAgain(id);
});

test('what ends every server that sends it is not sent again for ever', async () => {
  const gone = new Presence(server.databaseUrl);
  const id = await enter({ state: 'sending', server: gone.server, attempts: 8 });
  expect(await until(id, 'interrupted')).toBe('Sending was interrupted. Nothing was printed; send it again.');
});

describe('what a server that is gone was sending, when the printer has a job of it', () => {
  const left = (job: number): Promise<string> =>
    enter({ state: 'sending', server: new Presence(server.databaseUrl).server, printerJobs: [job] });

  test('still waiting for the document: it is cancelled there, and sent again', async () => {
    await sentAgain(await left(21));
    expect(cancelled).toEqual([21]);
  });

  test('ended there after some sheets: how many came out is said', async () => {
    expect(await until(await left(22), 'interrupted')).toContain('3 of 1 sheets came out');
  });

  test('with the whole document: it is followed to its end', async () => {
    await until(await left(23), 'completed');
  });

  test('given up by the printer, which printed nothing: it is sent again', async () => {
    await sentAgain(await left(24));
  });

  test('called off at the printer before anything came out: it is not', async () => {
    expect(await until(await left(25), 'interrupted')).toContain('Nothing was printed');
  });

  test('no longer known there: nobody claims that nothing was printed', async () => {
    const message = await until(await left(99), 'interrupted');
    expect(message).toContain('look at its output before sending again');
    expect(message).not.toContain('Nothing was printed');
  });
});

test('one for which there is no room here is tried again, and not given up', async () => {
  const id = await enter({ state: 'queued' });
  const full = new Problem('disk-full', 'There is no room left in /tmp.');
  const parts = { db: server.db, workers: server.workers, plans: { ask: () => Promise.reject(full) } as never };
  await sendWaiting(parts, 'test-office', server.presence.server);
  const { attempts, message } = await findSending(server.db, id);
  expect([attempts, message]).toEqual([
    1,
    'It could not be sent: There is no room left in /tmp. It is tried again by itself.',
  ]);
  await changeSending(server.db, id, ['queued', 'sending'], { state: 'canceled' });
});

test('backs that are sent again come before whatever was sent off earlier: their stack lies in the tray', async () => {
  const before = await enter({ state: 'queued', retryAt: new Date(Date.now() + 60_000) });
  const backs = await enter({ state: 'queued', pass: 2 });
  expect(await takeNext(server.db, 'test-office', server.presence.server)).toMatchObject({ id: backs });
  for (const id of [before, backs]) await changeSending(server.db, id, ['queued', 'sending'], { state: 'canceled' });
});

test('a held job is not released onto the stack of another’s two passes', async () => {
  const fronts = await enter({ state: 'turning', pass: 1, printerJobs: [1] });
  const held = await enter({ state: 'held', printerJobs: [1] });
  const answer = await fetch(`${server.base}/api/sendings/${held}/release`, { method: 'POST' });
  expect([answer.status, await answer.json()]).toMatchObject([409, { code: 'printer-refuses' }]);
  await changeSending(server.db, fronts, ['turning'], { state: 'canceled' });
  expect((await fetch(`${server.base}/api/sendings/${held}/release`, { method: 'POST' })).status).toBe(200);
  await changeSending(server.db, held, ['held', 'printing'], { state: 'canceled' });
});

test('what a living server is sending is left alone', async () => {
  const id = await enter({ state: 'sending', server: server.presence.server });
  // Twice the keeper has looked at all there is since then, as it settled what came later.
  for (let round = 0; round < 2; round += 1) {
    const gone = new Presence(server.databaseUrl);
    await sentAgain(await enter({ state: 'sending', server: gone.server }));
  }
  expect((await findSending(server.db, id)).state).toBe('sending');
});

test('a queued sending that the queue has forgotten is taken up again, and its failure told', async () => {
  const id = await enter({ state: 'queued', updatedAt: new Date(Date.now() - 60_000) });
  expect(await until(id, 'failed')).toMatch(/^Nothing was printed: /);
});

/** What is put off is due now, as it is after the time it was put off for. */
async function timeHasCome(id: string): Promise<void> {
  const due = { id, printerId: 'away', retryAt: new Date() };
  await server.db.update(sendings).set({ retryAt: due.retryAt }).where(eq(sendings.id, id));
  await enqueueSending(server.db, due);
}

test('a printer that is away is tried again with growing waits, and nobody overtakes the one whose turn it is', async () => {
  const values = { id: 'away', name: 'Away', uri: 'ipp://127.0.0.1:9/ipp/print', panel: null, profile: PROFILE };
  await server.db.insert(printers).values(values);
  const first = await enter({ state: 'queued', printerId: 'away' });
  const second = await enter({ state: 'queued', printerId: 'away' });
  await Promise.all([first, second].map((id) => enqueueSending(server.db, { id, printerId: 'away', retryAt: null })));
  const waits: number[] = [];
  for (const attempts of [1, 2]) {
    let sending = await findSending(server.db, first);
    for (let round = 0; sending.attempts < attempts && round < 1000; round += 1) {
      await wait(20);
      sending = await findSending(server.db, first);
    }
    expect(sending).toMatchObject({ state: 'queued', attempts, printerJobs: [] });
    expect(sending.message).toMatch(
      /^It could not be sent: 127.0.0.1:9 cannot be reached: .* It is tried again by itself\.$/,
    );
    waits.push(Math.round((sending.retryAt!.getTime() - sending.updatedAt.getTime()) / 1000));
    if (attempts === 1) await timeHasCome(first);
  }
  expect(waits).toEqual([2, 4]);
  expect(await findSending(server.db, second)).toMatchObject({ state: 'queued', attempts: 0 });
  // There again, it is tried by itself; this printer takes no jobs, which is told.
  const { uri } = await findPrinter(server.db, 'test-office');
  await server.db.update(printers).set({ uri }).where(eq(printers.id, 'away'));
  await timeHasCome(first);
  expect(await until(first, 'failed')).toMatch(/^Nothing was printed: /);
  expect(await until(second, 'failed')).toMatch(/^Nothing was printed: /);
});

test('with the printer away it is not known, and said so, rather than called done or interrupted', async () => {
  printer.close();
  printer.closeAllConnections();
  const gone = new Presence(server.databaseUrl);
  const id = await enter({ state: 'sending', server: gone.server, printerJobs: [7] });
  let told = await findSending(server.db, id);
  for (let round = 0; told.message === null && round < 1000; round += 1) {
    await wait(20);
    told = await findSending(server.db, id);
  }
  expect([told.state, told.message]).toEqual([
    'sending',
    'Sending was interrupted and the printer does not answer; it is asked again.',
  ]);
});
