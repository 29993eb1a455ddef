import { spawn, type ChildProcess } from 'node:child_process';
import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parse } from 'csv-parse/sync';
import { numberedPdf } from '../../packages/pdf/test/make-pdf';
import { expect, ROOT, test, type World } from './world';

const FOGLIO = join(ROOT, 'apps/cli/dist/foglio.js');
/** `npm run soak` takes five times as many. */
const FILES = 24 * Number(process.env['FOGLIO_TIMES'] ?? 1);

/** Two pages on both sides of a sheet of Tray 1, after a first page by itself from Tray 2. */
const SETUP = {
  version: 1,
  documents: [{ file: '*' }],
  sides: 'two-sided',
  tray: 'tray-1',
  routes: [{ pages: '1', tray: 'tray-2', sides: 'one-sided' }],
};

interface Run {
  readonly child: ChildProcess;
  readonly ended: Promise<number | null>;
  readonly said: () => string;
}

function foglio(cwd: string, ...args: string[]): Run {
  const env = { PATH: process.env['PATH'] ?? '', HOME: cwd };
  const child = spawn(process.execPath, [FOGLIO, ...args], { cwd, env, stdio: ['ignore', 'pipe', 'pipe'] });
  let said = '';
  child.stdout.on('data', (part: Buffer) => (said += part.toString()));
  child.stderr.on('data', (part: Buffer) => (said += part.toString()));
  const ended = new Promise<number | null>((resolve) => child.once('exit', (code) => resolve(code)));
  return { child, ended, said: () => said };
}

interface OutputSheet {
  readonly job: number;
  readonly tray: string;
}

const sheetsOut = async (world: World): Promise<readonly OutputSheet[]> =>
  ((await (await fetch(`${world.panel}/output`)).json()) as { delivered: OutputSheet[] }).delivered;

/** How many jobs something has come out of. */
const jobsOut = async (world: World): Promise<number> => new Set((await sheetsOut(world)).map(({ job }) => job)).size;

