import { writeFile, type Space } from './objects/write-file';

/** A file with object streams, of what the trailer of a space leads to and nothing else, and without a lock. */
export const savePdf = (space: Space): Uint8Array => joined(writeFile(space));

/** A file of its pieces. */
export function joined(pieces: readonly Uint8Array[]): Uint8Array {
  const bytes = new Uint8Array(pieces.reduce((sum, piece) => sum + piece.length, 0));
  let at = 0;
  for (const piece of pieces) {
    bytes.set(piece, at);
    at += piece.length;
  }
  return bytes;
}
