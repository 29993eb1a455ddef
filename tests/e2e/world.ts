import { type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setImmediate as turn, setTimeout as wait } from 'node:timers/promises';
import { test as base, expect, type Page } from '@playwright/test';
import type { JobBrief, JobList } from '@foglio/api';
import { databaseAt, databaseServer, query, TEMPLATE } from './databases';
import { FORGET, pristine, UNDER_WAY } from './forget';
import { ownDatabase } from './own-database';
import { panelAt, putJson } from './panel';
import { ended, launch, ROOT } from './programs';
import { DRAWN, MANUAL } from './template';

export { expect, MANUAL, ROOT };

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
  readonly finished?: { readonly finishings: readonly string[]; readonly each: string };
}

/** What is printed on a face: a page of one of a job's documents. */
interface PrintedFace {
  readonly job: number;
  readonly document: number;
  readonly page: number;
}

export interface PrinterOptions {
  /** Milliseconds a sheet takes; without it none. */
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

interface Profile {
  readonly name: string;
  readonly trays: readonly { readonly id: string; readonly size: string }[];
}

const FIRST = 'upper-office';
const OTHERS = ['library', 'box-office'];

const profilePath = (printer: string): string => join(ROOT, `demo/printers/${printer}.json`);

/** What a printer of the demo is, with other paper in some trays. */
function profileOf(printer: string, papers: PrinterOptions['papers'] = {}): Profile {
  const profile = JSON.parse(readFileSync(profilePath(printer), 'utf8')) as Profile;
  return { ...profile, trays: profile.trays.map((tray) => ({ ...tray, size: papers[tray.id] ?? tray.size })) };
}

/** The demo's documents, by their short names. */
const DOCUMENTS = {
  contract: 'seasonContract',
  programme: 'autumnProgramme',
  'stage-plan': 'stagePlan',
  'players-notes': 'playersNotes',
  flyer: 'flyer',
  'grant-return': 'grantReturn',
  timetable: 'rehearsalTimetable',
} as const;

/**
 * The real server, database and simulated printers, each a process of its own. A world is begun anew for each test, which
 * takes a moment; its programs are started for the first.
 */
export class World {
  private readonly folder = mkdtempSync(join(tmpdir(), 'foglio-world-'));
  private readonly name = `e2e_${randomBytes(6).toString('hex')}`;
  readonly database: string;
  private options: PrinterOptions = {};
  private server: ChildProcess | null = null;
  private readonly printers = new Map<string, { child: ChildProcess; uri: string }>();
  base = '';
  private ippPort = '0';

  /** @param databases the server where the world's database is made; another than the project's has no template */
  constructor(private readonly databases: string | null = null) {
    this.database = databaseAt(databases ?? databaseServer(), this.name);
  }

  /** Starts everything, as the options have it. */
  async start(options: PrinterOptions = {}): Promise<void> {
    this.options = options;
    const template = this.databases === null ? ` template ${TEMPLATE}` : '';
    await this.admin(`create database ${this.name}${template}`);
    for (const id of [FIRST, ...(options.also ?? [])]) await this.startPrinter(options, id);
    await this.startServer();
  }

  /**
   * Begins anew without starting anything: no job, set-up or sending is left, printers are as they came.
   *
   * @returns false where something is still under way that would go on into the next test: this world cannot be had
   */
  async beginAnew(options: PrinterOptions): Promise<boolean> {
    if (!(await this.isAtRest())) return false;
    this.options = options;
    const { documents, setups } = await pristine();
    const entries = this.listed().map(([id, uri], place) => {
      const profile = this.profile(id);
      const values = [id, profile.name, uri, panelAt(uri)].map((text) => `$q$${text}$q$`).join(', ');
      return `(${values}, ${place}, $q$${JSON.stringify(profile)}$q$)`;
    });
    await query(
      this.database,
      ...FORGET,
      `delete from contents where sha256 <> all ($q$${documents}$q$::text[])`,
      `insert into setups select * from json_populate_recordset(null::setups, $q$${setups}$q$)`,
      `insert into printers (id, name, uri, panel, place, profile) values ${entries.join(', ')}`,
    );
    const { sheetMs = 0, intakeKb = 0 } = options;
    for (const [id, { uri }] of this.printers) {
      await putJson(`${panelAt(uri)}/new`, { profile: this.profile(id), sheetMs, intakeKb });
    }
    return true;
  }

