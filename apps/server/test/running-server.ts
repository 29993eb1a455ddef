import { createHash, randomBytes } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { readPrinter } from '@foglio/core/validate';
import { inScratchFolder } from '@foglio/pdf';
import { Bonjour, type ServiceConfig } from 'bonjour-service';
import type { Response } from 'supertest';
import { createApp } from '../src/app';
import { connect, type Connection } from '../src/database/connection';
import { Presence } from '../src/sendings/presence';
import { enqueueSending } from '../src/sendings/enqueue';
import { startSending } from '../src/sendings/queue';
import { askAgain } from '../src/sendings/ask-again';
import { heldBackPrinters } from '../src/sendings/hold-back';
import { Keeper } from '../src/sendings/keeper';
import { storeFile, type StoredContent } from '../src/files/content-store';
import { startReading } from '../src/files/reading-queue';
import { createIppServer } from '../src/incoming/ipp-server';
import { startSettling } from '../src/incoming/settling';
import { NewsStream } from '../src/news/stream';
import { PdfWorkers } from '../src/pdf/pdf-workers';
import { Plans } from '../src/plans/plans';
import { enterPrinters } from '../src/printers/printer-store';
import { Nearby } from '../src/printers/nearby';
import { PrinterWatch } from '../src/printers/watch';
import { enterHouseSetup } from '../src/setups/setup-store';
import { Counting } from '../src/spend/counting';
import { DescribedApi } from './described';
import { asAdmin, BROWSER, databaseAt, MIGRATIONS, PLANNER, TEMPLATE, WORKER } from './test-database';

export const pdfWorkers = (): PdfWorkers => new PdfWorkers(WORKER, BROWSER);

/** A server over a database of its own, made for one test file. */
export interface RunningServer extends Connection {
  readonly base: string;
  readonly port: number;
  /** Where a queue can be printed to. */
  readonly queueAddress: (queue: string) => string;
  /** Tells of every request that comes. */
  readonly http: Server;
  readonly databaseUrl: string;
  readonly presence: Presence;
  readonly workers: PdfWorkers;
  readonly stop: () => Promise<void>;
}

export const PROFILE = readPrinter({
  name: 'Test office',
  trays: ['tray-1', 'tray-2'].map((id) => ({ id, size: 'iso_a4_210x297mm', loaded: 500 })),
  jobs: { overrides: ['media-col', 'sides'], documents: false },
});

interface ServerOptions {
  /** Where its one printer is; the default answers to nothing. */
  readonly printerUri?: string;
  /** In bytes. */
  readonly uploadLimit?: number;
  /** Whether what is uploaded is looked through; few tests ask what is found, and it takes seconds. */
  readonly reads?: boolean;
}

/** Nobody else’s printers are looked for in tests. */
export const ON_LOOPBACK = { interface: '127.0.0.1', bind: '0.0.0.0' } as Partial<ServiceConfig>;

export async function startServer({
  printerUri = 'ipp://127.0.0.1:9/ipp/print',
  uploadLimit = 1024 * 1024,
  reads = false,
}: ServerOptions = {}): Promise<RunningServer> {
  const name = `test_${randomBytes(6).toString('hex')}`;
  await asAdmin(`create database ${name} template ${TEMPLATE}`);
  const databaseUrl = databaseAt(name);
  const { pool, db } = await connect(databaseUrl, MIGRATIONS);
  const presence = new Presence(databaseUrl);
  await presence.open();
  await enterPrinters(db, [{ id: 'test-office', uri: printerUri, panel: null, profile: PROFILE }]);
  await enterHouseSetup(db);
  const workers = pdfWorkers();
  workers.warmUp();
  const plans = new Plans(PLANNER);
  const sending = await startSending(pool, { db, workers, plans }, presence.server);
  const reading = reads ? await startReading(pool, db, workers) : null;
  const keeper = new Keeper({
    db,
    presence,
    enqueue: (sending) => enqueueSending(db, sending),
    followMs: 50,
    askAgain: () => askAgain(db, 3_600_000),
    heldBack: () => heldBackPrinters(db),
  });
  await keeper.start();
  const counting = new Counting(db, plans, presence);
  counting.start();
  const server: Server = createServer();
  const port = (): number => (server.address() as AddressInfo).port;
  const described = new DescribedApi();
  const watch = new PrinterWatch(db);
  const nearby = new Nearby(() => new Bonjour(ON_LOOPBACK));
  const news = new NewsStream({ db, presence, watch, port });
  news.attach(server);
  const page = (): string => `http://127.0.0.1:${port()}/print-from-programs`;
  const ipp = createIppServer({ db, workers, uploadLimit, page }, join(__dirname, '../../web/public'));
  await new Promise<void>((resolve) => ipp.listen(0, '127.0.0.1', resolve));
  const queueAddress = (queue: string): string =>
    `ipp://127.0.0.1:${(ipp.address() as AddressInfo).port}/ipp/print/${queue}`;
  const settling = await startSettling(pool, db, plans);
  const app = createApp({
    db,
    watch,
    nearby,
    workers,
    plans,
    port,
    webFolder: join(__dirname, 'web'),
    uploadLimit,
    queueAddress,
  });
  server.on('request', described.watch(app));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const stop = async (): Promise<void> => {
    server.close();
    ipp.close();
    news.close();
    nearby.end();
    server.closeAllConnections();
    ipp.closeAllConnections();
    await keeper.stop();
    await counting.stop();
    await sending.stop();
    await settling.stop();
    workers.close();
    await plans.close();
    await reading?.stop();
    await presence.close();
    await pool.end();
    await asAdmin(`drop database ${name} with (force)`);
    expect(described.complaints).toEqual([]);
  };
  return {
    pool,
    db,
    base: `http://127.0.0.1:${port()}`,
    port: port(),
    queueAddress,
    http: server,
    databaseUrl,
    presence,
    workers,
    stop,
  };
}

/** Stores bytes as an upload does, without entering them to be read. */
export const store = ({ db, workers }: RunningServer, bytes: Uint8Array): Promise<StoredContent> =>
  inScratchFolder(async (path) => {
    await writeFile(path('uploaded'), bytes);
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    const stored = await storeFile(db, { path: path('uploaded'), bytes: bytes.length, sha256 }, workers, {
      name: 'stored',
    });
    return stored.content;
  });

/** Has supertest keep an answer's bytes. */
export function binary(response: Response, done: (error: Error | null, body: Buffer) => void): void {
  const parts: Buffer[] = [];
  // Given as a response, it is still the stream of one.
  const stream = response as unknown as NodeJS.ReadableStream;
  stream.on('data', (part: Buffer) => parts.push(part));
  stream.on('end', () => done(null, Buffer.concat(parts)));
}
