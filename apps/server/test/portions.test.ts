import { setTimeout as wait } from 'node:timers/promises';
import { eq } from 'drizzle-orm';
import type { SendingRecord, SheetsRecord } from '@foglio/api';
import type { Portion } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { contents, files, jobs, sendings } from '../src/database/schema';
import { askAgain, sayDuration } from '../src/sendings/ask-again';
import { enterSending } from '../src/sendings/enter';
import { findSending, takeNext } from '../src/sendings/sending-store';
import { PROFILE, startServer, type RunningServer } from './running-server';
import { TellingPrinter } from './telling-printer';

/** One set first, the others once it was looked at, and sheets printed again. */

let server: RunningServer;
const printer = new TellingPrinter({
  1: [[9, 'job-completed-successfully', 4]],
  2: [[9, 'job-completed-successfully', 4]],
});

beforeAll(async () => {
  server = await startServer({ printerUri: await printer.start() });
});
afterAll(async () => {
  await server.stop();
  printer.close();
});

// Nothing is taken to the printer: what is entered is looked at here.
const HELD_UP = { state: 'sending', printerJobs: [99] } as const;
let holding = '';

beforeEach(async () => {
  holding = (await enter({ ...HELD_UP, server: server.presence.server })).id;
});
afterEach(async () => {
  await server.db.update(sendings).set({ state: 'canceled' });
});

type Entered = Partial<typeof sendings.$inferInsert>;

/** Six pages on both sides, three sets: nine sheets in all. */
async function enter(values: Entered): Promise<{ id: string; jobId: string }> {
  const pages = Array.from({ length: 6 }, () => ({ width: 595.276, height: 841.89 }));
  const [content] = await server.db.insert(contents).values({ pages, detailsRead: 6 }).returning();
  const [file] = await server.db.insert(files).values({ contentId: content!.id, name: 'a.pdf' }).returning();
  const settings = { copies: 3, sides: 'two-sided', tray: 'tray-1', proof: true } as const;
  const ticket = readTicket({ version: 1, documents: [{ file: file!.id }], ...settings });
  const [job] = await server.db.insert(jobs).values({ ticket, printerId: 'test-office' }).returning();
  const profile = { ...PROFILE, duplex: true };
  const [sending] = await server.db
    .insert(sendings)
    .values({ jobId: job!.id, printerId: 'test-office', ticket, profile, sheets: 3, ...values })
    .returning();
  return { id: sending!.id, jobId: job!.id };
}

const FIRST: Entered = { state: 'proofed', portion: 'first-set', sheetsDone: 3 };

