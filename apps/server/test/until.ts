import { setTimeout as wait } from 'node:timers/promises';

/** Asks until it is so. */
export async function until<T>(ask: () => Promise<T>, so: (answer: T) => boolean): Promise<T> {
  for (;;) {
    const answer = await ask();
    if (so(answer)) return answer;
    await wait(20);
  }
}
