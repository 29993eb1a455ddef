import { parentPort, workerData } from 'node:worker_threads';
import { PdfError, readDetails, usePdfium, type PageDetails } from '@foglio/pdf';
import type { ThreadAnswer, ThreadStart } from './look-through';

/** Looks through slices of the pages of one document, until there is none left. */

const { bytes, engine } = workerData as ThreadStart;
usePdfium(engine);

async function lookThrough(slice: readonly number[]): Promise<ThreadAnswer> {
  const found: [number, PageDetails][] = [];
  try {
    await readDetails(bytes, slice, (page, details) => void found.push([page, details]));
    return { found };
  } catch (error) {
    if (!(error instanceof PdfError)) throw error;
    return { trouble: error.trouble, message: error.message };
  }
}

parentPort!.on('message', (slice: readonly number[] | null) => {
  if (slice === null) parentPort!.close();
  else void lookThrough(slice).then((answer) => parentPort!.postMessage(answer));
});
