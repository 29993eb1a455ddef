import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import { compilePdfium, PdfError, readDetails, type PageDetails, type PdfTrouble } from '@foglio/pdf';

/** Fewer pages than this are looked through before a thread has started. */
const WORTH_THREADS = 100;

/** More would take more memory than a command should. */
const MOST_THREADS = 4;

/** Room for what a thread makes and drops, in MB: more is no quicker. */
const YOUNG_MB = 2;

/** Fewest pages that a thread is given at once: for each slice a file is opened anew. */
const LEAST_SLICE = 25;

/** What a thread is started with. */
export interface ThreadStart {
  readonly bytes: Uint8Array;
  /** The engine, which all of them share. */
  readonly engine: WebAssembly.Module;
}

/** What a thread tells: the details of its slice, or why there are none. */
export type ThreadAnswer =
  | { readonly found: readonly (readonly [page: number, details: PageDetails])[] }
  | { readonly trouble: PdfTrouble; readonly message: string };

type Tell = (page: number, details: PageDetails) => void;

/** As built it stands beside the program; from its sources nothing is started that would have to be compiled first. */
const THREAD = new URL('./look-through-thread.js', import.meta.url);

/** Finds out what takes time of these pages, on all cores where there are many. @throws PdfError */
export async function lookThrough(bytes: Uint8Array, pages: readonly number[], tell: Tell): Promise<void> {
  const threads = Math.min(availableParallelism(), MOST_THREADS);
  if (pages.length < WORTH_THREADS || threads < 2 || !existsSync(fileURLToPath(THREAD))) {
    return readDetails(bytes, pages, tell);
  }
  const slices = slicesOf(pages, threads);
  const start: ThreadStart = { bytes, engine: await compilePdfium() };
  await Promise.all(Array.from({ length: threads }, () => inThread(start, slices, tell)));
}

/** Long ones first, and each half of what a thread's share of the rest is, so that all of them end at about the same time. */
function slicesOf(pages: readonly number[], threads: number): (readonly number[])[] {
  const slices: (readonly number[])[] = [];
  for (let from = 0; from < pages.length;) {
    const to = from + Math.max(LEAST_SLICE, Math.ceil((pages.length - from) / (2 * threads)));
    slices.push(pages.slice(from, to));
    from = to;
  }
  return slices;
}

/** Gives a thread slice after slice, until none is left. */
function inThread(start: ThreadStart, slices: (readonly number[])[], tell: Tell): Promise<void> {
  const thread = new Worker(THREAD, { workerData: start, resourceLimits: { maxYoungGenerationSizeMb: YOUNG_MB } });
  const next = (): void => {
    const slice = slices.shift();
    thread.postMessage(slice ?? null);
  };
  return new Promise((resolve, reject) => {
    thread.on('message', (answer: ThreadAnswer) => {
      if ('trouble' in answer) {
        reject(new PdfError(answer.trouble, answer.message));
        void thread.terminate();
        return;
      }
      for (const [page, details] of answer.found) tell(page, details);
      next();
    });
    thread.on('error', reject);
    thread.on('exit', () => resolve());
    next();
  });
}
