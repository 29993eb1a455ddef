import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Does work that needs files, in a folder of its own that is gone afterwards, whatever happens. */
export async function inScratchFolder<T>(work: (path: (name: string) => string) => Promise<T>): Promise<T> {
  const folder = await mkdtemp(join(tmpdir(), 'foglio-'));
  try {
    return await work((name) => join(folder, name));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
