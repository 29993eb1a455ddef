import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';

/** The middle of several runs, which a single slow one does not move. */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? NaN;
}

/** What the last run made: kept, since an engine leaves out work whose result nobody takes. */
const kept: unknown[] = [];

/** Milliseconds of several runs of the same work, after as many as warm the engine up. */
export function timed(work: () => unknown, runs = 31, warmUp = 40): number[] {
  for (let run = 0; run < warmUp; run += 1) kept[0] = work();
  return Array.from({ length: runs }, () => {
    const start = performance.now();
    kept[0] = work();
    return performance.now() - start;
  });
}

setFlagsFromString('--expose-gc');

/** Collects all garbage, so that a figure does not pay for what was measured before it. */
export const collect = runInNewContext('gc') as () => void;

/** The golden ratio: its multiples never fall into step with anything. */
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** How many times longer one work takes than another. */
export interface Ratio {
  /** Of all runs together: each work pays for collecting what it allocates. */
  readonly totals: number;
  /** Of the middle runs, which collect little or nothing. */
  readonly medians: number;
}

/**
 * Compares two works: runs in turn, so that what the machine does besides falls on both, and in an irregular order, since
 * otherwise collecting the garbage of both always falls on the same one.
 */
export function ratio(work: () => unknown, bare: () => unknown, rounds = 200): Ratio {
  collect();
  timed(work, 1);
  timed(bare, 1);
  const once = (one: () => unknown): number => timed(one, 1, 0)[0] ?? NaN;
  const spent = { work: [] as number[], bare: [] as number[] };
  for (let round = 0; round < rounds; round += 1) {
    if ((round * GOLDEN) % 1 < 0.5) {
      spent.work.push(once(work));
      spent.bare.push(once(bare));
    } else {
      spent.bare.push(once(bare));
      spent.work.push(once(work));
    }
  }
  return { totals: sum(spent.work) / sum(spent.bare), medians: median(spent.work) / median(spent.bare) };
}

const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);

export function report(what: string, value: number, unit: string, wanted?: string): void {
  console.log(`${what}: ${value.toFixed(value < 10 ? 2 : 1)} ${unit}${wanted ? ` (wanted: ${wanted})` : ''}`);
}

/** Reports a ratio of all runs together, and beside it that of the middle ones. */
export function reportRatio(what: string, { totals, medians }: Ratio, wanted: string): void {
  report(`${what} (of the middle runs ${medians.toFixed(1)})`, totals, 'times', wanted);
}
