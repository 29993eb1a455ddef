import { sql } from 'drizzle-orm';
import { makeWorkerUtils, type WorkerUtils } from 'graphile-worker';
import type { Pool } from 'pg';
import type { Database } from '../database/connection';

/** Gives back the tasks of servers that are gone: to be called by one that knows that no other lives. */
export async function releaseTasks(pool: Pool, db: Database): Promise<void> {
  await withTasks(pool, async (tasks) => {
    const { rows } = await db.execute<{ worker: string }>(
      sql`select distinct locked_by as worker from graphile_worker.jobs where locked_by is not null`,
    );
    if (rows.length > 0) await tasks.forceUnlockWorkers(rows.map(({ worker }) => worker));
  });
}

/** Removes tasks that failed as often as they may, and the queues of those that are done. */
export const sweepTasks = (pool: Pool): Promise<void> =>
  withTasks(pool, (tasks) => tasks.cleanup({ tasks: ['DELETE_PERMAFAILED_JOBS', 'GC_JOB_QUEUES'] }));

async function withTasks<T>(pool: Pool, work: (tasks: WorkerUtils) => Promise<T>): Promise<T> {
  const tasks = await makeWorkerUtils({ pgPool: pool });
  try {
    return await work(tasks);
  } finally {
    await tasks.release();
  }
}
