import { createHash, randomBytes } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { readPrinter } from '@foglio/core/validate';
import { inScratchFolder } from '@foglio/pdf';
import { buildSync } from 'esbuild';
import { Client } from 'pg';
import type { Response } from 'supertest';
import { createApp } from '../src/app';
import { connect, type Connection } from '../src/database/connection';
import { Presence } from '../src/deliveries/presence';
import { enqueueDelivery, startSending } from '../src/deliveries/queue';
import { Keeper } from '../src/deliveries/keeper';
import { storeContent, type StoredContent } from '../src/files/content-store';
import { startReading } from '../src/files/reading-queue';
import { PdfWorkers } from '../src/pdf/pdf-workers';
import { enterPrinters } from '../src/printers/printer-store';
import { enterHouseSetup } from '../src/setups/setup-store';
import { DescribedApi } from './described';

const MIGRATIONS = join(__dirname, '../drizzle');

/** The workers' program, made from its source as the server's is; one for each process that runs tests. */
const WORKER = join(__dirname, `../../../.foglio/test/pdf-worker-${process.pid}.mjs`);
buildSync({
  entryPoints: [join(__dirname, '../src/pdf/pdf-worker.ts')],
  outfile: WORKER,
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  tsconfig: join(__dirname, '../../../tsconfig.base.json'),
});

export const pdfWorkers = (): PdfWorkers => new PdfWorkers(WORKER);

/** A server over a database of its own, made for one test file. */
export interface RunningServer extends Connection {
  readonly base: string;
  readonly port: number;
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

/** @param printerUri where its one printer is; the default answers to nothing */
export async function startServer(
  printerUri = 'ipp://127.0.0.1:9/ipp/print',
  uploadLimit = 1024 * 1024,
): Promise<RunningServer> {
  const admin = process.env['DATABASE_URL'];
  if (!admin) throw new Error('DATABASE_URL is not set; run the tests with "npm test"');
  const name = `test_${randomBytes(6).toString('hex')}`;
  await asAdmin(admin, `create database ${name}`);
  const databaseUrl = admin.replace(/\/[^/]*$/, `/${name}`);
  const { pool, db } = await connect(databaseUrl, MIGRATIONS);
  const presence = new Presence(databaseUrl);
  await presence.open();
  await enterPrinters(db, [{ id: 'test-office', uri: printerUri, panel: null, profile: PROFILE }]);
  await enterHouseSetup(db);
  const workers = pdfWorkers();
  workers.warmUp();
  const sending = await startSending(pool, db, workers, presence.server);
  const reading = await startReading(pool, db, workers);
  const keeper = new Keeper({ db, presence, enqueue: (delivery) => enqueueDelivery(db, delivery), followMs: 50 });
  await keeper.start();
  const server: Server = createServer();
  const port = (): number => (server.address() as AddressInfo).port;
  const described = new DescribedApi();
  const app = createApp({ db, presence, workers, port, webFolder: join(__dirname, 'web'), uploadLimit });
  server.on('request', described.watch(app));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const stop = async (): Promise<void> => {
    server.close();
    server.closeAllConnections();
    await keeper.stop();
    await sending.stop();
    workers.close();
    await reading.stop();
    await presence.close();
    await pool.end();
    await asAdmin(admin, `drop database ${name} with (force)`);
    expect(described.complaints).toEqual([]);
  };
  return { pool, db, base: `http://127.0.0.1:${port()}`, port: port(), databaseUrl, presence, workers, stop };
}

async function asAdmin(url: string, statement: string): Promise<void> {
  const client = new Client({ connectionString: url });
  await client.connect();
  await client.query(statement);
  await client.end();
}

/** Stores bytes as an upload does, without entering them to be read. */
export const store = ({ db, workers }: RunningServer, bytes: Uint8Array): Promise<StoredContent> =>
  inScratchFolder(async (path) => {
    await writeFile(path('uploaded'), bytes);
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    return storeContent(db, { path: path('uploaded'), bytes: bytes.length, sha256 }, workers);
  });

/** Has supertest keep an answer's bytes. */
export function binary(response: Response, done: (error: Error | null, body: Buffer) => void): void {
  const parts: Buffer[] = [];
  // Given as a response, it is still the stream of one.
  const stream = response as unknown as NodeJS.ReadableStream;
  stream.on('data', (part: Buffer) => parts.push(part));
  stream.on('end', () => done(null, Buffer.concat(parts)));
}
