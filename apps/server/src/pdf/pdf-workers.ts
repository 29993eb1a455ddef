import { fork, type ChildProcess } from 'node:child_process';
import { constants, setPriority } from 'node:os';
import { fileURLToPath } from 'node:url';
import type { DocumentFacts, Form, LaidOut, Raster } from '@foglio/core';
import {
  memoryOf,
  patience,
  PdfError,
  tooMuch,
  type ImposeInput,
  type PageDetails,
  type PdfFacts,
  type PdfTrouble,
  type TakenIn,
} from '@foglio/pdf';
import type { Planning, SentDocument } from '../plans/planning';
import { BrowserKeeper, type BrowserReport } from './browser-keeper';
import { Intake } from './intake';
import { LookedAt } from './looked-at';

/** A document whose bytes lie in a file. */
export interface FiledDocument extends DocumentFacts {
  readonly file: string;
}

/** How documents are imposed, but for the documents: the worker plans, since a plan may be larger than what is made of it. */
export interface ImposeHow extends Omit<ImposeInput, 'documents' | 'plan' | 'ticket'> {
  readonly planning: Planning;
  /** Which documents of what is sent, a file each; null: one set of all of it. */
  readonly parts: readonly SentDocument[] | null;
  /** As pictures for a printer that takes no PDF; null: as PDF. */
  readonly raster: Raster | null;
}

/** How a file is taken in. */
export interface TakeInHow {
  readonly name: string;
  /** How it is laid out, where it has no pages of its own. */
  readonly form: Form;
  readonly password: string | null;
  /** Whether the first pages of what takes long are wanted before the whole. */
  readonly first: boolean;
}

/** What a worker is asked to do; sources and targets are paths. */
export type PdfRequest =
  | ({ readonly kind: 'take-in'; readonly source: string; readonly target: string } & TakeInHow)
  | {
      readonly kind: 'read-details';
      readonly source: string;
      readonly pages: readonly number[];
    }
  | {
      readonly kind: 'impose';
      readonly how: ImposeHow;
      readonly documents: readonly FiledDocument[];
      /** A path for each part. */
      readonly targets: readonly string[];
    };

/** A file in a folder that is gone with the request. */
export interface FileWithHash {
  readonly path: string;
  readonly bytes: number;
  /** Hexadecimal. */
  readonly sha256: string;
}

/** What a worker tells of a file that it took in. */
export interface TakenReport extends Pick<TakenIn, 'remarks'> {
  readonly facts: PdfFacts;
  /** How it came to its pages; null: they are its own. */
  readonly laid: LaidOut | null;
  /** What was made of it; null where nothing had to be done to it. */
  readonly made: FileWithHash | null;
}

/** A file as it was taken in. */
export interface TakenFile extends TakenReport {
  /** Where these are the first pages: what still comes. */
  readonly rest: Growing | null;
}

/** A document of which the first pages are there. */
export interface Growing {
  /** It is heard even where nobody waits for it. @throws like taking in; Stopped */
  readonly whole: Promise<TakenFile>;
  /** @param hear is told how many pages are laid out, of how many */
  readonly follow: (hear: (done: number, of: number) => void) => void;
  readonly stop: () => void;
}

/** A person ended it. */
export class Stopped extends Error {
  override readonly name = 'Stopped';
}

/** What a worker tells, in between and at its end. */
export type PdfReport =
  | { readonly kind: 'begun' | 'taken-in'; readonly taken: TakenReport }
  | { readonly kind: 'progress'; readonly done: number; readonly of: number }
  | { readonly kind: 'details'; readonly page: number; readonly details: PageDetails }
  | { readonly kind: 'imposed' }
  /** It has a document that a browser lays out; the answer is a {@link BrowserReport}. */
  | { readonly kind: 'browser-wanted'; /** Where it was not reached. */ readonly failed: string | null }
  | { readonly kind: 'failed'; readonly trouble: PdfTrouble; readonly message: string };

/** Hears what is read of a document. */
export type DetailsListener = (page: number, details: PageDetails) => void;

/** What work on a file may take before it is ended. */
export interface WorkerLimits {
  /** As {@link patience} counts. */
  readonly ms: number;
  readonly memoryMb: number;
}

