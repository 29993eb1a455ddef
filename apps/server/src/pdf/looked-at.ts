/** Pages round the one that is looked at which are read with it. */
const BEFORE = 2;
const AFTER = 40;

/** The pages about a page, of so many. */
export const pagesAbout = (page: number, count: number): number[] => {
  const from = Math.max(1, page - BEFORE);
  return Array.from({ length: Math.max(0, Math.min(count, page + AFTER) - from + 1) }, (_, index) => from + index);
};

/** Which pages of documents people look at just now: these are read before others. */
export class LookedAt {
  private readonly listeners = new Map<string, Set<(page: number) => void>>();

  /** @param content its id */
  look(content: string, page: number): void {
    for (const hear of this.listeners.get(content) ?? []) hear(page);
  }

  /** @param hear is told of each page that is looked at from now on. @returns what ends that */
  on(content: string, hear: (page: number) => void): () => void {
    const those = this.listeners.get(content) ?? new Set();
    this.listeners.set(content, those.add(hear));
    return () => {
      those.delete(hear);
      if (those.size === 0) this.listeners.delete(content);
    };
  }
}
