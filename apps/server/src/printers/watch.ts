import { EventEmitter } from 'node:events';
import { sayFaults, withoutPassword } from '@foglio/ipp';
import type { Database } from '../database/connection';
import { isDatabaseAway } from '../database/outage';
import { forLog } from '../database/query-error';
import { Problem } from '../http/problem';
import { askNow, listPrinters, reportedSizes, type PrinterAsked, type StoredPrinter } from './printer-store';
import { log } from '../log';

/** Between two questions to the same printer. */
const ASK_EVERY_MS = 2_000;

/** A printer as it was found when it was asked. */
export interface PrinterNow extends PrinterAsked, Pick<StoredPrinter, 'id' | 'name' | 'uri' | 'seenAt'> {
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
  private readonly asking = new Set<string>();
  private readonly told = new Map<string, string>();

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
    if (this.told.get(found.id) !== text) {
      this.told.set(found.id, text);
      this.emit('changed', found);
    }
    return found;
  }

  private async askAll(): Promise<void> {
    try {
      const printers = await listPrinters(this.db);
      await Promise.all(printers.filter(({ id }) => !this.asking.has(id)).map((printer) => this.ask(printer)));
    } catch (error) {
      // What is away is asked again in a moment, and whoever listens hears of it by other ways.
      if (!isDatabaseAway(error)) log.error({ err: forLog(error) }, 'watching printers');
    }
  }

  private async ask(printer: StoredPrinter): Promise<void> {
    this.asking.add(printer.id);
    try {
      await this.describe(printer);
    } catch (error) {
      // It was removed meanwhile.
      if (!(error instanceof Problem)) throw error;
    } finally {
      this.asking.delete(printer.id);
    }
  }
}

async function askPrinter(db: Database, printer: StoredPrinter): Promise<PrinterNow> {
  const { id, name, uri, seenAt } = printer;
  const known = { id, name, uri: withoutPassword(uri), simulated: printer.panel !== null, askedAt: new Date() };
  try {
    const asked = await askNow(db, printer);
    const faults = sayFaults(asked.reasons, asked.profile);
    return { ...known, ...asked, answers: true, seenAt: new Date(), faults };
  } catch (error) {
    if (!(error instanceof Problem) || error.code !== 'printer-away') throw error;
    const faults = ['It does not answer: see that it is switched on and in the network.'];
    const last = { seenAt, profile: printer.profile, reportedSizes: reportedSizes(printer) };
    return { ...known, ...last, answers: false, state: 'stopped', reasons: [], faults };
  }
}
