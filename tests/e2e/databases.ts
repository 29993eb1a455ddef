import { Client, type QueryResult, type QueryResultRow } from 'pg';

/** What every world's database is cloned from: the tables, and the demo's documents with all that is read of them. */
export const TEMPLATE = 'e2e_template';

/** Where the project's database server for tests is. */
export function databaseServer(): string {
  const url = process.env['DATABASE_URL'];
  if (!url) throw new Error('DATABASE_URL is not set; run the tests with "npm test"');
  return url;
}

/** The address of another database at the same server. */
export const databaseAt = (server: string, name: string): string => server.replace(/\/[^/]*$/, `/${name}`);

/** One statement, or several in one transaction, over a connection of its own. */
export async function query<T extends QueryResultRow>(url: string, ...statements: string[]): Promise<QueryResult<T>> {
  const client = new Client({ connectionString: url });
  await client.connect();
  try {
    if (statements.length === 1) return await client.query<T>(statements[0]!);
    await client.query('begin');
    let last: QueryResult<T> | null = null;
    for (const statement of statements) last = await client.query<T>(statement);
    await client.query('commit');
    return last!;
  } finally {
    await client.end();
  }
}
