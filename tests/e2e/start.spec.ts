import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { connect } from 'node:net';
import { join } from 'node:path';
import type { JobList } from '@foglio/api';
import { expect, test } from '@playwright/test';
import { ROOT } from './world';

const NAME = 'start-test';
const HOME = join(ROOT, '.foglio', NAME);

interface Started {
  readonly child: ChildProcess;
  readonly address: string;
  readonly told: () => string;
  readonly seconds: number;
}

const running = new Set<ChildProcess>();

// What a failed test left behind is ended all the same.
test.afterAll(() => running.forEach(({ pid }) => process.kill(-pid!, 'SIGINT')));

/** `npm start` as a person types it, under a name of its own, until it says where it serves. */
function start(): Promise<Started> {
  const began = Date.now();
  const env = { ...process.env, FOGLIO_NAME: NAME, FOGLIO_SHEET_MS: '5' };
  delete (env as Partial<Record<string, string>>)['DATABASE_URL'];
  // A process group of its own, so that Ctrl+C reaches all of it, as in a terminal.
  const child = spawn('npm', ['start'], { cwd: ROOT, env, detached: true, stdio: ['ignore', 'pipe', 'pipe'] });
  running.add(child);
  child.once('exit', () => running.delete(child));
  let told = '';
  child.stderr.on('data', (part: Buffer) => (told += part.toString()));
  return new Promise((resolve, reject) => {
    child.once('exit', (code) => reject(new Error(`npm start ended with ${code}: ${told}`)));
    child.stdout.on('data', (part: Buffer) => {
      told += part.toString();
      const address = /(?:serving|already running) at (http:\S+?);?\s/.exec(told)?.[1];
      if (address) resolve({ child, address, told: () => told, seconds: (Date.now() - began) / 1000 });
    });
  });
}

function ctrlC({ child }: Started): Promise<void> {
  return new Promise((resolve) => {
    child.once('exit', () => resolve());
    process.kill(-child.pid!, 'SIGINT');
  });
}

const titles = async (address: string): Promise<string[]> => {
  const { jobs } = (await (await fetch(`${address}/api/jobs`)).json()) as JobList;
  return jobs.map(({ ticket }) => ticket.title);
};

const isOpen = (port: string): Promise<boolean> =>
  new Promise((resolve) => {
    const socket = connect(Number(port), '127.0.0.1');
    socket.once('connect', () => resolve((socket.destroy(), true)));
    socket.once('error', () => resolve(false));
  });

const portOf = (what: string): string => readFileSync(join(HOME, `${what}.port`), 'utf8').trim();

/** The jobs of the demo, as the Desk lists them. */
const DEMO_TITLES = [
  'Season contract',
  'Autumn programme',
  'Stage plan',
  'Rehearsal timetable',
  'Players’ notes',
  'Flyer, open rehearsal',
  'Grant return',
  'Season budget',
  'Letter to the Town Hall',
  'News for players',
];

const everyProcess = (): string[] => readdirSync('/proc').filter((one) => /^\d+$/.test(one));

/** Every process that was started, by what /proc tells (proc(5)). */
function processesOf({ child }: Started): number[] {
  const parents = new Map<number, number>();
  for (const name of everyProcess()) {
    try {
      // After the name, which may hold anything: the state, then the parent.
      const fields = readFileSync(`/proc/${name}/stat`, 'utf8').split(') ').at(-1)!.split(' ');
      if (fields[0] !== 'Z') parents.set(Number(name), Number(fields[1]));
    } catch {
      // It has just ended.
    }
  }
  const isOurs = (pid: number | undefined): boolean =>
    pid !== undefined && pid > 1 && (pid === child.pid || isOurs(parents.get(pid)));
  return [...parents.keys()].filter(isOurs);
}

const lives = (pid: number): boolean => {
  try {
    return readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ').at(-1)![0] !== 'Z';
  } catch {
    return false;
  }
};

function commandOf(pid: number): string {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ');
  } catch {
    return '';
  }
}

