import { renameSync, statSync } from 'node:fs';
import { destination, pino, stdTimeFunctions } from 'pino';

/** Where the log is written; left out: to standard error, as whoever supervises programs expects. */
const file = process.env['FOGLIO_LOG'];

const target = destination({ dest: file ?? 2, sync: true, mkdir: true });

// Where there is no room for it, work goes on without it.
target.on('error', () => undefined);

/** A log of more than this is put aside, in bytes; the one that was put aside before goes. */
const LARGEST = 20 * 1024 * 1024;

/**
 * What a server does, a line of JSON (RFC 8259) each. Names of documents, titles and whatever stands in them are never
 * written: ids are.
 */
export const log = pino(
  {
    level: process.env['FOGLIO_LOG_LEVEL'] ?? 'info',
    timestamp: stdTimeFunctions.isoTime,
    formatters: { level: (level) => ({ level }) },
  },
  target,
);

/** Puts a log aside that has grown large, and begins a new one. */
export function rollLog(): void {
  if (!file || statSync(file).size < LARGEST) return;
  renameSync(file, `${file}.1`);
  target.reopen();
}
