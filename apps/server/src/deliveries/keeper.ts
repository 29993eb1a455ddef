import type { DeliveryState } from '@foglio/api';
import { askJob, askStatus, cancelJob, IppError, sayFaults, STATUS, type JobState, type JobStatus } from '@foglio/ipp';
import type { Database } from '../database/connection';
import { findPrinter } from '../printers/printer-store';
import { isDatabaseAway } from '../database/outage';
import { forLog } from '../database/query-error';
import { changeDelivery, deliveriesIn, goingOn, isOver, putOff, type StoredDelivery } from './delivery-store';
import type { Presence } from './presence';

export interface KeeperOptions {
  readonly db: Database;
  readonly presence: Presence;
  /** Puts a delivery into the queue of what is to be sent; doing it twice sends nothing twice. */
  readonly enqueue: (delivery: StoredDelivery) => Promise<void>;
  /** Between two rounds while something is going on, in milliseconds. */
  readonly followMs: number;
}

/** Between two rounds while nothing is; what begins is heard of at once. */
const REST_MS = 5_000;

/** A queued delivery older than this has been forgotten by the queue: the server that took it up was killed. */
const FORGOTTEN_AFTER_MS = 15_000;

const NOTHING_PRINTED = 'Nothing was printed; send it again.';
const LOOK_FIRST = 'The printer no longer knows this job; look at its output before sending again.';

/** While the printer has the whole job and has not ended it. */
const AT_PRINTER: readonly DeliveryState[] = ['printing', 'held'];

const ENDS: Partial<Record<JobState, DeliveryState>> = {
  completed: 'completed',
  canceled: 'canceled',
  aborted: 'aborted',
};

/**
 * Keeps every delivery going: follows what is being printed, and settles what a server that was killed left behind. It
 * looks at the tables only, so it begins anywhere, and any number of servers may do it.
 */
export class Keeper {
  private timer: NodeJS.Timeout | null = null;
  private round: Promise<void> = Promise.resolve();
  private wasAway = false;
  /** Whether the last round found nothing going on. */
  private rests = false;
  /** How often something was heard of, so that what begins during a round is not slept over. */
  private heard = 0;

  constructor(private readonly options: KeeperOptions) {}

  async start(): Promise<void> {
    this.options.presence.on('delivery', this.wake).on('reopened', this.wake);
    for (const delivery of await goingOn(this.options.db)) {
      if (delivery.state === 'queued') await this.options.enqueue(delivery);
    }
    this.turn();
  }

  async stop(): Promise<void> {
    this.options.presence.off('delivery', this.wake).off('reopened', this.wake);
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    await this.round;
  }

  private readonly wake = (): void => {
    this.heard += 1;
    if (!this.rests || !this.timer) return;
    this.rests = false;
    clearTimeout(this.timer);
    this.turn();
  };

  private turn(): void {
    const after = this.rests ? REST_MS : this.options.followMs;
    this.timer = setTimeout(() => {
      const { heard } = this;
      this.rests = false;
      this.round = this.look()
        .catch((error: unknown) => {
          this.sayTrouble(error);
          return true;
        })
        .then((goesOn) => {
          this.rests = !goesOn && heard === this.heard;
          if (this.timer) this.turn();
        });
    }, after);
  }

  /** A database that is away is told once, not in every round. */
  private sayTrouble(error: unknown): void {
    const isAway = isDatabaseAway(error);
    if (!isAway) console.error('keeping deliveries:', forLog(error));
    else if (!this.wasAway)
      console.error('keeping deliveries: the database does not answer; it is asked until it does');
    this.wasAway = isAway;
  }