/** Enough for any document of an office. */
const TAKING_IN: WorkerLimits = { ms: 60_000, memoryMb: 1_500 };
const READING = { ms: 60_000, eachPageMs: 1_000, memoryMb: 1_500 };
const IMPOSING: WorkerLimits = { ms: 600_000, memoryMb: 3_000 };

/** Time between two looks at what a worker takes, in milliseconds. */
const WATCH_MS = 50;

/** Time between a file that was taken in and the next worker's start, in milliseconds. */
const WARM_UP_AFTER_MS = 250;

/**
 * Of the engine: without the maps from what was built to its source, which take 40 MB, and with room for what is new that
 * takes another 30 less.
 */
const WORKER_OPTIONS = ['--max-semi-space-size=4'];

const MB = 1024 * 1024;

/** Work was ended because the server ends; it may be taken up again. */
export class WorkersClosed extends Error {
  override readonly name = 'WorkersClosed';
}

/**
 * Work on PDF files, each piece in a process of its own under limits: whatever a file holds, the server goes on answering.
 * Processes and not threads, since what a thread takes beside its heap cannot be told from what others take, and one that
 * runs out of memory may end the server with it.
 */
export class PdfWorkers {
  private readonly program: string;
  /** A worker that waits for work: loading its libraries takes a second, which nobody should wait for. */
  private spare: ChildProcess | null = null;
  /** What ends each piece of work that is under way. */
  private readonly underWay = new Set<(why: Error) => void>();
  private closed = false;
  private readonly browser: BrowserKeeper;
  /** What is being taken in. */
  readonly intake = new Intake();
  /** What is being looked at. */
  readonly lookedAt = new LookedAt();

  /**
   * @param program the worker's: another file in the built server than in its tests
   * @param browser the program of the browser's process
   */
  constructor(program: string | URL, browser: string | URL) {
    this.program = program instanceof URL ? fileURLToPath(program) : program;
    this.browser = new BrowserKeeper(browser);
  }

  /** Whether all work was ended, and none begins any more. */
  get isClosed(): boolean {
    return this.closed;
  }

  /** Starts the worker for the next piece of work. */
  warmUp(): void {
    if (this.spare || this.closed) return;
    const spare = fork(this.program, [], { serialization: 'advanced', execArgv: WORKER_OPTIONS });
    // Whoever waits for an answer of the server goes before whoever waits for a file.
    if (spare.pid !== undefined) setPriority(spare.pid, constants.priority.PRIORITY_BELOW_NORMAL);
    const forget = (): void => {
      if (this.spare === spare) this.spare = null;
    };
    spare.once('exit', forget);
    spare.once('error', forget);
    // Waiting for work is no reason for the server to live.
    spare.unref();
    spare.channel?.unref();
    this.spare = spare;
  }

  /** Ends all work under way. */
  close(): void {
    this.closed = true;
    this.spare?.kill('SIGKILL');
    this.browser.close();
    for (const giveUp of this.underWay) giveUp(new WorkersClosed('the server is being stopped'));
  }

  /**
   * Takes in the file at a path.
   *
   * @param target where what is made of it is written, if it has to be changed
   * @throws PdfError where the file cannot be used, `too-much` where it takes more than it may
   */
  takeIn(source: string, target: string, how: TakeInHow, limits = TAKING_IN): Promise<TakenFile> {
    const given = new AbortController();
    const taking = this.intake.begin();
    let tell: (done: number, of: number) => void = () => undefined;
    let whole: { resolve: (file: TakenFile) => void; reject: (why: unknown) => void } | null = null;
    return new Promise((resolve, reject) => {
      whole = { resolve, reject };
      const fail = (why: unknown): void => whole?.reject(why);
      this.run(
        { kind: 'take-in', source, target, ...how },
        limits,
        (report) => {
          if (report.kind === 'begun') {
            taking.grows();
            const rest = new Promise<TakenFile>((go, stop) => (whole = { resolve: go, reject: stop }));
            rest.catch(() => undefined);
            const growing = {
              whole: rest,
              follow: (hearing: typeof tell) => (tell = hearing),
              stop: () => given.abort(),
            };
            resolve({ ...report.taken, rest: growing });
          }
          if (report.kind === 'taken-in') {
            taking.end();
            whole?.resolve({ ...report.taken, rest: null });
            // Its details are wanted next, and this worker is not through; but first the server stores and answers.
            setTimeout(() => this.warmUp(), WARM_UP_AFTER_MS).unref();
          }
          if (report.kind === 'progress') tell(report.done, report.of);
        },
        given.signal,
      )
        .then(() => fail(new Error('the worker ended without a result')), fail)
        .finally(() => taking.end());
    });
  }

