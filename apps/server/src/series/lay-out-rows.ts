import { isLaidOutAs, type Ticket } from '@foglio/core';
import { and, eq } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { forLog } from '../database/query-error';
import { jobs, seriesRows } from '../database/schema';
import { findFile, layOutFile } from '../files/lay-out';
import { Problem } from '../http/problem';
import type { PdfWorkers } from '../pdf/pdf-workers';
import { findSeries, inDraft, rowsOf, type StoredRow } from './series-store';
import { log } from '../log';

/**
 * Lays the files of a series out as their tickets ask, one after the other; until then they wait with what the checks say of
 * them. What cannot be laid out so is told in its row. A job that is changed meanwhile is left to whoever changed it.
 */
export async function layOutRows(db: Database, workers: PdfWorkers, seriesId: string): Promise<void> {
  try {
    for (const row of await rowsOf(db, await findSeries(db, seriesId))) await layOutRow(db, workers, seriesId, row);
  } catch (error) {
    // Removed or sent meanwhile, or the server ends: the checks still say how it stands.
    if (!(error instanceof Problem))
      log.error({ series: seriesId, err: forLog(error) }, 'a file of a series could not be laid out');
  }
}

async function layOutRow(db: Database, workers: PdfWorkers, seriesId: string, { row, job }: StoredRow): Promise<void> {
  if (!job) return;
  let trouble: string | null = null;
  const documents: Ticket['documents'] = [];
  for (const one of job.ticket.documents) {
    const found = await findFile(db, one.file);
    if (isLaidOutAs(found.file.laid ?? undefined, one.form)) {
      documents.push(one);
      continue;
    }
    try {
      documents.push({ ...one, file: (await layOutFile(db, workers, found, one.form)).file.id });
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      trouble = error.message;
      documents.push(one);
    }
  }
  const isSame = documents.every(({ file }, at) => file === job.ticket.documents[at]!.file);
  if (isSame && trouble === row.trouble) return;
  await inDraft(db, seriesId, async (tx) => {
    const ticket = { ...job.ticket, documents };
    const [changed] = await tx
      .update(jobs)
      .set({ ticket, revision: job.revision + 1 })
      .where(and(eq(jobs.id, job.id), eq(jobs.revision, job.revision)))
      .returning();
    if (changed && trouble !== row.trouble)
      await tx.update(seriesRows).set({ trouble }).where(eq(seriesRows.id, row.id));
  });
}
