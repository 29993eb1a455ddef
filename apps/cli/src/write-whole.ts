import { rename, rm, writeFile } from 'node:fs/promises';
import { InputError, sayFileTrouble } from './input-error';

/** Written beside its place and moved there, so that nothing half-written is ever found under the name. @throws InputError */
export async function writeWhole(path: string, bytes: Uint8Array | readonly Uint8Array[]): Promise<void> {
  const unfinished = `${path}.${process.pid}.part`;
  try {
    await writeFile(unfinished, bytes);
    await rename(unfinished, path);
  } catch (error) {
    await rm(unfinished, { force: true });
    throw new InputError(path, sayFileTrouble(error));
  }
}
