import type { SendingState } from '@foglio/api';
import { isDatabaseAway } from '../database/outage';
import { forLog } from '../database/query-error';
import { log } from '../log';
import { AT_PRINTER, follow } from './follow';
import type { KeeperParts } from './keeping';
import { changeSending, goingOn, sendingsIn, type StoredSending } from './sending-store';
import { PrinterEvents } from './printer-events';
import { settle } from './settle';

export interface KeeperOptions extends KeeperParts {
  /** Between two rounds while something is going on, in milliseconds. */
  readonly followMs: number;
  /** The printers that nothing is sent to. */
  readonly heldBack: () => Promise<ReadonlySet<string>>;
  /** Asks again of what waits for a person. */
  readonly askAgain: () => Promise<void>;
}

/** Between two rounds while nothing is; what begins is heard of at once. */
const REST_MS = 5_000;

/** A printer of which nothing new is heard is asked less and less often, down to once in so many rounds. */
const MOST_ROUNDS_APART = 10;

/** A queued sending older than this has been forgotten by the queue: the server that took it up was killed. */
const FORGOTTEN_AFTER_MS = 15_000;

/** How a printer is followed: each for itself, so that one that is slow to answer holds up no other. */
interface Following {
  /** What was known of its sendings when it was last asked. */
  readonly known: string;
  /** Rounds until it is asked again, and between two questions. */
  left: number;
  apart: number;
  asking: boolean;
}

/**
 * Keeps every sending going: follows what is being printed, and settles what a server that was killed left behind. It
 * looks at the tables only, so it begins anywhere, and any number of servers may do it.
 */
export class Keeper {
  private timer: NodeJS.Timeout | null = null;
  private round: Promise<void> = Promise.resolve();
  private readonly following = new Map<string, Following>();
  private readonly underWay = new Set<Promise<void>>();
  private readonly events: PrinterEvents;
  private wasAway = false;
  /** Whether the last round found nothing going on. */
  private rests = false;
  /** How often something was heard of, so that what begins during a round is not slept over. */
  private heard = 0;

  constructor(private readonly options: KeeperOptions) {
    this.events = new PrinterEvents(options.db);
  }

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
    await Promise.all(this.underWay);
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
    const { db, askAgain } = this.options;
    const all = await goingOn(db);
    this.wasAway = false;
    await askAgain();
    const those = (...states: SendingState[]): StoredSending[] => all.filter(({ state }) => states.includes(state));
    const asked = new Map<string, StoredSending[]>();
    for (const one of those(...AT_PRINTER, 'sending'))
      asked.set(one.printerId, [...(asked.get(one.printerId) ?? []), one]);
    for (const [printer, sendings] of asked) this.followPrinter(printer, sendings);
    for (const printer of this.following.keys()) {
      if (asked.has(printer)) continue;
      this.following.delete(printer);
      this.events.forget(printer);
    }
    await this.lookAtQueue(those('queued'), those('turning'), await this.options.heldBack());
    return all.length > 0;
  }

  /** Asks a printer of what it has, unless it still answers to that, or has had nothing new to say for a while. */
  private followPrinter(printer: string, sendings: readonly StoredSending[]): void {
    const known = sendings.map(({ id, state }) => `${id} ${state}`).join(', ');
    const before = this.following.get(printer);
    if (before?.asking) return;
    const isNew = before?.known !== known;
    if (!isNew && before.left > 0) {
      before.left -= 1;
      return;
    }
    const now: Following = { known, left: 0, apart: isNew ? 0 : before.apart, asking: true };
    this.following.set(printer, now);
    const asking = this.askOf(printer, sendings, isNew)
      .then((hasNews) => {
        now.apart = hasNews ? 0 : Math.min(now.apart * 2 + 1, MOST_ROUNDS_APART);
        now.left = now.apart;
      })
      .catch((error: unknown) => this.sayTrouble(error))
      .finally(() => {
        now.asking = false;
        this.underWay.delete(asking);
      });
    this.underWay.add(asking);
  }

  /** @returns whether anything is otherwise than it was */
  private async askOf(printer: string, sendings: readonly StoredSending[], isNew: boolean): Promise<boolean> {
    let hasNews = false;
    const isWorthIt = await this.events.hasNews(printer);
    for (const sending of sendings) {
      if (sending.state !== 'sending' && (isNew || isWorthIt))
        hasNews = (await follow(this.options, sending)) || hasNews;
    }
    const left = sendings.filter(({ state }) => state === 'sending');
    if (left.length === 0) return hasNews;
    // Asked again: a printer may have taken seconds to answer, and another server may have settled them meanwhile.
    const still = await sendingsIn(this.options.db, 'sending');
    for (const sending of still) if (left.some(({ id }) => id === sending.id)) await settle(this.options, sending);
    return hasNews;
  }

  private async lookAtQueue(
    queued: readonly StoredSending[],
    turning: readonly StoredSending[],
    held: ReadonlySet<string>,
  ): Promise<void> {
    for (const sending of queued) {
      if (held.has(sending.printerId)) continue;
      const isHere = ({ printerId }: StoredSending): boolean => printerId === sending.printerId;
      const before = turning.find(isHere);
      const first = queued.find(isHere);
      if (before) await this.sayWaiting(sending, `the backs of “${before.ticket.title}” are printed`);
      else if (first !== sending) {
        if (first?.retryAt) await this.sayWaiting(sending, `“${first.ticket.title}” has reached the printer`);
      } else if (Date.now() - lastTouched(sending) > FORGOTTEN_AFTER_MS) await this.options.enqueue(sending);
    }
  }

  private async sayWaiting(sending: StoredSending, until: string): Promise<void> {
    const message = `It waits until ${until}.`;
    if (sending.message !== message) await changeSending(this.options.db, sending.id, ['queued'], { message });
  }
}

/** When a queued sending was last changed, or is to be tried again. */
const lastTouched = ({ updatedAt, retryAt }: StoredSending): number =>
  Math.max(updatedAt.getTime(), retryAt?.getTime() ?? 0);
