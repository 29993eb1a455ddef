import { execFile } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { promisify } from 'node:util';
import { contentBomb, manyObjects, objectBomb } from '../packages/pdf/test/hostile-pdf';
import { expect, ROOT, test, type World } from '../tests/e2e/world';
import { median, report } from './figures';

/** The server and the files it is given: how soon it knows them, and whether it answers meanwhile. */

/** What became of an upload. */
interface Upload {
  readonly status: number;
  /** Where it was taken. */
  readonly id?: string;
  readonly pages?: object[];
  /** From the request to the whole answer. */
  readonly milliseconds: number;
}

/** Uploads a file from another process: sending is work too, and would hold up the very requests that are timed here. */
async function upload(world: World, file: string): Promise<Upload> {
  const script = `
    const [file, url] = process.argv.slice(1);
    const body = require('node:fs').readFileSync(file);
    const start = performance.now();
    fetch(url, { method: 'POST', body }).then(async (answer) => {
      const said = await answer.json();
      console.log(JSON.stringify({ ...said, status: answer.status, milliseconds: performance.now() - start }));
    });`;
  const url = `${world.base}/api/files?name=x.pdf`;
  const { stdout } = await promisify(execFile)(process.execPath, ['-e', script, file, url], { maxBuffer: 1 << 28 });
  return JSON.parse(stdout) as Upload;
}

/** An office's server has been up for a while: its next worker is ready. */
const settle = (): Promise<void> => wait(4_000);

/** Milliseconds of answers to another request, asked again and again until the work is done. */
async function answersDuring(world: World, work: Promise<unknown>): Promise<number[]> {
  let done = false;
  void work.finally(() => (done = true));
  const taken: number[] = [];
  while (!done) {
    const start = performance.now();
    await (await fetch(`${world.base}/api/jobs`)).json();
    taken.push(performance.now() - start);
    await wait(20);
  }
  return taken;
}

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
    const taken = await answersDuring(world, work());
    expect([201, 422]).toContain(status);
    report(`slowest of ${taken.length} answers while reading ${what}`, Math.max(...taken), 'ms', 'under 200 ms');
    report('  half of them within', median(taken), 'ms');
  });
}

test('facts of a manual of 1,000 pages', async ({ world }) => {
  await settle();
  const start = performance.now();
  const answer = await upload(world, join(ROOT, '.foglio/bench/manual.pdf'));
  report('1,000 pages: count and sizes', answer.milliseconds / 1000, 's', 'under 1 s');
  expect(answer.pages).toHaveLength(1000);
  let read = 0;
  let first = NaN;
  while (read < 1000) {
    ({ read } = await world.api<{ read: number }>(`/files/${answer.id}/facts?from=${read}`));
    if (read >= 20 && Number.isNaN(first)) first = performance.now() - start;
    await wait(100);
  }
  report('  everything of the first screen’s 20 pages', first / 1000, 's');
  report('  everything', (performance.now() - start) / 1000, 's', 'under 60 s');
});
