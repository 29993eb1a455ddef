import { statfs } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { inScratch, sayFull } from '../http/disk-full';
import { Problem } from '../http/problem';

/**
 * Looks before work begins whether there is room for it, where files are worked on: for what comes, and what is made of it.
 *
 * @param bytes that come
 * @throws Problem `disk-full`
 */
export async function requireRoom(bytes: number, folder = tmpdir()): Promise<void> {
  const { bavail, bsize } = await statfs(folder);
  if (bytes * 2 > bavail * bsize) throw new Problem('disk-full', sayFull(inScratch()));
}
