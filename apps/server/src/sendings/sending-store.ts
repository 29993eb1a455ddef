import type { SendingState } from '@foglio/api';
import { momentOf } from '@foglio/core';
import { and, asc, count, desc, eq, inArray, isNotNull, isNull, ne, notInArray, or, sql, type SQL } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { printers, sendings, series } from '../database/schema';
import { idOf } from '../http/body';
import { Problem } from '../http/problem';

export type StoredSending = typeof sendings.$inferSelect;

export const OVER: readonly SendingState[] = ['completed', 'canceled', 'aborted', 'failed', 'interrupted', 'uncertain'];

export const isOver = (sending: StoredSending): boolean => OVER.includes(sending.state);

const BROKEN: readonly SendingState[] = ['failed', 'interrupted', 'aborted', 'uncertain'];

/** Whether a sending ended otherwise than it should, and nobody wanted it so. */
export const isBroken = (sending: StoredSending): boolean => BROKEN.includes(sending.state);

export type SendingChange = Partial<
  Pick<
    StoredSending,
    | 'state'
    | 'message'
    | 'sheetsDone'
    | 'jobEnds'
    | 'printerJobs'
    | 'earlierJobs'
    | 'parts'
    | 'pass'
    | 'passKey'
    | 'reason'
    | 'server'
    | 'attempts'
    | 'retryAt'
  >
>;

/**
 * Changes a sending that is in one of the states given; null where it no longer is, so that
 * of two that act at once only one does.
 */
export async function changeSending(
  db: Database,
  id: string,
  from: readonly SendingState[],
  change: SendingChange,
): Promise<StoredSending | null> {
  const [changed] = await db
    .update(sendings)
    .set({ ...change, ...timesOf(change), updatedAt: new Date() })
    .where(and(eq(sendings.id, id), inArray(sendings.state, [...from])))
    .returning();
  if (changed?.seriesId && isBroken(changed)) await stopSeries(db, changed);
  return changed ?? null;
}

/** When it was wholly at its printer first, and when it was over: by that its printer's pace is known. */
function timesOf({ state }: SendingChange): { printingAt?: SQL; endedAt?: SQL } {
  if (state === 'printing') return { printingAt: sql`coalesce(${sendings.printingAt}, clock_timestamp())` };
  const ends = state === 'proofed' || (state !== undefined && OVER.includes(state));
  // A first set that was looked at was over before.
  return ends ? { endedAt: sql`coalesce(${sendings.endedAt}, clock_timestamp())` } : {};
}

/** What comes after a file that went wrong waits until a person has seen it, so that a series comes out in order. */
async function stopSeries(db: Database, { seriesId, ticket, message }: StoredSending): Promise<void> {
  const why = `It stopped at “${ticket.title}”: ${message ?? 'the printer broke it off.'}`;
  await db
    .update(series)
    .set({ state: 'paused', message: why })
    .where(and(eq(series.id, seriesId!), eq(series.state, 'running')));
}

/** Sent anew, a job takes the place of sets of it that wait until the first was looked at. */
export async function replaceHeldSets(db: Pick<Database, 'update'>, jobId: string): Promise<void> {
  const message = 'It was sent anew; of this one the other sets are not printed.';
  await db
    .update(sendings)
    .set({ state: 'completed', message, updatedAt: new Date() })
    .where(and(eq(sendings.jobId, jobId), eq(sendings.state, 'proofed')));
}

/** Cancels a sending of which the printer has nothing yet, or nothing more; null where it has. Whoever is just sending it finds it so. */
export async function cancelUnsent(db: Database, id: string): Promise<StoredSending | null> {
  const nothingSent = and(eq(sendings.state, 'sending'), sql`${sendings.printerJobs} = '[]'::jsonb`);
  const [canceled] = await db
    .update(sendings)
    .set({ state: 'canceled', message: null, server: null, updatedAt: new Date() })
    .where(and(eq(sendings.id, id), or(inArray(sendings.state, ['queued', 'turning', 'proofed']), nothingSent)))
    .returning();
  return canceled ?? null;
}

/** Any number: what servers take turns on before they take a sending in hand. */
const TAKING = 0x74616b;

