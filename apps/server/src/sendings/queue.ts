import type { Runner } from 'graphile-worker';
import type { Pool } from 'pg';
import { workOff } from '../background';
import { TASK } from './enqueue';
import { sendWaiting, type SendingParts } from './sender';

/** Printers that one server sends to at once: most of that is waiting, and one that is slow must not keep the others. */
const AT_ONCE = 16;

/** Starts taking sendings from the queue in the database. Stopped with `stop()`, which waits for what is running. */
export function startSending(pool: Pool, parts: SendingParts, server: number): Promise<Runner> {
  return workOff(pool, 'queue', AT_ONCE, {
    [TASK]: (payload) => sendWaiting(parts, (payload as { printer: string }).printer, server),
  });
}
