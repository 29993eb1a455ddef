import { setTimeout as wait } from 'node:timers/promises';
import { firstPortion, momentOf, type Printer } from '@foglio/core';
import { eq, sql } from 'drizzle-orm';
import type { Runner } from 'graphile-worker';
import type { Pool } from 'pg';
import { workOff } from '../background';
import type { Database } from '../database/connection';
import { incoming, jobs } from '../database/schema';
import { Problem } from '../http/problem';
import { documentsOf, type StoredDocument, type StoredJob } from '../jobs/job-store';
import type { Plans } from '../plans/plans';
import { askNow, findPrinter } from '../printers/printer-store';
import { enterSending } from '../sendings/enter';
import { changeIncoming, unsettled } from './incoming-store';

const TASK = 'settle-incoming';

/** Jobs that are settled at once: most of the time they wait until their pages are read. */
const AT_ONCE = 8;

/** Longer is not waited until all is known of the pages; what is known of them by then decides. */
const READ_WITHIN_MS = 60_000;
const LOOK_EVERY_MS = 200;

/** Entered with the job, so that it is settled whatever ends meanwhile. */
export async function enqueueSettling(db: Pick<Database, 'execute'>, id: number): Promise<void> {
  const payload = JSON.stringify({ id });
  const key = `incoming ${id}`;
  await db.execute(
    sql`select graphile_worker.add_job(${TASK}, payload := ${payload}::json, max_attempts := 5, job_key := ${key})`,
  );
}

/** Starts settling what is printed to set-ups, those first that a server that ended left. */
export async function startSettling(pool: Pool, db: Database, plans: Plans): Promise<Runner> {
  const runner = await workOff(pool, 'incoming', AT_ONCE, {
    [TASK]: (payload) => settle(db, plans, (payload as { id: number }).id),
  });
  for (const { id } of await unsettled(db)) await enqueueSettling(db, id);
  return runner;
}

/** Sends a job straight on where nothing has to be settled or confirmed; otherwise it waits on the Desk, with the reason. */
async function settle(db: Database, plans: Plans, id: number): Promise<void> {
  const [came] = await db.select().from(incoming).where(eq(incoming.id, id));
  if (came?.state !== 'came') return;
  const [job] = came.jobId === null ? [] : await db.select().from(jobs).where(eq(jobs.id, came.jobId));
  if (!job) return void (await changeIncoming(db, id, ['came'], { state: 'canceled', message: 'It was removed.' }));
  const why = await sendOn(db, plans, came, job);
  if (why !== null) await changeIncoming(db, id, ['came'], { state: 'waiting', message: why });
}

/** @returns why it waits; null where it was sent, by this or by a person */
async function sendOn(
  db: Database,
  plans: Plans,
  { id, userName }: Pick<typeof incoming.$inferSelect, 'id' | 'userName'>,
  { id: jobId, ticket, printerId, revision }: StoredJob,
): Promise<string | null> {
  try {
    const documents = await wholeDocumentsOf(db, ticket);
    const profile = await profileNow(db, printerId);
    const moment = momentOf(new Date());
    const planning = { ticket, printer: profile, moment, pass: null, portion: null };
    const { uri: address } = await findPrinter(db, printerId);
    const asked = { kind: 'fitness', address, seal: null } as const;
    const plan = await plans.ask(asked, planning, documents);
    const open = plan.checks.find(({ level }) => level !== 'note');
    if (open) return open.message;
    const portion = firstPortion(ticket);
    const first = portion ? await plans.ask(asked, { ...planning, portion }, documents) : plan;
    const { tally, pass, handling } = first;
    const { sheets, sides } = tally;
    const key = `incoming-${id}-${jobId}`;
    const made = { ticket, profile, sheets, sides, tally, pass, handling, portion };
    const values = { key, moment, jobId, printerId, userName, ...made };
    return await db.transaction(async (tx) => {
      const [now] = await tx.select().from(incoming).where(eq(incoming.id, id)).for('update');
      // Whoever opened it meanwhile on the Bench has sent it, or it was cancelled.
      if (now?.state !== 'came') return null;
      const [job] = await tx.select({ revision: jobs.revision }).from(jobs).where(eq(jobs.id, jobId)).for('update');
      if (job?.revision !== revision) return 'It was changed on the Bench.';
      await enterSending(tx, values);
      return null;
    });
  } catch (error) {
    if (error instanceof Problem) return error.message;
    throw error;
  }
}

/** A printer as it is, or where it does not answer as it was last seen: what is sent then waits for it in the queue. */
async function profileNow(db: Database, printerId: string): Promise<Printer> {
  const printer = await findPrinter(db, printerId);
  try {
    return (await askNow(db, printer)).profile;
  } catch (error) {
    if (error instanceof Problem && error.code === 'printer-away') return printer.profile;
    throw error;
  }
}

/** With all that is to be known of their pages, as far as that comes in time. */
async function wholeDocumentsOf(db: Database, ticket: StoredJob['ticket']): Promise<StoredDocument[]> {
  for (const end = Date.now() + READ_WITHIN_MS; ;) {
    const documents = await documentsOf(db, ticket);
    if (documents.every(({ read, pages }) => read === pages.length) || Date.now() > end) return documents;
    await wait(LOOK_EVERY_MS);
  }
}
