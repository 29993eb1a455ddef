import { and, eq } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { printers, sendings } from '../database/schema';
import type { Handlers } from '../http/bind';
import { findPrinter } from '../printers/printer-store';
import type { PrinterWatch } from '../printers/watch';
import { enqueueSending } from './enqueue';

/** What is to be sent to a printer waits here until somebody sends on. */
export function holdBackHandlers(db: Database, watch: PrinterWatch): Handlers<'holdBack'> {
  return {
    holdBack: async ({ params, body }) => {
      const { id } = await findPrinter(db, params.id);
      await holdBack(db, id, body.held);
      return watch.describe(await findPrinter(db, id));
    },
  };
}

async function holdBack(db: Database, id: string, held: boolean): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.update(printers).set({ heldBack: held }).where(eq(printers.id, id));
    if (held) return;
    const waiting = and(eq(sendings.printerId, id), eq(sendings.state, 'queued'));
    for (const sending of await tx.select().from(sendings).where(waiting)) await enqueueSending(tx, sending);
  });
}

/** The ids of printers that nothing is sent to. */
export async function heldBackPrinters(db: Database): Promise<ReadonlySet<string>> {
  const found = await db.select({ id: printers.id }).from(printers).where(eq(printers.heldBack, true));
  return new Set(found.map(({ id }) => id));
}
