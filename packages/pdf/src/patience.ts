import { processorTimeOf } from './process-use';

/** So many times as long may what gets hardly any of the processors take by the clock, or what waits and does nothing. */
const AT_MOST_TIMES = 6;

/** What a measure is taken of, for tests. */
export interface Counted {
  /** Both in milliseconds. */
  readonly clock: () => number;
  readonly worked: () => number;
}

const countedOf = (pid: number | undefined): Counted => ({
  clock: () => performance.now(),
  worked: () => (pid === undefined ? 0 : processorTimeOf(pid)),
});

/**
 * How long work is waited for. A machine that does much else is slow at everything, which says nothing against a document: work
 * is given up once it has had its time by the clock and of the processors too.
 *
 * @param ms milliseconds
 * @param pid the process that works, with all that it starts
 * @returns whether it has had its time
 */
export function patience(
  ms: number,
  pid: number | undefined,
  { clock, worked }: Counted = countedOf(pid),
): () => boolean {
  const [begun, before] = [clock(), worked()];
  return () => {
    const passed = clock() - begun;
    return passed > ms && (passed > ms * AT_MOST_TIMES || worked() - before > ms);
  };
}
