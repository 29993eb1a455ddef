import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { hostname } from 'node:os';
import { setTimeout as wait } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { prepareToRead } from '@foglio/core/validate';
import { createApp } from './app';
import { readConfig } from './config';
import { Announcement } from './incoming/announcement';
import { DESK } from './incoming/desk';
import { createIppServer } from './incoming/ipp-server';
import { listQueues } from './incoming/queue';
import { startSettling } from './incoming/settling';
import { connect } from './database/connection';
import { askAgain } from './sendings/ask-again';
import { heldBackPrinters } from './sendings/hold-back';
import { Keeper } from './sendings/keeper';
import { Presence } from './sendings/presence';
import { enqueueSending } from './sendings/enqueue';
import { startSending } from './sendings/queue';
import { giveUpUnfinished } from './files/content-store';
import { startReading } from './files/reading-queue';
import { NewsStream } from './news/stream';
import { PdfWorkers } from './pdf/pdf-workers';
import { Plans } from './plans/plans';
import { enterPrinters } from './printers/printer-store';
import { Nearby } from './printers/nearby';
import { PrinterWatch } from './printers/watch';
import { Retention } from './retention/retention';
import { releaseTasks } from './retention/tasks';
import { enterHouseSetup } from './setups/setup-store';
import { Counting } from './spend/counting';

const FOLLOW_MS = 300;

const config = readConfig(process.env, fileURLToPath(new URL('../../web/dist/browser', import.meta.url)));
const { pool, db } = await connect(config.databaseUrl, fileURLToPath(new URL('../drizzle', import.meta.url)));
const presence = new Presence(config.databaseUrl);
await presence.open();
await enterPrinters(db, config.printers);
await enterHouseSetup(db);
const programs = ['./pdf-worker.js', './browser-process.js'].map((name) => new URL(name, import.meta.url));
const workers = new PdfWorkers(programs[0]!, programs[1]!);
workers.warmUp();
const plans = new Plans(new URL('./plan-worker.js', import.meta.url));
await giveUpUnfinished(db);
if (await presence.isAlone()) await releaseTasks(pool, db);
const sending = await startSending(pool, { db, workers, plans }, presence.server);
const reading = await startReading(pool, db, workers);
const settling = await startSettling(pool, db, plans);
const keeper = new Keeper({
  db,
  presence,
  enqueue: (sending) => enqueueSending(db, sending),
  followMs: FOLLOW_MS,
  askAgain: () => askAgain(db, config.askAgainMs),
  heldBack: () => heldBackPrinters(db),
});
await keeper.start();
const counting = new Counting(db, plans, presence);
counting.start();

const retention = new Retention(pool, db, config.limits);
retention.start();

const server = createServer();
// A server that is closing has no address any more, and still answers what came before.
const port = (): number => (server.address() as AddressInfo | null)?.port ?? config.port;
const { webFolder, uploadLimit } = config;
const watch = new PrinterWatch(db);
const nearby = new Nearby();
server.on('request', createApp({ db, watch, nearby, workers, plans, port, webFolder, uploadLimit, queueAddress }));
const news = new NewsStream({ db, presence, watch, port });
news.attach(server);
server.on('error', (error) => {
  console.error(`The server cannot listen: ${error.message}`);
  process.exit(1);
});
server.listen(config.port, '127.0.0.1', () => {
  console.log(`Foglio is at http://127.0.0.1:${port()}`);
  setImmediate(prepareToRead);
});

const page = (): string => `http://127.0.0.1:${port()}/print-from-programs`;
const ippServer = createIppServer({ db, workers, uploadLimit, page }, webFolder);
// Everything else works without it, and what is wrong is said.
ippServer.on('error', (error) => console.error(`Foglio cannot be printed to: ${error.message}`));
ippServer.listen(config.ipp.port, config.ipp.host, () => {
  console.log(`Foglio is a printer at ${queueAddress(DESK)}`);
});

const announcement = config.ipp.announce
  ? new Announcement(() => (ippServer.address() as AddressInfo).port, page)
  : null;
const announce = async (): Promise<void> => announcement?.tell(await listQueues(db));
if (announcement) {
  ippServer.on('listening', () => void announce());
  presence.on('news', (topic) => void (topic === 'setup' && announce()));
}

/** Where a queue can be printed to. */
function queueAddress(queue: string): string {
  const at = (ippServer.address() as AddressInfo | null)?.port ?? config.ipp.port;
  // All addresses of this machine are none that others could use.
  const { host } = config.ipp;
  return `ipp://${host === '0.0.0.0' || host === '::' ? hostname() : host}:${at}/ipp/print/${queue}`;
}

/** Time for requests that are being answered; what then is still open is cut. */
const LAST_ANSWERS_MS = 300;

/** Longer is not waited for what is being sent, nor for a database that is away: the next start settles what was left. */
const LONGEST_END_MS = 60_000;

/** Ends in order: no new requests, what is being sent is finished, what is being read is left, then the database is let go. */
async function shutDown(): Promise<void> {
  setTimeout(() => process.exit(1), LONGEST_END_MS).unref();
  server.close();
  ippServer.close();
  news.close();
  server.closeIdleConnections();
  ippServer.closeIdleConnections();
  await wait(LAST_ANSWERS_MS);
  server.closeAllConnections();
  ippServer.closeAllConnections();
  await announcement?.end();
  nearby.end();
  await keeper.stop();
  await counting.stop();
  await sending.stop();
  await settling.stop();
  await retention.stop();
  workers.close();
  await plans.close();
  await reading.stop();
  await presence.close();
  await pool.end();
  process.exit(0);
}

let stopping = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    if (stopping) return;
    stopping = true;
    void shutDown();
  });
}
