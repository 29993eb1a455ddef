import { readFileSync } from 'node:fs';
import { rowsBook } from '../packages/typeset/test/make-workbook';
import { expect, test, type World } from '../tests/e2e/world';
import { report } from './figures';

/** What a person waits for, from the upload to the answer with the first pages, and until all are there. */

interface Taken {
  readonly id: string;
  readonly pages: readonly unknown[];
  readonly laid?: { readonly unfinished?: { readonly trouble: string | null } };
}

const seconds = (from: number): number => (performance.now() - from) / 1000;

/** Memory that the server and all that it started hold, in megabytes (proc(5)). */
function heldBy(pid: number): number {
  const children = readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').filter(Boolean);
  const own = Number(readFileSync(`/proc/${pid}/statm`, 'utf8').split(' ')[1]) / 256;
  return own + children.reduce((sum, child) => sum + heldQuietly(Number(child)), 0);
}

function heldQuietly(pid: number): number {
  try {
    return heldBy(pid);
  } catch {
    return 0;
  }
}

async function time(world: World, what: string, name: string, bytes: Uint8Array, whole: boolean): Promise<number> {
  // The next worker gets ready, as it has in an office between two files.
  await new Promise((resolve) => setTimeout(resolve, 4_000));
  const begin = performance.now();
  const answer = await fetch(`${world.base}/api/files?name=${name}&first=true`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: new Uint8Array(bytes),
  });
  expect(answer.status).toBe(201);
  let file = (await answer.json()) as Taken;
  report(`${what}: first pages`, seconds(begin), 's');
  let most = 0;
  while (whole && file.laid?.unfinished) {
    most = Math.max(most, heldBy(world.serverPid));
    await new Promise((resolve) => setTimeout(resolve, 50));
    file = await world.api<Taken>(`/files/${file.id}`);
  }
  if (whole) report(`  all ${file.pages.length} pages`, seconds(begin), 's');
  return most;
}

const rowsOf = (count: number): unknown[][] =>
  Array.from({ length: count }, (_, at) => [
    at,
    `Player ${at}`,
    'Viola',
    'Hohenfels',
    at % 13,
    1.5,
    12.25,
    2.3,
    14.5,
    at / 7,
    `row ${at}`,
  ]);

const csvOf = (rows: readonly (readonly unknown[])[]): Uint8Array =>
  new TextEncoder().encode(rows.map((row) => row.join(',')).join('\n'));

test('tables of 2,000 and of 100,000 rows of 11 columns', async ({ world }) => {
  test.setTimeout(600_000);
  await time(world, 'a workbook, to warm up', 'warm.xlsx', await rowsBook(rowsOf(10)), true);
  await time(world, '2,000 rows, workbook', 'some.xlsx', await rowsBook(rowsOf(2_000)), true);
  await time(world, '2,000 rows, CSV', 'some.csv', csvOf(rowsOf(2_000)), true);
  const workbook = await time(world, '100,000 rows, workbook', 'many.xlsx', await rowsBook(rowsOf(100_000)), true);
  report('  most memory of the server and all it started', workbook, 'MB', 'under 600 MB');
  const csv = await time(world, '100,000 rows, CSV', 'many.csv', csvOf(rowsOf(100_000)), true);
  report('  most memory of the server and all it started', csv, 'MB', 'under 600 MB');
});

test('a web page and a Markdown text', async ({ world }) => {
  const words = 'The orchestra rehearses on Mondays, and the strings stay for another hour. '.repeat(6);
  const text = Array.from({ length: 120 }, (_, at) => `## Part ${at}\n\n${words}\n`).join('\n');
  await time(world, 'Markdown, the browser not yet started', 'first.md', new TextEncoder().encode('# One'), true);
  await time(world, 'Markdown of 20 pages', 'text.md', new TextEncoder().encode(text), true);
});
