import { Router, type Response } from 'express';
import type { Database } from '../database/connection';
import { describeDelivery, findDelivery } from './delivery-store';
import type { Presence } from './presence';

/** A comment now and then keeps the connection from being taken for dead. */
const BEAT_MS = 15_000;

/** `/api/events`: every change of a delivery as a server-sent event (WHATWG HTML, section 9.2). */
export function eventRoutes(db: Database, presence: Presence): Router {
  const router = Router();
  router.get('/', (_request, response) => {
    response.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' });
    response.flushHeaders();
    response.write('retry: 1000\n\n');
    const onChange = (id: string): void => void tellOf(db, id, response);
    const beat = setInterval(() => response.write(': beat\n\n'), BEAT_MS);
    // Whoever listens comes again by itself, and then asks for all.
    const onReopened = (): void => void response.end();
    presence.on('delivery', onChange);
    presence.on('reopened', onReopened);
    response.on('close', () => {
      clearInterval(beat);
      presence.off('delivery', onChange);
      presence.off('reopened', onReopened);
    });
  });
  return router;
}

async function tellOf(db: Database, id: string, response: Response): Promise<void> {
  try {
    const delivery = describeDelivery(await findDelivery(db, id));
    if (!response.writableEnded) response.write(`event: delivery\ndata: ${JSON.stringify(delivery)}\n\n`);
  } catch (error) {
    console.error(`telling of ${id}: ${(error as Error).message}`);
  }
}
