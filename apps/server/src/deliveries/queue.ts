import { sql } from 'drizzle-orm';
import type { Runner } from 'graphile-worker';
import type { Pool } from 'pg';
import { workOff } from '../background';
import type { Database } from '../database/connection';
import type { PdfWorkers } from '../pdf/pdf-workers';
import type { StoredDelivery } from './delivery-store';
import { sendWaiting } from './sender';

const TASK = 'send-deliveries';

/** Printers that one server sends to at once. */
const AT_ONCE = 4;

/** Starts taking deliveries from the queue in the database. Stopped with `stop()`, which waits for what is running. */
export function startSending(pool: Pool, db: Database, workers: PdfWorkers, server: number): Promise<Runner> {
  return workOff(pool, 'queue', AT_ONCE, {
    [TASK]: (payload) => sendWaiting(db, workers, (payload as { printer: string }).printer, server),
  });
}

/**
 * Enters into the queue, within the caller's transaction, that a delivery waits for a printer. One attempt: a sending that
 * went wrong half-way is settled by the keeper and sent again by a person, never by the queue, so that nothing is printed
 * twice. A key a delivery: a task that is running may have looked for what waits already.
 */
export async function enqueueDelivery(
  db: Pick<Database, 'execute'>,
  { id, printerId, retryAt }: Pick<StoredDelivery, 'id' | 'printerId' | 'retryAt'>,
): Promise<void> {
  const payload = JSON.stringify({ printer: printerId });
  const runAt = retryAt?.toISOString() ?? null;
  await db.execute(
    sql`select graphile_worker.add_job(${TASK}, payload := ${payload}::json, run_at := coalesce(${runAt}::timestamptz, now()), max_attempts := 1, job_key := ${id})`,
  );
}
