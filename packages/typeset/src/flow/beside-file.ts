import { posix } from 'node:path';
import { addressOf, typeOf, type AllBeside, type Beside } from '../browser/beside';

/** Reads what stands beside a document's file. @param path from there, never out of its folder @returns null where nothing is there */
export type ReadBeside = (path: string) => Uint8Array | null;

/** More than any page of a person's shows. */
const MOST = 500;

/** What a page may ask for: addresses in what it is written in, and in its style. */
const ASKED = [
  /(?:src|href|poster|data)\s*=\s*(?:"([^"]+)"|'([^']+)'|([^\s"'>]+))/gi,
  /srcset\s*=\s*"([^"]+)"/gi,
  /url\(\s*["']?([^"')]+)/gi,
  /@import\s+["']([^"']+)/gi,
];

/** Paths that a page asks for beside itself; none that lead out of its folder, or anywhere else. */
export function pathsAskedFor(text: string, folder = ''): string[] {
  const asked = ASKED.flatMap((pattern) =>
    [...text.matchAll(pattern)].map((found) => found.slice(1).find((one) => one)),
  )
    .flatMap((one) =>
      one?.includes(',') && /\s/.test(one) ? one.split(',').map((part) => part.trim().split(/\s/)[0]) : [one],
    )
    .flatMap((one) => (one && !/^([a-z][a-z0-9+.-]*:|\/|#)/i.test(one) ? [pathIn(folder, one)] : []));
  return [...new Set(asked)].filter((path) => path !== '' && !path.startsWith('..'));
}

function pathIn(folder: string, written: string): string {
  const [path = ''] = written.split(/[?#]/);
  try {
    return posix.normalize(posix.join(folder, decodeURIComponent(path)));
  } catch {
    return '';
  }
}

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
