import { sql } from 'drizzle-orm';
import type { Runner } from 'graphile-worker';
import type { Pool } from 'pg';
import { workOff } from '../background';
import type { Database } from '../database/connection';
import { onceDatabaseAnswers } from '../database/outage';
import { messageOf } from '../database/query-error';
import { contents } from '../database/schema';
import type { PdfWorkers } from '../pdf/pdf-workers';
import { readContentDetails } from './details-reader';

const TASK = 'read-details';

/** Starts reading documents, one at a time, those first that a server that ended left unread. */
export async function startReading(pool: Pool, db: Database, workers: PdfWorkers): Promise<Runner> {
  const runner = await workOff(pool, 'reading', 1, {
    [TASK]: (payload) => readContentDetails(db, (payload as { id: string }).id, workers),
  });
  const unread = await db
    .select({ id: contents.id })
    .from(contents)
    .where(sql`${contents.detailsRead} < jsonb_array_length(${contents.pages})`);
  for (const { id } of unread) await enqueueReading(db, id);
  return runner;
}

/**
 * Enters a document to be read; one that waits already is not entered twice. Where that fails, it is read after the next
 * start.
 */
export async function enqueueReading(db: Pick<Database, 'execute'>, id: string): Promise<void> {
  const payload = JSON.stringify({ id });
  const key = `details ${id}`;
  const entry = sql`select graphile_worker.add_job(${TASK}, payload := ${payload}::json, max_attempts := 3, job_key := ${key})`;
  try {
    await onceDatabaseAnswers(() => db.execute(entry));
  } catch (error) {
    console.error(`details of content ${id}: ${messageOf(error)}`);
  }
}
