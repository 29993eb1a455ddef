import { Logger, run, type Runner, type TaskList } from 'graphile-worker';
import type { Pool } from 'pg';
import { log } from './log';

/**
 * Starts working off tasks from the queue in the database. Stopped with `stop()`, which waits for what is running.
 *
 * @param what is being done, for the log
 * @param atOnce how many tasks this server works on at the same time
 */
export function workOff(pool: Pool, what: string, atOnce: number, taskList: TaskList): Promise<Runner> {
  return run({
    pgPool: pool,
    concurrency: atOnce,
    noHandleSignals: true,
    parsedCronItems: [],
    logger: new Logger(() => (level: string, message) => {
      if (level === 'error' || level === 'warning') log.error(`${what}: ${message}`);
    }),
    // What is entered is heard of at once; only what is to be tried later is looked for.
    pollInterval: 2_000,
    taskList,
  });
}
