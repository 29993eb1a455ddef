import { setTimeout as wait } from 'node:timers/promises';
import { allStrings, firstNumber, firstString, groupOf, OPERATIONS, STATUS, type Attributes } from '@foglio/ipp';
import { eq } from 'drizzle-orm';
import request from 'supertest';
import { numberedPdf } from '../../../packages/pdf/test/make-pdf';
import { incoming, jobs, sendings } from '../src/database/schema';
import { cameWhole } from '../src/incoming/arrival';
import { enterIncoming } from '../src/incoming/incoming-store';
import { findQueue, type Queue } from '../src/incoming/queue';
import { enterSending } from '../src/sendings/enter';
import { wishesOf } from '@foglio/ipp/serving';
import { AskedDesk, integer, keyword, name } from './asked-desk';
import { PROFILE } from './running-server';

/** Set-ups as printers; the printer behind them answers to nothing. */

let desk: AskedDesk;

beforeAll(async () => {
  desk = await AskedDesk.open();
});
afterAll(() => desk.close());

const PLAIN = { version: 1, documents: [{ file: '*' }], tray: 'tray-1' };

const printerOf = async (uri: string): Promise<Attributes> =>
  groupOf(await desk.postTo(uri, desk.message(OPERATIONS.getPrinterAttributes, {})), 'printer');

const print = (uri: string, asked: Attributes, pages = 2) =>
  desk.postTo(uri, desk.message(OPERATIONS.printJob, { 'job-name': name('Letter') }, asked), numberedPdf(pages));

/** How a job stands once it is settled. */
async function settled(uri: string, id: number): Promise<Attributes> {
  for (;;) {
    const [row] = await desk.server.db.select().from(incoming).where(eq(incoming.id, id));
    if (row?.state !== 'came')
      return groupOf(
        await desk.postTo(uri, desk.message(OPERATIONS.getJobAttributes, { 'job-id': integer(id) })),
        'job',
      );
    await wait(20);
  }
}

const idOf = (answer: Awaited<ReturnType<typeof print>>): number => firstNumber(groupOf(answer, 'job'), 'job-id')!;

test.each<[string, object, Record<string, string[]>]>([
  ['plain', PLAIN, { sides: ['one-sided'], 'print-color-mode': ['auto'] }],
  [
    'both sides in grey',
    { ...PLAIN, sides: 'two-sided', color: 'monochrome' },
    { sides: ['two-sided-long-edge'], 'print-color-mode': ['monochrome'] },
  ],
  // Whatever its sides say, it is folded.
  ['a booklet', { ...PLAIN, layout: { kind: 'booklet' } }, { sides: ['two-sided-long-edge'] }],
  ['A4', { ...PLAIN, paper: { size: 'iso_a4_210x297mm' } }, { media: ['iso_a4_210x297mm'] }],
])('%s tells what it stands for', async (called, ticket, stands) => {
  const told = await printerOf(await desk.offered(called, ticket));
  for (const [attribute, words] of Object.entries(stands)) {
    expect(allStrings(told, `${attribute}-supported`)).toEqual(words);
    expect(firstString(told, `${attribute}-default`)).toBe(words[0]);
  }
});

test('a set-up that is called by a number is found by it, and its jobs below it', async () => {
  const uri = await desk.offered('2026', PLAIN);
  expect(uri).toMatch(/\/2026$/);
  expect(firstString(await printerOf(uri), 'printer-name')).toBe('2026');
  expect(firstString(await printerOf(`${uri}/1`), 'printer-name')).toBe('2026');
});

test('a long name stays within what the standard allows', async () => {
  const told = await printerOf(await desk.offered('ü'.repeat(120), PLAIN));
  expect(Buffer.byteLength(firstString(told, 'printer-name')!)).toBeLessThanOrEqual(127);
  expect(Buffer.byteLength(firstString(told, 'printer-info')!)).toBeLessThanOrEqual(127);
});

test('what a program says where nothing was chosen is taken without a word, what a set-up is not is given back', async () => {
  const uri = await desk.offered('Letters', { ...PLAIN, paper: { size: 'iso_a4_210x297mm' } });
  const told = await printerOf(uri);
  const defaults = [
    'sides',
    'print-color-mode',
    'print-quality',
    'number-up',
    'print-scaling',
    'output-bin',
    'finishings',
  ];
  const usual = Object.fromEntries(
    [...defaults, 'print-content-optimize', 'print-rendering-intent', 'media', 'media-col'].map((one) => [
      one,
      told[`${one}-default`]!,
    ]),
  );
  expect((await print(uri, usual)).code).toBe(STATUS.ok);
  const a3: Attributes = { 'x-dimension': integer(29_700), 'y-dimension': integer(42_000) };
  const other: Attributes = {
    sides: keyword('two-sided-long-edge'),
    'number-up': integer(4),
    'media-col': [{ tag: 'collection', value: { 'media-size': [{ tag: 'collection', value: a3 }] } }],
  };
  const answer = await print(uri, other);
  expect([answer.code, Object.keys(groupOf(answer, 'unsupported'))]).toEqual([
    STATUS.okIgnoredOrSubstituted,
    Object.keys(other),
  ]);
});

