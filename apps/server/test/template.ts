import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { buildSync } from 'esbuild';
import { runMigrations } from 'graphile-worker';
import { connect } from '../src/database/connection';
import { asAdmin, BROWSER, databaseAt, MIGRATIONS, PLANNER, TEMPLATE, WORKER } from './test-database';

/**
 * Before all tests of the server: the tables are made once, in a database that every test file gets a clone of, and the
 * workers' program is bundled from its source as the server's is.
 */
export default async function makeTemplate(): Promise<void> {
  await asAdmin(`drop database if exists ${TEMPLATE} with (force)`);
  await asAdmin(`create database ${TEMPLATE}`);
  const { pool } = await connect(databaseAt(TEMPLATE), MIGRATIONS);
  await runMigrations({ pgPool: pool });
  await pool.end();
  const root = join(__dirname, '../../..');
  mkdirSync(join(root, '.foglio/test'), { recursive: true });
  const programs = [
    [WORKER, 'pdf/pdf-worker.ts'],
    [PLANNER, 'plans/plan-worker.ts'],
    [BROWSER, 'pdf/browser-process.ts'],
  ] as const;
  for (const [outfile, source] of programs)
    buildSync({
      entryPoints: [join(__dirname, '../src', source)],
      outfile,
      bundle: true,
      platform: 'node',
      format: 'esm',
      packages: 'external',
      alias: { '@cantoo/pdf-lib': join(root, 'node_modules/@cantoo/pdf-lib/dist/pdf-lib.esm.min.js') },
      tsconfig: join(root, 'tsconfig.base.json'),
    });
}
