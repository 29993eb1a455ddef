import { EventEmitter } from 'node:events';
import { setTimeout as wait } from 'node:timers/promises';
import { facingOf, pointsToMm, type Printer, type Tray } from '@foglio/core';
import type { Attributes } from '@foglio/ipp';
import { pageSizes, PdfError } from '@foglio/pdf';
import { isOver, isReady, MOST_HELD, type Archive, type DeliveredSheet, type PrintJob } from './archive';
import { isFull } from './disk';
import { BLANK, printed, putBack, type Mark, type Paper } from './paper';
import { finishedOf, sheetsOfJob, type SheetToPrint } from './sheet-order';
import { holds, withSizes } from './trays';

export interface MachineOptions {
  readonly profile: Printer;
  readonly archive: Archive;
  /** Milliseconds a sheet takes to come out. */
  readonly sheetMs: number;
  /** Kilobytes a second at which a document is taken in; without it as fast as it comes. */
  readonly intakeKb?: number;
}

/** Why the printer stands still (RFC 8011, section 5.4.12, printer-state-reasons). */
export interface Stop {
  readonly reason: 'media-empty' | 'media-needed' | 'input-tray-missing' | Fault | 'paused' | 'spool-area-full';
  readonly tray: string | null;
}

/** What keeps the whole printer from printing until a person has seen to it. */
export type Fault = 'media-jam' | 'door-open';

/** The printer itself: trays with paper, jobs in the order they came, one sheet after another. */
export class Machine {
  readonly jobs = new Map<number, PrintJob>();
  readonly loaded = new Map<string, number>();
  /** Trays that have been pulled out. */
  readonly pulled = new Set<string>();
  /** Printed sheets that were put back into the tray for a second pass, the lowest first. */
  private stack: Paper[] = [];
  /** When the last sheet came out of those that were taken away, as ISO 8601. */
  private taken = '';
  stop: Stop | null = null;
  private fault: Fault | null = null;
  private paused = false;
  private isFull = false;
  private readonly bell = new EventEmitter();
  private off = new AbortController();
  private now: Printer;
  private running: Promise<void> | null = null;

  constructor(private options: MachineOptions) {
    this.now = options.profile;
  }

  /** As it came, with the paper that was put into its trays since. */
  get profile(): Printer {
    return this.now;
  }

  /** Takes up what the archive holds and begins to print. */
  async start(): Promise<void> {
    const { archive, profile } = this.options;
    archive.disk.hear = (isFull) => {
      this.isFull = isFull;
      this.look();
    };
    for (const job of await archive.open()) {
      this.jobs.set(job.id, job);
      // A document that was still on its way when the printer went off never came whole.
      if (job.state === 'pending' && !job.whole)
        await this.end(job, 'aborted', 'aborted-by-system', 'no document came');
    }
    this.now = withSizes(profile, await archive.readSizes());
    const kept = await archive.readTrays();
    for (const tray of profile.trays) this.loaded.set(tray.id, kept[tray.id] ?? tray.loaded ?? tray.capacity ?? 0);
    this.stack = await archive.readStack();
    this.taken = await archive.readTaken();
    this.running = this.printForEver().catch((error: unknown) => {
      if (!this.off.signal.aborted) throw error;
    });
  }

  async shutDown(): Promise<void> {
    this.off.abort();
    this.options.archive.disk.close();
    this.bell.emit('news');
    await this.running;
  }

  /** As it came from the factory, or another printer in its place: no job, no output, trays as its profile has them. */
  async renew(change: Partial<Omit<MachineOptions, 'archive'>>): Promise<void> {
    await this.shutDown();
    this.options = { ...this.options, ...change };
    await this.options.archive.empty();
    this.jobs.clear();
    this.loaded.clear();
    this.pulled.clear();
    this.stop = null;
    this.fault = null;
    this.paused = false;
    this.off = new AbortController();
    await this.start();
  }

