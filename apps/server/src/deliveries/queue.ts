import type { Runner } from 'graphile-worker';
import type { Pool } from 'pg';
import { workOff } from '../background';
import type { Database } from '../database/connection';
import type { PdfWorkers } from '../pdf/pdf-workers';
import { sendDelivery } from './sender';

const TASK = 'send-delivery';

/** Jobs sent at once by one server; a printer takes them one after another anyhow. */
const AT_ONCE = 4;

/** Starts taking deliveries from the queue in the database. Stopped with `stop()`, which waits for what is running. */
export function startSending(pool: Pool, db: Database, workers: PdfWorkers, server: number): Promise<Runner> {
  return workOff(pool, 'queue', AT_ONCE, {
    [TASK]: (payload) => sendDelivery(db, workers, (payload as { id: string }).id, server),
  });
}

/**
 * Enters a delivery into the queue, within the caller's transaction. One attempt: a sending that went wrong half-way is
 * settled by the keeper and sent again by a person, never by the queue, so that nothing is printed twice.
 */
export async function enqueueDelivery(db: Pick<Database, 'execute'>, id: string): Promise<void> {
  const payload = JSON.stringify({ id });
  await db.execute(
    `select graphile_worker.add_job('${TASK}', payload := '${payload}'::json, max_attempts := 1, job_key := '${id}')`,
  );
}
