import { sql } from 'drizzle-orm';
import type { Database } from '../database/connection';
import type { StoredSending } from './sending-store';

/** What a server does that takes a sending from the queue. */
export const TASK = 'send-sendings';

/**
 * Enters into the queue, within the caller's transaction, that a sending waits for a printer. One attempt: a sending that
 * went wrong half-way is settled by the keeper and sent again by a person, never by the queue, so that nothing is printed
 * twice. A key a sending: a task that is running may have looked for what waits already.
 */
export async function enqueueSending(
  db: Pick<Database, 'execute'>,
  { id, printerId, retryAt }: Pick<StoredSending, 'id' | 'printerId' | 'retryAt'>,
): Promise<void> {
  const payload = JSON.stringify({ printer: printerId });
  const runAt = retryAt?.toISOString() ?? null;
  await db.execute(
    sql`select graphile_worker.add_job(${TASK}, payload := ${payload}::json, run_at := coalesce(${runAt}::timestamptz, now()), max_attempts := 1, job_key := ${id})`,
  );
}
