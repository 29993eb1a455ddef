/** For each place of a list of pages, how many pages from there on go up by one, down by one, up by two, or stay. */
export interface RunLengths {
  readonly up: Int32Array;
  readonly down: Int32Array;
  readonly upByTwo: Int32Array;
  readonly same: Int32Array;
}

/** Measures all runs of a list in one pass from its end; a page by itself is a run of 1. */
export function measureRuns(pages: readonly number[]): RunLengths {
  const lengths = (step: number): Int32Array => {
    const runs = new Int32Array(pages.length).fill(1);
    for (let at = pages.length - 2; at >= 0; at -= 1) {
      if ((pages[at + 1] as number) - (pages[at] as number) === step) runs[at] = (runs[at + 1] as number) + 1;
    }
    return runs;
  };
  return { up: lengths(1), down: lengths(-1), upByTwo: lengths(2), same: lengths(0) };
}
