import { sayDifference, sealOfAll, seriesChecks, seriesTally, whyUnfit, type SealOfMany } from '@foglio/core';
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { sendings, jobs, series } from '../database/schema';
import { insertSending, isBroken } from '../sendings/sending-store';
import { enqueueSending } from '../sendings/enqueue';
import { cautionsStand, Problem } from '../http/problem';
import { askNow, findPrinter } from '../printers/printer-store';
import { findSeries, planRows, requireDraft, rowsOf, type StoredSeries } from './series-store';

/** What the person saw before sending. */
export interface Seen {
  readonly sheets: number;
  readonly confirmed: readonly string[];
  /** Of this sending; what comes again with it is the same sending. */
  readonly key: string | null;
  /** Null: the number of sheets alone is compared. */
  readonly seal: SealOfMany | null;
  /** As printers show who sent it; null: nobody said. */
  readonly by: string | null;
}

/**
 * Sends the files of a series that are not left out, in their order: all are entered in one transaction, so that nothing
 * that is sent from here comes in between. It must still be what the person saw, planned against the printer as it is now.
 *
 * @throws Problem `series-sent`, `series-unfit`, `plan-changed`, `caution-stands`, `printer-away`
 */
export async function startSeries(
  db: Database,
  one: StoredSeries,
  { sheets, confirmed, key, seal, by }: Seen,
): Promise<void> {
  // It was begun with this very request, whose answer was lost.
  if (key !== null && one.key === key) return;
  requireDraft(one);
  const printer = await findPrinter(db, one.printerId);
  const { profile } = await askNow(db, printer);
  const rows = await planRows(db, await rowsOf(db, one), { profile, uri: printer.uri });
  const outcomes = rows.map(({ outcome }) => outcome);
  const names = rows.map(({ row }) => row.name);
  for (const { row, outcome } of rows) {
    const why = whyUnfit(outcome);
    if (why !== null) throw new Problem('series-unfit', `${row.name}: ${why}`);
  }
  if (rows.length === 0) throw new Problem('series-unfit', 'There is no file to print.');
  const planned = seriesTally(outcomes, profile).sheets;
  if (planned !== sheets) {
    throw new Problem('plan-changed', `It now comes to ${planned} sheets, not ${sheets}; look again, then send.`);
  }
  const sealed = sealOfAll(outcomes.flatMap((outcome) => outcome.seal ?? []));
  const differs = seal && sayDifference(seal, sealed);
  if (differs) {
    throw new Problem(
      'plan-changed',
      `Since you looked, this changed: ${differs}. Look at the files again, then send.`,
    );
  }
  const checks = seriesChecks(outcomes, names, profile);
  const stop = checks.find(({ level }) => level === 'stop');
  if (stop) throw new Problem('series-unfit', stop.message);
  const open = checks.filter(({ level, code }) => level === 'caution' && !confirmed.includes(code));
  if (open.length > 0) throw cautionsStand(open);
  await db.transaction(async (tx) => {
    const [begun] = await tx
      .update(series)
      .set({ state: 'running', startedAt: new Date(), message: null, key })
      // Changed since its rows were read, it is not what was planned.
      .where(and(eq(series.id, one.id), eq(series.state, 'draft'), eq(series.revision, one.revision)))
      .returning();
    if (!begun) {
      const now = await findSeries(db, one.id);
      if (key !== null && now.key === key) return;
      requireDraft(now);
      throw new Problem('plan-changed', 'Its files were changed at this very moment; look again, then send.');
    }
    for (const { job, outcome } of rows) {
      const { id: jobId, ticket, printerId } = job;
      const { tally } = outcome;
      const comesTo = { sheets: tally?.sheets ?? 0, tally };
      const values = { jobId, printerId, ticket, profile, seriesId: one.id, ...comesTo, userName: by };
      await insertSending(tx, values);
    }
    const ids = rows.map(({ job }) => job.id);
    await tx.update(jobs).set({ lastSentAt: new Date() }).where(inArray(jobs.id, ids));
  });
  await wake(db, one);
}

/** Has the queue look for what waits for the printer of a series. */
async function wake(db: Database, { id }: StoredSeries): Promise<void> {
  const [next] = await db
    .select()
    .from(sendings)
    .where(and(eq(sendings.seriesId, id), eq(sendings.state, 'queued')))
    .orderBy(sendings.turnAt)
    .limit(1);
  if (next) await enqueueSending(db, next);
}

/** Sends nothing more of a series; what the printer has is printed. @throws Problem `series-sent` where it is not being sent */
export async function pauseSeries(db: Database, one: StoredSeries): Promise<void> {
  const [paused] = await db
    .update(series)
    .set({ state: 'paused', message: null })
    .where(and(eq(series.id, one.id), eq(series.state, 'running')))
    .returning();
  if (!paused) throw new Problem('series-sent', 'This series is not being sent.');
}

/**
 * Goes on with a paused series. A file that went wrong is printed once more, before those that wait, or given up.
 *
 * @throws Problem `series-sent` where it is not paused
 */
export async function resumeSeries(db: Database, one: StoredSeries, again: boolean): Promise<void> {
  const broken = (await rowsOf(db, one)).flatMap(({ sending }) => (sending && isBroken(sending) ? sending : []));
  await db.transaction(async (tx) => {
    const [resumed] = await tx
      .update(series)
      .set({ state: 'running', message: null })
      .where(and(eq(series.id, one.id), eq(series.state, 'paused')))
      .returning();
    if (!resumed) throw new Problem('series-sent', 'This series is not paused.');
    for (const { id, jobId, printerId, ticket, profile, sheets, tally, seriesId, userName } of again ? broken : []) {
      const values = { jobId, printerId, ticket, profile, sheets, tally, seriesId, userName, againOf: id };
      // In the place of the one that went wrong: right after it, and before all that come later.
      const place = sql`(select turn_at + interval '1 microsecond' from ${sendings} where id = ${id})`;
      await insertSending(tx, values, place);
    }
  });
  await wake(db, one);
}
