import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { PdfError, scratchPrefix } from '@foglio/pdf';
import { openBrowser, serveLaying } from '@foglio/typeset';
import type { BrowserReport } from './browser-keeper';

/**
 * Runs in a process of its own: the one browser that lays documents out, kept warm, and what tells it how. Workers reach it at
 * a socket in a folder that is theirs alone; each document has a context of its own in it, which ends with its worker.
 */
/** Time from a text document until the page for the next one is opened, in milliseconds: its sheets are drawn meanwhile. */
const NEXT_PAGE_AFTER_MS = 1_500;

const report = (what: BrowserReport): boolean | undefined => process.send?.(what);

const folder = mkdtempSync(scratchPrefix());
process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, () => process.exit(1));
// The server is gone: nobody prints.
process.once('disconnect', () => process.exit(1));
try {
  const browser = await openBrowser(NEXT_PAGE_AFTER_MS);
  const endpoint = join(folder, 'socket');
  await serveLaying(endpoint, browser);
  report({ endpoint });
  await browser.ended;
  process.exit(0);
} catch (error) {
  if (!(error instanceof PdfError)) throw error;
  report({ trouble: error.trouble, message: error.message });
}
