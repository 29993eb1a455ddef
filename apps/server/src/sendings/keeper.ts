import type { SendingState } from '@foglio/api';
import { askJob, askStatus, cancelJob, IppError, sayFaults, STATUS, type JobState, type JobStatus } from '@foglio/ipp';
import type { Database } from '../database/connection';
import { findPrinter } from '../printers/printer-store';
import { isDatabaseAway } from '../database/outage';
import { forLog } from '../database/query-error';
import { changeSending, sendingsIn, goingOn, isOver, putOff, type StoredSending } from './sending-store';
import type { Presence } from './presence';
import { log } from '../log';

export interface KeeperOptions {
  readonly db: Database;
  readonly presence: Presence;
  /** Puts a sending into the queue of what is to be sent; doing it twice sends nothing twice. */
  readonly enqueue: (sending: StoredSending) => Promise<void>;
  /** Between two rounds while something is going on, in milliseconds. */
  readonly followMs: number;
}

/** Between two rounds while nothing is; what begins is heard of at once. */
const REST_MS = 5_000;

/** A queued sending older than this has been forgotten by the queue: the server that took it up was killed. */
const FORGOTTEN_AFTER_MS = 15_000;

/** So often a sending that was interrupted is begun again by itself. */
const MOST_ATTEMPTS = 8;

const NOTHING_PRINTED = 'Nothing was printed; send it again.';
const LOOK_FIRST = 'The printer no longer knows this job; look at its output before sending again.';

/** While the printer has the whole job and has not ended it. */
const AT_PRINTER: readonly SendingState[] = ['printing', 'held'];

const ENDS: Partial<Record<JobState, SendingState>> = {
  completed: 'completed',
  canceled: 'canceled',
  aborted: 'aborted',
};

