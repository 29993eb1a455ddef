import { pathsAskedFor } from '@foglio/core';
import { posix } from 'node:path';
import { addressOf, typeOf, type AllBeside, type Beside } from '../browser/beside';

/** Reads what stands beside a document's file. @param path from there, never out of its folder @returns null where nothing is there */
export type ReadBeside = (path: string) => Uint8Array | null;

/** More than any page of a person's shows. */
const MOST = 500;

/** What a page shows of what stands beside its file, and what its styles ask for in turn. */
export function besideOf(html: string, read: ReadBeside): AllBeside {
  const found = new Map<string, Beside>();
  const wanted = pathsAskedFor(html);
  for (let at = 0; at < wanted.length && at < MOST; at += 1) {
    const path = wanted[at]!;
    const type = typeOf(path);
    const bytes = type === null ? null : read(path);
    if (type === null || bytes === null) continue;
    found.set(addressOf(path), { bytes, type });
    if (type !== 'text/css') continue;
    const more = pathsAskedFor(new TextDecoder().decode(bytes), posix.dirname(path));
    wanted.push(...more.filter((one) => !wanted.includes(one)));
  }
  return found;
}
