import { getReady, impose, PdfError, readDetails, takeIn } from '@foglio/pdf';
import type { PdfReport, PdfRequest } from './pdf-workers';

/**
 * Runs in a process of its own, so that the server answers while it works, and can be ended from outside whatever it is
 * doing. It is started before there is work, waits for one request, and ends with it: nothing of one file is left when
 * the next comes.
 */

const report = (what: PdfReport): Promise<void> =>
  new Promise((resolve, reject) => process.send?.(what, (error: Error | null) => (error ? reject(error) : resolve())));

async function work(request: PdfRequest): Promise<void> {
  switch (request.kind) {
    case 'take-in':
      return report({ kind: 'taken-in', taken: await takeIn(request.bytes, request.password) });
    case 'read-details':
      return readDetails(request.bytes, request.pages, (page, details) => report({ kind: 'details', page, details }));
    case 'impose':
      return report({ kind: 'imposed', bytes: await impose(request.input) });
  }
}

process.once('message', (request: PdfRequest) => {
  void (async () => {
    try {
      await work(request);
    } catch (error) {
      if (!(error instanceof PdfError)) throw error;
      await report({ kind: 'failed', trouble: error.trouble, message: error.message });
    }
    process.exit(0);
  })();
});
// The server is gone: nobody waits for what comes of it.
process.once('disconnect', () => process.exit(1));
await getReady();
