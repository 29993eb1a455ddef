import { spawn, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { test as base, expect, type Page } from '@playwright/test';
import {
  autumnProgramme,
  flyer,
  grantReturn,
  playersNotes,
  rehearsalTimetable,
  seasonContract,
  stagePlan,
} from '@foglio/demo';
import { Client } from 'pg';
import { ownDatabase } from './own-database';

export { expect };

export const ROOT = fileURLToPath(new URL('../..', import.meta.url));

/** A manual that Debian ships and this project did not write. */
export const MANUAL = join(ROOT, '.foglio/manual/maint-guide.en.pdf');

export interface DeliveredSheet {
  readonly index: number;
  readonly set: number;
  readonly tray: string;
  readonly sides: string;
  readonly front: number;
  readonly back: number | null;
  readonly upper: PrintedFace | null;
  readonly lower: PrintedFace | null;
  readonly spoilt: boolean;
}

/** What is printed on a face: a page of one of a job's documents. */
interface PrintedFace {
  readonly job: number;
  readonly document: number;
  readonly page: number;
}

export interface PrinterOptions {
  readonly sheetMs?: number;
  /** Kilobytes a second at which documents are taken in; 0: as fast as they come. */
  readonly intakeKb?: number;
  /** Trays that hold other paper than usual: by id, the PWG 5101.1 size. */
  readonly papers?: Readonly<Record<string, string>>;
  /** Another printer of the demo in the first one's place, by name. */
  readonly as?: string;
  /** Further printers of the demo, by name. */
  readonly also?: readonly string[];
}

const profileOf = (printer: string): string => join(ROOT, `demo/printers/${printer}.json`);
const UPPER_OFFICE = profileOf('upper-office');

const DOCUMENTS = {
  contract: seasonContract,
  programme: autumnProgramme,
  'stage-plan': stagePlan,
  'players-notes': playersNotes,
  flyer,
  'grant-return': grantReturn,
  timetable: rehearsalTimetable,
} as const;

/** The real server, database and simulated printer of one test, each a process of its own. */
export class World {
  private readonly folder = mkdtempSync(join(tmpdir(), 'foglio-world-'));
  private readonly database = `e2e_${randomBytes(6).toString('hex')}`;
  private profile = UPPER_OFFICE;
  private server: ChildProcess | null = null;
  private printer: ChildProcess | null = null;
  private readonly others: { readonly id: string; readonly child: ChildProcess; readonly uri: string }[] = [];
  base = '';
  printerUri = '';
  panel = '';

  /** @param databases where the world's database is made */
  constructor(private readonly databases: string = adminUrl()) {}

  async start(options: PrinterOptions = {}): Promise<void> {
    if (options.as) this.profile = profileOf(options.as);
    await this.admin(`create database ${this.database}`);
    await this.startPrinter(options);
    for (const id of options.also ?? []) {
      const args = ['--profile', profileOf(id), '--folder', join(this.folder, id), '--port', '0'];
      const sheetMs = `${options.sheetMs ?? 5}`;
      const [child, uri] = await launch('apps/printer', [...args, '--sheet-ms', sheetMs], {}, /ipp:\S+/);
      this.others.push({ id, child, uri });
    }
    await this.startServer();
  }

  async startPrinter({ sheetMs = 5, intakeKb = 0, papers }: PrinterOptions = {}): Promise<void> {
    if (papers) this.profile = this.profileWith(papers);
    const port = /:(\d+)\//.exec(this.printerUri)?.[1] ?? '0';
    const args = ['--profile', this.profile, '--folder', join(this.folder, 'printer'), '--port', port];
    const [child, line] = await launch(
      'apps/printer',
      [...args, '--sheet-ms', `${sheetMs}`, '--intake-kb', `${intakeKb}`],
      {},
      /ipp:\S+/,
    );
    this.printer = child;
    this.printerUri = line;
    this.panel = panelAt(line);
  }

  async startServer(): Promise<void> {
    const others = this.others.map(({ id, uri }) => ({ id, uri, panel: panelAt(uri), profile: profileOf(id) }));
    const printers = [
      { id: 'upper-office', uri: this.printerUri, panel: this.panel, profile: this.profile },
      ...others,
    ];
    const env = {
      DATABASE_URL: this.databases.replace(/\/[^/]*$/, `/${this.database}`),
      // The same port again after a restart, so that an open page finds its server.
      PORT: /:(\d+)$/.exec(this.base)?.[1] ?? '0',
      FOGLIO_PRINTERS: JSON.stringify(printers),
    };
    const [child, line] = await launch('apps/server', [], env, /http:\S+/);
    this.server = child;
    this.base = line;
  }

  /** The usual printer with other paper in some trays. */
  private profileWith(papers: Readonly<Record<string, string>>): string {
    const profile = JSON.parse(readFileSync(UPPER_OFFICE, 'utf8')) as { trays: { id: string; size: string }[] };
    for (const tray of profile.trays) tray.size = papers[tray.id] ?? tray.size;
    const path = join(this.folder, 'printer.json');
    writeFileSync(path, JSON.stringify(profile));
    return path;
  }

  /** Kill -9: no handler runs, nothing is finished. */
  killServer(): Promise<void> {
    return ended(this.server, 'SIGKILL');
  }

  killPrinter(): Promise<void> {
    return ended(this.printer, 'SIGKILL');
  }

  stopPrinter(): Promise<void> {
    return ended(this.printer, 'SIGTERM');
  }

  async stop(): Promise<void> {
    await ended(this.server, 'SIGTERM');
    await ended(this.printer, 'SIGTERM');
    for (const { child } of this.others) await ended(child, 'SIGTERM');
    await this.admin(`drop database ${this.database} with (force)`);
    rmSync(this.folder, { recursive: true, force: true });
  }

  /** The printer's own record of a job. */
  async delivered(job: number, printer = 'upper-office'): Promise<readonly DeliveredSheet[]> {
    const answer = await fetch(`${this.panelOf(printer)}/jobs/${job}`);
    return ((await answer.json()) as { delivered?: DeliveredSheet[] }).delivered ?? [];
  }

  /** The file that a printer was sent for a job. */
  async document(job: number, printer = 'upper-office'): Promise<Uint8Array> {
    const answer = await fetch(`${this.panelOf(printer)}/jobs/${job}/documents/1`);
    return new Uint8Array(await answer.arrayBuffer());
  }

  /** A document of the demo's world. */
  async source(kind: keyof typeof DOCUMENTS): Promise<Uint8Array> {
    return new Uint8Array(await DOCUMENTS[kind]());
  }

  private panelOf(printer: string): string {
    const other = this.others.find(({ id }) => id === printer);
    return other ? panelAt(other.uri) : this.panel;
  }

  async api<T>(path: string, body?: unknown, method = body === undefined ? 'GET' : 'POST'): Promise<T> {
    const json = { 'Content-Type': 'application/json' };
    const init = body === undefined ? {} : { headers: json, body: JSON.stringify(body) };
    const answer = await fetch(`${this.base}/api${path}`, { method, ...init });
    const read = (await answer.json()) as T;
    if (!answer.ok) throw new Error(`${method} ${path}: ${JSON.stringify(read)}`);
    return read;
  }

  async upload(bytes: Buffer, name: string): Promise<string> {
    // Making a file keeps this process busy, and the server may have closed the connection meanwhile: look first.
    await wait(50);
    const answer = await fetch(`${this.base}/api/files?name=${name}`, { method: 'POST', body: new Uint8Array(bytes) });
    return ((await answer.json()) as { id: string }).id;
  }

  /** A job of the demo's world, entered as a person's browser would; its pages have been read. */
  async demoJob(kind: keyof typeof DOCUMENTS, settings: object = {}): Promise<string> {
    const file = await this.upload(await DOCUMENTS[kind](), `${kind}.pdf`);
    await this.read(file);
    const ticket = { version: 1, title: kind, documents: [{ file }], ...settings };
    return (await this.api<{ id: string }>('/jobs', { ticket })).id;
  }

  /** Waits until all of a file's pages were read: what stands on them is not found out in the middle of a journey. */
  private async read(file: string): Promise<void> {
    for (;;) {
      const { read, pages } = await this.api<{ read: number; pages: object[] }>(`/files/${file}`);
      if (read === pages.length) return;
      await wait(50);
    }
  }

  private async admin(statement: string): Promise<void> {
    const client = new Client({ connectionString: this.databases });
    await client.connect();
    await client.query(statement);
    await client.end();
  }

  manual(): Buffer {
    return readFileSync(MANUAL);
  }
}

/** Where the simulated printer of that address shows its front panel. */
const panelAt = (uri: string): string => uri.replace('ipp:', 'http:').replace('/ipp/print', '/panel');

/** Starts a bundled program and waits for the line that tells its address. */
function launch(
  folder: string,
  args: readonly string[],
  env: NodeJS.ProcessEnv,
  address: RegExp,
): Promise<[ChildProcess, string]> {
  const child = spawn(process.execPath, [join(ROOT, folder, 'dist/main.js'), ...args], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((resolve, reject) => {
    let told = '';
    child.once('exit', (code) => reject(new Error(`${folder} ended with ${code}: ${told}`)));
    child.stdout.on('data', (part: Buffer) => {
      told += part.toString();
      const found = address.exec(told);
      if (found) resolve([child, found[0]]);
    });
  });
}

function ended(child: ChildProcess | null, signal: NodeJS.Signals): Promise<void> {
  if (!child || child.exitCode !== null || child.signalCode !== null) return Promise.resolve();
  return new Promise((resolve) => {
    child.once('exit', () => resolve());
    child.kill(signal);
  });
}

function adminUrl(): string {
  const url = process.env['DATABASE_URL'];
  if (!url) throw new Error('DATABASE_URL is not set; run the tests with "npm test"');
  return url;
}

/** Every test has a world of its own, and a page in which no error may reach the console. */
export const test = base.extend<{
  printerOptions: PrinterOptions;
  /** A database server of the test's own, that it may stop. */
  ownServer: boolean;
  world: World;
  quietPage: Page;
}>({
  printerOptions: [{}, { option: true }],
  ownServer: [false, { option: true }],
  world: async ({ printerOptions, ownServer }, use) => {
    const world = new World(ownServer ? ownDatabase('start') : undefined);
    await world.start(printerOptions);
    await use(world);
    await world.stop();
    if (ownServer) ownDatabase('stop');
  },
  // It asks for the world although it does not use it, so that the world outlives it.
  quietPage: async ({ page, world: _ }, use) => {
    const errors: string[] = [];
    page.on('console', (message) => message.type() === 'error' && errors.push(message.text()));
    page.on('pageerror', (error) => errors.push(error.message));
    await use(page);
    expect(errors).toEqual([]);
  },
});