/** Keeps a printer to itself: being sent, or in two passes, whose stack nobody else's sheets may come between. */
const KEEPS_PRINTER = or(
  eq(sendings.state, 'sending'),
  and(isNotNull(sendings.pass), inArray(sendings.state, ['printing', 'held', 'turning'])),
);

/** Another sending in two passes whose stack this one's sheets would come onto; null where there is none. */
export async function passesAt(db: Database, { id, printerId }: StoredSending): Promise<StoredSending | null> {
  const inPasses = and(isNotNull(sendings.pass), inArray(sendings.state, ['sending', 'printing', 'turning']));
  const [other] = await db
    .select()
    .from(sendings)
    .where(and(eq(sendings.printerId, printerId), ne(sendings.id, id), inPasses))
    .limit(1);
  return other ?? null;
}

/** Until the end of the transaction nobody else enters or takes sendings of this printer, so that they have one order. */
export const takeTurn = (db: Pick<Database, 'execute'>, printerId: string) =>
  db.execute(sql`select pg_advisory_xact_lock(${TAKING}, hashtext(${printerId}))`);

/** Enters a sending after all that were entered for its printer, or where it is said to stand. */
export async function insertSending(
  db: Pick<Database, 'execute' | 'insert'>,
  values: typeof sendings.$inferInsert,
  // Not the time at which the transaction began, which may be before that of one entered already.
  createdAt: SQL = sql`clock_timestamp()`,
): Promise<StoredSending> {
  await takeTurn(db, values.printerId);
  const [sending] = await db
    .insert(sendings)
    .values({ ...values, createdAt, turnAt: createdAt })
    .returning();
  return sending as StoredSending;
}

/**
 * Enters a sending once: of requests that carry one key, however many come at once, the first enters it and all get it.
 *
 * @throws Problem `body-invalid` where the key is that of another job's sending
 */
export async function enterOnce(
  db: Pick<Database, 'execute' | 'insert' | 'select'>,
  values: typeof sendings.$inferInsert,
): Promise<{ readonly sending: StoredSending; readonly isNew: boolean }> {
  await takeTurn(db, values.printerId);
  const known = await enteredWith(db, values.key, values.jobId);
  return known ? { sending: known, isNew: false } : { sending: await insertSending(db, values), isNew: true };
}

/** What texts on it tell: as the person saw it, also after midnight and where it is sent in parts. */
export const momentOfPrinting = ({ moment, createdAt }: StoredSending): string => moment ?? momentOf(createdAt);

/** The sending that was entered with a key; null where none was. @throws Problem like {@link enterOnce} */
export async function enteredWith(
  db: Pick<Database, 'select'>,
  key: string | null | undefined,
  jobId: string | null | undefined,
): Promise<StoredSending | null> {
  if (!key) return null;
  const [known] = await db.select().from(sendings).where(eq(sendings.key, key));
  // A job that was removed since is not named any more.
  if (known && known.jobId !== null && known.jobId !== jobId)
    throw new Problem('body-invalid', 'This key is of another sending; make a new one.');
  return known ?? null;
}

/** Of no series, or of one that is not paused. */
const GOES_ON = or(isNull(sendings.seriesId), eq(series.state, 'running'));

/**
 * Files of a series that the printer has before they are printed: one that it prints and the next, so that it never waits,
 * and little is under way when the series is paused or a file goes wrong.
 */
const SERIES_AHEAD = 2;

const AT_PRINTER: readonly SendingState[] = ['sending', 'printing', 'held', 'turning'];

async function underWay(db: Pick<Database, 'select'>, seriesId: string): Promise<number> {
  const [found] = await db
    .select({ files: count() })
    .from(sendings)
    .where(and(eq(sendings.seriesId, seriesId), inArray(sendings.state, [...AT_PRINTER])));
  return found?.files ?? 0;
}

/** Sendings that are not over, in the order in which they are sent, but for those that wait in a paused series. */
export async function goingOn(db: Database): Promise<StoredSending[]> {
  const waiting = and(eq(sendings.state, 'queued'), GOES_ON);
  const found = await db
    .select({ sending: sendings })
    .from(sendings)
    .leftJoin(series, eq(sendings.seriesId, series.id))
    .where(or(inArray(sendings.state, [...AT_PRINTER]), waiting))
    .orderBy(asc(sendings.turnAt), asc(sendings.id));
  return found.map(({ sending }) => sending);
}

