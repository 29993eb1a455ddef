import { createHash } from 'node:crypto';
import { eq, inArray, sql } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { contents, files } from '../database/schema';
import { Problem } from '../http/problem';
import type { Brief } from '../plans/answers';
import { planningNow } from '../plans/planning';
import type { Plans } from '../plans/plans';
import { listPrinters, type StoredPrinter } from '../printers/printer-store';
import { documentsOf, type StoredJob } from './job-store';

/** What a list tells of a job. */
interface JobBrief extends Partial<Brief>, Pick<StoredJob, 'id' | 'ticket' | 'printerId' | 'updatedAt' | 'lastSentAt'> {
  readonly names: readonly string[];
  readonly trouble?: string;
}

/** What is told of a plan, and of what it was made. */
interface Told {
  readonly of: string;
  readonly plan: Partial<Brief> & { readonly trouble?: string };
}

/** Jobs of which what was planned is kept: some hundred bytes each. */
const MOST_KEPT = 5_000;

/**
 * Tells jobs in brief: the totals and the first sheets, or what is wrong with the set-up. What was planned is kept for as
 * long as the job, its printer and what is known of its pages are the same, so a list costs what its page of jobs does.
 */
export function briefer(db: Database, plans: Plans): (jobs: readonly StoredJob[]) => Promise<JobBrief[]> {
  const kept = new Map<string, Told>();

  /** @returns as planned before, where nothing has changed since */
  async function tell(job: StoredJob, printer: StoredPrinter | undefined, of: string): Promise<Told['plan']> {
    const before = kept.get(job.id);
    if (before?.of === of) return before.plan;
    const plan = await planBriefly(db, plans, job, printer);
    if (kept.size >= MOST_KEPT) kept.delete(kept.keys().next().value!);
    kept.set(job.id, { of, plan });
    return plan;
  }

  return async (jobs) => {
    const printers = await listPrinters(db);
    const states = new Map(printers.map(({ id, profile }) => [id, digestOf(profile)]));
    const known = await knownOf(db, jobs);
    const briefs: JobBrief[] = [];
    // One after the other: between two of them others are answered.
    for (const job of jobs) {
      const { id, ticket, revision, printerId, updatedAt, lastSentAt } = job;
      const documents = ticket.documents.map(({ file }) => known.get(file.toLowerCase()));
      const of = JSON.stringify([revision, states.get(printerId), documents.map((one) => one?.state)]);
      const plan = await tell(
        job,
        printers.find((one) => one.id === printerId),
        of,
      );
      const names = documents.flatMap((one) => one?.name ?? []);
      briefs.push({ id, ticket, printerId, updatedAt, lastSentAt, names, ...plan });
    }
    return briefs;
  };
}

const digestOf = (data: unknown): string => createHash('sha256').update(JSON.stringify(data)).digest('hex');

/** What is known of the documents of jobs, without looking at their pages. */
async function knownOf(db: Database, jobs: readonly StoredJob[]) {
  const ids = [...new Set(jobs.flatMap(({ ticket }) => ticket.documents.map(({ file }) => file.toLowerCase())))];
  const rows = await db
    .select({
      id: files.id,
      name: sql<string>`coalesce(${files.laid} -> 'form' ->> 'attachment', ${files.name})`,
      state: sql<string>`concat_ws(' ', ${contents.id}, ${contents.detailsRead}, md5(${files.laid}::text))`,
    })
    .from(files)
    .innerJoin(contents, eq(files.contentId, contents.id))
    .where(inArray(files.id, ids));
  return new Map(rows.map((row) => [row.id, row]));
}

async function planBriefly(
  db: Database,
  plans: Plans,
  { ticket }: StoredJob,
  printer: StoredPrinter | undefined,
): Promise<Told['plan']> {
  if (!printer) return { trouble: 'Its printer is not known any more.' };
  try {
    const documents = await documentsOf(db, ticket);
    return await plans.ask({ kind: 'brief' }, planningNow(ticket, printer.profile), documents);
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return { trouble: error.message };
  }
}
