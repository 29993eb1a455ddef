import { eq, inArray } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { incoming, setups } from '../database/schema';
import { DESK } from './desk';

/** How a job came that another program printed to Foglio. */
export interface CameBy {
  readonly queue: string;
  readonly name: string;
  readonly user: string;
  readonly at: Date;
  readonly waits: string | null;
  readonly remarks: readonly string[];
}

const select = (db: Database) =>
  db.select({ job: incoming, setup: setups.name }).from(incoming).leftJoin(setups, eq(incoming.setupId, setups.id));

type Found = Awaited<ReturnType<typeof select>>[number];

const describe = ({ job, setup }: Found): CameBy => ({
  // Of a set-up that was removed, what is left of its name.
  queue: setup ?? (job.queue === DESK ? 'the Desk' : job.queue),
  name: job.name,
  user: job.userName,
  at: job.createdAt,
  waits: job.state === 'waiting' ? job.message : null,
  remarks: job.remarks,
});

/** Null: the job was set up here. */
export async function howItCame(db: Database, jobId: string): Promise<CameBy | null> {
  const [found] = await select(db).where(eq(incoming.jobId, jobId)).limit(1);
  return found ? describe(found) : null;
}

/** By the ids of these jobs; of those that were set up here there is nothing. */
export async function howTheyCame(db: Database, ids: readonly string[]): Promise<ReadonlyMap<string, CameBy>> {
  const found = await select(db).where(inArray(incoming.jobId, [...ids]));
  return new Map(found.map((one) => [one.job.jobId!, describe(one)]));
}
