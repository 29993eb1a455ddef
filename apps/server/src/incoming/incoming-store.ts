import { MULTIPLE_OPERATION_SECONDS, type ServedJob, type Wishes } from '@foglio/ipp/serving';
import { and, asc, desc, eq, isNull, ne, sql } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { incoming, sendings } from '../database/schema';
import type { StoredSending } from '../sendings/sending-store';
import { DESK } from './desk';
import type { Queue } from './queue';

export type StoredIncoming = typeof incoming.$inferSelect;

/** A job that was printed to Foglio, and how its sending goes where it was sent on. */
export interface Incoming {
  readonly job: StoredIncoming;
  readonly sending: StoredSending | null;
}

export async function enterIncoming(
  db: Database,
  queue: Queue,
  { name, userName, wishes }: { readonly name: string; readonly userName: string; readonly wishes: Wishes },
): Promise<Incoming> {
  const values = { queue: queue.name, setupId: queue.setup?.id ?? null, name, userName, wishes };
  const [job] = await db.insert(incoming).values(values).returning();
  return { job: job!, sending: null };
}

export async function findIncoming(db: Pick<Database, 'select'>, queue: string, id: number): Promise<Incoming | null> {
  const [found] = await select(db).where(and(eq(incoming.queue, queue), eq(incoming.id, id)));
  return found ?? null;
}

/** Of all that came to a queue, the latest, the oldest of them first: nobody asks a printer for all it ever printed. */
export async function listIncoming(db: Database, queue: string, most: number): Promise<Incoming[]> {
  const found = await select(db).where(eq(incoming.queue, queue)).orderBy(desc(incoming.id)).limit(most);
  return found.toReversed();
}

/** What came lately, the latest first. */
export const listLately = (db: Database, most: number): Promise<Incoming[]> =>
  select(db).where(ne(incoming.state, 'open')).orderBy(desc(incoming.id)).limit(most);

const select = (db: Pick<Database, 'select'>) =>
  db
    .select({ job: incoming, sending: sendings })
    .from(incoming)
    .leftJoin(sendings, eq(incoming.sendingId, sendings.id));

export type IncomingChange = Partial<
  Pick<StoredIncoming, 'state' | 'message' | 'remarks' | 'files' | 'jobId' | 'sendingId'>
>;

/** Changes one that is in one of these states; null where it no longer is, so that of two that act at once only one does. */
export async function changeIncoming(
  db: Pick<Database, 'update'>,
  id: number,
  from: readonly StoredIncoming['state'][],
  change: IncomingChange,
): Promise<StoredIncoming | null> {
  const [changed] = await db
    .update(incoming)
    .set({ ...change, updatedAt: new Date() })
    .where(and(eq(incoming.id, id), sql`${incoming.state} in ${[...from]}`))
    .returning();
  return changed ?? null;
}

/** Came to a set-up, and nothing was sent of it yet. */
const unsent = (jobId: string) =>
  and(eq(incoming.jobId, jobId), ne(incoming.queue, DESK), sql`${incoming.state} in ('came', 'waiting')`);

/**
 * Whoever sends a job that came to a set-up, a person on the Bench or the set-up itself, holds it from here on to the end of
 * the transaction: of two at once, the other finds it sent. Before anything else is locked, so that nobody waits for each other.
 */
export async function holdUnsent(db: Pick<Database, 'select'>, jobId: string): Promise<void> {
  await db.select({ id: incoming.id }).from(incoming).where(unsent(jobId)).for('update');
}

/** A job that came to a set-up was sent: whoever printed it is told how it goes on. */
export async function followSending(db: Pick<Database, 'update'>, jobId: string, sendingId: string): Promise<void> {
  await db
    .update(incoming)
    .set({ state: 'sent', sendingId, message: null, updatedAt: new Date() })
    .where(unsent(jobId));
}

/** Those that came whole and of which it is not settled what becomes: a server that ended left them. */
export const unsettled = (db: Database): Promise<StoredIncoming[]> =>
  db
    .select()
    .from(incoming)
    .where(and(eq(incoming.state, 'came'), isNull(incoming.sendingId)))
    .orderBy(asc(incoming.id));

/** What becomes of a job while it is being printed (RFC 8011, 5.3.7). */
const OF_SENDING: Readonly<Record<StoredSending['state'], readonly [ServedJob['state'], string]>> = {
  queued: ['pending', 'job-queued'],
  sending: ['processing', 'job-outgoing'],
  printing: ['processing', 'job-printing'],
  held: ['pending-held', 'job-hold-until-specified'],
  turning: ['processing-stopped', 'printer-stopped'],
  proofed: ['processing-stopped', 'printer-stopped'],
  completed: ['completed', 'job-completed-successfully'],
  canceled: ['canceled', 'job-canceled-at-device'],
  aborted: ['aborted', 'aborted-by-system'],
  failed: ['aborted', 'aborted-by-system'],
  interrupted: ['aborted', 'aborted-by-system'],
  uncertain: ['aborted', 'aborted-by-system'],
};

/** As the program that printed it is told. */
export function servedJob({ job, sending }: Incoming): ServedJob {
  const [state, reason, message] = standingOf({ job, sending });
  const over = state === 'completed' || state === 'canceled' || state === 'aborted';
  const sheets = sending?.sheets ?? null;
  return {
    id: job.id,
    name: job.name,
    user: job.userName,
    state,
    reasons: [reason],
    message,
    createdAt: job.createdAt,
    processingAt: sending?.createdAt ?? (over ? job.updatedAt : null),
    completedAt: over ? (sending?.updatedAt ?? job.updatedAt) : null,
    sheets,
    sheetsCompleted: sending?.sheetsDone ?? 0,
    impressions: sending?.sides ?? null,
    impressionsCompleted: sending && completedSides(sending),
    documents: job.files.length,
    isOpen: job.state === 'open' && state !== 'aborted',
  };
}

/** As many as the sheets that came out have, on average: printers count sheets. */
const completedSides = ({ sheets, sheetsDone, sides }: StoredSending): number | null =>
  sides === null || sheets === 0 ? sides : Math.floor((sides * sheetsDone) / sheets);

function standingOf({ job, sending }: Incoming): readonly [ServedJob['state'], string, string | null] {
  if (sending) {
    // Whatever the printer needs is said while it stands still for it.
    const stands = sending.state === 'printing' && sending.message !== null;
    const standing = stands ? (['processing-stopped', 'printer-stopped'] as const) : OF_SENDING[sending.state];
    return [...standing, sending.state === 'completed' ? null : sending.message];
  }
  switch (job.state) {
    case 'open':
      return hasRunOut(job)
        ? ['aborted', 'aborted-by-system', 'No further document came in time.']
        : ['pending-held', 'job-incoming', null];
    case 'came':
      return ['pending', 'none', null];
    case 'waiting':
      // On the Desk it is where it was printed to.
      if (job.queue === DESK) return ['completed', 'job-completed-successfully', null];
      if (job.jobId === null) return ['canceled', 'job-canceled-at-device', 'It was removed from the Desk.'];
      return ['pending-held', 'job-hold-until-specified', job.message];
    case 'sent':
      return ['completed', 'job-completed-successfully', null];
    case 'canceled':
      return ['canceled', 'job-canceled-by-user', job.message];
    case 'aborted':
      return ['aborted', 'aborted-by-system', job.message];
  }
}

/** Longer is not waited for a further document (RFC 8011, 5.4.31). */
const hasRunOut = ({ updatedAt }: StoredIncoming): boolean =>
  Date.now() - updatedAt.getTime() > MULTIPLE_OPERATION_SECONDS * 1000;
