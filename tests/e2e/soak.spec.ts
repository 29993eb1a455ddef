import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { expect, test } from '@playwright/test';
import { query } from './databases';
import { ownDatabase } from './own-database';
import { chance, printed, Soak, type Sample } from './soak';
import { World } from './world';

/** A day in an office, made short: everything is used at once, and one thing after the other is killed or full. */

const SECONDS = Number(process.env['FOGLIO_SOAK_SECONDS'] ?? 20);
const CLIENTS = 10;
const DATABASE = 'soak';

/** Where scratch and what the printers keep lie: small, so that it can be full. Only root can have such a disk. */
class SmallDisk {
  readonly folder = mkdtempSync(join(tmpdir(), 'foglio-soak-'));
  readonly isSmall: boolean;
  private readonly filler = join(this.folder, 'filler');

  constructor() {
    this.isSmall = process.getuid?.() === 0 && this.mount();
  }

  private mount(): boolean {
    try {
      execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=96m', 'foglio-soak', this.folder], { stdio: 'ignore' });
      return true;
    } catch {
      // As in a container that may not.
      return false;
    }
  }

  /** Nothing more goes onto it. */
  fill(): void {
    try {
      writeFileSync(this.filler, Buffer.alloc(128 * 1024 * 1024));
    } catch {
      // It is full, as it is to be.
    }
  }

  clear(): void {
    rmSync(this.filler, { force: true });
  }

  remove(): void {
    if (this.isSmall) execFileSync('umount', ['-l', this.folder]);
    rmSync(this.folder, { recursive: true, force: true });
  }
}

type Blow = 'server' | 'printer' | 'database' | 'disk';

/** When what is hit, in seconds from the beginning: in a short time each once, in a long one again and again, the disk twice. */
function blows(): readonly { readonly at: number; readonly what: Blow }[] {
  if (SECONDS < 120)
    return (['server', 'printer', 'database', 'disk'] as const).map((what, index) => ({ what, at: 2 + 4 * index }));
  const next = chance(7);
  const all: { at: number; what: Blow }[] = [];
  for (let at = 30; at < SECONDS - 60; at += 20 + next(41)) {
    all.push({ at, what: (['server', 'printer', 'database'] as const)[next(3)]! });
  }
  for (const part of [1 / 3, 2 / 3]) all.push({ at: Math.round(SECONDS * part), what: 'disk' });
  return all.sort((one, other) => one.at - other.at);
}

async function strike(world: World, disk: SmallDisk, what: Blow): Promise<void> {
  switch (what) {
    case 'server':
      await world.killServer();
      return world.startServer();
    case 'printer':
      await world.killPrinter();
      return world.startPrinter();
    case 'database': {
      const { rows } = await query<{ pid: string }>(
        world.database,
        `select split_part(pg_read_file('postmaster.pid'), E'\\n', 1) as pid`,
      );
      process.kill(Number(rows[0]!.pid), 'SIGKILL');
      return startAgain();
    }
    case 'disk':
      if (!disk.isSmall) return;
      disk.fill();
      await wait(SECONDS < 120 ? 2_000 : 15_000);
      disk.clear();
  }
}

/** What its processes were at has to end before it can start. */
async function startAgain(tries = 20): Promise<void> {
  await wait(1_000);
  try {
    ownDatabase('start', DATABASE);
  } catch (error) {
    if (tries === 0) throw error;
    await startAgain(tries - 1);
  }
}

const middle = (values: readonly number[]): number =>
  values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

/** Of a program, in a part of the time. */
const usual = (samples: readonly Sample[], program: Sample['program'], from: number, to: number) => {
  const those = samples.filter((one) => one.program === program && one.second >= from && one.second < to);
  return {
    memory: middle(those.map(({ memory }) => memory)),
    descriptors: middle(those.map((one) => one.descriptors)),
  };
};

