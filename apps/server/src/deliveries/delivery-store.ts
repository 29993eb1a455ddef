import { and, desc, eq, inArray } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { deliveries, type DeliveryState } from '../database/schema';
import { idOf } from '../http/body';
import { Problem } from '../http/problem';

export type StoredDelivery = typeof deliveries.$inferSelect;

/** The channel on which every server hears of every change. */
export const CHANNEL = 'foglio_delivery';

const OVER: readonly DeliveryState[] = ['completed', 'canceled', 'aborted', 'failed', 'interrupted'];

export const isOver = (delivery: StoredDelivery): boolean => OVER.includes(delivery.state);

export type DeliveryChange = Partial<
  Pick<
    StoredDelivery,
    'state' | 'message' | 'sheetsDone' | 'printerJobs' | 'earlierJobs' | 'parts' | 'pass' | 'reason' | 'server'
  >
>;

/**
 * Changes a delivery that is in one of the states given, and tells all who listen; null where it no longer is, so that
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
  if (changed) await tell(db, id);
  return changed ?? null;
}

export async function tell(db: Pick<Database, 'execute'>, id: string): Promise<void> {
  await db.execute(`select pg_notify('${CHANNEL}', '${idOf(id)}')`);
}

export const deliveriesIn = (db: Database, state: DeliveryState): Promise<StoredDelivery[]> =>
  db.select().from(deliveries).where(eq(deliveries.state, state)).orderBy(deliveries.createdAt);

/** The latest first. */
export const listDeliveries = (db: Database, most: number): Promise<StoredDelivery[]> =>
  db.select().from(deliveries).orderBy(desc(deliveries.createdAt)).limit(most);

/** @throws Problem `not-found` */
export async function findDelivery(db: Database, parameter: string | undefined): Promise<StoredDelivery> {
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
