import type { Ticket } from '@foglio/core';
import { nameUuid } from '@foglio/ipp/serving';
import { asc, eq, or, sql } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { setups } from '../database/schema';
import { listPrinters, type StoredPrinter } from '../printers/printer-store';
import type { StoredSetup } from '../setups/setup-store';
import { DESK } from './desk';

/** Where another program can print to: the Desk, or a set-up. */
export interface Queue {
  /** The last part of its address. */
  readonly name: string;
  readonly title: string;
  readonly uuid: string;
  /** Null: the Desk. */
  readonly setup: StoredSetup | null;
  /** What a job begins from. */
  readonly ticket: Ticket;
  /** The printer that its jobs are for. */
  readonly printer: StoredPrinter;
}

/** Of this installation's Desk and no other's: a program that knows a printer by its UUID takes two of one for the same. */
async function deskUuid(db: Database): Promise<string> {
  const { rows } = await db.execute<{ name: string }>(
    sql`select system_identifier || ' ' || current_database() as name from pg_control_system()`,
  );
  return nameUuid(`urn:foglio:desk:${rows[0]!.name}`);
}

/** The queue of that name; null: there is none. */
export async function findQueue(db: Database, name: string): Promise<Queue | null> {
  const printers = await listPrinters(db);
  const [first] = printers;
  if (!first) return null;
  if (name === DESK)
    return {
      name,
      title: 'Foglio Desk',
      uuid: await deskUuid(db),
      setup: null,
      printer: first,
      ticket: await startingTicket(db, first),
    };
  const [setup] = await db.select().from(setups).where(eq(setups.queue, name));
  return setup ? queueOf(setup, printers) : null;
}

/** All that are offered, the Desk first. */
export async function listQueues(db: Database): Promise<Queue[]> {
  const desk = await findQueue(db, DESK);
  const printers = await listPrinters(db);
  const offered = await db.select().from(setups).orderBy(asc(setups.name));
  return [...(desk ? [desk] : []), ...offered.flatMap((setup) => queueOf(setup, printers) ?? [])];
}

function queueOf(setup: StoredSetup, printers: readonly StoredPrinter[]): Queue | null {
  const printer = printers.find(({ id }) => id === setup.printerId) ?? printers[0];
  const { queue, name, id, ticket } = setup;
  return queue !== null && printer ? { name: queue, title: name, uuid: id, setup, ticket, printer } : null;
}

/** What new jobs for a printer start from. */
async function startingTicket(db: Database, { id }: StoredPrinter): Promise<Ticket> {
  const starting = await db
    .select()
    .from(setups)
    .where(or(eq(setups.starts, 'house'), eq(setups.printerId, id)));
  const own = starting.find(({ starts, printerId }) => starts === 'printer' && printerId === id);
  return (own ?? starting.find(({ starts }) => starts === 'house')!).ticket;
}
