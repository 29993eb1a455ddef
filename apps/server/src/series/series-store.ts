import { isDeepStrictEqual } from 'node:util';
import type { ChangedSeries, SeriesFile } from '@foglio/api';
import { applySetup, planRow, type RowOutcome, type SetupFile, type Ticket } from '@foglio/core';
import { and, asc, count, desc, eq, inArray, isNotNull, max } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { sendings, jobs, series, seriesRows } from '../database/schema';
import { describeSending, isOver, type StoredSending } from '../sendings/sending-store';
import { idOf } from '../http/body';
import { Problem } from '../http/problem';
import { documentsOf, type StoredDocument, type StoredJob } from '../jobs/job-store';
import { findPrinter, type StoredPrinter } from '../printers/printer-store';

export type StoredSeries = typeof series.$inferSelect;

/** A file of a series, with the job by which it is set up and how its latest sending goes. */
export interface StoredRow {
  readonly row: typeof seriesRows.$inferSelect;
  readonly job: StoredJob | null;
  readonly sending: StoredSending | null;
}

/** @throws Problem `not-found` */
export async function findSeries(db: Database, parameter: string): Promise<StoredSeries> {
  const [found] = await db
    .select()
    .from(series)
    .where(eq(series.id, idOf(parameter)));
  if (!found) throw new Problem('not-found', 'This series is not here; it may have been removed.');
  return found;
}

/** The files of a series in their order. */
export async function rowsOf(
  db: Pick<Database, 'select' | 'selectDistinctOn'>,
  { id }: StoredSeries,
): Promise<StoredRow[]> {
  const rows = await db
    .select({ row: seriesRows, job: jobs })
    .from(seriesRows)
    .leftJoin(jobs, eq(seriesRows.jobId, jobs.id))
    .where(eq(seriesRows.seriesId, id))
    .orderBy(asc(seriesRows.place), asc(seriesRows.id));
  const sent = await db
    .selectDistinctOn([sendings.jobId])
    .from(sendings)
    .where(and(eq(sendings.seriesId, id), isNotNull(sendings.jobId)))
    .orderBy(sendings.jobId, desc(sendings.createdAt));
  const byJob = new Map(sent.map((sending) => [sending.jobId, sending]));
  return rows.map((one) => ({ ...one, sending: (one.job && byJob.get(one.job.id)) ?? null }));
}

/** The ticket that the set-up of a series makes of a file. */
const ticketFor = (setup: Ticket, file: SetupFile, name: string): Ticket =>
  applySetup(setup, [file], name.replace(/\.[^.]+$/, ''));

const fileOf = ({ ticket }: StoredJob): string => ticket.documents[0]?.file ?? '';

/** The same, and whether it came attached to a mail. */
const givenTo = ({ ticket: { documents } }: StoredJob): SetupFile =>
  documents[0] ? { id: documents[0].file, laid: documents[0] } : '';

/** Whether a person gave a file settings of its own. */
const isChanged = (setup: Ticket, { row, job }: StoredRow): boolean =>
  job !== null && !isDeepStrictEqual(job.ticket, ticketFor(setup, givenTo(job), row.name));

/** What can only be changed before the series is sent. @throws Problem `series-sent` */
export function requireDraft({ state }: StoredSeries): void {
  if (state === 'draft') return;
  throw new Problem('series-sent', 'This series was sent; begin a new one for other files or another set-up.');
}

/** Within a transaction. */
type Within = Parameters<Parameters<Database['transaction']>[0]>[0];

/** The series while nobody else changes it, to the end of the transaction. @throws Problem `not-found` */
async function hold(tx: Within, id: string): Promise<StoredSeries> {
  const [one] = await tx.select().from(series).where(eq(series.id, id)).for('update');
  if (!one) throw new Problem('not-found', 'This series is not here; it may have been removed.');
  return one;
}

const countUp = (tx: Within, { id, revision }: StoredSeries) =>
  tx
    .update(series)
    .set({ revision: revision + 1 })
    .where(eq(series.id, id));

/**
 * Changes a series, or its files, before it is sent. Whoever else changes or sends it comes before or after, so that
 * nothing gets into one that is on its way, and nothing of two changes at once is lost.
 *
 * @throws Problem `series-sent`
 */
export async function inDraft<T>(
  db: Database,
  id: string,
  work: (tx: Within, one: StoredSeries) => Promise<T>,
): Promise<T> {
  return db.transaction(async (tx) => {
    const one = await hold(tx, id);
    requireDraft(one);
    const done = await work(tx, one);
    await countUp(tx, one);
    return done;
  });
}

