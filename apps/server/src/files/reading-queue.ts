import { sql } from 'drizzle-orm';
import type { Runner } from 'graphile-worker';
import type { Pool } from 'pg';
import { workOff } from '../background';
import type { Database } from '../database/connection';
import { onceDatabaseAnswers } from '../database/outage';
import { messageOf } from '../database/query-error';
import { contents } from '../database/schema';
import type { PdfWorkers } from '../pdf/pdf-workers';
import { hasNoRoom, readContentDetails, SHORT_PAGES } from './details-reader';
import { log } from '../log';

const TASK = 'read-details';

/** Documents that are read at the same time: a long one, one after the other, never keeps short ones waiting. */
const AT_ONCE = 2;

/** A long document that made way is looked at again after this, in seconds. */
const LATER_S = 2;

/** Where the disk is full, in seconds. */
const NO_ROOM_S = 10;

/** Starts reading documents, short ones first, and those that a server that ended left unread. */
export async function startReading(pool: Pool, db: Database, workers: PdfWorkers): Promise<Runner> {
  const runner = await workOff(pool, 'reading', AT_ONCE, {
    [TASK]: (payload) => readOn(db, (payload as { id: string }).id, workers),
  });
  const unread = await db
    .select({ id: contents.id })
    .from(contents)
    .where(sql`${contents.detailsRead} < jsonb_array_length(${contents.pages})`);
  for (const { id } of unread) await enqueueReading(db, id);
  return runner;
}

/** One turn of a document; what is left of it then waits for the next. */
async function readOn(db: Database, id: string, workers: PdfWorkers): Promise<void> {
  try {
    const left = await readContentDetails(db, id, workers);
    if (left === 0 || workers.isClosed) return;
    await enqueueReading(db, id, workers.intake.isGrowing ? LATER_S : 0);
  } catch (error) {
    if (!hasNoRoom(error)) throw error;
    log.warn({ content: id }, 'there is no room to read it; it is tried again');
    await enqueueReading(db, id, NO_ROOM_S);
  }
}

/**
 * Enters a document to be read, the sooner the shorter it is; one that waits already is not entered twice. Where that fails,
 * it is read after the next start.
 *
 * @param afterS seconds until its turn
 */
export async function enqueueReading(db: Pick<Database, 'execute'>, id: string, afterS = 0): Promise<void> {
  const payload = JSON.stringify({ id });
  const left = sql`jsonb_array_length(${contents.pages}) - ${contents.detailsRead}`;
  // Those of one queue are worked off one after the other.
  const entry = sql`select graphile_worker.add_job(${TASK}, payload := ${payload}::json, max_attempts := 3,
    job_key := ${`details ${id}`}, priority := ${left}, run_at := now() + make_interval(secs => ${afterS}),
    queue_name := case when ${left} > ${SHORT_PAGES} then 'long documents' else ${`details ${id}`} end)
    from ${contents} where ${contents.id} = ${id}`;
  try {
    await onceDatabaseAnswers(() => db.execute(entry));
  } catch (error) {
    log.error({ content: id }, `entering to be read: ${messageOf(error)}`);
  }
}
