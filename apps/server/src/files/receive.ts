import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import type { FileWithHash } from '../pdf/pdf-workers';

/**
 * Writes what comes to a file, as it comes.
 *
 * @param tooLarge made where more comes than may
 * @throws whatever reading throws, and what `tooLarge` makes
 */
export async function receive(
  bytes: AsyncIterable<Uint8Array>,
  path: string,
  limit: number,
  tooLarge: () => Error,
): Promise<FileWithHash> {
  const hash = createHash('sha256');
  let length = 0;
  async function* counted(): AsyncGenerator<Uint8Array> {
    for await (const part of bytes) {
      length += part.length;
      if (length > limit) throw tooLarge();
      hash.update(part);
      yield part;
    }
  }
  await pipeline(counted, createWriteStream(path));
  return { path, bytes: length, sha256: hash.digest('hex') };
}
