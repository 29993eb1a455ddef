/** Numbers by chance, the same again for the same seed (mulberry32, a public-domain generator). */
export class Chance {
  constructor(private state: number) {}

  /** A whole number from 0 to below `limit`. */
  below(limit: number): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return Math.floor((((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32) * limit);
  }

  one<T>(of: readonly T[]): T {
    return of[this.below(of.length)]!;
  }
}
