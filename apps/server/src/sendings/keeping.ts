import { askJob, IppError, STATUS, type JobStatus } from '@foglio/ipp';
import type { Database } from '../database/connection';
import { addressOf } from '../printers/access';
import { findPrinter } from '../printers/printer-store';
import type { Presence } from './presence';
import type { StoredSending } from './sending-store';

/** What keeping sendings needs of the server. */
export interface KeeperParts {
  readonly db: Database;
  readonly presence: Presence;
  /** Puts a sending into the queue of what is to be sent; doing it twice sends nothing twice. */
  readonly enqueue: (sending: StoredSending) => Promise<void>;
}

export const NO_LONGER_KNOWN = 'It may have been printed: the printer no longer knows this job. Look at its output.';

/** How one of its jobs stands at its printer. */
export async function askSending(
  db: Database,
  sending: Pick<StoredSending, 'printerId'>,
  job: number,
): Promise<JobStatus | 'away' | 'unknown'> {
  const printer = await findPrinter(db, sending.printerId);
  try {
    return await askJob(addressOf(printer), job);
  } catch (error) {
    if (!(error instanceof IppError)) throw error;
    return error.status === STATUS.notFound ? 'unknown' : 'away';
  }
}
