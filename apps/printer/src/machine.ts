import { EventEmitter } from 'node:events';
import { setTimeout as wait } from 'node:timers/promises';
import { mmToPoints, readSizeName, type Printer, type Tray } from '@foglio/core';
import type { Attributes } from '@foglio/ipp';
import { countPages, PdfError } from '@foglio/pdf';
import type { Archive, PrintJob } from './archive';
import { sheetsOfJob, type SheetToPrint } from './sheet-order';

export interface MachineOptions {
  readonly profile: Printer;
  readonly archive: Archive;
  /** Milliseconds a sheet takes to come out. */
  readonly sheetMs: number;
}

/** Why the printer stands still (RFC 8011, section 5.4.12, printer-state-reasons). */
export interface Stop {
  readonly reason: 'media-empty' | 'media-needed';
  readonly tray: string | null;
}

/** The printer itself: trays with paper, jobs in the order they came, one sheet after another. */
export class Machine {
  readonly jobs = new Map<number, PrintJob>();
  readonly loaded = new Map<string, number>();
  stop: Stop | null = null;
  private readonly bell = new EventEmitter();
  private readonly off = new AbortController();
  private running: Promise<void> | null = null;

  constructor(private readonly options: MachineOptions) {}

  get profile(): Printer {
    return this.options.profile;
  }

  /** Takes up what the archive holds and begins to print. */
  async start(): Promise<void> {
    const { archive, profile } = this.options;
    for (const job of await archive.open()) {
      this.jobs.set(job.id, job);
      // A document that was still on its way when the printer went off never came whole.
      if (job.state === 'pending' && job.pages === null)
        await this.end(job, 'aborted', 'aborted-by-system', 'no document came');
    }
    const kept = await archive.readTrays();
    for (const tray of profile.trays) this.loaded.set(tray.id, kept[tray.id] ?? tray.loaded ?? tray.capacity ?? 0);
    this.running = this.printForEver().catch((error: unknown) => {
      if (!this.off.signal.aborted) throw error;
    });
  }

  async shutDown(): Promise<void> {
    this.off.abort();
    this.bell.emit('news');
    await this.running;
  }

  /** Create-Job: a job without its document yet. */
  async createJob(name: string, user: string, attributes: Attributes): Promise<PrintJob> {
    const id = Math.max(0, ...this.jobs.keys()) + 1;
    const job: PrintJob = {
      id,
      name,
      user,
      attributes,
      state: 'pending',
      reasons: ['job-incoming'],
      message: null,
      pages: null,
      sheets: null,
      delivered: [],
    };
    this.jobs.set(id, job);
    await this.options.archive.saveJob(job);
    return job;
  }

  /**
   * The whole document of a job has come; from here on it will be printed.
   *
   * @throws PdfError where it cannot be read; the job is then aborted
   */
  async receiveDocument(job: PrintJob, bytes: Uint8Array): Promise<void> {
    try {
      const pages = await countPages(bytes);
      await this.options.archive.saveDocument(job.id, bytes);
      job.pages = pages;
      job.sheets = sheetsOfJob(job.attributes, pages).length;
      job.reasons = ['none'];
      await this.options.archive.saveJob(job);
    } catch (error) {
      const reason = error instanceof PdfError ? 'document-format-error' : 'aborted-by-system';
      await this.end(job, 'aborted', reason, (error as Error).message);
      throw error;
    }
    this.bell.emit('news');
  }

  async abortIncoming(job: PrintJob): Promise<void> {
    if (job.pages === null && job.state === 'pending') {
      await this.end(job, 'aborted', 'aborted-by-system', 'the document did not come whole');
    }
  }

  async cancel(job: PrintJob): Promise<boolean> {
    if (isOver(job)) return false;
    await this.end(job, 'canceled', 'job-canceled-by-user', null);
    this.stop = null;
    this.bell.emit('news');
    return true;
  }

  async load(tray: string, sheets: number): Promise<void> {
    this.loaded.set(tray, sheets);
    await this.options.archive.saveTrays(Object.fromEntries(this.loaded));
    this.bell.emit('news');
  }

  private async printForEver(): Promise<void> {
    while (!this.off.signal.aborted) {
      const job = [...this.jobs.values()].find((one) => !isOver(one) && one.pages !== null);
      if (job) await this.print(job);
      else await this.news();
    }
  }

  private async print(job: PrintJob): Promise<void> {
    const sheets = sheetsOfJob(job.attributes, job.pages as number);
    job.state = 'processing';
    job.reasons = ['job-printing'];
    await this.options.archive.saveJob(job);
    while (!isOver(job) && job.delivered.length < sheets.length) {
      const sheet = sheets[job.delivered.length] as SheetToPrint;
      const tray = await this.paperFor(sheet, job);
      if (!tray) continue;
      await wait(this.options.sheetMs, undefined, { signal: this.off.signal });
      if (!isOver(job)) await this.deliver(job, sheet, tray);
    }
    if (!isOver(job)) await this.end(job, 'completed', 'job-completed-successfully', null);
  }

  /** The tray a sheet is taken from; null after having waited for news where there is no paper for it. */
  private async paperFor(sheet: SheetToPrint, job: PrintJob): Promise<Tray | null> {
    const tray = this.profile.trays.find((one) => (sheet.source ? one.id === sheet.source : holds(one, sheet)));
    const fits = tray !== undefined && holds(tray, sheet);
    if (tray && fits && (this.loaded.get(tray.id) ?? 0) > 0) {
      this.stop = null;
      job.state = 'processing';
      job.reasons = ['job-printing'];
      return tray;
    }
    this.stop = { reason: fits ? 'media-empty' : 'media-needed', tray: tray?.id ?? sheet.source };
    job.state = 'processing-stopped';
    job.reasons = ['printer-stopped'];
    await this.news();
    return null;
  }

  private async deliver(job: PrintJob, sheet: SheetToPrint, tray: Tray): Promise<void> {
    const { set, front, back, sides } = sheet;
    const delivered = { job: job.id, index: job.delivered.length + 1, set, tray: tray.id, sides, front, back };
    this.loaded.set(tray.id, (this.loaded.get(tray.id) as number) - 1);
    job.delivered.push(delivered);
    await this.options.archive.addSheet(delivered);
    await this.options.archive.saveTrays(Object.fromEntries(this.loaded));
  }

  private async end(job: PrintJob, state: PrintJob['state'], reason: string, message: string | null): Promise<void> {
    job.state = state;
    job.reasons = [reason];
    job.message = message;
    await this.options.archive.saveJob(job);
  }

  private news(): Promise<void> {
    return new Promise((resolve) => {
      this.bell.once('news', () => resolve());
      if (this.off.signal.aborted) resolve();
    });
  }
}

export const isOver = (job: PrintJob): boolean => ['completed', 'canceled', 'aborted'].includes(job.state);

/** Half a millimetre, as media measures are rounded on their way. */
const SAME_MM = 0.5;

function holds(tray: Tray, sheet: SheetToPrint): boolean {
  const measure = readSizeName(tray.size);
  if (!sheet.size || !measure) return sheet.size === null;
  const same = (points: number, hundredths: number): boolean =>
    Math.abs(points - mmToPoints(hundredths / 100)) <= mmToPoints(SAME_MM);
  const [short, long] = [Math.min(sheet.size.x, sheet.size.y), Math.max(sheet.size.x, sheet.size.y)];
  return same(measure.width, short) && same(measure.height, long);
}