  /** The first printer begins anew, with something else said of some trays' paper than usual. */
  async begunWith(trays: Readonly<Record<string, object>>): Promise<void> {
    const usual = this.profile(FIRST);
    const profile = { ...usual, trays: usual.trays.map((tray) => ({ ...tray, ...trays[tray.id] })) };
    await putJson(`${this.panel}/new`, { profile, sheetMs: 0, intakeKb: 0 });
  }

  /** Whether nothing is being read or sent any more; what is nearly done is waited for. */
  private async isAtRest(): Promise<boolean> {
    if (this.server?.exitCode !== null || this.server.signalCode !== null) return false;
    for (let round = 0; round < 100; round += 1) {
      const { rows } = await query<{ busy: string }>(this.database, UNDER_WAY);
      if (rows[0]?.busy === '0') return true;
      await wait(20);
    }
    return false;
  }

  /** A printer's profile; the first one's is as the options have it. */
  private profile(id: string): Profile {
    return id === FIRST ? profileOf(this.options.as ?? FIRST, this.options.papers) : profileOf(id);
  }

  /** The printers that the server is told of, with their addresses. */
  private listed(): [string, string][] {
    return [FIRST, ...(this.options.also ?? [])].map((id) => [id, this.printers.get(id)!.uri]);
  }

  async startPrinter({ sheetMs = 0, intakeKb = 0 }: PrinterOptions = {}, id = FIRST): Promise<void> {
    const port = /:(\d+)\//.exec(this.printers.get(id)?.uri ?? '')?.[1] ?? '0';
    const place = ['--profile', profilePath(id === FIRST ? (this.options.as ?? FIRST) : id), '--port', port];
    const pace = ['--sheet-ms', `${sheetMs}`, '--intake-kb', `${intakeKb}`];
    const folder = ['--folder', join(this.folder, id)];
    const [child, uri] = await launch('apps/printer', [...place, ...folder, ...pace], {}, /ipp:\S+/);
    this.printers.set(id, { child, uri });
  }

  /** @param more of the environment */
  async startServer(more: Readonly<Record<string, string>> = {}): Promise<void> {
    const printers = this.listed().map(([id, uri]) => {
      const profile = profilePath(id === FIRST ? (this.options.as ?? FIRST) : id);
      return { id, uri, panel: panelAt(uri), profile };
    });
    const env = {
      DATABASE_URL: this.database,
      // The same port again after a restart, so that an open page finds its server.
      PORT: /:(\d+)$/.exec(this.base)?.[1] ?? '0',
      FOGLIO_LOG: join(this.folder, 'server.log'),
      FOGLIO_SECRET: join(this.folder, 'secret'),
      FOGLIO_IPP_PORT: this.ippPort,
      FOGLIO_PRINTERS: JSON.stringify(printers),
      ...more,
    };
    [this.server, this.base] = await launch('apps/server', [], env, /http:\S+/);
    const [desk] = await this.api<{ address: string }[]>('/queues');
    this.ippPort = /:(\d+)\//.exec(desk!.address)![1]!;
  }

  /** Where a queue of Foglio can be printed to. */
  queueUri(queue: string): string {
    return `ipp://127.0.0.1:${this.ippPort}/ipp/print/${queue}`;
  }

  /** Of the server's process, for what is measured of it. */
  get serverPid(): number {
    return this.server!.pid!;
  }

  get printerPid(): number {
    return this.printers.get(FIRST)!.child.pid!;
  }

  get printerUri(): string {
    return this.printers.get(FIRST)!.uri;
  }

  get panel(): string {
    return panelAt(this.printerUri);
  }

  /** Kill -9: no handler runs, nothing is finished. */
  killServer(): Promise<void> {
    return ended(this.server, 'SIGKILL');
  }

  killPrinter(): Promise<void> {
    return ended(this.printers.get(FIRST)!.child, 'SIGKILL');
  }

  stopPrinter(): Promise<void> {
    return ended(this.printers.get(FIRST)!.child, 'SIGTERM');
  }

  async stop(): Promise<void> {
    await ended(this.server, 'SIGTERM');
    for (const { child } of this.printers.values()) await ended(child, 'SIGTERM');
    await this.admin(`drop database ${this.name} with (force)`);
    rmSync(this.folder, { recursive: true, force: true });
  }

