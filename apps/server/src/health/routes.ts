import { sql } from 'drizzle-orm';
import type { Database } from '../database/connection';
import type { Handlers } from '../http/bind';
import { holdingsOf, pastOf } from './holdings';

/** How the server is, for people and for what supervises it. A database that is away is told as such by every answer. */
export const healthHandlers = (db: Database): Handlers<'health' | 'alive' | 'ready'> => ({
  health: async () => ({
    uptimeSeconds: Math.floor(process.uptime()),
    memory: process.memoryUsage.rss(),
    holds: await holdingsOf(db),
    past: await pastOf(db),
  }),
  alive: () => undefined,
  ready: async () => {
    await db.execute(sql`select`);
  },
});
