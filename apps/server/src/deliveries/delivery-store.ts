import type { DeliveryState } from '@foglio/api';
import { momentOf } from '@foglio/core';
import { and, asc, count, desc, eq, inArray, isNotNull, isNull, ne, or, sql, type SQL } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { deliveries, series } from '../database/schema';
import { idOf } from '../http/body';
import { Problem } from '../http/problem';

export type StoredDelivery = typeof deliveries.$inferSelect;

const OVER: readonly DeliveryState[] = ['completed', 'canceled', 'aborted', 'failed', 'interrupted'];

export const isOver = (delivery: StoredDelivery): boolean => OVER.includes(delivery.state);

const BROKEN: readonly DeliveryState[] = ['failed', 'interrupted', 'aborted'];

/** Whether a delivery ended otherwise than it should, and nobody wanted it so. */
export const isBroken = (delivery: StoredDelivery): boolean => BROKEN.includes(delivery.state);

export type DeliveryChange = Partial<
  Pick<
    StoredDelivery,
    | 'state'
    | 'message'
    | 'sheetsDone'
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
 * Changes a delivery that is in one of the states given; null where it no longer is, so that
 * of two that act at once only one does.
 */
export async function changeDelivery(
  db: Database,
  id: string,
  from: readonly DeliveryState[],
  change: DeliveryChange,
): Promise<StoredDelivery | null> {
  const [changed] = await db
    .update(deliveries)
    .set({ ...change, updatedAt: new Date() })
    .where(and(eq(deliveries.id, id), inArray(deliveries.state, [...from])))
    .returning();
  if (changed?.seriesId && isBroken(changed)) await stopSeries(db, changed);
  return changed ?? null;
}

/** What comes after a file that went wrong waits until a person has seen it, so that a series comes out in order. */
async function stopSeries(db: Database, { seriesId, ticket, message }: StoredDelivery): Promise<void> {
  const why = `It stopped at “${ticket.title}”: ${message ?? 'the printer broke it off.'}`;
  await db
    .update(series)
    .set({ state: 'paused', message: why })
    .where(and(eq(series.id, seriesId!), eq(series.state, 'running')));
}

/** Cancels a delivery of which the printer has nothing yet; null where it has. Whoever is just sending it finds it so. */
export async function cancelUnsent(db: Database, id: string): Promise<StoredDelivery | null> {
  const nothingSent = and(eq(deliveries.state, 'sending'), sql`${deliveries.printerJobs} = '[]'::jsonb`);
  const [canceled] = await db
    .update(deliveries)
    .set({ state: 'canceled', message: null, server: null, updatedAt: new Date() })
    .where(and(eq(deliveries.id, id), or(inArray(deliveries.state, ['queued', 'turning']), nothingSent)))
    .returning();
  return canceled ?? null;
}

/** Any number: what servers take turns on before they take a delivery in hand. */
const TAKING = 0x74616b;

/** Keeps a printer to itself: being sent, or in two passes, whose stack nobody else's sheets may come between. */
const KEEPS_PRINTER = or(
  eq(deliveries.state, 'sending'),
  and(isNotNull(deliveries.pass), inArray(deliveries.state, ['printing', 'held', 'turning'])),
);

/** Another delivery in two passes whose stack this one's sheets would come onto; null where there is none. */
export async function passesAt(db: Database, { id, printerId }: StoredDelivery): Promise<StoredDelivery | null> {
  const inPasses = and(isNotNull(deliveries.pass), inArray(deliveries.state, ['sending', 'printing', 'turning']));
  const [other] = await db
    .select()
    .from(deliveries)
    .where(and(eq(deliveries.printerId, printerId), ne(deliveries.id, id), inPasses))
    .limit(1);
  return other ?? null;
}

/** Until the end of the transaction nobody else enters or takes deliveries of this printer, so that they have one order. */
const takeTurn = (db: Pick<Database, 'execute'>, printerId: string) =>
  db.execute(sql`select pg_advisory_xact_lock(${TAKING}, hashtext(${printerId}))`);

/** Enters a delivery after all that were entered for its printer, or where it is said to stand. */
export async function insertDelivery(
  db: Pick<Database, 'execute' | 'insert'>,
  values: typeof deliveries.$inferInsert,
  // Not the time at which the transaction began, which may be before that of one entered already.
  createdAt: SQL = sql`clock_timestamp()`,
): Promise<StoredDelivery> {
  await takeTurn(db, values.printerId);
  const [delivery] = await db
    .insert(deliveries)
    .values({ ...values, createdAt })
    .returning();
  return delivery as StoredDelivery;
}

/**
 * Enters a delivery once: of requests that carry one key, however many come at once, the first enters it and all get it.
 *
 * @throws Problem `body-invalid` where the key is that of another job's sending
 */
export async function enterOnce(
  db: Pick<Database, 'execute' | 'insert' | 'select'>,
  values: typeof deliveries.$inferInsert,
): Promise<{ readonly delivery: StoredDelivery; readonly isNew: boolean }> {
  await takeTurn(db, values.printerId);
  const known = await enteredWith(db, values.key, values.jobId);
  return known ? { delivery: known, isNew: false } : { delivery: await insertDelivery(db, values), isNew: true };
}

/** What texts on it tell: as the person saw it, also after midnight and where it is sent in parts. */
export const momentOfPrinting = ({ moment, createdAt }: StoredDelivery): string => moment ?? momentOf(createdAt);

