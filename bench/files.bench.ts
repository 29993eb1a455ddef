import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { contentBomb, manyObjects, objectBomb } from '../packages/pdf/test/hostile-pdf';
import { expect, ROOT, test, type World } from '../tests/e2e/world';
import { median, report } from './figures';

/** The server and the files it is given: how soon it knows them, and whether it answers meanwhile. */

const upload = (world: World, bytes: Uint8Array): Promise<Response> =>
  fetch(`${world.base}/api/files?name=x.pdf`, { method: 'POST', body: Buffer.from(bytes) });

/** Milliseconds of answers to another request, asked again and again until the work is done. */
async function answersDuring(world: World, work: Promise<unknown>): Promise<number[]> {
  let done = false;
  void work.finally(() => (done = true));
  const taken: number[] = [];
  while (!done) {
    const start = performance.now();
    await (await fetch(`${world.base}/api/printers/upper-office`)).json();
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
    const bytes = make();
    await world.api('/printers/upper-office');
    let status = 0;
    const work = async (): Promise<void> => {
      const answer = await upload(world, bytes);
      status = answer.status;
      if (status !== 201) return;
      const { id } = (await answer.json()) as { id: string };
      while ((await world.api<{ read: number }>(`/files/${id}/facts?from=0`)).read === 0) await wait(300);
    };
    const taken = await answersDuring(world, work());
    expect([201, 422]).toContain(status);
    report(`slowest of ${taken.length} answers while reading ${what}`, Math.max(...taken), 'ms', 'under 200 ms');
    report('  half of them within', median(taken), 'ms');
  });
}

test('facts of a manual of 1,000 pages', async ({ world }) => {
  const bytes = readFileSync(join(ROOT, '.foglio/bench/manual.pdf'));
  const start = performance.now();
  const answer = (await (await upload(world, bytes)).json()) as { id: string; pages: object[] };
  report('1,000 pages: count and sizes', (performance.now() - start) / 1000, 's', 'under 1 s');
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
