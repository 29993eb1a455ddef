import { inScratchFolder, PdfError, type PageDetails } from '@foglio/pdf';
import { eq } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { onceDatabaseAnswers } from '../database/outage';
import { messageOf } from '../database/query-error';
import { contents } from '../database/schema';
import { diskFull } from '../http/disk-full';
import { pagesAbout } from '../pdf/looked-at';
import { Stopped, WorkersClosed, type PdfWorkers, type WorkerLimits } from '../pdf/pdf-workers';
import { fileContent, type StoredContent } from './content-store';
import { DetailsEntry } from './details-entry';
import { log } from '../log';

/** A document with no more pages than this is read before longer ones, and beside whatever is being done. */
export const SHORT_PAGES = 200;

/** The most pages that one process reads: what it keeps of them grows with their number. */
const SLICE_PAGES = 600;

/** Processes that read a long document. */
const LANES = 2;

/** Pages of a long document after which another has its turn. */
const TURN_PAGES = 2_000;

/** What reads the details of pages. */
export type DetailsWorkers = Pick<PdfWorkers, 'readDetails' | 'intake' | 'lookedAt'>;

/**
 * Reads the details of pages that are not known yet, in their order, and enters them as they come. Of a long document that is one turn: slices of it, on two cores where nothing is being taken in, and none
 * while another long one is. A file that cannot be read, or takes too much, is given up for good: its pages are then printed
 * without these facts. One that is ended with the server goes on at the next start.
 *
 * @returns pages that are still to be read
 * @throws what a disk says where it has no room: nothing is wrong with the document, and it can be read later
 */
export async function readContentDetails(
  db: Database,
  id: string,
  workers: DetailsWorkers,
  limits?: WorkerLimits,
): Promise<number> {
  const content = await onceDatabaseAnswers(() => db.query.contents.findFirst({ where: eq(contents.id, id) }));
  const left = content ? content.pages.length - content.detailsRead : 0;
  if (!content || left <= 0) return 0;
  const isLong = left > SHORT_PAGES;
  if (isLong && workers.intake.isGrowing) return left;
  const complain = (error: unknown): void =>
    log.error({ content: id, page: entry.read + 1 }, `reading details: ${messageOf(error)}`);
  const entry = new DetailsEntry(db, content, complain);
  try {
    await inScratchFolder(async (path) => {
      await onceDatabaseAnswers(() => fileContent(db, id, path('content.pdf')));
      await new Turn(workers, entry, path('content.pdf'), limits).read(content, isLong);
    });
  } catch (error) {
    if (hasNoRoom(error)) {
      await entry.end();
      throw error;
    }
    if (!(error instanceof WorkersClosed)) {
      complain(error);
      await entry.giveUp();
      return 0;
    }
  }
  await entry.end();
  return content.pages.length - entry.read;
}

/** Whether an error is a full disk's, of this process or of a worker. */
export const hasNoRoom = (error: unknown): boolean =>
  diskFull(error) !== null || (error instanceof PdfError && error.trouble === 'no-room');

/** Pages of a slice that are still to be read. */
type Slice = readonly number[];

/** A slice that is being read. */
interface Reading {
  readonly left: Set<number>;
  readonly giveUp: () => void;
}

/** The next page that it reads. */
const firstOf = ({ left }: Reading): number => left.values().next().value ?? 0;

/** One turn of reading a document. */
class Turn {
  private slices: Slice[] = [];
  private readonly readings = new Set<Reading>();
  /** What somebody looks at and nobody has begun to read. */
  private lookedAt: Slice = [];
  private isOver = false;

  constructor(
    private readonly workers: DetailsWorkers,
    private readonly entry: DetailsEntry,
    private readonly file: string,
    private readonly limits: WorkerLimits | undefined,
  ) {}

  /** @throws PdfError, WorkersClosed like reading details, once all of it has ended */
  async read(content: StoredContent, isLong: boolean): Promise<void> {
    const all = content.pages.map((_, index) => index + 1).filter((page) => !this.entry.isKnown(page));
    const pages = all.slice(0, TURN_PAGES);
    // Each process has as many of them, as long ones: it takes a second to start.
    const rounds = isLong ? LANES * Math.ceil(pages.length / (LANES * SLICE_PAGES)) : 1;
    const length = Math.ceil(pages.length / rounds);
    for (let from = 0; from < pages.length; from += length) this.slices.push(pages.slice(from, from + length));
    const { intake, lookedAt } = this.workers;
    const off = lookedAt.on(content.id, (page) => this.look(page, pagesAbout(page, content.pages.length)));
    // What a person waits for needs the memory, and at its beginning one core.
    const lanes = [this.lane(() => isLong && intake.isGrowing), ...(isLong ? [this.lane(() => intake.isTaking)] : [])];
    const ended = await Promise.allSettled(lanes);
    off();
    const failed = ended.find(({ status }) => status === 'rejected');
    if (failed) throw (failed as PromiseRejectedResult).reason;
  }

  /** What is looked at is read next: by whoever was to read it later, or by the one that is farthest from the beginning. */
  private look(page: number, about: Slice): void {
    if (this.entry.isKnown(page)) return;
    const later = [...this.readings].find(({ left }) => left.has(page));
    // It is read in a moment anyway.
    if (later && [...later.left].indexOf(page) < about.length) return;
    this.lookedAt = about.filter((one) => !this.entry.isKnown(one));
    (later ?? [...this.readings].toSorted((one, other) => firstOf(other) - firstOf(one))[0])?.giveUp();
  }

  /** Reads slice after slice in a process each, as long as nothing is in its way. */
  private async lane(isInTheWay: () => boolean): Promise<void> {
    for (let slice = this.next(isInTheWay); slice; slice = this.next(isInTheWay)) {
      const given = new AbortController();
      const reading = { left: new Set(slice), giveUp: () => given.abort() };
      const off = this.workers.intake.on(() => isInTheWay() && reading.giveUp());
      this.readings.add(reading);
      try {
        await this.readSlice(slice, reading.left, given.signal);
      } catch (error) {
        if (!(error instanceof Stopped)) {
          this.isOver = true;
          for (const other of this.readings) other.giveUp();
          throw error;
        }
        this.slices.unshift([...reading.left]);
      } finally {
        off();
        this.readings.delete(reading);
      }
    }
  }

  private next(isInTheWay: () => boolean): Slice | undefined {
    if (this.isOver || isInTheWay()) return undefined;
    const begun = new Set([...this.readings].flatMap(({ left }) => [...left]));
    const looked = this.lookedAt.filter((page) => !begun.has(page) && !this.entry.isKnown(page));
    this.lookedAt = [];
    if (looked.length > 0) {
      this.slices = this.slices.map((slice) => slice.filter((page) => !looked.includes(page)));
      return looked;
    }
    this.slices = this.slices.filter(({ length }) => length > 0);
    return this.slices.shift();
  }

  private readSlice(slice: Slice, left: Set<number>, signal: AbortSignal): Promise<void> {
    const { entry, limits } = this;
    const hear = (page: number, details: PageDetails): void => {
      left.delete(page);
      entry.page(page, details);
    };
    return this.workers.readDetails(this.file, slice, hear, { signal, ...(limits ? { limits } : {}) });
  }
}
