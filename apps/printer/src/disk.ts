import { appendFile, rename, rm, stat, truncate, writeFile } from 'node:fs/promises';
import { setTimeout as wait } from 'node:timers/promises';

/** Time between two looks whether there is room again, in milliseconds. */
const LOOK_AGAIN_MS = 250;

/**
 * What a printer writes down of what it does. Where its disk is full it stands still until there is room again: what it did is
 * never forgotten, and never done twice.
 */
export class Disk {
  /** Told when there is no room any more, and when there is again. */
  hear: (isFull: boolean) => void = () => undefined;

  private waiting = 0;
  private writing: Promise<void> = Promise.resolve();
  private off = new AbortController();

  /** Takes up work, also after it was closed. */
  open(): void {
    this.off = new AbortController();
  }

  /** Nothing waits for room any more. */
  close(): void {
    this.off.abort();
  }

  /** Once what is being written has been. */
  settled(): Promise<void> {
    return this.writing;
  }

  /** Puts a text in a file's place. One after the other: of two at once the one would take the other's new file from under it. */
  replace(path: string, text: string): Promise<void> {
    const written = this.writing.then(() =>
      this.onceThereIsRoom(async () => {
        await writeFile(`${path}.new`, text);
        await rename(`${path}.new`, path);
      }),
    );
    this.writing = written.catch(() => undefined);
    return written;
  }

  /** Adds a line to a file, whole or not at all. */
  append(path: string, line: string): Promise<void> {
    return this.onceThereIsRoom(async () => {
      const { size } = await stat(path).catch(() => ({ size: 0 }));
      try {
        await appendFile(path, `${line}\n`);
      } catch (error) {
        await truncate(path, size).catch(() => undefined);
        throw error;
      }
    });
  }

  /** Writes a file that has just come, or nothing of it: whoever sent it can send it again. @throws where there is no room */
  async write(path: string, bytes: Uint8Array): Promise<void> {
    try {
      await writeFile(path, bytes);
    } catch (error) {
      await rm(path, { force: true });
      throw error;
    }
  }

  private async onceThereIsRoom(work: () => Promise<void>): Promise<void> {
    let waits = false;
    try {
      for (;;) {
        try {
          return await work();
        } catch (error) {
          if (!isFull(error)) throw error;
        }
        if (!waits) {
          waits = true;
          this.waiting += 1;
          if (this.waiting === 1) this.hear(true);
        }
        await wait(LOOK_AGAIN_MS, undefined, { signal: this.off.signal });
      }
    } finally {
      if (waits) {
        this.waiting -= 1;
        if (this.waiting === 0) this.hear(false);
      }
    }
  }
}

/** errno(3). */
export const isFull = (error: unknown): boolean =>
  ['ENOSPC', 'EDQUOT'].includes(String((error as { code?: unknown } | null)?.code));
