import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { randomBytes } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import { ANY_FILE } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { connect, type Connection } from '../src/database/connection';
import { PROFILE } from './running-server';
import { asAdmin, databaseAt, MIGRATIONS } from './test-database';

/** The last step before tickets had lines and an information sheet, and before what is sent was called a sending. */
const EARLIER = '0009_setups_and_series';

const TICKET = readTicket({ version: 1, title: 'Kept', documents: [{ file: ANY_FILE }] });

interface Journal {
  readonly entries: readonly { readonly tag: string }[];
}

/** The folder of migrations as it was up to a step. */
function migrationsUpTo(last: string): string {
  const folder = mkdtempSync(join(tmpdir(), 'foglio-migrations-'));
  cpSync(MIGRATIONS, folder, { recursive: true });
  const path = join(folder, 'meta/_journal.json');
  const journal = JSON.parse(readFileSync(path, 'utf8')) as Journal;
  const end = journal.entries.findIndex(({ tag }) => tag === last) + 1;
  expect(end).toBeGreaterThan(0);
  writeFileSync(path, JSON.stringify({ ...journal, entries: journal.entries.slice(0, end) }));
  return folder;
}

const name = `test_${randomBytes(6).toString('hex')}`;
let old: string;
let now: Connection;

beforeAll(async () => {
  old = migrationsUpTo(EARLIER);
  await asAdmin(`create database ${name}`);
  const { pool } = await connect(databaseAt(name), old);
  const { lines: _, informationSheet: __, outputBin: ___, ...ticket } = TICKET;
  const [kept, profile] = [JSON.stringify(ticket), JSON.stringify(PROFILE)];
  await pool.query(`insert into printers (id, name, uri, profile) values ('office', 'Office', 'ipp://x', $1)`, [
    profile,
  ]);
  await pool.query(`insert into jobs (ticket, printer_id) values ($1, 'office')`, [kept]);
  await pool.query(`insert into setups (name, ticket) values ('Kept', $1)`, [kept]);
  await pool.query(
    `insert into deliveries (job_id, printer_id, ticket, profile, state, sheets) select id, 'office', $1, $2, 'completed', 3 from jobs`,
    [kept, profile],
  );
  await pool.end();
  now = await connect(databaseAt(name), MIGRATIONS);
});
afterAll(async () => {
  await now.pool.end();
  await asAdmin(`drop database ${name}`);
  rmSync(old, { recursive: true });
});

test('tickets kept before a field was there have its usual value, and can be read as before', async () => {
  const { jobs, setups, sendings } = now.db.query;
  const kept = [await jobs.findMany(), await setups.findMany(), await sendings.findMany()].flat();
  expect(kept.map(({ ticket }) => ticket)).toEqual([TICKET, TICKET, TICKET]);
});

test('what was sent is there under its name of now, and nothing is left of the one before', async () => {
  const [job] = await now.db.query.jobs.findMany();
  expect(await now.db.query.sendings.findMany()).toMatchObject([{ jobId: job!.id, state: 'completed', sheets: 3 }]);
  const { rows } = await now.db.execute(sql`
    select relname as name from pg_class where relname like '%deliver%'
    union select conname from pg_constraint where conname like '%deliver%'
    union select encode(tgargs, 'escape') from pg_trigger where encode(tgargs, 'escape') like '%deliver%'`);
  expect(rows).toEqual([]);
});
