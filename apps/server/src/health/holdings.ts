import { asc, count, sql, sum } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import type { Database } from '../database/connection';
import { contents, files, incoming, jobs, pastSendings, sendings, setups, sources } from '../database/schema';

/** What a server's database holds, counted. */
export async function holdingsOf(db: Database) {
  const of = async (table: PgTable): Promise<number> => (await db.select({ many: count() }).from(table))[0]!.many;
  const bytesOf = async (table: typeof contents | typeof sources): Promise<number> =>
    Number((await db.select({ bytes: sum(table.bytes) }).from(table))[0]!.bytes ?? 0);
  const { rows } = await db.execute<{ tasks: number; bytes: string }>(
    sql`select (select count(*)::int from graphile_worker.jobs) as tasks, pg_database_size(current_database()) as bytes`,
  );
  return {
    jobs: await of(jobs),
    setups: await of(setups),
    files: await of(files),
    documents: await of(contents),
    documentBytes: await bytesOf(contents),
    sources: await of(sources),
    sourceBytes: await bytesOf(sources),
    sendings: await of(sendings),
    incoming: await of(incoming),
    tasks: rows[0]!.tasks,
    databaseBytes: Number(rows[0]!.bytes),
  };
}

/** How much was printed by sendings whose records went. */
export const pastOf = (db: Database) =>
  db.select().from(pastSendings).orderBy(asc(pastSendings.month), asc(pastSendings.printerId));