async function post(path: string, body: object = {}): Promise<{ status: number; said: SendingRecord }> {
  const answer = await fetch(`${server.base}/api/sendings/${path}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
  return { status: answer.status, said: (await answer.json()) as SendingRecord };
}

const sheetsOf = async (id: string): Promise<SheetsRecord> =>
  (await (await fetch(`${server.base}/api/sendings/${id}/sheets`)).json()) as SheetsRecord;

test('once the first set is out it waits for a person; the whole of another job is over', async () => {
  const first = await enter({ state: 'printing', portion: 'first-set', printerJobs: [1] });
  const whole = await enter({ state: 'printing', printerJobs: [2] });
  const stateOf = async (id: string) => (await findSending(server.db, id)).state;
  for (let round = 0; (await stateOf(first.id)) === 'printing' && round < 500; round += 1) await wait(20);
  for (let round = 0; (await stateOf(whole.id)) === 'printing' && round < 500; round += 1) await wait(20);
  expect([await stateOf(first.id), await stateOf(whole.id)]).toEqual(['proofed', 'completed']);
});

test('the others are entered once, however often they are asked for with one key', async () => {
  const { id } = await enter(FIRST);
  const key = 'print-the-other-sets';
  const answers = await Promise.all(Array.from({ length: 20 }, () => post(`${id}/other-sets`, { key })));
  expect(new Set(answers.map(({ status }) => status))).toEqual(new Set([202]));
  expect(new Set(answers.map(({ said }) => said.id)).size).toBe(1);
  expect(answers[0]!.said).toMatchObject({ portion: 'other-sets', partOf: id, sheets: 6, state: 'queued' });
  expect(await findSending(server.db, id)).toMatchObject({ state: 'completed' });
  expect((await post(`${id}/other-sets`, { key: 'print-them-once-more' })).status).toBe(409);
  expect((await post(`${id}/first-alone`)).status).toBe(200);
});

test('left at one, the others cannot be asked for any more', async () => {
  const { id } = await enter(FIRST);
  for (let twice = 0; twice < 2; twice += 1) expect((await post(`${id}/first-alone`)).said.state).toBe('completed');
  const refused = await post(`${id}/other-sets`, { key: 'print-the-other-sets-2' });
  expect([refused.status, refused.said]).toMatchObject([409, { code: 'sending-not-over' }]);
});

test('a set that is out is asked about again after a while, as often as that has gone by, until somebody says', async () => {
  const now = Date.now();
  const ago = (minutes: number): Date => new Date(now - minutes * 60_000);
  const { id } = await enter({ ...FIRST, endedAt: ago(185), updatedAt: ago(61) });
  const { id: lately } = await enter({ ...FIRST, endedAt: ago(20), updatedAt: ago(20) });
  // The keeper, which looks in every round.
  const messageOf = async (of: string) => (await findSending(server.db, of)).message;
  for (let round = 0; (await messageOf(id)) === null && round < 500; round += 1) await wait(20);
  const asked = await findSending(server.db, id);
  expect(asked).toMatchObject({ state: 'proofed', message: 'It has waited for 3 hours.' });
  expect(await messageOf(lately)).toBeNull();
  // Two servers that look at once ask once; and an hour later it is asked once more.
  await Promise.all([1, 2].map(() => askAgain(server.db, 3_600_000, new Date(now + 5000))));
  expect((await findSending(server.db, id)).updatedAt).toEqual(asked.updatedAt);
  await askAgain(server.db, 3_600_000, new Date(now + 3_700_000));
  expect(await messageOf(id)).toBe('It has waited for 4 hours.');
  expect((await post(`${id}/first-alone`)).said).toMatchObject({ state: 'completed', message: null });
});

test('what is held back for a printer waits here, and is sent on at once when somebody says so', async () => {
  const hold = async (held: boolean) => {
    const answer = await fetch(`${server.base}/api/printers/test-office/held-back`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ held }),
    });
    return (await answer.json()) as { heldBack: boolean };
  };
  expect((await hold(true)).heldBack).toBe(true);
  await server.db.update(sendings).set({ state: 'canceled' }).where(eq(sendings.id, holding));
  const { id } = await enter({ state: 'queued' });
  const stateOf = async () => (await findSending(server.db, id)).state;
  expect(await takeNext(server.db, 'test-office', server.presence.server)).toBeNull();
  await hold(false);
  for (let round = 0; (await stateOf()) === 'queued' && round < 500; round += 1) await wait(20);
  expect(await stateOf()).not.toBe('queued');
});

test.each([
  [1, '1 minute'],
  [89, '89 minutes'],
  [90, '2 hours'],
  [2880, '2 days'],
])('%i minutes are %s', (minutes, said) => {
  expect(sayDuration(minutes)).toBe(said);
});

test('cancelled, its other sets are not printed, and nothing is asked of the printer', async () => {
  const { id } = await enter({ ...FIRST, printerJobs: [1] });
  const { status, said } = await post(`${id}/cancel`);
  expect([status, said]).toMatchObject([200, { state: 'canceled', sheetsDone: 3 }]);
  expect((await post(`${id}/other-sets`, { key: 'print-the-other-sets-3' })).status).toBe(409);
});

test('sent anew, the job takes the place of its sets that wait', async () => {
  const { id, jobId } = await enter(FIRST);
  const { ticket, profile, printerId } = await findSending(server.db, id);
  const values = { jobId, printerId, ticket, profile, sheets: 3, portion: 'first-set' } as const;
  const entered = await server.db.transaction((tx) => enterSending(tx, values));
  expect(await findSending(server.db, id)).toMatchObject({
    state: 'completed',
    message: 'It was sent anew; of this one the other sets are not printed.',
  });
  expect(await findSending(server.db, entered.id)).toMatchObject({ state: 'queued' });
});

test.each<[Portion, number]>([
  [[{ sets: [1, 1], sheets: [[3, 3]] }], 1],
  [
    [
      { sets: [1, 1], sheets: [[2, 3]] },
      { sets: [2, 3], sheets: [[1, 3]] },
    ],
    8,
  ],
])('of sheets %j %i are printed again, with the texts of the first time', async (marks, sheets) => {
  const { id } = await enter({ state: 'completed', moment: '2026-09-01T14:05' });
  const { status, said } = await post(`${id}/again`, { key: `again-${sheets}-sheets-of-it`, marks });
  expect([status, said]).toMatchObject([202, { sheets, portion: marks, partOf: id, state: 'queued' }]);
  const [kept] = await server.db.select().from(sendings).where(eq(sendings.id, said.id));
  expect(kept).toMatchObject({ moment: '2026-09-01T14:05', sides: sheets * 2 });
});

test('sheets that are not there are refused, and a job that is not over', async () => {
  const { id } = await enter({ state: 'completed' });
  const none = await post(`${id}/again`, { marks: [{ sets: [1, 1], sheets: [[7, 9]] }] });
  expect([none.status, none.said]).toMatchObject([400, { code: 'body-invalid' }]);
  const marks = [{ sets: [1, 1], sheets: [[1, 1]] }];
  expect((await post(`${holding}/again`, { marks })).status).toBe(409);
});

test('its sheets with their pages, which of them it prints, and where it broke off', async () => {
  const { id } = await enter({ state: 'aborted', sheetsDone: 4 });
  const record = await sheetsOf(id);
  expect(record).toMatchObject({ sets: 3, documents: ['a.pdf'], prints: null, missing: { set: 2, sheet: 2 } });
  expect(record.sheets[1]).toMatchObject({
    tray: 'tray-1',
    slip: false,
    front: [{ document: 1, page: 3 }],
    back: [{ document: 1, page: 4 }],
  });
  const others = await enter({ state: 'aborted', portion: 'other-sets', sheetsDone: 4 });
  expect(await sheetsOf(others.id)).toMatchObject({
    prints: [{ sets: [2, 3], sheets: [[1, 3]] }],
    missing: { set: 3, sheet: 2 },
  });
});
