import { parentPort, workerData } from 'node:worker_threads';
import { readDetails } from '@foglio/pdf';
import type { DetailsMessage, DetailsRequest } from './details-reader';

/** Runs in a thread of its own, so that the server answers while pages are drawn, and can be ended from outside. */
const { bytes, pages } = workerData as DetailsRequest;
await readDetails(bytes, pages, (page, details) => {
  parentPort?.postMessage({ page, details } satisfies DetailsMessage);
});