/** The delivery that was entered with a key; null where none was. @throws Problem like {@link enterOnce} */
export async function enteredWith(
  db: Pick<Database, 'select'>,
  key: string | null | undefined,
  jobId: string | null | undefined,
): Promise<StoredDelivery | null> {
  if (!key) return null;
  const [known] = await db.select().from(deliveries).where(eq(deliveries.key, key));
  // A job that was removed since is not named any more.
  if (known && known.jobId !== null && known.jobId !== jobId)
    throw new Problem('body-invalid', 'This key is of another sending; make a new one.');
  return known ?? null;
}

/** Of no series, or of one that is not paused. */
const GOES_ON = or(isNull(deliveries.seriesId), eq(series.state, 'running'));

/**
 * Files of a series that the printer has before they are printed: one that it prints and the next, so that it never waits,
 * and little is under way when the series is paused or a file goes wrong.
 */
const SERIES_AHEAD = 2;

const AT_PRINTER: readonly DeliveryState[] = ['sending', 'printing', 'held', 'turning'];

async function underWay(db: Pick<Database, 'select'>, seriesId: string): Promise<number> {
  const [found] = await db
    .select({ files: count() })
    .from(deliveries)
    .where(and(eq(deliveries.seriesId, seriesId), inArray(deliveries.state, [...AT_PRINTER])));
  return found?.files ?? 0;
}

/** Deliveries that are not over, in the order in which they are sent, but for those that wait in a paused series. */
export async function goingOn(db: Database): Promise<StoredDelivery[]> {
  const waiting = and(eq(deliveries.state, 'queued'), GOES_ON);
  const found = await db
    .select({ delivery: deliveries })
    .from(deliveries)
    .leftJoin(series, eq(deliveries.seriesId, series.id))
    .where(or(inArray(deliveries.state, [...AT_PRINTER]), waiting))
    .orderBy(asc(deliveries.createdAt), asc(deliveries.id));
  return found.map(({ delivery }) => delivery);
}

/**
 * Takes the next delivery for a printer in hand, so that each gets its jobs in the order they were sent off; null where none
 * waits, or another has the printer to itself.
 */
export async function takeNext(db: Database, printerId: string, server: number): Promise<StoredDelivery | null> {
  return db.transaction(async (tx) => {
    await takeTurn(tx, printerId);
    const atPrinter = eq(deliveries.printerId, printerId);
    const [keeper] = await tx
      .select({ id: deliveries.id })
      .from(deliveries)
      .where(and(atPrinter, KEEPS_PRINTER))
      .limit(1);
    if (keeper) return null;
    const [next] = await tx
      .select({ id: deliveries.id, retryAt: deliveries.retryAt, seriesId: deliveries.seriesId })
      .from(deliveries)
      .leftJoin(series, eq(deliveries.seriesId, series.id))
      .where(and(atPrinter, eq(deliveries.state, 'queued'), GOES_ON))
      .orderBy(asc(deliveries.createdAt), asc(deliveries.id))
      .limit(1);
    // Nobody overtakes the one whose turn it is, also while it waits for its printer.
    if (next?.retryAt && next.retryAt > new Date()) return null;
    if (next?.seriesId && (await underWay(tx, next.seriesId)) >= SERIES_AHEAD) return null;
    return next
      ? changeDelivery(tx, next.id, ['queued'], { state: 'sending', server, message: null, retryAt: null })
      : null;
  });
}

/** Waits double with every attempt, up to some minutes. */
const FIRST_WAIT_MS = 2_000;
const LONGEST_WAIT_MS = 5 * 60_000;

/** What becomes of a delivery that is being sent and could not be: it is queued again, and not tried at once. */
export function putOff({ attempts }: Pick<StoredDelivery, 'attempts'>, message: string): DeliveryChange {
  const wait = Math.min(FIRST_WAIT_MS * 2 ** Math.min(attempts, 20), LONGEST_WAIT_MS);
  return { state: 'queued', attempts: attempts + 1, retryAt: new Date(Date.now() + wait), message, server: null };
}

export const deliveriesIn = (db: Database, state: DeliveryState): Promise<StoredDelivery[]> =>
  db.select().from(deliveries).where(eq(deliveries.state, state)).orderBy(deliveries.createdAt);

/** The latest first. */
export const listDeliveries = (db: Database, most: number): Promise<StoredDelivery[]> =>
  db.select().from(deliveries).orderBy(desc(deliveries.createdAt)).limit(most);

/** @throws Problem `not-found` */
export async function findDelivery(db: Database, parameter: string): Promise<StoredDelivery> {
  const [delivery] = await db
    .select()
    .from(deliveries)
    .where(eq(deliveries.id, idOf(parameter)));
  if (!delivery) throw new Problem('not-found', 'This sending is not here.');
  return delivery;
}

/** What the API tells of a delivery. */
export function describeDelivery(delivery: StoredDelivery) {
  const { id, jobId, printerId, state, message, reason, sheets, sheetsDone, printerJobs, createdAt, updatedAt } =
    delivery;
  const { pass, handling } = delivery;
  const { copies, title } = delivery.ticket;
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
    printerJobs,
    pass,
    handling,
    reason,
    createdAt,
    updatedAt,
  };
}