/**
 * Keeps every sending going: follows what is being printed, and settles what a server that was killed left behind. It
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
    this.options.presence.on('sending', this.wake).on('reopened', this.wake);
    for (const sending of await goingOn(this.options.db)) {
      if (sending.state === 'queued') await this.options.enqueue(sending);
    }
    this.turn();
  }

  async stop(): Promise<void> {
    this.options.presence.off('sending', this.wake).off('reopened', this.wake);
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
    if (!isAway) log.error({ err: forLog(error) }, 'keeping sendings');
    else if (!this.wasAway) log.warn('keeping sendings: the database does not answer; it is asked until it does');
    this.wasAway = isAway;
  }

  /** @returns whether anything goes on */
  private async look(): Promise<boolean> {
    const { db, enqueue } = this.options;
    const all = await goingOn(db);
    const those = (...states: SendingState[]): StoredSending[] => all.filter(({ state }) => states.includes(state));
    await Promise.all(those(...AT_PRINTER).map((sending) => this.follow(sending)));
    // Asked again: a printer may have taken seconds to answer, and another server may have settled them meanwhile.
    const underWay = those('sending').length > 0 ? await sendingsIn(db, 'sending') : [];
    for (const sending of underWay) await this.settle(sending);
    const turning = those('turning');
    const queued = those('queued');
    for (const sending of queued) {
      const isHere = ({ printerId }: StoredSending): boolean => printerId === sending.printerId;
      const before = turning.find(isHere);
      const first = queued.find(isHere);
      if (before) await this.sayWaiting(sending, `the backs of “${before.ticket.title}” are printed`);
      else if (first !== sending) {
        if (first?.retryAt) await this.sayWaiting(sending, `“${first.ticket.title}” has reached the printer`);
      } else if (Date.now() - lastTouched(sending) > FORGOTTEN_AFTER_MS) await enqueue(sending);
    }
    return all.length > 0;
  }

  private async sayWaiting(sending: StoredSending, until: string): Promise<void> {
    const message = `It waits until ${until}.`;
    if (sending.message !== message) await changeSending(this.options.db, sending.id, ['queued'], { message });
  }

  /** Takes over what the printer says of the jobs it has. */
  private async follow(sending: StoredSending): Promise<void> {
    const { db } = this.options;
    const statuses = await Promise.all(sending.printerJobs.map((job) => this.ask(sending, job)));
    if (statuses.includes('away')) {
      const message = 'The printer does not answer; it has the whole job and may be printing.';
      if (sending.message !== message) await changeSending(db, sending.id, AT_PRINTER, { message });
      return;
    }
    if (statuses.includes('unknown')) {
      await changeSending(db, sending.id, AT_PRINTER, { state: 'failed', message: LOOK_FIRST });
      return;
    }
    const known = statuses as JobStatus[];
    const sheetsDone = known.reduce((sum, { sheetsCompleted }) => sum + sheetsCompleted, 0);
    const ended = stateOf(known);
    // After the fronts a person puts the stack back.
    const state = ended === 'completed' && sending.pass === 1 ? 'turning' : ended;
    const message = await this.sayHindrance(sending, known);
    const same = state === sending.state && message === sending.message && sheetsDone === sending.sheetsDone;
    if (same) return;
    const changed = await changeSending(db, sending.id, AT_PRINTER, { state, message, sheetsDone });
    // The next file of its series may be waiting for this one.
    if (changed?.seriesId && isOver(changed)) await this.options.enqueue(changed);
  }

  /**
   * A sending that was being sent by a server that is gone, or over a connection that broke. Whether the printer has the
   * whole document decides: then it will be printed and is followed. What it has not got whole, and printed nothing of, is
   * sent again; of several jobs those after the ones it has. Of the rest a person is told how much came out.
   */
  private async settle(sending: StoredSending): Promise<void> {
    const { db, presence } = this.options;
    if (sending.server !== null && (await presence.lives(sending.server))) return;
    const last = sending.printerJobs.at(-1);
    if (last === undefined) return this.sendAgain(sending);
    const status = await this.ask(sending, last);
    if (status === 'unknown') return this.interrupt(sending, LOOK_FIRST);
    if (status === 'away') {
      const message = 'Sending was interrupted and the printer does not answer; it is asked again.';
      if (sending.message !== message) await changeSending(db, sending.id, ['sending'], { message });
      return;
    }
    if (status.reasons.includes('job-incoming')) {
      // What the printer makes of it is asked in the next round: the rest may have come in this very moment.
      const printer = await findPrinter(db, sending.printerId);
      await cancelJob(printer.uri, status.id, 'foglio').catch(() => undefined);
      return;
    }
    const isWhole = (ENDS[status.state] ?? 'completed') === 'completed';
    if (isWhole && sending.printerJobs.length === sending.parts) {
      await changeSending(db, sending.id, ['sending'], { state: 'printing', message: null, server: null });
      return;
    }
    const printed = status.sheetsCompleted;
    if (isWhole) {
      await changeSending(db, sending.id, ['sending'], { state: 'queued', message: null, server: null });
      await this.options.enqueue(sending);
      return;
    }
    if (printed === 0) return isCalledOff(status) ? this.interrupt(sending, NOTHING_PRINTED) : this.sendAgain(sending);
    await this.interrupt(sending, `${printed} of ${sending.sheets} sheets came out; send it again.`);
  }

  /** Sends again what the printer has nothing of: but not for ever, should it be the job that ends whoever sends it. */
  private async sendAgain(sending: StoredSending): Promise<void> {
    if (sending.attempts >= MOST_ATTEMPTS) return this.interrupt(sending, NOTHING_PRINTED);
    const again = putOff(sending, 'The printer did not get it whole and printed nothing of it. It is sent again.');
    const printerJobs = sending.printerJobs.slice(0, -1);
    const later = await changeSending(this.options.db, sending.id, ['sending'], { ...again, printerJobs });
    if (later) await this.options.enqueue(later);
  }

  private async interrupt(sending: StoredSending, outcome: string): Promise<void> {
    const { db } = this.options;
    if (sending.pass === 2 && outcome === NOTHING_PRINTED) {
      const message = 'Sending the backs was interrupted, and none was printed: begin them again.';
      await changeSending(db, sending.id, ['sending'], { state: 'turning', message, server: null });
      return;
    }
    const message = `Sending was interrupted. ${outcome}`;
    await changeSending(db, sending.id, ['sending'], { state: 'interrupted', message, server: null });
  }

  /** What a person should know of jobs that are not simply going on; null where nothing. */
  private async sayHindrance(sending: StoredSending, statuses: readonly JobStatus[]): Promise<string | null> {
    if (stateOf(statuses) === 'held') return 'It is held at the printer until it is released.';
    if (!statuses.some(({ state }) => state === 'processing-stopped')) {
      return statuses.find(({ message }) => message !== null)?.message ?? null;
    }
    const printer = await findPrinter(this.options.db, sending.printerId);
    try {
      const { profile, reasons } = await askStatus(printer.uri);
      const said = sayFaults(reasons, profile).join(' ');
      return said === '' ? 'The printer has stopped; look at its panel.' : said;
    } catch (error) {
      if (error instanceof IppError) return null;
      throw error;
    }
  }

  private async ask(sending: StoredSending, job: number): Promise<JobStatus | 'away' | 'unknown'> {
    const printer = await findPrinter(this.options.db, sending.printerId);
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

/** When a queued sending was last changed, or is to be tried again. */
const lastTouched = ({ updatedAt, retryAt }: StoredSending): number =>
  Math.max(updatedAt.getTime(), retryAt?.getTime() ?? 0);

/** How several jobs stand together: as the first that went wrong, held as long as one is, over only when all are. */
function stateOf(statuses: readonly JobStatus[]): SendingState {
  const states = statuses.map(({ state }) => (state === 'pending-held' ? 'held' : (ENDS[state] ?? 'printing')));
  const order: readonly SendingState[] = ['aborted', 'canceled', 'held', 'printing'];
  return order.find((state) => states.includes(state)) ?? 'completed';
}
