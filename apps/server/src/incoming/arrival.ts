import { applySetup, onLoadedPaper } from '@foglio/core';
import { takeUp } from '@foglio/ipp/serving';
import { eq } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { incoming, jobs } from '../database/schema';
import { documentsOf } from '../jobs/job-store';
import { changeIncoming } from './incoming-store';
import { enqueueSettling } from './settling';
import { DESK } from './desk';
import type { Queue } from './queue';
import { heeded } from './queue-attributes';

type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

/**
 * All documents of a job came: it becomes a job on the Desk, within the transaction that takes the last of them, so that
 * what was answered for is there. What was printed to a set-up is settled next.
 */
export async function cameWhole(tx: Transaction, queue: Queue, id: number): Promise<void> {
  const [came] = await tx.select().from(incoming).where(eq(incoming.id, id)).for('update');
  if (came?.state !== 'open' || came.files.length === 0) return;
  const { profile } = queue.printer;
  const taken = await documentsOf(tx, { documents: came.files.map((file) => ({ file })) });
  const set = applySetup(queue.ticket, taken, came.name);
  const documents = await documentsOf(tx, set);
  // As a file that is dropped on the Desk: a picture of a size that no paper has is printed on what is loaded.
  const begun = queue.setup ? set : onLoadedPaper(set, documents, profile);
  const { ticket, remarks } = takeUp(begun, heeded(queue, came.wishes), documents, profile);
  const [job] = await tx.insert(jobs).values({ ticket, printerId: queue.printer.id }).returning();
  const state = queue.name === DESK ? 'waiting' : 'came';
  await changeIncoming(tx, id, ['open'], { state, jobId: job!.id, remarks });
  if (state === 'came') await enqueueSettling(tx, id);
}

/** A job of which nothing was printed goes, and its place on the Desk with it. False where it is over, or being sent. */
export function withdraw(db: Database, id: number): Promise<boolean> {
  return db.transaction(async (tx) => {
    const canceled = await changeIncoming(tx, id, ['open', 'came', 'waiting'], { state: 'canceled' });
    if (canceled?.jobId) await tx.delete(jobs).where(eq(jobs.id, canceled.jobId));
    return canceled !== null;
  });
}
