/** Unit tests have no workers; whatever is posted stays unanswered. */
class SilentWorker extends EventTarget {
  postMessage(): void {
    // Nobody listens.
  }
}

export const spawnPlanWorker = (): Worker => new SilentWorker() as unknown as Worker;
export const spawnPdfWorker = (): Worker => new SilentWorker() as unknown as Worker;