test('pages that a document has not are not all of its pages: it waits, and says so', async () => {
  const uri = await desk.offered('Pages', PLAIN);
  const answer = await print(uri, { 'page-ranges': [{ tag: 'rangeOfInteger', value: { lower: 8, upper: 9 } }] });
  const about = await settled(uri, idOf(answer));
  expect(firstNumber(about, 'job-state')).toBe(4);
  expect(firstString(about, 'job-state-message')).toContain('8');
  const found = (await desk.jobs()).find(({ came }) => came?.queue === 'Pages');
  expect(found?.ticket.documents).toMatchObject([{ pages: '8-9' }]);
});

test('where the printer does not answer, what has nothing to settle is sent and waits for it in the queue', async () => {
  const uri = await desk.offered('Straight on', PLAIN);
  const id = idOf(await print(uri, { copies: integer(2) }));
  const about = await settled(uri, id);
  // Pending or processing (RFC 8011, 5.3.7).
  expect([3, 5]).toContain(firstNumber(about, 'job-state'));
  const [row] = await desk.server.db.select().from(incoming).where(eq(incoming.id, id));
  const [sending] = await desk.server.db.select().from(sendings).where(eq(sendings.id, row!.sendingId!));
  expect([row?.state, sending?.sheets, sending?.sides]).toEqual(['sent', 4, 4]);
});

/** A job that came to a set-up, as it is the moment before it is settled, and what a test does to it in that moment. */
async function justCame(
  queue: Queue,
  then: (tx: Parameters<typeof cameWhole>[0], jobId: string) => Promise<void>,
): Promise<number> {
  const { db } = desk.server;
  const file = await request(desk.server.base)
    .post('/api/files?name=letter.pdf')
    .set('Content-Type', 'application/octet-stream')
    .send(Buffer.from(numberedPdf(1)));
  const { job } = await enterIncoming(db, queue, { name: 'Letter', userName: 'anna', wishes: wishesOf({}) });
  await db
    .update(incoming)
    .set({ files: [(file.body as { id: string }).id] })
    .where(eq(incoming.id, job.id));
  await db.transaction(async (tx) => {
    await cameWhole(tx, queue, job.id);
    const [came] = await tx.select().from(incoming).where(eq(incoming.id, job.id));
    await then(tx, came!.jobId!);
  });
  return job.id;
}

test('a person who sends it on the Bench before it is settled sends it, and nothing is printed twice', async () => {
  const uri = await desk.offered('Quick hands', PLAIN);
  const queue = (await findQueue(desk.server.db, 'quick-hands'))!;
  let sent = '';
  const id = await justCame(queue, async (tx, jobId) => {
    const [job] = await tx.select().from(jobs).where(eq(jobs.id, jobId));
    const { ticket, printerId } = job!;
    sent = (await enterSending(tx, { jobId, printerId, ticket, profile: PROFILE, sheets: 1 })).id;
  });
  await settled(uri, id);
  // Whatever waits to be settled has been.
  await settled(uri, idOf(await print(uri, {})));
  const [row] = await desk.server.db.select().from(incoming).where(eq(incoming.id, id));
  const all = await desk.server.db.select().from(sendings).where(eq(sendings.jobId, row!.jobId!));
  expect([row?.state, row?.sendingId, all.map((one) => one.id)]).toEqual(['sent', sent, [sent]]);
});

test('removed from the Desk before it is settled, it is cancelled for its program', async () => {
  const uri = await desk.offered('Gone', PLAIN);
  const queue = (await findQueue(desk.server.db, 'gone'))!;
  const id = await justCame(queue, async (tx, jobId) => {
    await tx.delete(jobs).where(eq(jobs.id, jobId));
  });
  expect(firstNumber(await settled(uri, id), 'job-state')).toBe(7);
});

test('of a set-up that was removed since, it is still told what a job was printed to', async () => {
  const uri = await desk.offered('Old letters', { ...PLAIN, tray: 'tray-9' });
  const id = idOf(await print(uri, {}));
  await settled(uri, id);
  const all = (await request(desk.server.base).get('/api/setups')).body as { id: string; name: string }[];
  await request(desk.server.base).delete(`/api/setups/${all.find((one) => one.name === 'Old letters')!.id}`);
  expect((await desk.jobs()).map(({ came }) => came?.queue)).toContain('old-letters');
});