  /** @returns whether anything goes on */
  private async look(): Promise<boolean> {
    const { db, enqueue } = this.options;
    const all = await goingOn(db);
    const those = (...states: DeliveryState[]): StoredDelivery[] => all.filter(({ state }) => states.includes(state));
    await Promise.all(those(...AT_PRINTER).map((delivery) => this.follow(delivery)));
    // Asked again: a printer may have taken seconds to answer, and another server may have settled them meanwhile.
    const sending = those('sending').length > 0 ? await deliveriesIn(db, 'sending') : [];
    for (const delivery of sending) await this.settle(delivery);
    const turning = those('turning');
    const queued = those('queued');
    for (const delivery of queued) {
      const isHere = ({ printerId }: StoredDelivery): boolean => printerId === delivery.printerId;
      const before = turning.find(isHere);
      const first = queued.find(isHere);
      if (before) await this.sayWaiting(delivery, `the backs of “${before.ticket.title}” are printed`);
      else if (first !== delivery) {
        if (first?.retryAt) await this.sayWaiting(delivery, `“${first.ticket.title}” has reached the printer`);
      } else if (Date.now() - lastTouched(delivery) > FORGOTTEN_AFTER_MS) await enqueue(delivery);
    }
    return all.length > 0;
  }

  private async sayWaiting(delivery: StoredDelivery, until: string): Promise<void> {
    const message = `It waits until ${until}.`;
    if (delivery.message !== message) await changeDelivery(this.options.db, delivery.id, ['queued'], { message });
  }

  /** Takes over what the printer says of the jobs it has. */
  private async follow(delivery: StoredDelivery): Promise<void> {
    const { db } = this.options;
    const statuses = await Promise.all(delivery.printerJobs.map((job) => this.ask(delivery, job)));
    if (statuses.includes('away')) {
      const message = 'The printer does not answer; it has the whole job and may be printing.';
      if (delivery.message !== message) await changeDelivery(db, delivery.id, AT_PRINTER, { message });
      return;
    }
    if (statuses.includes('unknown')) {
      await changeDelivery(db, delivery.id, AT_PRINTER, { state: 'failed', message: LOOK_FIRST });
      return;
    }
    const known = statuses as JobStatus[];
    const sheetsDone = known.reduce((sum, { sheetsCompleted }) => sum + sheetsCompleted, 0);
    const ended = stateOf(known);
    // After the fronts a person puts the stack back.
    const state = ended === 'completed' && delivery.pass === 1 ? 'turning' : ended;
    const message = await this.sayHindrance(delivery, known);
    const same = state === delivery.state && message === delivery.message && sheetsDone === delivery.sheetsDone;
    if (same) return;
    const changed = await changeDelivery(db, delivery.id, AT_PRINTER, { state, message, sheetsDone });
    // The next file of its series may be waiting for this one.
    if (changed?.seriesId && isOver(changed)) await this.options.enqueue(changed);
  }

  /**
   * A delivery that was being sent by a server that is gone. Whether the printer has the whole document decides: then
   * it will be printed and is followed; otherwise nothing of it will be, and it may be sent again. Of several jobs those
   * that the printer has not got are sent after the ones it has.
   */
  private async settle(delivery: StoredDelivery): Promise<void> {
    const { db, presence } = this.options;
    if (delivery.server !== null && (await presence.lives(delivery.server))) return;
    const last = delivery.printerJobs.at(-1);
    if (last === undefined) return this.interrupt(delivery, NOTHING_PRINTED);
    const status = await this.ask(delivery, last);
    if (status === 'unknown') return this.interrupt(delivery, LOOK_FIRST);
    if (status === 'away') {
      const message = 'Sending was interrupted and the printer does not answer; it is asked again.';
      if (delivery.message !== message) await changeDelivery(db, delivery.id, ['sending'], { message });
      return;
    }
    if (status.reasons.includes('job-incoming')) {
      // What the printer makes of it is asked in the next round: the rest may have come in this very moment.
      const printer = await findPrinter(db, delivery.printerId);
      await cancelJob(printer.uri, status.id, 'foglio').catch(() => undefined);
      return;
    }
    const isWhole = (ENDS[status.state] ?? 'completed') === 'completed';
    if (isWhole && delivery.printerJobs.length === delivery.parts) {
      await changeDelivery(db, delivery.id, ['sending'], { state: 'printing', message: null, server: null });
      return;
    }
    const printed = status.sheetsCompleted;
    if (isWhole || (printed === 0 && delivery.printerJobs.length > 1)) {
      const printerJobs = isWhole ? delivery.printerJobs : delivery.printerJobs.slice(0, -1);
      await changeDelivery(db, delivery.id, ['sending'], { state: 'queued', message: null, server: null, printerJobs });
      await this.options.enqueue(delivery);
      return;
    }
    if (printed === 0 && delivery.server === null && !isCalledOff(status)) {
      // This server lives and knows that the connection broke, so it can send again what the printer did not get.
      const again = putOff(delivery, 'The printer did not get it whole and printed nothing of it. It is sent again.');
      const printerJobs = delivery.printerJobs.slice(0, -1);
      const later = await changeDelivery(db, delivery.id, ['sending'], { ...again, printerJobs });
      if (later) await this.options.enqueue(later);
      return;
    }
    const came = `${printed} of ${delivery.sheets} sheets came out; send it again.`;
    await this.interrupt(delivery, printed === 0 ? NOTHING_PRINTED : came);
  }

