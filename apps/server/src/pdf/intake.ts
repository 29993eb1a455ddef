/** A file that is being taken in. */
export interface Taking {
  /** Its first pages are there, and the whole will take long and much memory. */
  readonly grows: () => void;
  /** Doing it twice does nothing. */
  readonly end: () => void;
}

/** How many files are being taken in just now, for whatever makes way for that: a person waits for them. */
export class Intake {
  private taking = 0;
  private growing = 0;
  private readonly listeners = new Set<() => void>();

  get isTaking(): boolean {
    return this.taking > 0;
  }

  /** Whether a file is being taken in of which the first pages are there. */
  get isGrowing(): boolean {
    return this.growing > 0;
  }

  /** @returns what is told on the way */
  begin(): Taking {
    let grows = false;
    let ended = false;
    this.taking += 1;
    this.tell();
    return {
      grows: () => {
        if (grows || ended) return;
        grows = true;
        this.growing += 1;
        this.tell();
      },
      end: () => {
        if (ended) return;
        ended = true;
        this.taking -= 1;
        if (grows) this.growing -= 1;
      },
    };
  }

  /** @param hear is told of each that begins, and of each that grows. @returns what ends that */
  on(hear: () => void): () => void {
    this.listeners.add(hear);
    return () => void this.listeners.delete(hear);
  }

  private tell(): void {
    for (const hear of this.listeners) hear();
  }
}
