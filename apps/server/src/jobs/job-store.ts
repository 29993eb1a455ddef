import { TicketError, type AboutDocument, type DocumentFacts, type LaidOut, type Ticket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { and, asc, count, desc, eq, inArray, sql, type SQL } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { contents, files, jobs, seriesRows } from '../database/schema';
import { idOf } from '../http/body';
import { Problem } from '../http/problem';

export type StoredJob = typeof jobs.$inferSelect;

/** A document of a ticket as stored: its facts, and where its bytes are. */
export interface StoredDocument extends DocumentFacts {
  readonly id: string;
  readonly contentId: string;
  readonly about: AboutDocument;
  /** Of its bytes, hexadecimal. */
  readonly sha256: string;
  /** What a person should know of the file, in sentences. */
  readonly remarks: readonly string[];
  /** Of how many pages, from the first, all facts are known. */
  readonly read: number;
}

/** A ticket from a request, whose documents are all here. @throws Problem `ticket-invalid` */
export async function acceptTicket(db: Database, data: unknown): Promise<Ticket> {
  const ticket = sayTicketErrors(() => readTicket(data));
  await documentsOf(db, ticket);
  return ticket;
}

/** The ticket's documents in its order. @throws Problem `ticket-invalid` where one is not here */
export async function documentsOf(
  db: Pick<Database, 'select'>,
  ticket: { readonly documents: readonly { readonly file: string }[] },
): Promise<StoredDocument[]> {
  const ids = [...new Set(ticket.documents.map(({ file }) => fileId(file)))];
  const rows = await db
    .select({
      id: files.id,
      name: files.name,
      contentId: contents.id,
      sha256: contents.sha256,
      pages: contents.pages,
      read: contents.detailsRead,
      outline: contents.outline,
      about: contents.about,
      remarks: contents.remarks,
      laid: files.laid,
    })
    .from(files)
    .innerJoin(contents, eq(files.contentId, contents.id))
    .where(inArray(files.id, ids));
  return ticket.documents.map(({ file }, index) => {
    const row = rows.find(({ id }) => id === file.toLowerCase());
    if (!row)
      throw new Problem('ticket-invalid', `documents[${index}].file: there is no file "${file}"; upload it first.`);
    const { sha256, laid, name, ...rest } = row;
    // What was taken in before digests were kept has none; its content never changes.
    return {
      ...rest,
      name: shownName(name, laid),
      sha256: sha256 ?? row.contentId,
      ...(laid ? { laid } : {}),
    };
  });
}

/** What came attached to a mail is called by its own name. */
export const shownName = (name: string, laid: LaidOut | null): string => laid?.form.attachment ?? name;

function fileId(file: string): string {
  try {
    return idOf(file);
  } catch {
    throw new Problem('ticket-invalid', `"${file}" is not the id of an uploaded file; upload it first.`);
  }
}

/** Work on a ticket, which may be wrong or not fit its documents. @throws Problem `ticket-invalid` */
export function sayTicketErrors<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (!(error instanceof TicketError)) throw error;
    const { place, position, message } = error;
    throw new Problem('ticket-invalid', message, { place, position });
  }
}

/** Which jobs are listed. */
export interface WhichJobs {
  /** What title or names hold, whatever the case of its letters. */
  readonly search?: string;
  readonly from?: number;
  readonly most?: number;
}

const MOST_LISTED = 50;

/** A page of all jobs but those of series, the latest changed first, and how many there are in all. */
export async function listJobs(
  db: Database,
  { search = '', from = 0, most = MOST_LISTED }: WhichJobs,
): Promise<{ readonly jobs: StoredJob[]; readonly total: number }> {
  const wanted = and(
    sql`not exists (select from ${seriesRows} where ${seriesRows.jobId} = ${jobs.id})`,
    search.trim() === '' ? undefined : holds(search.trim()),
  );
  const page = db
    .select()
    .from(jobs)
    .where(wanted)
    .orderBy(desc(jobs.updatedAt), asc(jobs.id))
    .limit(most)
    .offset(from);
  const [found, [all]] = await Promise.all([page, db.select({ total: count() }).from(jobs).where(wanted)]);
  return { jobs: found, total: all?.total ?? 0 };
}

/** As it is called in the list: by its title, and by its documents, of which what is attached to a mail has its own name. */
function holds(search: string): SQL {
  const found = (text: SQL): SQL => sql`position(lower(${search}) in lower(${text})) > 0`;
  return sql`(${found(sql`${jobs.ticket} ->> 'title'`)} or exists (
    select from jsonb_array_elements(${jobs.ticket} -> 'documents') as document
    join ${files} on ${files.id}::text = lower(document ->> 'file')
    where ${found(sql`coalesce(${files.laid} -> 'form' ->> 'attachment', ${files.name})`)}))`;
}

/** @throws Problem `not-found` */
export async function findJob(db: Database, parameter: string): Promise<StoredJob> {
  const [job] = await db
    .select()
    .from(jobs)
    .where(eq(jobs.id, idOf(parameter)));
  if (!job) throw new Problem('not-found', 'This job is not here; it may have been removed.');
  return job;
}

/** Keeps a changed ticket. @throws Problem `job-changed` where the job is no longer at the revision the change began from */
export async function saveJob(
  db: Pick<Database, 'update'>,
  id: string,
  revision: number,
  change: Partial<Pick<StoredJob, 'ticket' | 'printerId'>>,
): Promise<StoredJob> {
  const [saved] = await db
    .update(jobs)
    .set({ ...change, revision: revision + 1, updatedAt: new Date() })
    .where(and(eq(jobs.id, id), eq(jobs.revision, revision)))
    .returning();
  if (!saved) throw new Problem('job-changed', 'Another window changed this job. Reload it to see how it stands.');
  return saved;
}