test('whatever is killed or full, nothing is lost, nothing comes out twice, and nothing is left behind', async () => {
  test.setTimeout((SECONDS + 400) * 1000);
  const disk = new SmallDisk();
  const before = process.env['TMPDIR'];
  process.env['TMPDIR'] = disk.folder;
  const world = new World(ownDatabase('start', DATABASE));
  if (before === undefined) delete process.env['TMPDIR'];
  else process.env['TMPDIR'] = before;
  try {
    // What the programs take for their work lies there too.
    const server = { TMPDIR: disk.folder };
    process.env['TMPDIR'] = disk.folder;
    await world.start();
    const empty = await world.api<Health>('/health');
    const soak = new Soak(world);
    const began = Date.now();
    const hit = async (): Promise<void> => {
      for (const { at, what } of blows()) {
        await wait(Math.max(0, began + at * 1000 - Date.now()));
        await strike(world, disk, what);
      }
      await wait(Math.max(0, began + SECONDS * 1000 - Date.now()));
    };
    const hitting = hit();
    await Promise.all([soak.work(CLIENTS, hitting), hitting]);
    const came = await printed(world);
    // Sent off, and told as such; of what was cancelled no more than was asked for, of all else all of it, once.
    const { accepted, samples, wrong } = soak;
    expect(wrong).toEqual([]);
    expect(
      accepted.filter(({ canceled, state }) => state !== 'completed' && !(canceled && state === 'canceled')),
    ).toEqual([]);
    const differs = accepted.filter(({ title, sheets, state }) => {
      const out = came.get(title) ?? 0;
      return state === 'completed' ? out !== sheets : out > sheets;
    });
    expect(differs.map((one) => ({ ...one, came: came.get(one.title) }))).toEqual([]);
    expect(accepted.length).toBeGreaterThanOrEqual(CLIENTS);
    // All is removed, as far as nobody needs it.
    for (let left = await world.jobs(); left.length > 0; left = await world.jobs()) {
      for (const { id } of left) await fetch(`${world.base}/api/jobs/${id}`, { method: 'DELETE' });
    }
    await world.killServer();
    await world.startServer({ ...server, FOGLIO_KEEP_DAYS: '0', FOGLIO_GRACE_HOURS: '0' });
    const none = { jobs: 0, files: 0, documents: 0, sources: 0, sendings: 0, incoming: 0, tasks: 0 };
    await expect.poll(async () => (await world.api<Health>('/health')).holds, { timeout: 60_000 }).toMatchObject(none);
    const { holds, past } = await world.api<Health>('/health');
    expect(past.reduce((sum, { sendings }) => sum + sendings, 0)).toBe(accepted.length);
    const sent = accepted.reduce((sum, { sheets }) => sum + sheets, 0);
    console.log(`${SECONDS} s: ${accepted.length} jobs of ${sent} sheets, all printed once; ${blows().length} blows`);
    console.log(
      `the database: ${megabytes(empty.holds.databaseBytes)} at first, ${megabytes(holds.databaseBytes)} at last`,
    );
    if (SECONDS < 900) return;
    for (const program of ['server', 'printer'] as const) {
      const [early, late] = [usual(samples, program, 300, 600), usual(samples, program, SECONDS - 300, SECONDS)];
      console.log(
        `${program}: ${megabytes(early.memory)} and ${early.descriptors} descriptors in the second five minutes, ${megabytes(late.memory)} and ${late.descriptors} in the last`,
      );
      expect(late.memory).toBeLessThan(1.3 * early.memory);
      expect(late.descriptors).toBeLessThan(1.3 * early.descriptors);
    }
    expect(holds.databaseBytes).toBeLessThan(empty.holds.databaseBytes + 32 * 1024 * 1024);
  } finally {
    await world.stop();
    if (before === undefined) delete process.env['TMPDIR'];
    else process.env['TMPDIR'] = before;
    ownDatabase('stop', DATABASE);
    disk.remove();
  }
});

interface Health {
  readonly holds: Readonly<Record<string, number>> & { readonly databaseBytes: number };
  readonly past: readonly { readonly sendings: number }[];
}

const megabytes = (bytes: number): string => `${Math.round(bytes / 1024 / 1024)} MB`;