  private async interrupt(delivery: StoredDelivery, outcome: string): Promise<void> {
    const { db } = this.options;
    if (delivery.pass === 2 && outcome === NOTHING_PRINTED) {
      const message = 'Sending the backs was interrupted, and none was printed: begin them again.';
      await changeDelivery(db, delivery.id, ['sending'], { state: 'turning', message, server: null });
      return;
    }
    const message = `Sending was interrupted. ${outcome}`;
    await changeDelivery(db, delivery.id, ['sending'], { state: 'interrupted', message, server: null });
  }

  /** What a person should know of jobs that are not simply going on; null where nothing. */
  private async sayHindrance(delivery: StoredDelivery, statuses: readonly JobStatus[]): Promise<string | null> {
    if (stateOf(statuses) === 'held') return 'It is held at the printer until it is released.';
    if (!statuses.some(({ state }) => state === 'processing-stopped')) {
      return statuses.find(({ message }) => message !== null)?.message ?? null;
    }
    const printer = await findPrinter(this.options.db, delivery.printerId);
    try {
      const { profile, reasons } = await askStatus(printer.uri);
      const said = sayFaults(reasons, profile).join(' ');
      return said === '' ? 'The printer has stopped; look at its panel.' : said;
    } catch (error) {
      if (error instanceof IppError) return null;
      throw error;
    }
  }

  private async ask(delivery: StoredDelivery, job: number): Promise<JobStatus | 'away' | 'unknown'> {
    const printer = await findPrinter(this.options.db, delivery.printerId);
    try {
      return await askJob(printer.uri, job);
    } catch (error) {
      if (!(error instanceof IppError)) throw error;
      return error.status === STATUS.notFound ? 'unknown' : 'away';
    }
  }
}

/** Whether a person at the printer does not want the job (RFC 8011, 5.3.8). */
const isCalledOff = ({ reasons }: JobStatus): boolean =>
  reasons.includes('job-canceled-at-device') || reasons.includes('job-canceled-by-operator');

/** When a queued delivery was last changed, or is to be tried again. */
const lastTouched = ({ updatedAt, retryAt }: StoredDelivery): number =>
  Math.max(updatedAt.getTime(), retryAt?.getTime() ?? 0);

/** How several jobs stand together: as the first that went wrong, held as long as one is, over only when all are. */
function stateOf(statuses: readonly JobStatus[]): DeliveryState {
  const states = statuses.map(({ state }) => (state === 'pending-held' ? 'held' : (ENDS[state] ?? 'printing')));
  const order: readonly DeliveryState[] = ['aborted', 'canceled', 'held', 'printing'];
  return order.find((state) => states.includes(state)) ?? 'completed';
}