  /** As the Desk lists them. */
  async jobs(): Promise<readonly JobBrief[]> {
    return (await this.api<JobList>('/jobs')).jobs;
  }

  /** The printer's own record of a job. */
  async delivered(job: number, printer = 'upper-office'): Promise<readonly DeliveredSheet[]> {
    const answer = await fetch(`${this.panelOf(printer)}/jobs/${job}`);
    return ((await answer.json()) as { delivered?: DeliveredSheet[] }).delivered ?? [];
  }

  /** Loads a tray at the printer: it stops, at its own sheet, where this is used up. */
  load(tray: string, loaded: number): Promise<void> {
    return putJson(`${this.panel}/trays/${tray}`, { loaded });
  }

  /** The file that a printer was sent for a job. */
  async document(job: number, printer = 'upper-office'): Promise<Uint8Array> {
    const answer = await fetch(`${this.panelOf(printer)}/jobs/${job}/documents/1`);
    return new Uint8Array(await answer.arrayBuffer());
  }

  /** A document of the demo's world. */
  source(kind: keyof typeof DOCUMENTS): Buffer {
    return readFileSync(join(DRAWN, `${DOCUMENTS[kind]}.pdf`));
  }

  private panelOf(printer: string): string {
    return panelAt(this.printers.get(printer)!.uri);
  }

  async api<T>(path: string, body?: unknown, method = body === undefined ? 'GET' : 'POST'): Promise<T> {
    const json = { 'Content-Type': 'application/json' };
    const init = body === undefined ? {} : { headers: json, body: JSON.stringify(body) };
    await this.hear();
    const answer = await fetch(`${this.base}/api${path}`, { method, ...init });
    const read = (await answer.json()) as T;
    if (!answer.ok) throw new Error(`${method} ${path}: ${JSON.stringify(read)}`);
    return read;
  }

  /**
   * What kept this process busy, a file that was made or a command that was waited for, may have lasted until the server
   * closed the connection: that is heard of first, so that nothing is asked on one that is gone.
   */
  private async hear(): Promise<void> {
    await turn();
    await turn();
  }

  async upload(bytes: Buffer, name: string): Promise<string> {
    await this.hear();
    const answer = await fetch(`${this.base}/api/files?name=${name}`, { method: 'POST', body: new Uint8Array(bytes) });
    return ((await answer.json()) as { id: string }).id;
  }

  /** A job of the demo's world, entered as a person's browser would; its pages have been read. */
  async demoJob(kind: keyof typeof DOCUMENTS, settings: object = {}): Promise<string> {
    const file = await this.upload(this.source(kind), `${kind}.pdf`);
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
    await query(this.databases ?? databaseServer(), statement);
  }

  manual(): Buffer {
    return readFileSync(MANUAL);
  }
}

/** The world that the tests of one worker have one after the other. */
class Shared {
  private world: World | null = null;

  async take(options: PrinterOptions): Promise<World> {
    if (this.world && (await this.world.beginAnew(options))) return this.world;
    await this.world?.stop();
    this.world = new World();
    await this.world.start({ also: OTHERS });
    // So that the first test begins as every other one does.
    if (!(await this.world.beginAnew(options))) throw new Error('a new world does not come to rest');
    return this.world;
  }

  async end(): Promise<void> {
    await this.world?.stop();
  }
}

/** Every test has a world that nothing happened in before, and a page in which no error may reach the console. */
export const test = base.extend<
  {
    printerOptions: PrinterOptions;
    /** Whether the test has programs of its own, since it ends or stops some. */
    ownWorld: boolean;
    /** The same, and a database server that it may stop. */
    ownServer: boolean;
    world: World;
    quietPage: Page;
  },
  { shared: Shared }
>({
  printerOptions: [{}, { option: true }],
  ownWorld: [false, { option: true }],
  ownServer: [false, { option: true }],
  shared: [
    // Playwright asks for the pattern, empty or not.
    async ({}, use) => {
      const shared = new Shared();
      await use(shared);
      await shared.end();
    },
    { scope: 'worker' },
  ],
  world: async ({ printerOptions, ownWorld, ownServer, shared }, use) => {
    if (!ownWorld && !ownServer) return use(await shared.take(printerOptions));
    const world = new World(ownServer ? ownDatabase('start') : null);
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
