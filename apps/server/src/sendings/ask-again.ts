import { and, eq, lt } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { sendings } from '../database/schema';
import { changeSending } from './sending-store';

const MINUTE_MS = 60_000;

/**
 * Asks again of sets that wait while nobody says what becomes of them: when the first has been out for so long, and as long
 * after that again. What was asked last stands in the table, so that no server forgets it, and two do not ask twice.
 *
 * @param afterMs how long one waits for a person, in milliseconds
 */
export async function askAgain(db: Database, afterMs: number, now = new Date()): Promise<void> {
  const since = new Date(now.getTime() - afterMs);
  const waiting = await db
    .select()
    .from(sendings)
    .where(and(eq(sendings.state, 'proofed'), lt(sendings.updatedAt, since)));
  for (const { id, endedAt, updatedAt } of waiting) {
    const minutes = Math.round((now.getTime() - (endedAt ?? updatedAt).getTime()) / MINUTE_MS);
    const message = `It has waited for ${sayDuration(minutes)}.`;
    await changeSending(db, id, ['proofed'], { message });
  }
}

/** Of minutes, in the unit that fits: "45 minutes", "3 hours", "2 days". */
export function sayDuration(minutes: number): string {
  const [amount, unit] =
    minutes < 90 ? [minutes, 'minute'] : minutes < 2880 ? [minutes / 60, 'hour'] : [minutes / 1440, 'day'];
  const whole = Math.max(1, Math.round(amount));
  return `${whole} ${unit}${whole === 1 ? '' : 's'}`;
}
