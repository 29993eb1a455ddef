import { hearEvents, IppError, subscribe, tellsEvents, type Subscription } from '@foglio/ipp';
import type { Database } from '../database/connection';
import { addressOf } from '../printers/access';
import { findPrinter } from '../printers/printer-store';
import { USER } from './as-known';

/** However little is heard of it, a printer is asked once in so long how its jobs stand: events may get lost, in milliseconds. */
const ASKED_ANYWAY_MS = 30_000;

interface Listening {
  /** Null: it gives none. */
  readonly subscription: Subscription | null;
  next: number;
  readonly until: number;
  askedAt: number;
}

/**
 * Whether it is worth asking a printer how its jobs stand: one that tells what happens to them (RFC 3996) is asked for that,
 * once for all of them, and of each job only where something did.
 */
export class PrinterEvents {
  private readonly listening = new Map<string, Listening>();

  constructor(private readonly db: Database) {}

  /** Of a printer that tells nothing, or does not answer, it always is. */
  async hasNews(printerId: string): Promise<boolean> {
    const printer = await findPrinter(this.db, printerId);
    if (!tellsEvents(printer.profile)) return true;
    const at = addressOf(printer);
    const now = Date.now();
    const known = this.listening.get(printerId);
    try {
      if (!known || known.until < now) {
        // Before it is asked: what happens after that is heard of.
        const subscription = await subscribe(at, USER);
        const until = subscription?.seconds ? now + (subscription.seconds * 1000) / 2 : Infinity;
        this.listening.set(printerId, { subscription, next: 1, until, askedAt: now });
        return true;
      }
      if (!known.subscription) return true;
      const { hasNews, next } = await hearEvents(at, known.subscription, known.next, USER);
      known.next = next;
      if (!hasNews && now - known.askedAt < ASKED_ANYWAY_MS) return false;
      known.askedAt = now;
      return true;
    } catch (error) {
      if (!(error instanceof IppError)) throw error;
      // It was off and on, or holds it no longer.
      this.listening.delete(printerId);
      return true;
    }
  }

  /** Nothing goes on there any more. */
  forget(printerId: string): void {
    this.listening.delete(printerId);
  }
}
