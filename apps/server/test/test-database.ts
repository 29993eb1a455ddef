import { join } from 'node:path';
import { Client } from 'pg';

export const MIGRATIONS = join(__dirname, '../drizzle');

/** Cloned for every test file. */
export const TEMPLATE = 'unit_template';

const BUNDLED = join(__dirname, '../../../.foglio/test');

/** The programs of the workers and of the browser, bundled before the tests. */
export const WORKER = join(BUNDLED, 'pdf-worker.mjs');
export const PLANNER = join(BUNDLED, 'plan-worker.mjs');
export const BROWSER = join(BUNDLED, 'browser-process.mjs');

function admin(): string {
  const url = process.env['DATABASE_URL'];
  if (!url) throw new Error('DATABASE_URL is not set; run the tests with "npm test"');
  return url;
}

export const databaseAt = (name: string): string => admin().replace(/\/[^/]*$/, `/${name}`);

/** A statement about databases, at the server that the tests are given. */
export async function asAdmin(statement: string): Promise<void> {
  const client = new Client({ connectionString: admin() });
  await client.connect();
  await client.query(statement);
  await client.end();
}
