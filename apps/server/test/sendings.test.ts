import { setTimeout as wait } from 'node:timers/promises';
import { eq } from 'drizzle-orm';
import type { Printer } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import type { SendingState } from '@foglio/api';
import { contents, sendings, files, jobs, printers } from '../src/database/schema';
import { changeSending, findSending, takeNext } from '../src/sendings/sending-store';
import { Problem } from '../src/http/problem';
import { sendWaiting } from '../src/sendings/sender';
import { Presence } from '../src/sendings/presence';
import { enqueueSending } from '../src/sendings/enqueue';
import { OPERATIONS } from '@foglio/ipp';
import { findPrinter } from '../src/printers/printer-store';
import { PROFILE, startServer, type RunningServer } from './running-server';
import { FORGOTTEN, TellingPrinter } from './telling-printer';

let server: RunningServer;

/** By their numbers: how each job stands the first time, then after. Null: its sheets are not counted. */
const printer = new TellingPrinter({
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
  26: [[8, 'aborted-by-system', null]],
  27: [[5, 'job-printing', null], FORGOTTEN],
  28: [[5, 'job-printing', 1], FORGOTTEN],
  29: [[9, 'job-completed-successfully', null]],
  30: [[9, 'job-completed-successfully', 1], FORGOTTEN],
  32: [
    [5, 'job-printing', 0],
    [9, 'job-completed-successfully', 1],
  ],
  31: [
    [5, 'job-printing', 0],
    [5, 'job-printing', 0],
    [9, 'job-completed-successfully', 1],
  ],
});

beforeAll(async () => {
  server = await startServer({ printerUri: await printer.start() });
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
  parts?: number;
  sheets?: number;
  profile?: Printer;
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
    expect(printer.cancelled).toEqual([21]);
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
    const message = await until(await left(99), 'uncertain');
    expect(message).toContain('It may have been printed: the printer no longer knows this job. Look at its output.');
    expect(message).not.toContain('Nothing was printed');
  });

  test('ended there, and nobody counts its sheets: unknown is not none', async () => {
    const message = await until(await left(26), 'uncertain');
    expect(message).toContain('does not count sheets. Look at its output.');
  });
});

describe('a printer that forgets what is over', () => {
  const printing = (job: number, sheets = 1): Promise<string> =>
    enter({ state: 'printing', printerJobs: [job], sheets });

  test('had counted every sheet: all came out', async () => {
    const id = await printing(28);
    await until(id, 'completed');
    expect(await findSending(server.db, id)).toMatchObject({ sheetsDone: 1, message: null });
  });

  test('had counted fewer: nobody can know, so a person is asked, with what is known', async () => {
    const id = await printing(27, 3);
    expect(await until(id, 'uncertain')).toMatch(
      /^It may have been printed: .* It had told of no sheet that came out\.$/,
    );
    const say = () => fetch(`${server.base}/api/sendings/${id}/came-out`, { method: 'POST' });
    expect((await say()).status).toBe(200);
    expect(await findSending(server.db, id)).toMatchObject({ state: 'completed', sheetsDone: 3, message: null });
    // Said twice, as where an answer is lost, it is said; of what is known otherwise nobody may say it.
    expect((await say()).status).toBe(200);
    await changeSending(server.db, id, ['completed'], { state: 'canceled' });
    expect((await say()).status).toBe(409);
  });

  test('counts no sheets at all: of a completed job all came out', async () => {
    const id = await printing(29, 4);
    await until(id, 'completed');
    expect((await findSending(server.db, id)).sheetsDone).toBe(4);
  });

  test('what one of several jobs ended as is kept while the others go on', async () => {
    const id = await enter({ state: 'printing', printerJobs: [30, 31], parts: 2, sheets: 2 });
    await until(id, 'completed');
    expect((await findSending(server.db, id)).jobEnds).toMatchObject({ 30: { state: 'completed', sheets: 1 } });
  });
});

test('of a printer that tells what happens to its jobs, a job is asked of only where something did', async () => {
  const { uri } = await findPrinter(server.db, 'test-office');
  const operations = [OPERATIONS.createPrinterSubscriptions, OPERATIONS.getNotifications];
  const profile = { ...PROFILE, jobs: { ...PROFILE.jobs, operations } };
  await server.db.insert(printers).values({ id: 'telling', name: 'Telling', uri, panel: null, profile });
  const id = await enter({ state: 'printing', printerJobs: [32], printerId: 'telling' });
  for (let round = 0; printer.events.asked < 3 && round < 1000; round += 1) await wait(20);
  // Asked again it would say that it is completed.
  expect((await findSending(server.db, id)).state).toBe('printing');
  printer.events.happened = true;
  await until(id, 'completed');
});

describe('a printer that takes job and document at once: no answer means neither that it has it, nor that it has not', () => {
  const AT_ONCE = [OPERATIONS.printJob, OPERATIONS.validateJob, OPERATIONS.getJobs, OPERATIONS.getJobAttributes];
  const profile = { ...PROFILE, jobs: { ...PROFILE.jobs, operations: AT_ONCE } };
  const broken = (): Promise<string> =>
    enter({ state: 'sending', server: new Presence(server.databaseUrl).server, profile });
  afterEach(() => (printer.listed = {}));

  test('it has a job of that mark: that is followed', async () => {
    const id = await enter({ state: 'sending', server: server.presence.server, profile });
    printer.listed = { 22: 'Contract #other', 23: `Contract #${id.slice(0, 8)}` };
    await changeSending(server.db, id, ['sending'], { server: null });
    await until(id, 'completed');
    expect((await findSending(server.db, id)).printerJobs).toEqual([23]);
  });

  test('it knows none: it may have been printed and forgotten, so a person is asked', async () => {
    expect(await until(await broken(), 'uncertain')).toContain('the connection broke while it was on its way');
  });
});

/** A task that was put off takes whatever waits for its printer by then: what no other test may touch has one of its own. */
async function ownPrinter(id: string): Promise<string> {
  const { uri } = await findPrinter(server.db, 'test-office');
  await server.db.insert(printers).values({ id, name: id, uri, panel: null, profile: PROFILE });
  return id;
}

test('one for which there is no room here is tried again, and not given up', async () => {
  const printerId = await ownPrinter('roomless');
  const id = await enter({ state: 'queued', printerId });
  const full = new Problem('disk-full', 'There is no room left in /tmp.');
  const parts = { db: server.db, workers: server.workers, plans: { ask: () => Promise.reject(full) } as never };
  await sendWaiting(parts, printerId, server.presence.server);
  const { attempts, message } = await findSending(server.db, id);
  expect([attempts, message]).toEqual([
    1,
    'It could not be sent: There is no room left in /tmp. It is tried again by itself.',
  ]);
  await changeSending(server.db, id, ['queued', 'sending'], { state: 'canceled' });
});

test('backs that are sent again come before whatever was sent off earlier: their stack lies in the tray', async () => {
  const printerId = await ownPrinter('two-passes');
  const before = await enter({ state: 'queued', retryAt: new Date(Date.now() + 60_000), printerId });
  const backs = await enter({ state: 'queued', pass: 2, printerId });
  expect(await takeNext(server.db, printerId, server.presence.server)).toMatchObject({ id: backs });
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
