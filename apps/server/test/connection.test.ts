import { randomBytes } from 'node:crypto';
import { sql } from 'drizzle-orm';
import { log } from '../src/log';
import { isDatabaseAway } from '../src/database/outage';
import { connect, type Connection } from '../src/database/connection';
import { asAdmin, databaseAt, MIGRATIONS, TEMPLATE } from './test-database';

/** The database ends a connection in whatever moment: what was asked fails, and nothing else does. */

const name = `test_${randomBytes(6).toString('hex')}`;
let server: Connection;
let complained: jest.SpyInstance;
beforeAll(async () => {
  await asAdmin(`create database ${name} template ${TEMPLATE}`);
  server = await connect(databaseAt(name), MIGRATIONS);
});
beforeEach(() => (complained = jest.spyOn(log, 'warn').mockImplementation()));
afterEach(() => complained.mockRestore());
afterAll(async () => {
  await server.pool.end();
  await asAdmin(`drop database ${name} with (force)`);
});

const pidOf = async (db: {
  execute: (query: ReturnType<typeof sql>) => Promise<{ rows: unknown[] }>;
}): Promise<number> => ((await db.execute(sql`select pg_backend_pid() as pid`)).rows[0] as { pid: number }).pid;

const end = (pid: number): Promise<unknown> => asAdmin(`select pg_terminate_backend(${pid})`);

test('a connection that ends between two steps of a transaction fails that, and the server goes on', async () => {
  const work = server.db.transaction(async (tx) => {
    const pid = await pidOf(tx);
    await end(pid);
    await new Promise((resolve) => setImmediate(resolve));
    for (;;) {
      await tx.execute(sql`select 1`);
      await new Promise((resolve) => setImmediate(resolve));
    }
  });
  await expect(work.catch((error: unknown) => isDatabaseAway(error))).resolves.toBe(true);
  expect(await pidOf(server.db)).toBeGreaterThan(0);
});

test('a connection that is taken out and ends while nobody asks it ends no process', async () => {
  const client = await server.pool.connect();
  const { rows } = await client.query<{ pid: number }>('select pg_backend_pid() as pid');
  const ended = new Promise((resolve) => client.once('end', resolve));
  await end(rows[0]!.pid);
  await ended;
  client.release();
  expect(complained).toHaveBeenCalledWith(expect.stringMatching(/^database: /));
  expect(await pidOf(server.db)).toBeGreaterThan(0);
});
