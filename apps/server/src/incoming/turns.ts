/** Work of which no more than so many pieces go on at once; the others wait their turn, as long as not too many do. */
export class Turns {
  private going = 0;
  private readonly waiting: (() => void)[] = [];

  /**
   * @param atOnce pieces that go on at the same time
   * @param most pieces that go on or wait
   */
  constructor(
    private readonly atOnce: number,
    private readonly most: number,
  ) {}

  get isFull(): boolean {
    return this.going + this.waiting.length >= this.most;
  }

  async take<T>(work: () => Promise<T>): Promise<T> {
    if (this.going >= this.atOnce) await new Promise<void>((resolve) => this.waiting.push(resolve));
    else this.going += 1;
    try {
      return await work();
    } finally {
      const next = this.waiting.shift();
      // Whoever waits takes the place over.
      if (next) next();
      else this.going -= 1;
    }
  }
}
