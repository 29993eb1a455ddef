/** The middle of several runs, which a single slow one does not move. */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? NaN;
}

/** Milliseconds of several runs of the same work, after as many as warm the engine up. */
export function timed(work: () => void, runs = 21, warmUp = 10): number[] {
  for (let run = 0; run < warmUp; run += 1) work();
  return Array.from({ length: runs }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  });
}

export function report(what: string, value: number, unit: string, wanted?: string): void {
  console.log(`${what}: ${value.toFixed(value < 10 ? 2 : 1)} ${unit}${wanted ? ` (wanted: ${wanted})` : ''}`);
}