/** Changes the job of a file; of a series, only before that is sent. @throws what the work throws; Problem `series-sent` */
export async function inDraftOfJob<T>(db: Database, jobId: string, work: (tx: Within) => Promise<T>): Promise<T> {
  const [row] = await db.select().from(seriesRows).where(eq(seriesRows.jobId, jobId)).limit(1);
  return row ? inDraft(db, row.seriesId, work) : db.transaction(work);
}

/** Puts files at the end, each as a job of the series' set-up. @throws Problem `ticket-invalid` where one is not here */
export const addFiles = (db: Database, { id }: StoredSeries, files: readonly SeriesFile[]): Promise<void> =>
  inDraft(db, id, async (tx, one) => {
    const [last] = await tx
      .select({ place: max(seriesRows.place) })
      .from(seriesRows)
      .where(eq(seriesRows.seriesId, id));
    const first = (last?.place ?? -1) + 1;
    for (const [at, { name, file, trouble }] of files.entries()) {
      const place = first + at;
      const row = { seriesId: id, place, name };
      if (file === undefined) {
        await tx.insert(seriesRows).values({ ...row, trouble: trouble ?? 'This file could not be read.' });
        continue;
      }
      const [document] = await documentsOf(tx, { documents: [{ file }] });
      const ticket = ticketFor(one.setup, document!, name);
      const [job] = await tx.insert(jobs).values({ ticket, printerId: one.printerId }).returning();
      await tx.insert(seriesRows).values({ ...row, jobId: job!.id });
    }
  });

/** Puts files in order and takes some out, and their jobs with them. Such as came in meanwhile stay at the end. */
export const orderFiles = (
  db: Database,
  { id }: StoredSeries,
  { rows: order, out = [] }: { readonly rows: readonly string[]; readonly out?: readonly string[] },
): Promise<void> =>
  inDraft(db, id, async (tx) => {
    const rows = await tx
      .select()
      .from(seriesRows)
      .where(eq(seriesRows.seriesId, id))
      .orderBy(asc(seriesRows.place), asc(seriesRows.id));
    const gone = rows.filter((row) => out.includes(row.id));
    const named = order.flatMap((one) => rows.find((row) => row.id === one && !gone.includes(row)) ?? []);
    const others = rows.filter((row) => !gone.includes(row) && !named.includes(row));
    for (const [place, row] of [...named, ...others].entries()) {
      if (row.place !== place) await tx.update(seriesRows).set({ place }).where(eq(seriesRows.id, row.id));
    }
    for (const row of gone) await tx.delete(seriesRows).where(eq(seriesRows.id, row.id));
    const ids = gone.flatMap(({ jobId }) => jobId ?? []);
    if (ids.length > 0) await tx.delete(jobs).where(inArray(jobs.id, ids));
  });

/** @throws Problem `not-found` */
export const skipFile = (db: Database, { id }: StoredSeries, row: string, skipped: boolean): Promise<void> =>
  inDraft(db, id, async (tx) => {
    const changed = await tx
      .update(seriesRows)
      .set({ skipped })
      .where(and(eq(seriesRows.seriesId, id), eq(seriesRows.id, idOf(row))))
      .returning();
    if (changed.length === 0) throw new Problem('not-found', 'This file is not in the series.');
  });

/**
 * Another set-up or printer is given to all files that have no settings of their own; a printer to all. A title may be
 * changed at any time.
 *
 * @throws Problem `series-sent`; `series-changed` where it is no longer at the revision the change began from
 */
export async function changeSeries(
  db: Database,
  { id }: StoredSeries,
  { setup, printerId, title, revision }: Omit<ChangedSeries, 'setup'> & { readonly setup?: Ticket },
): Promise<void> {
  if (printerId !== undefined) await findPrinter(db, printerId);
  await db.transaction(async (tx) => {
    const one = await hold(tx, id);
    if (revision !== undefined && revision !== one.revision)
      throw new Problem('series-changed', 'Another window changed this series. Look at how it stands, then change it.');
    if (setup !== undefined || printerId !== undefined) requireDraft(one);
    await countUp(tx, one);
    await tx
      .update(series)
      .set({ title: title ?? one.title, setup: setup ?? one.setup, printerId: printerId ?? one.printerId })
      .where(eq(series.id, id));
    for (const each of await rowsOf(tx, one)) {
      if (!each.job) continue;
      const { id: jobId, ticket, revision: before } = each.job;
      const isOwn = setup === undefined || isChanged(one.setup, each);
      const next = isOwn ? ticket : ticketFor(setup, givenTo(each.job), each.row.name);
      const at = printerId ?? each.job.printerId;
      if (next === ticket && at === each.job.printerId) continue;
      await tx
        .update(jobs)
        .set({ ticket: next, printerId: at, revision: before + 1 })
        .where(eq(jobs.id, jobId));
    }
  });
}

