import { cancelJob, IppError } from '@foglio/ipp';
import type { Database } from '../database/connection';
import { userOf } from './as-known';
import { Problem } from '../http/problem';
import { addressOf } from '../printers/access';
import { findPrinter } from '../printers/printer-store';
import { cancelUnsent, changeSending, findSending, isOver, type StoredSending } from './sending-store';

/** Cancels a sending wherever it is. @throws Problem `sending-over`, `sending-not-over`, `printer-away` */
export async function cancelSending(db: Database, sending: StoredSending): Promise<StoredSending> {
  const unsent = await cancelUnsent(db, sending.id);
  if (unsent) return unsent;
  const current = await findSending(db, sending.id);
  if (isOver(current)) throw new Problem('sending-over', 'There is nothing left to cancel.');
  if (current.printerJobs.length === 0)
    throw new Problem('sending-not-over', 'It is just being sent; try again in a moment.');
  const printer = await findPrinter(db, current.printerId);
  // Of several jobs those already printed cannot be cancelled any more.
  const outcomes = await Promise.allSettled(
    current.printerJobs.map((job) => cancelJob(addressOf(printer), job, userOf(current))),
  );
  const refused = outcomes.flatMap((one) => (one.status === 'rejected' ? [one.reason as unknown] : []));
  if (refused.length === outcomes.length) {
    const [error] = refused;
    if (error instanceof IppError) throw new Problem('printer-away', `${printer.name}: ${error.message}`);
    throw error;
  }
  // A sending that the cancelling broke off may have been entered as failed already.
  await changeSending(db, sending.id, ['sending', 'failed'], { state: 'canceled', message: null });
  return findSending(db, sending.id);
}
