import { createReadStream } from 'node:fs';

/** Bytes a row: large enough to be quick, small enough to stream. */
const CHUNK = 1024 * 1024;

/** The bytes of a file in pieces as they are stored, with their places from 0. */
export async function* chunksOf(path: string): AsyncGenerator<{ readonly position: number; readonly data: Buffer }> {
  let position = 0;
  for await (const data of createReadStream(path, { highWaterMark: CHUNK }) as AsyncIterable<Buffer>) {
    yield { position, data };
    position += 1;
  }
}

/** Stored pieces one after the other, so that no more than one is held in memory. @param find the piece at a place */
export async function* chunksFrom(
  find: (position: number) => Promise<readonly { readonly data: Buffer }[]>,
): AsyncGenerator<Buffer> {
  for (let position = 0; ; position += 1) {
    const [row] = await find(position);
    if (!row) return;
    yield row.data;
  }
}