/** Removes a series with its jobs; what was sent stays in the queue. @throws Problem `series-sent` */
export async function removeSeries(db: Database, one: StoredSeries): Promise<void> {
  const rows = await rowsOf(db, one);
  if (rows.some(({ sending }) => sending && !isOver(sending))) {
    throw new Problem('series-sent', 'Files of it are still being printed; cancel them first, or wait.');
  }
  const ids = rows.flatMap(({ job }) => job?.id ?? []);
  await db.transaction(async (tx) => {
    await tx.delete(series).where(eq(series.id, one.id));
    if (ids.length > 0) await tx.delete(jobs).where(inArray(jobs.id, ids));
  });
}

/** How a series stands: over when every file that was sent is, and nobody stopped it. */
function stateOf({ state }: StoredSeries, rows: readonly StoredRow[]): StoredSeries['state'] | 'done' {
  return state === 'running' && rows.every(({ sending }) => !sending || isOver(sending)) ? 'done' : state;
}

/** What the API tells of a series. */
export async function describeSeries(db: Database, one: StoredSeries) {
  const rows = await rowsOf(db, one);
  const { id, title, setup, printerId, message, revision, createdAt, startedAt } = one;
  return {
    ...{ id, title, setup, printerId, message, revision, createdAt, startedAt },
    state: stateOf(one, rows),
    rows: rows.map((each) => {
      const { row, job, sending } = each;
      return {
        id: row.id,
        name: row.name,
        trouble: row.trouble,
        skipped: row.skipped,
        changed: isChanged(setup, each),
        file: job && fileOf(job),
        jobId: job?.id ?? null,
        ticket: job?.ticket ?? null,
        sending: sending && describeSending(sending),
      };
    }),
  };
}

/** All series, the latest first. */
export async function listSeries(db: Database) {
  const all = await db.select().from(series).orderBy(desc(series.createdAt));
  const counts = await db
    .select({ id: seriesRows.seriesId, files: count() })
    .from(seriesRows)
    .groupBy(seriesRows.seriesId);
  const files = new Map(counts.map((one) => [one.id, one.files]));
  return Promise.all(
    all.map(async (one) => {
      const { id, title, printerId, message, createdAt, startedAt } = one;
      const state = stateOf(one, one.state === 'running' ? await rowsOf(db, one) : []);
      return { id, title, printerId, state, message, createdAt, startedAt, files: files.get(id) ?? 0 };
    }),
  );
}

/** The facts of the files of a series, by the file's id; of all in one query, since there may be hundreds. */
export async function documentsOfRows(db: Database, rows: readonly StoredRow[]): Promise<Map<string, StoredDocument>> {
  const files = rows.flatMap(({ job }) => (job ? [{ file: fileOf(job) }] : []));
  if (files.length === 0) return new Map();
  return new Map((await documentsOf(db, { documents: files })).map((document) => [document.id, document]));
}

/** A file that is to be printed, as planned against the printer. */
export interface PlannedRow extends StoredRow {
  readonly job: StoredJob;
  readonly documents: readonly StoredDocument[];
  readonly outcome: RowOutcome;
}

/** The files that are to be printed at a printer as it is now, those left out and those that could not be taken in excepted. */
export async function planRows(
  db: Database,
  rows: readonly StoredRow[],
  { profile, uri }: Pick<StoredPrinter, 'profile' | 'uri'>,
): Promise<PlannedRow[]> {
  const planned: PlannedRow[] = [];
  const known = await documentsOfRows(db, rows);
  for (const { row, job, sending } of rows) {
    if (!job || row.skipped) continue;
    const documents = job.ticket.documents.flatMap(({ file }) => known.get(file) ?? []);
    planned.push({ row, job, sending, documents, outcome: planRow(job.ticket, documents, profile, uri) });
  }
  return planned;
}