  /** Tells the details of pages as they are found. @throws PdfError like {@link takeIn}; Stopped where the signal ends it */
  async readDetails(
    source: string,
    pages: readonly number[],
    tell: DetailsListener,
    { limits, signal }: { readonly limits?: WorkerLimits; readonly signal?: AbortSignal } = {},
  ): Promise<void> {
    const asked = { kind: 'read-details', source, pages } as const;
    const enough = { ...READING, ms: READING.ms + READING.eachPageMs * pages.length };
    const hear = (report: PdfReport): void => {
      if (report.kind === 'details') tell(report.page, report.details);
    };
    await this.run(asked, limits ?? enough, hear, signal);
  }

  /** Writes the imposed PDFs, each part to its path. @throws PdfError like {@link takeIn} */
  async impose(
    how: ImposeHow,
    documents: readonly FiledDocument[],
    targets: readonly string[],
    limits = IMPOSING,
  ): Promise<void> {
    const last = await this.run({ kind: 'impose', how, documents, targets }, limits);
    if (last?.kind !== 'imposed') throw new Error('the worker ended without a result');
  }

  private take(): ChildProcess {
    this.warmUp();
    const worker = this.spare as ChildProcess;
    this.spare = null;
    worker.ref();
    worker.channel?.ref();
    return worker;
  }

  /** Tells a worker where the browser is. Where it could not be started, the worker ends, and so does its work. */
  private async lend(worker: ChildProcess, failed: string | null): Promise<void> {
    try {
      const found: BrowserReport = await this.browser.reach(failed);
      if (worker.connected) worker.send(found);
    } catch {
      worker.kill('SIGKILL');
    }
  }

  /** @returns the last thing the worker told */
  private run(
    request: PdfRequest,
    { ms, memoryMb }: WorkerLimits,
    hear: (report: PdfReport) => void = () => undefined,
    given?: AbortSignal,
  ): Promise<PdfReport | null> {
    if (this.closed) return Promise.reject(new WorkersClosed('the server is being stopped'));
    const worker = this.take();
    worker.send(request);
    const isOver = patience(ms, worker.pid);
    let last: PdfReport | null = null;
    return new Promise((resolve, reject) => {
      const giveUp = (why: Error): void => {
        reject(why);
        worker.kill('SIGKILL');
      };
      this.underWay.add(giveUp);
      given?.addEventListener('abort', () =>
        giveUp(new Stopped('It was stopped. Ask for another form, or take it in again.')),
      );
      const watch = setInterval(() => {
        if (isOver()) giveUp(tooMuch('time'));
        else if (memoryOf(worker.pid) > memoryMb * MB) giveUp(tooMuch('memory'));
      }, WATCH_MS);
      worker.on('message', (report: PdfReport) => {
        if (report.kind === 'browser-wanted') return void this.lend(worker, report.failed);
        last = report;
        if (report.kind === 'failed') reject(new PdfError(report.trouble, report.message));
        else hear(report);
        // The last word on its work: nobody waits for the process to end.
        if (report.kind === 'imposed') resolve(report);
      });
      worker.on('error', reject);
      // "close" and not "exit": by then all it told has been heard.
      worker.on('close', (code, signal) => {
        clearInterval(watch);
        this.underWay.delete(giveUp);
        this.warmUp();
        if (code === 0) resolve(last);
        // An engine out of memory ends its process itself.
        else reject(signal === 'SIGABRT' ? tooMuch('memory') : new Error(`the worker ended with ${code ?? signal}`));
      });
    });
  }
}