/** What lies in the printer's output, from the bottom: of each job its name and its sheets' trays. */
async function output(world: World): Promise<[string, string[]][]> {
  const byJob = new Map<number, string[]>();
  for (const { job, tray } of await sheetsOut(world)) byJob.set(job, [...(byJob.get(job) ?? []), tray]);
  const named: [string, string[]][] = [];
  for (const [job, trays] of byJob) {
    const { name } = (await (await fetch(`${world.panel}/jobs/${job}`)).json()) as { name: string };
    // Its name ends in the mark of its sending.
    named.push([name.replace(/ #[0-9a-f]{8}$/, ''), trays]);
  }
  return named;
}

test('many files, killed in the middle and run again: each is delivered exactly once', async ({ world }, testInfo) => {
  test.setTimeout(240_000 + FILES * 3_000);
  const cwd = testInfo.outputPath('series');
  mkdirSync(cwd, { recursive: true });
  writeFileSync(join(cwd, 'contracts.json'), JSON.stringify(SETUP));
  const bytes = numberedPdf(3);
  const names = Array.from({ length: FILES }, (_, at) => `letter-${String(at + 1).padStart(3, '0')}.pdf`);
  names.forEach((name) => writeFileSync(join(cwd, name), bytes));
  const run = (): Run =>
    foglio(
      cwd,
      'series',
      '--ticket',
      'contracts.json',
      ...names,
      '--to',
      world.printerUri,
      '--yes',
      '--report',
      'report.csv',
    );

  // Killed three times, each time further on, in the middle of what it is doing.
  for (const reached of [0.2, 0.45, 0.75].map((part) => Math.floor(part * FILES))) {
    // However late the kill comes, there is not paper for all of them: tray 2 gives one sheet to each.
    await world.load('tray-2', reached + 5 - (await jobsOut(world)));
    const one = run();
    await expect.poll(() => jobsOut(world), { timeout: 90_000, intervals: [20] }).toBeGreaterThan(reached);
    one.child.kill('SIGKILL');
    await one.ended;
    expect(await jobsOut(world)).toBeLessThan(FILES);
  }
  await world.load('tray-2', FILES);
  const last = run();
  expect([await last.ended, last.said()]).toEqual([
    0,
    expect.stringContaining(`${FILES} of ${FILES} files delivered, ${2 * FILES} sheets.`),
  ]);

  expect(await output(world)).toEqual(names.map((name) => [name, ['tray-2', 'tray-1']]));
  const report: Record<string, string>[] = parse(readFileSync(join(cwd, 'report.csv')), { bom: true, columns: true });
  expect(report.map(({ File, Delivered, Outcome }) => [File, Delivered, Outcome])).toEqual(
    names.map((name) => [name, '2', 'delivered']),
  );

  // Once more it has nothing to do.
  const again = run();
  expect([await again.ended, again.said()]).toEqual([0, expect.stringContaining(`${FILES} files were done before.`)]);
  expect(await jobsOut(world)).toBe(FILES);
});

test('a printer that holds other paper than was planned gets nothing more', async ({ world }, testInfo) => {
  const cwd = testInfo.outputPath('changed');
  mkdirSync(cwd, { recursive: true });
  writeFileSync(join(cwd, 'contracts.json'), JSON.stringify(SETUP));
  const names = ['a.pdf', 'b.pdf', 'c.pdf'];
  names.forEach((name) => writeFileSync(join(cwd, name), numberedPdf(3)));
  await fetch(`${world.panel}/trays/tray-2`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ loaded: 0 }),
  });
  const one = foglio(cwd, 'series', '--ticket', 'contracts.json', ...names, '--to', world.printerUri, '--yes');
  await expect.poll(one.said).toContain('b.pdf: 2 sheets, job 2');
  // The printer forgets what it was about, and comes back with labels in a tray.
  await world.begunWith({ 'tray-1': { type: 'labels' } });
  expect([await one.ended, one.said()]).toEqual([
    1,
    expect.stringContaining('c.pdf: since it was planned, this changed: the paper. Nothing of it was sent;'),
  ]);
  expect(await jobsOut(world)).toBe(0);
});

test('what is put into a watched folder is sent, once, and what does not fit is told', async ({ world }, testInfo) => {
  const cwd = testInfo.outputPath('watched');
  const folder = join(cwd, 'in');
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(cwd, 'contracts.json'), JSON.stringify({ ...SETUP, routes: [{ pages: '3', tray: 'tray-2' }] }));
  writeFileSync(join(folder, 'first.pdf'), numberedPdf(4));
  const run = (): Run =>
    foglio(
      cwd,
      'series',
      '--ticket',
      'contracts.json',
      '--watch',
      'in',
      '--to',
      world.printerUri,
      '--report',
      'report.pdf',
    );
  const one = run();
  await expect.poll(() => jobsOut(world), { timeout: 30_000 }).toBe(1);
  // Written somewhere else and moved in whole, as scanners do.
  writeFileSync(join(cwd, 'second.pdf'), numberedPdf(5));
  renameSync(join(cwd, 'second.pdf'), join(folder, 'second.pdf'));
  writeFileSync(join(folder, 'wide.pdf'), numberedPdf(2, 842, 1191));
  await expect.poll(() => jobsOut(world), { timeout: 30_000 }).toBe(2);
  await expect.poll(one.said, { timeout: 30_000 }).toContain('wide.pdf: not sent: Tray 1 holds A4');
  one.child.kill('SIGINT');
  expect(await one.ended).toBe(0);
  expect(readFileSync(join(cwd, 'report.pdf')).subarray(0, 5).toString()).toBe('%PDF-');

  const again = run();
  await expect.poll(again.said, { timeout: 30_000 }).toContain('wide.pdf: not sent');
  again.child.kill('SIGINT');
  await again.ended;
  expect((await output(world)).map(([name]) => name)).toEqual(['first.pdf', 'second.pdf']);
});
