import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';

/** A document as it is sent, from wherever its bytes come. */
export interface DocumentData {
  readonly length: number;
  readonly parts: () => AsyncIterable<Uint8Array> | Iterable<Uint8Array>;
}

export const dataOf = (bytes: Uint8Array): DocumentData => ({ length: bytes.length, parts: () => [bytes] });

/** A file that stays as it is until it is sent; no more of it is in memory than is on its way. */
export async function dataOfFile(path: string): Promise<DocumentData> {
  const { size } = await stat(path);
  return { length: size, parts: () => createReadStream(path) };
}
