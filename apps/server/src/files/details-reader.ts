import { Worker } from 'node:worker_threads';
import type { PageFacts } from '@foglio/core';
import type { PageDetails } from '@foglio/pdf';
import { eq } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { contents } from '../database/schema';
import { readContent } from './content-store';

export interface DetailsRequest {
  readonly bytes: Uint8Array;
  readonly pages: readonly number[];
}
export interface DetailsMessage {
  readonly page: number;
  readonly details: PageDetails;
}

/** The program that reads in a thread of its own: another file in the built server than in its tests. */
export interface WorkerProgram {
  readonly file: string | URL;
}

/** What reading a file may take before it is ended: enough for any document of an office. */
export interface ReadingLimits {
  readonly firstPagesMs: number;
  readonly eachPageMs: number;
  /** Of the whole process, above what it had before. */
  readonly memoryMb: number;
}
const LIMITS: ReadingLimits = { firstPagesMs: 60_000, eachPageMs: 1_000, memoryMb: 1_500 };

/** Time between two looks at what a reading takes, and between two entries of what it found, in milliseconds. */
const WATCH_MS = 100;
const ENTER_MS = 500;

/**
 * Reads the details of a document that are not known yet, in page order, and enters them as they come, so that the first
 * pages are known while the last are still being read. A file that cannot be read, or takes too much, is given up for
 * good: its pages are then printed without these facts.
 */
export async function readContentDetails(
  db: Database,
  id: string,
  program: WorkerProgram,
  limits = LIMITS,
): Promise<void> {
  const content = await db.query.contents.findFirst({ where: eq(contents.id, id) });
  if (!content || content.detailsRead >= content.pages.length) return;
  const pages: PageFacts[] = [...content.pages];
  let read = content.detailsRead;
  let entered = read;
  const enter = async (known: number): Promise<void> => {
    entered = known;
    await db.update(contents).set({ pages, detailsRead: known }).where(eq(contents.id, id));
  };
  const complain = (error: unknown): void =>
    console.error(`details of content ${id}, from page ${read + 1}: ${(error as Error).message}`);
  const wanted = pages.map((_, index) => index + 1).slice(read);
  let entering = Promise.resolve();
  const timer = setInterval(() => {
    // An entry that fails is made good by the next one; unheard, it would end the server.
    if (read > entered) entering = entering.then(() => enter(read)).catch(complain);
  }, ENTER_MS);
  try {
    await readInThread(await readContent(db, id), wanted, program, limits, ({ page, details }) => {
      pages[page - 1] = { ...(pages[page - 1] as PageFacts), ...details };
      read = page;
    });
  } catch (error) {
    complain(error);
  } finally {
    clearInterval(timer);
    await entering;
    await enter(pages.length);
  }
}

/** @throws Error where the thread fails or takes more than it may */
function readInThread(
  bytes: Uint8Array,
  pages: readonly number[],
  { file }: WorkerProgram,
  { firstPagesMs, eachPageMs, memoryMb }: ReadingLimits,
  tell: (message: DetailsMessage) => void,
): Promise<void> {
  const workerData: DetailsRequest = { bytes, pages };
  const worker = new Worker(file, {
    workerData,
    resourceLimits: { maxOldGenerationSizeMb: memoryMb },
  });
  const memoryBefore = process.memoryUsage.rss();
  const end = Date.now() + firstPagesMs + eachPageMs * pages.length;
  return new Promise((resolve, reject) => {
    const giveUp = (why: string): void => {
      reject(new Error(why));
      void worker.terminate();
    };
    // What a page decodes to lies outside the thread's own heap, so the process is what is watched.
    const watch = setInterval(() => {
      if (Date.now() > end) giveUp('reading takes too long');
      else if (process.memoryUsage.rss() - memoryBefore > memoryMb * 1024 * 1024)
        giveUp('reading takes too much memory');
    }, WATCH_MS);
    worker.on('message', tell);
    worker.on('error', reject);
    worker.on('exit', (code) => {
      clearInterval(watch);
      if (code === 0) resolve();
      else reject(new Error(`the reading thread ended with ${code}`));
    });
  });
}
