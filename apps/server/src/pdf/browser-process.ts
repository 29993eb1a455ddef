import { PdfError } from '@foglio/pdf';
import { serveBrowser } from '@foglio/typeset';
import type { BrowserReport } from './browser-keeper';

/**
 * Runs in a process of its own: the one browser that lays documents out, kept warm. Workers reach it at an address that
 * nobody can guess; each document has a context of its own in it, which ends with its worker.
 */
const report = (what: BrowserReport): boolean | undefined => process.send?.(what);

// The server is gone: nobody prints.
process.once('disconnect', () => process.exit(1));
try {
  const { endpoint, ended } = await serveBrowser();
  report({ endpoint });
  await ended;
  process.exit(0);
} catch (error) {
  if (!(error instanceof PdfError)) throw error;
  report({ trouble: error.trouble, message: error.message });
}
