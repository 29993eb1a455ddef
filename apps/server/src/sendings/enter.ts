import { eq } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { jobs, type sendings } from '../database/schema';
import { followSending, holdUnsent } from '../incoming/incoming-store';
import { enqueueSending } from './enqueue';
import { enterOnce, replaceHeldSets, type StoredSending } from './sending-store';

/**
 * The sending and its place in the queue are entered together, within the caller's transaction: either both are there, or
 * neither.
 *
 * @throws Problem like `enterOnce`
 */
export async function enterSending(
  tx: Pick<Database, 'execute' | 'insert' | 'select' | 'update'>,
  values: typeof sendings.$inferInsert,
): Promise<StoredSending> {
  if (values.jobId) await holdUnsent(tx, values.jobId);
  const { sending: entered, isNew } = await enterOnce(tx, values);
  if (!isNew) return entered;
  if (values.jobId) {
    if (!values.partOf) await replaceHeldSets(tx, values.jobId);
    await tx.update(jobs).set({ lastSentAt: new Date() }).where(eq(jobs.id, values.jobId));
    await followSending(tx, values.jobId, entered.id);
  }
  await enqueueSending(tx, entered);
  return entered;
}
