/** What a printer has still to do, in the order in which it does it. */
export interface Waiting {
  readonly id: string;
  readonly printerId: string;
  /** All of it, by the printer's pace; null where that is not known. */
  readonly seconds: number | null;
  /** Part of it that came out, 0 to 1, and when that was known: milliseconds since 1970. */
  readonly done: number;
  readonly since: number;
}

/** When something will be ready, and how much comes before it. */
export interface Ready {
  /** Milliseconds since 1970; null where how long it or something before it takes is not known. */
  readonly at: number | null;
  readonly before: number;
}

/**
 * When each will be ready, where all goes on as it should: one after the other at each printer. Of what is being printed the rest takes as
 * long as its part of the whole, counted from when that part was known; never before now.
 *
 * @param now milliseconds since 1970
 */
export function readyTimes(inOrder: readonly Waiting[], now: number): ReadonlyMap<string, Ready> {
  const ends = new Map<string, Ready>();
  const times = new Map<string, Ready>();
  for (const { id, printerId, seconds, done, since } of inOrder) {
    const last = ends.get(printerId) ?? { at: now, before: -1 };
    const left = seconds === null ? null : seconds * 1000 * (1 - done);
    const isFirst = last.before === -1;
    const from = isFirst && done > 0 ? Math.min(since, now) : last.at;
    const at = left === null || from === null ? null : Math.max(now, from + left);
    const ready = { at, before: last.before + 1 };
    times.set(id, ready);
    ends.set(printerId, ready);
  }
  return times;
}
