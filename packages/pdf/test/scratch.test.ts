import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, dirname, join } from 'node:path';
import { inScratchFolder, sweepScratch } from '../src';

let folder: string;
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'scratch-test-'))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** A folder with a document in it that nobody touched for so long. */
function left(name: string, minutes: number): void {
  mkdirSync(join(folder, name));
  writeFileSync(join(folder, name, 'letter.pdf'), 'x');
  const at = Date.now() / 1000 - minutes * 60;
  utimesSync(join(folder, name), at, at);
}

test('a folder is gone after the work, also where that fails', async () => {
  const seen: string[] = [];
  const work = (path: (name: string) => string): Promise<void> => {
    seen.push(dirname(path('a')));
    writeFileSync(path('a'), 'x');
    return Promise.reject(new Error('it failed'));
  };
  await expect(inScratchFolder(work)).rejects.toThrow('it failed');
  expect(seen.map(existsSync)).toEqual([false]);
});

test('what processes that are gone have left is removed; what is in use, young, or somebody else’s stays', async () => {
  // A process that has ended, and whose number no other has yet.
  const { pid: gone } = spawnSync('true');
  const own = await inScratchFolder((path) => Promise.resolve(basename(dirname(path('a')))));
  left(`foglio-${gone}-123-abcdef`, 61);
  left(`foglio-${gone}-123-young`, 59);
  left(own, 300);
  // The number of a process that lives, given again.
  left(`foglio-${process.pid}-1-abcdef`, 61);
  left('foglio-browser-abc', 300);
  left('other', 300);
  expect(await sweepScratch(folder)).toBe(2);
  expect(readdirSync(folder).sort()).toEqual([own, `foglio-${gone}-123-young`, 'foglio-browser-abc', 'other'].sort());
});
