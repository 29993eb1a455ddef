import { eq, sql } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { printers, sendings } from '../database/schema';

/** So many of what a printer brought out last tell its pace. */
const LATEST = 20;

/** Of fewer sheets it is rather measured how long it takes until one hears of them. */
const LEAST_SHEETS = 5;

/**
 * Measures how many times as long as by its profile a printer takes: the middle one of what it brought out last. A job begins when
 * the printer has it, or where it had another before when that was out. What is put back by hand in between tells nothing.
 */
export async function measurePace(db: Pick<Database, 'update'>, printerId: string): Promise<void> {
  const measured = sql`
    select round((percentile_cont(0.5) within group (order by took / planned))::numeric, 2)
    from (
      select extract(epoch from ended_at - greatest(printing_at, lag(ended_at) over (order by ended_at))) as took,
        (tally ->> 'seconds')::float8 as planned, sheets, handling
      from (
        select * from ${sendings}
        where printer_id = ${printerId} and state in ('completed', 'proofed')
          and printing_at is not null and ended_at is not null
        order by ended_at desc limit ${LATEST}
      ) as latest
    ) as jobs
    where sheets >= ${LEAST_SHEETS} and handling is null and planned > 0 and took > 0`;
  await db
    .update(printers)
    .set({ pace: sql`coalesce((${measured}), ${printers.pace})` })
    .where(eq(printers.id, printerId));
}
