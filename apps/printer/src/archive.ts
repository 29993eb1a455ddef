import { mkdir, readdir, readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { SheetSettings } from '@foglio/core';
import { decodeMessage, encodeMessage, groupOf, type Attributes, type JobState } from '@foglio/ipp';
import { Disk } from './disk';
import type { Mark, Paper } from './paper';
import type { Finished, ReceivedDocument } from './sheet-order';

/**
 * A sheet that has left the printer. Pages are those of one of the received documents; pages and documents are counted from
 * 1; null: nothing printed there.
 */
export interface DeliveredSheet extends SheetSettings {
  readonly job: number;
  readonly document: number;
  /** Place in the output of its job, from 1. */
  readonly index: number;
  readonly set: number;
  readonly tray: string;
  readonly sides: string;
  readonly front: number;
  readonly back: number | null;
  /** What lies up and what lies down in the output, what was there before included. */
  readonly upper: Mark | null;
  readonly lower: Mark | null;
  /** What was done to it, together with the others of its set or document. */
  readonly finished?: Finished;
  /** Whether a face was printed on that had something on it already. */
  readonly spoilt: boolean;
  /** When it came out, ISO 8601. */
  readonly at: string;
}

export interface PrintJob {
  readonly id: number;
  readonly name: string;
  readonly user: string;
  readonly attributes: Attributes;
  state: JobState;
  reasons: string[];
  message: string | null;
  /** What has come so far. */
  documents: ReceivedDocument[];
  /** Whether the last document has come, so that it can be printed. */
  whole: boolean;
  /** How many sheets the job comes to, once it is whole. */
  sheets: number | null;
  /** How many have come out. */
  deliveredCount: number;
  /** The latest of them: no more than {@link MOST_HELD} are kept for certain. */
  delivered: DeliveredSheet[];
  /** When it ended, ISO 8601. */
  endedAt: string | null;
}

export const isOver = (job: PrintJob): boolean => ['completed', 'canceled', 'aborted'].includes(job.state);

/** Whether it can be printed now. */
export const isReady = (job: PrintJob): boolean => job.whole && job.state !== 'pending-held' && !isOver(job);

/** Delivered sheets of a job that are kept, in memory and on disk. */
export const MOST_HELD = 10_000;

interface StoredJob extends Omit<PrintJob, 'delivered' | 'deliveredCount' | 'attributes' | 'documents'> {
  readonly attributes: string;
  readonly documents: readonly { readonly attributes: string; readonly pages: ReceivedDocument['pages'] }[];
}

/**
 * What a simulated printer keeps on disk, so that switching it off loses nothing: a file a job, its document beside it,
 * and the sheets it delivered, a line each, added as they come out.
 */
export class Archive {
  readonly disk = new Disk();

  constructor(private readonly folder: string) {}

  async open(): Promise<PrintJob[]> {
    this.disk.open();
    await mkdir(this.folder, { recursive: true });
    const names = (await readdir(this.folder)).filter((name) => /^job-\d+\.json$/.test(name));
    const jobs = await Promise.all(names.map((name) => this.load(name)));
    return jobs.sort((a, b) => a.id - b.id);
  }

  /** Forgets everything. */
  async empty(): Promise<void> {
    await this.disk.settled();
    await rm(this.folder, { recursive: true, force: true });
  }

  async saveJob({ delivered: _, deliveredCount: __, attributes, documents, ...rest }: PrintJob): Promise<void> {
    const stored: StoredJob = {
      ...rest,
      attributes: packAttributes(attributes),
      documents: documents.map(({ attributes: own, pages }) => ({ attributes: packAttributes(own), pages })),
    };
    await this.replace(`job-${rest.id}.json`, JSON.stringify(stored, null, 2));
  }

  /** @param document counted from 1 */
  async saveDocument(job: number, document: number, bytes: Uint8Array): Promise<void> {
    await this.disk.write(this.documentPath(job, document), bytes);
  }

  readDocument(job: number, document: number): Promise<Uint8Array> {
    return readFile(this.documentPath(job, document));
  }

  /** Before a job is printed once more. */
  async forgetSheets(job: number): Promise<void> {
    await rm(join(this.folder, `job-${job}.sheets`), { force: true });
  }

  async addSheet(sheet: DeliveredSheet): Promise<void> {
    await this.disk.append(join(this.folder, `job-${sheet.job}.sheets`), JSON.stringify(sheet));
  }

  /** Only these of the sheets that a job delivered are kept: the latest. */
  async keepSheets(job: number, sheets: readonly DeliveredSheet[]): Promise<void> {
    await this.replace(`job-${job}.sheets`, sheets.map((sheet) => `${JSON.stringify(sheet)}\n`).join(''));
  }

  /** All that is kept of a job. */
  async forgetJob(job: number): Promise<void> {
    const its = new RegExp(`^job-${job}(-\\d+)?\\.(json|sheets|pdf)$`);
    for (const name of (await readdir(this.folder)).filter((one) => its.test(one))) {
      await rm(join(this.folder, name), { force: true });
    }
  }

  async saveTrays(loaded: Readonly<Record<string, number>>): Promise<void> {
    await this.replace('trays.json', JSON.stringify(loaded));
  }

  /** The stack that was put back into the tray, its lowest sheet first. */
  async saveStack(stack: readonly Paper[]): Promise<void> {
    await this.replace('stack.json', JSON.stringify(stack));
  }

  readStack(): Promise<Paper[]> {
    return this.read<Paper[]>('stack.json', []);
  }

  /** @param at when the last sheet came out of those that were taken away */
  async saveTaken(at: string): Promise<void> {
    await this.replace('taken.json', JSON.stringify(at));
  }

  readTaken(): Promise<string> {
    return this.read('taken.json', '');
  }

  /** @param sizes of the paper in the trays, by their ids */
  async saveSizes(sizes: Readonly<Record<string, string>>): Promise<void> {
    await this.replace('sizes.json', JSON.stringify(sizes));
  }

  readSizes(): Promise<Record<string, string>> {
    return this.read<Record<string, string>>('sizes.json', {});
  }

  /** How much each tray held when last seen; empty for a new printer. */
  readTrays(): Promise<Record<string, number>> {
    return this.read<Record<string, number>>('trays.json', {});
  }

  private async read<T>(name: string, otherwise: T): Promise<T> {
    const text = await readFile(join(this.folder, name), 'utf8').catch(() => null);
    return text === null ? otherwise : (JSON.parse(text) as T);
  }

  private async load(name: string): Promise<PrintJob> {
    const stored = JSON.parse(await readFile(join(this.folder, name), 'utf8')) as StoredJob;
    const lines = await readFile(join(this.folder, `job-${stored.id}.sheets`), 'utf8').catch(() => '');
    // A line cut short by a crash is a sheet that did not come out.
    const delivered = lines
      .split('\n')
      .flatMap((line) => (line.endsWith('}') ? [JSON.parse(line) as DeliveredSheet] : []));
    const documents = stored.documents.map(({ attributes, pages }) => ({
      attributes: unpackAttributes(attributes),
      pages,
    }));
    return {
      ...stored,
      endedAt: stored.endedAt ?? null,
      attributes: unpackAttributes(stored.attributes),
      documents,
      delivered,
      deliveredCount: delivered.at(-1)?.index ?? 0,
    };
  }

  private documentPath(job: number, document: number): string {
    return join(this.folder, `job-${job}-${document}.pdf`);
  }

  private replace(name: string, text: string): Promise<void> {
    return this.disk.replace(join(this.folder, name), text);
  }
}

const packAttributes = (attributes: Attributes): string =>
  Buffer.from(encodeMessage({ version: [2, 0], code: 0, requestId: 0, groups: [{ tag: 'job', attributes }] })).toString(
    'base64',
  );

const unpackAttributes = (packed: string): Attributes =>
  groupOf(decodeMessage(Buffer.from(packed, 'base64')).message, 'job');
