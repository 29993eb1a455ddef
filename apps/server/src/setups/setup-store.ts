import type { ChangedSetup, NewSetup } from '@foglio/api';
import { ANY_FILE, plainTicket, setupOf, type Ticket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { and, eq, ne, sql } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { violatesUnique } from '../database/query-error';
import { setups } from '../database/schema';
import { idOf } from '../http/body';
import { Problem } from '../http/problem';
import { sayTicketErrors } from '../jobs/job-store';
import { DESK } from '../incoming/desk';
import { findPrinter } from '../printers/printer-store';

export type StoredSetup = typeof setups.$inferSelect;

/** There is always one that new jobs start from: at the very first, everything at its usual value. */
export async function enterHouseSetup(db: Database): Promise<void> {
  const ticket = plainTicket([ANY_FILE]);
  // A server that starts at the same time enters the same.
  await db.execute(
    sql`insert into ${setups} (name, ticket, starts) select 'House set-up', ${JSON.stringify(ticket)}::jsonb, 'house'
        where not exists (select from ${setups} where starts = 'house') on conflict do nothing`,
  );
}

/** The house set-up first, then by name. */
export const listSetups = (db: Database): Promise<StoredSetup[]> =>
  db
    .select()
    .from(setups)
    .orderBy(sql`${setups.starts} = 'house' desc nulls last`, sql`lower(${setups.name})`);

/** @throws Problem `not-found` */
export async function findSetup(db: Database, parameter: string): Promise<StoredSetup> {
  const [setup] = await db
    .select()
    .from(setups)
    .where(eq(setups.id, idOf(parameter)));
  if (!setup) throw new Problem('not-found', 'This set-up is not here; it may have been removed.');
  return setup;
}

/** A set-up from a request: a ticket's documents and title are left out of it. @throws Problem `ticket-invalid` */
export const acceptSetup = (data: unknown): Ticket => setupOf(sayTicketErrors(() => readTicket(data)));

/** @throws Problem `name-taken`, `ticket-invalid`, `not-found` */
export async function saveSetup(db: Database, { name, ticket, printerId = null }: NewSetup): Promise<StoredSetup> {
  if (printerId !== null) await findPrinter(db, printerId);
  const values = { name: name.trim(), ticket: acceptSetup(ticket), printerId };
  const [saved] = await named(values.name, () => db.insert(setups).values(values).returning());
  return saved as StoredSetup;
}

/**
 * Changes what is given of a set-up and leaves the rest, whoever else changes it at the same time.
 *
 * @throws Problem `name-taken`, `ticket-invalid`, `not-found`, `setup-needed`; `setup-changed` where it is no longer at the
 *   revision the change began from
 */
export async function changeSetup(db: Database, { id }: StoredSetup, change: ChangedSetup): Promise<StoredSetup> {
  const accepted = change.ticket === undefined ? null : acceptSetup(change.ticket);
  if (change.printerId) await findPrinter(db, change.printerId);
  return db.transaction(async (tx) => {
    const [setup] = await tx.select().from(setups).where(eq(setups.id, id)).for('update');
    if (!setup) throw new Problem('not-found', 'This set-up is not here; it may have been removed.');
    const { name = setup.name, printerId = setup.printerId, starts = setup.starts } = change;
    if (change.revision !== undefined && change.revision !== setup.revision)
      throw new Problem('setup-changed', 'Another window changed this set-up. Look at how it stands now first.');
    if (setup.starts === 'house' && starts !== 'house') throw needed(setup);
    if (starts === 'printer' && printerId === null) {
      throw new Problem('body-invalid', 'starts: say which printer it is for.');
    }
    if (starts !== null) {
      // The one that held the place before gives it up.
      const held = and(eq(setups.starts, starts), starts === 'printer' ? eq(setups.printerId, printerId!) : undefined);
      await tx
        .update(setups)
        .set({ starts: null })
        .where(and(held, ne(setups.id, id)));
    }
    const queue = change.offered === undefined ? setup.queue : change.offered ? await freeQueue(tx, setup) : null;
    const values = { name: name.trim(), printerId, starts, queue, updatedAt: new Date(), revision: setup.revision + 1 };
    const [changed] = await named(values.name, () =>
      tx
        .update(setups)
        .set({ ...values, ticket: accepted ?? setup.ticket })
        .where(eq(setups.id, id))
        .returning(),
    );
    return changed as StoredSetup;
  });
}

/** The last part of its address: what it had, or made of its name; no two have the same. */
async function freeQueue(tx: Pick<Database, 'select'>, { id, name, queue }: StoredSetup): Promise<string> {
  if (queue !== null) return queue;
  const slug = slugOf(name);
  const taken = new Set(
    (await tx.select({ queue: setups.queue }).from(setups).where(ne(setups.id, id))).map((one) => one.queue),
  );
  if (slug !== DESK && !taken.has(slug)) return slug;
  for (let number = 2; ; number += 1) if (!taken.has(`${slug}-${number}`)) return `${slug}-${number}`;
}

/** "contract-on-letterhead": what every program takes in an address. */
function slugOf(name: string): string {
  const letters = name.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
  return (
    letters
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 60) || 'set-up'
  );
}

/** @throws Problem `setup-needed` */
export async function removeSetup(db: Database, setup: StoredSetup): Promise<void> {
  if (setup.starts === 'house') throw needed(setup);
  await db.delete(setups).where(eq(setups.id, setup.id));
}

const needed = ({ name }: StoredSetup): Problem =>
  new Problem('setup-needed', `“${name}” is the house set-up; make another one the house set-up first.`);

/** Names differ by more than case. @throws Problem `name-taken` */
async function named<T>(name: string, write: () => Promise<T>): Promise<T> {
  try {
    return await write();
  } catch (error) {
    if (!violatesUnique(error, 'setups_name')) throw error;
    throw new Problem('name-taken', `There is a set-up called “${name}” already; take another name.`);
  }
}

/** What the API tells of a set-up. */
export const describeSetup = ({ createdAt: _, ...setup }: StoredSetup) => setup;
