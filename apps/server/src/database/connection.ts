import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { Pool } from 'pg';
import * as schema from './schema';
import { log } from '../log';

export type Database = NodePgDatabase<typeof schema>;

/** A pool and the typed database over it. */
export interface Connection {
  readonly pool: Pool;
  readonly db: Database;
}

/** Any number: what servers that start at once take turns on before they migrate. */
const MIGRATION_LOCK = 0x666f6c;

/** Connects and brings the tables up to date. @param migrations the folder drizzle-kit writes them to */
export async function connect(url: string, migrations: string): Promise<Connection> {
  const pool = new Pool({ connectionString: url, max: 20 });
  // An idle connection that breaks is replaced by the pool; without a listener it would end the process.
  const complain = (error: Error): void => log.warn(`database: ${error.message}`);
  pool.on('error', complain);
  // So is one that is taken out, in a moment in which nothing is asked of it; whoever has it is told when asking.
  pool.on('connect', (client) => client.on('error', complain));
  const client = await pool.connect();
  try {
    await client.query('select pg_advisory_lock($1)', [MIGRATION_LOCK]);
    await migrate(drizzle(client, { schema }), { migrationsFolder: migrations });
    await client.query('select pg_advisory_unlock($1)', [MIGRATION_LOCK]);
  } finally {
    client.release();
  }
  return { pool, db: drizzle(pool, { schema }) };
}