/** The database's own process; its helpers are called otherwise. */
const postmaster = (): number =>
  everyProcess()
    .map(Number)
    .find((pid) => /\/postgres -D/.test(commandOf(pid)) && commandOf(pid).includes(`port=${portOf('database')}`))!;

test('npm start serves the demo; Ctrl+C, a kill and a hard kill stop all of it and lose nothing; the next start goes on', async () => {
  rmSync(HOME, { recursive: true, force: true });
  const first = await start();
  const programs = ['database', 'upper-office', 'library', 'box-office'];
  const listening = [...programs.map(portOf), new URL(first.address).port];
  expect(await titles(first.address)).toEqual(DEMO_TITLES);
  expect(await Promise.all(listening.map(isOpen))).toEqual(listening.map(() => true));

  // Started again meanwhile, it only tells where it is.
  const second = await start();
  expect([second.address, second.told().includes('already running')]).toEqual([first.address, true]);

  const [job] = ((await (await fetch(`${first.address}/api/jobs`)).json()) as JobList).jobs;
  const body = JSON.stringify({ jobId: job!.id, revision: 1, sheets: job!.sheets });
  const sent = await fetch(`${first.address}/api/sendings`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body,
  });
  expect(sent.status).toBe(202);

  await ctrlC(first);
  expect(first.told()).toContain('stopped; everything is kept for the next start');
  expect(await Promise.all(listening.map(isOpen))).toEqual(listening.map(() => false));
  expect(existsSync(join(HOME, 'address'))).toBe(false);

  const third = await start();
  // A figure for the note, not a check: how fast it is depends on what else the machine does.
  console.log(`started again in ${third.seconds.toFixed(1)} s`);
  expect(await titles(third.address)).toEqual(DEMO_TITLES);
  const states = async (): Promise<string[]> =>
    ((await (await fetch(`${third.address}/api/sendings`)).json()) as { state: string }[]).map(({ state }) => state);
  await expect.poll(states).toEqual(['completed']);

  // What ends by itself is brought back, and that is said; meanwhile nothing else ends with it.
  const programsOf = (): number[] => processesOf(third).filter((pid) => /dist\/main\.js/.test(commandOf(pid)));
  const programNamed = (part: string): number => programsOf().find((pid) => commandOf(pid).includes(part))!;
  const [server, printer] = [programNamed('apps/server'), programNamed('printers/upper-office')];
  for (const pid of [postmaster(), printer, server]) process.kill(pid, 'SIGKILL');
  await expect.poll(() => [server, printer].filter(lives)).toEqual([]);
  await expect.poll(() => titles(third.address).catch(() => []), { timeout: 60_000 }).toEqual(DEMO_TITLES);
  await expect.poll(() => isOpen(portOf('upper-office'))).toBe(true);
  expect(programsOf()).toHaveLength(4);
  for (const what of ['the server', 'the printer upper-office', 'the database']) {
    expect(third.told()).toMatch(new RegExp(`${what} ended by itself`));
  }
  expect(third.told()).not.toContain('the printer library ended');

  // Killed hard, it leaves its programs behind; the next start ends them and serves the same.
  const script = processesOf(third).find((pid) => /^bash scripts\/start\.sh/.test(commandOf(pid)))!;
  const left = processesOf(third).filter((pid) => /dist\/main\.js/.test(commandOf(pid)));
  expect(left).toHaveLength(4);
  process.kill(script, 'SIGKILL');
  await expect.poll(() => lives(script)).toBe(false);
  expect(left.every(lives)).toBe(true);
  const fourth = await start();
  expect(fourth.told()).toContain('ending what a start that was killed has left running');
  expect(left.filter(lives)).toEqual([]);
  expect(await titles(fourth.address)).toEqual(DEMO_TITLES);

  // As a service manager or a container ends it: the signal goes to npm alone.
  const all = processesOf(fourth);
  const gone = new Promise((resolve) => fourth.child.once('exit', resolve));
  process.kill(fourth.child.pid!, 'SIGTERM');
  await gone;
  await expect.poll(() => all.filter(lives)).toEqual([]);
  expect(await Promise.all(listening.map(isOpen))).toEqual(listening.map(() => false));
  rmSync(HOME, { recursive: true, force: true });
});
