import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import supertest from 'supertest';
import { ANY_FILE } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { jobs, setups } from '../src/database/schema';
import { startServer, type RunningServer } from './running-server';

let server: RunningServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

const DRIZZLE = join(__dirname, '../drizzle');
const FIELDS = ['lines', 'informationSheet'];

test('tickets kept before a field was there have its usual value, and can be read as before', async () => {
  const ticket = readTicket({ version: 1, documents: [{ file: ANY_FILE }] });
  const [job] = await server.db.insert(jobs).values({ ticket, printerId: 'test-office' }).returning();
  const [setup] = await server.db.insert(setups).values({ name: 'Kept', ticket }).returning();
  for (const field of FIELDS) {
    await server.db.execute(sql`update jobs set ticket = ticket - ${field}::text`);
    await server.db.execute(sql`update setups set ticket = ticket - ${field}::text`);
  }
  const ofTickets = readdirSync(DRIZZLE).filter((name) => name.endsWith('_of_tickets.sql'));
  expect(ofTickets).toHaveLength(FIELDS.length);
  for (const name of ofTickets) {
    for (const statement of readFileSync(join(DRIZZLE, name), 'utf8').split('--> statement-breakpoint')) {
      await server.db.execute(sql.raw(statement));
    }
  }
  const kept = await server.db.query.jobs.findMany();
  expect(kept.find(({ id }) => id === job!.id)?.ticket).toEqual(ticket);
  const list = (await supertest(server.base).get('/api/setups')).body as { id: string; ticket: object }[];
  expect(list.find(({ id }) => id === setup!.id)?.ticket).toEqual(ticket);
});
