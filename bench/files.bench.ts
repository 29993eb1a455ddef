import { spawn } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { contentBomb, manyObjects, objectBomb } from '../packages/pdf/test/hostile-pdf';
import { expect, ROOT, test, type World } from '../tests/e2e/world';
import { median, report } from './figures';
import { upload } from './upload';

/** The server and the files it is given: how soon it knows them, and whether it answers meanwhile. */

/** An office's server has been up for a while: its next worker is ready. */
const settle = (): Promise<void> => wait(4_000);

interface Answers {
  /** Milliseconds to each. */
  readonly taken: readonly number[];
  /** The same less the time that the machine was kept from running at all meanwhile. */
  readonly own: readonly number[];
}

/** Answers to another request, asked again and again until the work is done. */
async function answersDuring(world: World, work: Promise<unknown>): Promise<Answers> {
  let done = false;
  void work.finally(() => (done = true));
  const machine = new Machine();
  const taken: number[] = [];
  const own: number[] = [];
  while (!done) {
    const start = Date.now();
    const began = performance.now();
    await (await fetch(`${world.base}/api/jobs`)).json();
    const took = performance.now() - began;
    taken.push(took);
    await wait(20);
    own.push(took - machine.stoodStill(start, start + took));
  }
  machine.leave();
  return { taken, own };
}

/** A process that only looks at the clock, and tells when it stood still because the machine itself did. */
class Machine {
  private readonly child = spawn(process.execPath, ['-e', WATCH], { stdio: ['ignore', 'pipe', 'inherit'] });
  private readonly still: [from: number, to: number][] = [];

  constructor() {
    this.child.stdout.on('data', (part: Buffer) => {
      for (const line of part.toString().split('\n')) {
        const [from, to] = line.split(' ').map(Number);
        if (from && to) this.still.push([from, to]);
      }
    });
  }

  /** Milliseconds, of those between two times. */
  stoodStill(from: number, to: number): number {
    return this.still.reduce((sum, [start, end]) => sum + Math.max(0, Math.min(to, end) - Math.max(from, start)), 0);
  }

  leave(): void {
    this.child.kill();
  }
}

/** Tells of every time it comes late while the host gave the machine's time to another (proc(5), stat: steal), and how much. */
const WATCH = `
  const { readFileSync } = require('node:fs');
  const stolen = () => 10 * Number(readFileSync('/proc/stat', 'utf8').split('\\n')[0].split(/ +/)[8]);
  let [last, before] = [Date.now(), stolen()];
  setInterval(() => {
    const [now, after] = [Date.now(), stolen()];
    const late = Math.min(now - last - 4, after - before);
    if (late > 0) process.stdout.write((now - late) + ' ' + now + '\\n');
    [last, before] = [now, after];
  }, 4);`;

const HOSTILE: readonly [string, () => Uint8Array][] = [
  ['a million objects', () => manyObjects(1_000_000)],
  ['objects that inflate to 700 MB', () => objectBomb(700)],
  ['content that inflates to gigabytes', () => contentBomb(700)],
];

for (const [what, make] of HOSTILE) {
  test(`answers while a file of ${what} is taken in and looked through`, async ({ world }) => {
    const file = join(ROOT, '.foglio/bench/hostile.pdf');
    writeFileSync(file, make());
    await settle();
    let status = 0;
    const work = async (): Promise<void> => {
      const answer = await upload(world, file);
      status = answer.status;
      if (status !== 201) return;
      while ((await world.api<{ read: number }>(`/files/${answer.id}/facts?from=0`)).read === 0) await wait(300);
    };
    const { taken, own } = await answersDuring(world, work());
    expect([201, 422]).toContain(status);
    report(`slowest of ${taken.length} answers while reading ${what}`, Math.max(...taken), 'ms');
    report('  less the time that the host took from the machine meanwhile', Math.max(...own), 'ms', 'under 200 ms');
    report('  half of them within', median(taken), 'ms');
  });
}

const MANUAL_PAGES = 1_158;

/** Seconds until so much is known of a manual that was uploaded. */
interface Knowing {
  readonly sizes: number;
  readonly firstScreen: number;
  readonly everything: number;
}

async function know(world: World, file: string): Promise<Knowing> {
  const start = performance.now();
  const since = (): number => (performance.now() - start) / 1000;
  const answer = await upload(world, file);
  expect(answer.pages).toHaveLength(MANUAL_PAGES);
  let read = 0;
  let firstScreen = NaN;
  while (read < MANUAL_PAGES) {
    ({ read } = await world.api<{ read: number }>(`/files/${answer.id}/facts?from=${read}`));
    if (read >= 20 && Number.isNaN(firstScreen)) firstScreen = since();
    await wait(100);
  }
  return { sizes: answer.milliseconds / 1000, firstScreen, everything: since() };
}

test('facts of a manual of 1,158 pages', async ({ world }) => {
  const manual = readFileSync(join(ROOT, '.foglio/manual/octave.pdf'));
  const file = join(ROOT, '.foglio/bench/again.pdf');
  const runs: Knowing[] = [];
  for (let round = 0; round < 3; round += 1) {
    // Another file each time: what is known is not read again.
    writeFileSync(file, Buffer.concat([manual, Buffer.from(`\n% ${round}\n`)]));
    await settle();
    runs.push(await know(world, file));
  }
  report('1,158 pages: count, sizes, labels and outline', median(runs.map(({ sizes }) => sizes)), 's', 'under 1 s');
  report('  of the first file after the server’s start', runs[0]!.sizes, 's');
  report('  everything of the first screen’s 20 pages', median(runs.map((one) => one.firstScreen)), 's');
  report('  everything', median(runs.map(({ everything }) => everything)), 's', 'under 8 s');
});
