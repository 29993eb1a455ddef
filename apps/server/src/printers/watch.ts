import { EventEmitter } from 'node:events';
import { setTimeout as wait } from 'node:timers/promises';
import { IppError, sayFaults, withoutPassword, type Certificate } from '@foglio/ipp';
import type { Database } from '../database/connection';
import { isDatabaseAway } from '../database/outage';
import { forLog } from '../database/query-error';
import { Problem } from '../http/problem';
import { askItself, listPrinters, reportedSizes, type PrinterAsked, type StoredPrinter } from './printer-store';
import { log } from '../log';

/** Between two questions to the same printer. */
const ASK_EVERY_MS = 2_000;

/** How long a list waits for one of its printers, in milliseconds. */
const WAITED_FOR_MS = 1_500;

/** A printer as it was found when it was asked. */
export interface PrinterNow
  extends PrinterAsked, Pick<StoredPrinter, 'id' | 'name' | 'uri' | 'pace' | 'heldBack' | 'seenAt'> {
  readonly login: string | null;
  readonly wants: 'login' | null;
  readonly certificate: Certificate | null;
  readonly simulated: boolean;
  readonly askedAt: Date;
  readonly answers: boolean;
  /** In sentences. */
  readonly faults: string[];
}

/**
 * What printers say of themselves. While somebody listens each is asked again and again, for itself, so that one that is
 * slow to answer holds up no other. Emits "changed" when one says something else than it last did, whoever asked it.
 */
export class PrinterWatch extends EventEmitter<{ changed: [PrinterNow] }> {
  private timer: NodeJS.Timeout | null = null;
  private readonly asking = new Map<string, Promise<PrinterNow>>();
  private readonly told = new Map<string, string>();
  private readonly latest = new Map<string, PrinterNow>();
  /** Printers that somebody did not wait for: what they say is told when it comes, whatever it is. */
  private readonly owed = new Set<string>();

  constructor(private readonly db: Database) {
    super();
  }

  begin(): void {
    this.timer ??= setInterval(() => void this.askAll(), ASK_EVERY_MS);
  }

  rest(): void {
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
  }

  /** Asks a printer how it stands: its profile is the last one seen where it does not answer, and `answers` says so. */
  async describe(printer: StoredPrinter): Promise<PrinterNow> {
    const found = await askPrinter(this.db, printer);
    const { askedAt: _, seenAt: __, ...said } = found;
    const text = JSON.stringify(said);
    const isNew = this.told.get(found.id) !== text;
    this.told.set(found.id, text);
    this.latest.set(found.id, found);
    if (this.owed.delete(found.id) || isNew) this.emit('changed', found);
    return found;
  }

  /**
   * The same for a list, which one printer that is slow must not keep from all others: after a moment what it said last is
   * given, and what it says when it does is told as news.
   */
  async describeSoon(printer: StoredPrinter): Promise<PrinterNow> {
    const answer = this.ask(printer);
    answer.catch(() => undefined);
    const late = Symbol('late');
    const first = await Promise.race([answer, wait(WAITED_FOR_MS, late, { ref: false })]);
    if (typeof first !== 'symbol') return first;
    this.owed.add(printer.id);
    return (
      this.latest.get(printer.id) ?? {
        ...asLastSeen(printer, 'It has not answered yet.'),
        // Whatever it says, it says later.
        askedAt: new Date(0),
      }
    );
  }

  private async askAll(): Promise<void> {
    try {
      const printers = await listPrinters(this.db);
      const free = printers.filter(({ id }) => !this.asking.has(id));
      await Promise.all(free.map((printer) => this.ask(printer).catch(unlessRemoved)));
    } catch (error) {
      // What is away is asked again in a moment, and whoever listens hears of it by other ways.
      if (!isDatabaseAway(error)) log.error({ err: forLog(error) }, 'watching printers');
    }
  }

  /** One question at a time to each printer. */
  private ask(printer: StoredPrinter): Promise<PrinterNow> {
    const asking = this.asking.get(printer.id) ?? this.describe(printer).finally(() => this.asking.delete(printer.id));
    this.asking.set(printer.id, asking);
    return asking;
  }
}

function unlessRemoved(error: unknown): void {
  if (!(error instanceof Problem)) throw error;
}

async function askPrinter(db: Database, printer: StoredPrinter): Promise<PrinterNow> {
  const askedAt = new Date();
  try {
    const asked = await askItself(db, printer);
    const faults = sayFaults(asked.reasons, asked.profile);
    return { ...knownOf(printer), ...asked, askedAt, answers: true, seenAt: new Date(), faults };
  } catch (error) {
    if (!(error instanceof IppError)) throw error;
    return {
      ...asLastSeen(printer, sayAway(error)),
      askedAt,
      wants: error.login && 'login',
      certificate: error.certificate,
    };
  }
}

function sayAway({ login, certificate, why, message }: IppError): string {
  if (login) {
    const said =
      login === 'wanted' ? 'asks for a name and a password' : 'does not take the name and password it was given';
    return `It ${said}: say them here.`;
  }
  if (certificate) return `It shows a certificate that is not trusted: ${why ?? message}.`;
  return `It does not answer: ${why ?? message}.`;
}

const knownOf = ({ id, name, uri, panel, access, pace, heldBack }: StoredPrinter) => ({
  id,
  name,
  uri: withoutPassword(uri),
  pace,
  heldBack,
  simulated: panel !== null,
  login: access?.login?.name ?? null,
  wants: null,
  certificate: null,
});

function asLastSeen(printer: StoredPrinter, fault: string): PrinterNow {
  const { seenAt, profile } = printer;
  const last = { seenAt, profile, reportedSizes: reportedSizes(printer) };
  return {
    ...knownOf(printer),
    ...last,
    askedAt: new Date(),
    answers: false,
    state: 'stopped',
    reasons: [],
    queued: null,
    supplies: [],
    faults: [fault],
  };
}
