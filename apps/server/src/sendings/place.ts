import { and, asc, eq, sql } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { sendings } from '../database/schema';
import { Problem } from '../http/problem';
import { enqueueSending } from './enqueue';
import { findSending, takeTurn, type StoredSending } from './sending-store';

/**
 * Puts a sending that waits here before another that waits for the same printer, or after all of them. The times that give them
 * their turns stay the same, and are given to them anew; so nothing else changes its place, and a second pass comes before all.
 *
 * @param before an id; null: after all others
 * @throws Problem `sending-under-way` where it, or the other one, does not wait any more or cannot be moved
 */
export async function placeSending(
  db: Database,
  { id, printerId }: StoredSending,
  before: string | null,
): Promise<StoredSending> {
  await db.transaction(async (tx) => {
    // Nobody is taken meanwhile, nor entered.
    await takeTurn(tx, printerId);
    const waiting = await tx
      .select()
      .from(sendings)
      .where(and(eq(sendings.printerId, printerId), eq(sendings.state, 'queued')))
      .orderBy(asc(sendings.turnAt), asc(sendings.id));
    const moved = waiting.find((one) => one.id === id);
    if (!moved) throw underWay('It does not wait here any more.');
    if (moved.seriesId !== null) throw underWay('It is a file of a series, which is sent in its order.');
    if (moved.pass === 2) throw underWay('Its stack is in the tray: its backs come first.');
    const others = waiting.filter((one) => one !== moved);
    const at = before === null ? others.length : others.findIndex((one) => one.id === before);
    if (at < 0) throw underWay('The one that it was to come before does not wait at this printer any more.');
    const ordered = others.toSpliced(at, 0, moved);
    const ids = ordered.map((one) => one.id);
    // In the database, whose times are finer than the engine's.
    await tx.execute(sql`
      update ${sendings} set turn_at = given.turn_at, updated_at = now()
      from jsonb_array_elements_text(${JSON.stringify(ids)}::jsonb) with ordinality as wanted (id, place)
      join (
        select turn_at, row_number() over (order by turn_at, id) as place from ${sendings}
        where id in (select value::uuid from jsonb_array_elements_text(${JSON.stringify(ids)}::jsonb))
      ) as given using (place)
      where ${sendings.id} = wanted.id::uuid and ${sendings.turnAt} <> given.turn_at`);
    // Whose turn it is now may have been waited for by nobody.
    const [first] = ordered;
    if (first) await enqueueSending(tx, first);
  });
  return findSending(db, id);
}

const underWay = (why: string): Problem => new Problem('sending-under-way', why);