/**
 * Takes the next sending for a printer in hand, so that each gets its jobs in the order they were sent off; null where none
 * waits, or another has the printer to itself.
 */
export async function takeNext(db: Database, printerId: string, server: number): Promise<StoredSending | null> {
  return db.transaction(async (tx) => {
    await takeTurn(tx, printerId);
    const atPrinter = eq(sendings.printerId, printerId);
    const [printer] = await tx.select({ held: printers.heldBack }).from(printers).where(eq(printers.id, printerId));
    if (printer?.held) return null;
    const [keeper] = await tx.select({ id: sendings.id }).from(sendings).where(and(atPrinter, KEEPS_PRINTER)).limit(1);
    if (keeper) return null;
    const [next] = await tx
      .select({ id: sendings.id, retryAt: sendings.retryAt, seriesId: sendings.seriesId })
      .from(sendings)
      .leftJoin(series, eq(sendings.seriesId, series.id))
      .where(and(atPrinter, eq(sendings.state, 'queued'), GOES_ON))
      // Backs come onto the stack that was put back for them before anything else may take it.
      .orderBy(sql`${sendings.pass} = 2 desc nulls last`, asc(sendings.turnAt), asc(sendings.id))
      .limit(1);
    // Nobody overtakes the one whose turn it is, also while it waits for its printer.
    if (next?.retryAt && next.retryAt > new Date()) return null;
    if (next?.seriesId && (await underWay(tx, next.seriesId)) >= SERIES_AHEAD) return null;
    return next
      ? changeSending(tx, next.id, ['queued'], { state: 'sending', server, message: null, retryAt: null })
      : null;
  });
}

/** Waits double with every attempt, up to some minutes. */
const FIRST_WAIT_MS = 2_000;
const LONGEST_WAIT_MS = 5 * 60_000;

/** What becomes of a sending that is being sent and could not be: it is queued again, and not tried at once. */
export function putOff({ attempts }: Pick<StoredSending, 'attempts'>, message: string): SendingChange {
  const wait = Math.min(FIRST_WAIT_MS * 2 ** Math.min(attempts, 20), LONGEST_WAIT_MS);
  return { state: 'queued', attempts: attempts + 1, retryAt: new Date(Date.now() + wait), message, server: null };
}

export const sendingsIn = (db: Database, state: SendingState): Promise<StoredSending[]> =>
  db.select().from(sendings).where(eq(sendings.state, state)).orderBy(sendings.createdAt);

/** The latest so many, and all that are not over; the latest first. */
export const listSendings = (db: Database, most: number): Promise<StoredSending[]> =>
  db
    .select()
    .from(sendings)
    .where(
      or(
        notInArray(sendings.state, [...OVER]),
        inArray(
          sendings.id,
          db.select({ id: sendings.id }).from(sendings).orderBy(desc(sendings.createdAt)).limit(most),
        ),
      ),
    )
    .orderBy(desc(sendings.createdAt));

/** @throws Problem `not-found` */
export async function findSending(db: Database, parameter: string): Promise<StoredSending> {
  const [sending] = await db
    .select()
    .from(sendings)
    .where(eq(sendings.id, idOf(parameter)));
  if (!sending) throw new Problem('not-found', 'This sending is not here.');
  return sending;
}

/** What the API tells of a sending. */
export function describeSending(sending: StoredSending) {
  const { id, jobId, printerId, state, message, reason, sheets, sheetsDone, printerJobs, createdAt, updatedAt } =
    sending;
  const { pass, handling, portion, partOf, seriesId, tally, turnAt } = sending;
  const { copies, title } = sending.ticket;
  return {
    id,
    jobId,
    printerId,
    title,
    copies,
    state,
    message,
    sheets,
    sheetsDone,
    seconds: tally?.seconds ?? null,
    printerJobs,
    pass,
    handling,
    portion,
    partOf,
    // Files of a series are sent in the order of the series.
    movable: state === 'queued' && seriesId === null && pass !== 2,
    turnAt,
    reason,
    createdAt,
    updatedAt,
  };
}
