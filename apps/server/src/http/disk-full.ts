import { tmpdir } from 'node:os';

/** What a person can do where there is no room left. */
export const sayFull = (where: string): string =>
  `There is no room left ${where}. Make room there and do it again; nothing was stored, and nothing stored was changed.`;

/** Where files are worked on. */
export const inScratch = (): string => `in ${tmpdir()}, where Foglio works on files`;

interface Caused {
  readonly code?: unknown;
  readonly cause?: Caused;
}

/**
 * Says what is full, where an error only means that a disk is: what a system tells of it (errno(3)), or PostgreSQL (appendix A,
 * 53100). Null: it means something else.
 */
export function diskFull(error: unknown): string | null {
  for (let at = error as Caused | null | undefined; typeof at === 'object' && at !== null; at = at.cause) {
    const { code } = at;
    if (code === 'ENOSPC' || code === 'EDQUOT') return sayFull(inScratch());
    if (code === '53100') return sayFull('where Foglio’s database lies');
  }
  return null;
}
