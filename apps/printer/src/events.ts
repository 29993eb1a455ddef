import type { JobEvent, ServedEvents } from '@foglio/ipp/serving';
import { isOver } from './archive';
import type { Machine } from './machine';

/** A subscription holds for so long, in seconds. */
const LEASE = 3_600;

/** Events that are kept for whoever has not asked yet; who asks later is told that the subscription is gone. */
const MOST_KEPT = 1_000;

interface Subscriber {
  readonly until: number;
  sequence: number;
  readonly events: JobEvent[];
  /** How each job stood when it was last looked at. */
  readonly known: Map<number, string>;
}

/** What happens to the jobs of a simulated printer, found by looking at them whenever somebody asks (RFC 3996). */
export class JobEvents implements ServedEvents {
  readonly everySeconds = 1;
  private readonly subscribers = new Map<number, Subscriber>();
  private last = 0;

  constructor(private readonly machine: Machine) {}

  subscribe(): { id: number; seconds: number } {
    const now = Date.now();
    for (const [id, { until }] of this.subscribers) if (until < now) this.subscribers.delete(id);
    const subscriber = { until: now + LEASE * 1000, sequence: 0, events: [], known: this.standing() };
    this.subscribers.set((this.last += 1), subscriber);
    return { id: this.last, seconds: LEASE };
  }

  since(id: number, sequence: number): readonly JobEvent[] | null {
    const subscriber = this.subscribers.get(id);
    if (!subscriber || subscriber.until < Date.now()) return null;
    const { known, events } = subscriber;
    for (const [job, standing] of this.standing()) {
      if (known.get(job) === standing) continue;
      known.set(job, standing);
      const { state } = this.machine.jobs.get(job)!;
      events.push({ sequence: (subscriber.sequence += 1), job, state });
    }
    for (const job of known.keys()) if (!this.machine.jobs.has(job)) known.delete(job);
    if (events.length > MOST_KEPT) events.splice(0, events.length - MOST_KEPT);
    // Of what it no longer knows somebody would never hear.
    if (events[0] && sequence < events[0].sequence && events[0].sequence > 1) return null;
    return events.filter((event) => event.sequence >= sequence);
  }

  private standing(): Map<number, string> {
    const stop = this.machine.stop?.reason ?? '';
    return new Map(
      [...this.machine.jobs.values()].map((job) => [
        job.id,
        `${job.state} ${job.deliveredCount} ${job.reasons.join(' ')} ${isOver(job) ? '' : stop}`,
      ]),
    );
  }
}
