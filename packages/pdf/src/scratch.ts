import { readFileSync } from 'node:fs';
import { mkdtemp, readdir, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** What folders of this process are called: by it, and by when it began, since numbers of processes are given again. */
export const scratchPrefix = (): string => join(tmpdir(), `foglio-${process.pid}-${begun(process.pid) ?? 0}-`);

const NAME = /^foglio-(\d+)-(\d+)-\w+$/;

/** Does work that needs files, in a folder of its own that is gone afterwards, whatever happens. */
export async function inScratchFolder<T>(work: (path: (name: string) => string) => Promise<T>): Promise<T> {
  const folder = await mkdtemp(scratchPrefix());
  try {
    return await work((name) => join(folder, name));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Younger ones may be of a process that this one cannot see, as from within a container, in milliseconds. */
const LEFT_FOR_MS = 60 * 60_000;

/**
 * Removes the folders of processes that were killed: documents lie in them.
 *
 * @param leftForMs younger ones stay
 * @returns how many
 */
export async function sweepScratch(folder = tmpdir(), leftForMs = LEFT_FOR_MS): Promise<number> {
  let swept = 0;
  for (const name of await readdir(folder)) {
    const [, pid, ticks] = NAME.exec(name) ?? [];
    if (pid === undefined || begun(Number(pid)) === ticks) continue;
    const path = join(folder, name);
    try {
      if (Date.now() - (await stat(path)).mtimeMs < leftForMs) continue;
      await rm(path, { recursive: true, force: true });
      swept += 1;
    } catch {
      // It is another user's, or gone by now.
    }
  }
  return swept;
}

/** When a process began, in ticks since the machine did (proc(5), stat, field 22); null: there is none. */
function begun(pid: number): string | null {
  try {
    // After the name, which may hold anything.
    return readFileSync(`/proc/${pid}/stat`, 'latin1').split(') ').at(-1)?.split(' ')[19] ?? null;
  } catch {
    return null;
  }
}