  /** Kilobytes a second at which a document is taken in; Infinity: as fast as it comes. */
  get intakeKb(): number {
    return this.options.intakeKb ?? Infinity;
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
      documents: [],
      whole: false,
      sheets: null,
      delivered: [],
      deliveredCount: 0,
      endedAt: null,
    };
    this.jobs.set(id, job);
    await this.options.archive.saveJob(job);
    return job;
  }

  /**
   * A whole document of a job has come; after its last one it will be printed.
   *
   * @throws PdfError where it cannot be read, or what a disk says where it has no room; the job is then aborted
   */
  async receiveDocument(job: PrintJob, attributes: Attributes, bytes: Uint8Array, isLast: boolean): Promise<void> {
    try {
      const hundredths = (points: number): number => Math.round(pointsToMm(points) * 100);
      const sizes = await pageSizes(bytes);
      await this.options.archive.saveDocument(job.id, job.documents.length + 1, bytes);
      const pages = sizes.map(({ width, height }) => ({ x: hundredths(width), y: hundredths(height) }));
      job.documents.push({ attributes, pages });
    } catch (error) {
      const reason = error instanceof PdfError ? 'document-format-error' : 'aborted-by-system';
      const message = isFull(error) ? 'the printer’s disk is full' : (error as Error).message;
      const ended = this.end(job, 'aborted', reason, message);
      // Whoever sends it need not wait until there is room to write that down.
      if (isFull(error)) ended.catch(() => undefined);
      else await ended;
      throw error;
    }
    if (isLast) await this.closeJob(job);
    else await this.options.archive.saveJob(job);
  }

  /** No further document comes. */
  async closeJob(job: PrintJob): Promise<void> {
    job.whole = true;
    job.sheets = sheetsOfJob(job.attributes, job.documents).count;
    if (job.state === 'pending') job.reasons = ['none'];
    await this.options.archive.saveJob(job);
    this.bell.emit('news');
  }

  async abortIncoming(job: PrintJob): Promise<void> {
    if (!job.whole && job.state === 'pending') {
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

  /** A job that has not begun waits until it is released (RFC 8011, 4.3.5). False where it has begun or is over. */
  async hold(job: PrintJob): Promise<boolean> {
    if (job.state !== 'pending' && job.state !== 'pending-held') return false;
    job.state = 'pending-held';
    job.reasons = ['job-hold-until-specified'];
    await this.options.archive.saveJob(job);
    return true;
  }

  async release(job: PrintJob): Promise<boolean> {
    if (job.state !== 'pending-held') return false;
    job.state = 'pending';
    job.reasons = [job.whole ? 'none' : 'job-incoming'];
    await this.options.archive.saveJob(job);
    this.bell.emit('news');
    return true;
  }

  /** A job that is over, once more from its first sheet (RFC 8011, 4.3.7). False where it is not, or never came whole. */
  async restart(job: PrintJob): Promise<boolean> {
    if (!isOver(job) || !job.whole) return false;
    await this.options.archive.forgetSheets(job.id);
    job.delivered = [];
    job.deliveredCount = 0;
    job.endedAt = null;
    job.state = 'pending';
    job.reasons = ['none'];
    job.message = null;
    await this.options.archive.saveJob(job);
    this.bell.emit('news');
    return true;
  }

  /**
   * Forgets jobs that ended before a moment, with their documents and sheets, but for the latest job: no number is given
   * twice.
   *
   * @returns how many
   */
  async forget(before: Date): Promise<number> {
    const latest = Math.max(...this.jobs.keys());
    let forgotten = 0;
    for (const job of [...this.jobs.values()]) {
      if (!isOver(job) || job.id === latest) continue;
      // Of one of before nobody wrote down when it ended.
      if (job.endedAt === null) await this.end(job, job.state, job.reasons[0] ?? 'none', job.message);
      else if (job.endedAt < before.toISOString()) {
        this.jobs.delete(job.id);
        await this.options.archive.forgetJob(job.id);
        forgotten += 1;
      }
    }
    return forgotten;
  }

  /** All that came out and was not taken away yet, the lowest sheet first. */
  get output(): DeliveredSheet[] {
    const lying = [...this.jobs.values()].flatMap(({ delivered }) => delivered.filter(({ at }) => at > this.taken));
    return lying.sort((one, other) => (one.at < other.at ? -1 : one.at > other.at ? 1 : 0));
  }

  async takeOutput(): Promise<void> {
    this.taken = this.output.at(-1)?.at ?? this.taken;
    await this.options.archive.saveTaken(this.taken);
  }

  /** Takes all out of the output and puts what a job delivered back into the tray, over the blank paper there. */
  async refeed(job: PrintJob, turned: boolean): Promise<void> {
    await this.takeOutput();
    this.stack = putBack(job.delivered, turned);
    await this.options.archive.saveStack(this.stack);
    this.bell.emit('news');
  }

  get refed(): number {
    return this.stack.length;
  }

  /** Stops between two sheets, or goes on. */
  pause(paused: boolean): void {
    this.paused = paused;
    this.look();
  }

  /** A jam or an open door; null: a person has seen to it. */
  breakDown(fault: Fault | null): void {
    this.fault = fault;
    this.look();
  }

  /** Pulls a tray out, or pushes it in again. */
  pull(tray: string, out: boolean): void {
    if (out) this.pulled.add(tray);
    else this.pulled.delete(tray);
    this.look();
  }

  /** A printer that stands idle shows what is wrong with it too. */
  private look(): void {
    const reason = this.fault ?? (this.paused ? 'paused' : this.isFull ? 'spool-area-full' : null);
    if (reason) this.stop = { reason, tray: null };
    else if (this.stop && this.stop.tray === null) this.stop = null;
    this.bell.emit('news');
  }

  /** @param size of the paper, where it is another than lay there */
  async load(tray: string, sheets: number, size?: string): Promise<void> {
    this.loaded.set(tray, sheets);
    if (size !== undefined) {
      this.now = withSizes(this.now, { [tray]: size });
      await this.options.archive.saveSizes(Object.fromEntries(this.now.trays.map((one) => [one.id, one.size])));
    }
    await this.options.archive.saveTrays(Object.fromEntries(this.loaded));
    this.bell.emit('news');
  }

  private async printForEver(): Promise<void> {
    while (!this.off.signal.aborted) {
      const job = [...this.jobs.values()].find((one) => isReady(one));
      if (job) await this.print(job);
      else await this.news();
    }
  }

  private async print(job: PrintJob): Promise<void> {
    const sheets = sheetsOfJob(job.attributes, job.documents);
    job.state = 'processing';
    job.reasons = ['job-printing'];
    await this.options.archive.saveJob(job);
    while (!isOver(job) && job.deliveredCount < sheets.count) {
      // Switched off while it waits for paper, it has the job still to do.
      this.off.signal.throwIfAborted();
      const sheet = sheets.sheet(job.deliveredCount);
      const tray = await this.paperFor(sheet, job);
      if (!tray) continue;
      await wait(this.options.sheetMs, undefined, { signal: this.off.signal });
      // What jams or is interrupted on its way is printed anew, so it comes out once.
      if (!isOver(job) && !this.hindrance(sheet, tray)) await this.deliver(job, sheet, tray);
    }
    if (!isOver(job)) await this.end(job, 'completed', 'job-completed-successfully', null);
  }

  /** The tray a sheet is taken from; null after having waited for news where it cannot be printed now. */
  private async paperFor(sheet: SheetToPrint, job: PrintJob): Promise<Tray | null> {
    const tray = this.profile.trays.find((one) => (sheet.source ? one.id === sheet.source : holds(one, sheet))) ?? null;
    this.stop = this.hindrance(sheet, tray);
    job.state = this.stop ? 'processing-stopped' : 'processing';
    job.reasons = [this.stop ? 'printer-stopped' : 'job-printing'];
    if (!this.stop) return tray;
    await this.news();
    return null;
  }

  private hindrance(sheet: SheetToPrint, tray: Tray | null): Stop | null {
    if (this.fault) return { reason: this.fault, tray: null };
    if (this.paused) return { reason: 'paused', tray: null };
    if (this.isFull) return { reason: 'spool-area-full', tray: null };
    if (tray && this.pulled.has(tray.id)) return { reason: 'input-tray-missing', tray: tray.id };
    if (!tray || !holds(tray, sheet)) return { reason: 'media-needed', tray: tray?.id ?? sheet.source };
    if (this.isRefeedTray(tray) && this.stack.length > 0) return null;
    return (this.loaded.get(tray.id) ?? 0) > 0 ? null : { reason: 'media-empty', tray: tray.id };
  }

  private async deliver(job: PrintJob, sheet: SheetToPrint, tray: Tray): Promise<void> {
    const { document, set, front, back, sides, told } = sheet;
    const { archive } = this.options;
    const isRefed = this.isRefeedTray(tray) && this.stack.length > 0;
    const paper = isRefed ? (this.stack.pop() as Paper) : BLANK;
    const mark = (page: number): Mark => ({ job: job.id, document, page });
    const delivers = facingOf(this.profile, told);
    const lying = printed(paper, mark(front), back === null ? null : mark(back), { ...this.profile, delivers });
    const faces = [paper.upper, paper.lower].filter((face) => face !== null).length;
    const kept = [lying.upper, lying.lower].filter((face) => face !== null).length;
    const spoilt = kept < faces + (back === null ? 1 : 2);
    const index = job.deliveredCount + 1;
    const at = new Date().toISOString();
    const finished = finishedOf(job.attributes);
    const delivered = {
      job: job.id,
      document,
      index,
      set,
      tray: tray.id,
      sides,
      ...told,
      front,
      back,
      ...lying,
      spoilt,
      ...(finished ? { finished } : {}),
      at,
    };
    if (isRefed) await archive.saveStack(this.stack);
    else this.loaded.set(tray.id, (this.loaded.get(tray.id) as number) - 1);
    await archive.addSheet(delivered);
    job.delivered.push(delivered);
    job.deliveredCount = index;
    if (job.delivered.length >= 2 * MOST_HELD) {
      job.delivered = job.delivered.slice(-MOST_HELD);
      await archive.keepSheets(job.id, job.delivered);
    }
    await archive.saveTrays(Object.fromEntries(this.loaded));
  }

  /** The tray that a stack is put back into. */
  private isRefeedTray({ id }: Tray): boolean {
    return id === (this.profile.refeedTray ?? this.profile.trays[0]?.id);
  }

  private async end(job: PrintJob, state: PrintJob['state'], reason: string, message: string | null): Promise<void> {
    job.state = state;
    job.reasons = [reason];
    job.message = message;
    job.endedAt = new Date().toISOString();
    await this.options.archive.saveJob(job);
  }

  private news(): Promise<void> {
    return new Promise((resolve) => {
      this.bell.once('news', () => resolve());
      if (this.off.signal.aborted) resolve();
    });
  }
}
