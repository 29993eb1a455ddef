import type { Attributes, JobState } from '../message';

/** A job as it is told to who asks for it (RFC 8011, section 5.3). */
export interface ServedJob {
  readonly id: number;
  readonly name: string;
  readonly user: string;
  readonly state: JobState;
  /** job-state-reasons (RFC 8011, 5.3.8); at least one. */
  readonly reasons: readonly string[];
  readonly message: string | null;
  /** Null where it is not known. */
  readonly createdAt: Date | null;
  readonly processingAt: Date | null;
  readonly completedAt: Date | null;
  readonly sheets: number | null;
  readonly sheetsCompleted: number;
  /** Sides with something on them; null where nobody counts them. */
  readonly impressions: number | null;
  readonly impressionsCompleted: number | null;
  /** How many came whole. */
  readonly documents: number;
  /** Whether a further document may come. */
  readonly isOpen: boolean;
}

/** What a job is to be, as its maker asks. */
export interface Creation {
  readonly name: string;
  readonly user: string;
  /** Job template attributes that this printer takes. */
  readonly template: Attributes;
  /** Those that it does not take, and whose job it takes all the same, by name. */
  readonly left: readonly string[];
}

/** A document on its way. Reading it to its end may throw where it does not come whole. */
export interface IncomingDocument {
  /** A media type (RFC 8011, 5.1.10); null: to be found out. */
  readonly format: string | null;
  readonly name: string | null;
  /** What is said of this document alone. */
  readonly attributes: Attributes;
  readonly isLast: boolean;
  readonly bytes: AsyncIterable<Uint8Array>;
}

/** Something that happened to a job. */
export interface JobEvent {
  /** Counted from 1, for each subscription. */
  readonly sequence: number;
  readonly job: number;
  readonly state: JobState;
}

/** What a printer tells of who asked to hear what happens. */
export interface ServedEvents {
  /** @returns its number, and for how many seconds it holds */
  readonly subscribe: () => { readonly id: number; readonly seconds: number };
  /** What happened from that number on; null where there is no such subscription any more. */
  readonly since: (subscription: number, sequence: number) => readonly JobEvent[] | null;
  /** After how many seconds it is worth asking again. */
  readonly everySeconds: number;
}

/** What a printer answers, besides version and number. */
export interface Answer {
  readonly status: number;
  readonly message?: string;
  /** Beside charset, language and message. */
  readonly operation?: Attributes;
  readonly groups?: readonly {
    readonly tag: 'job' | 'printer' | 'unsupported' | 'subscription' | 'event-notification';
    readonly attributes: Attributes;
  }[];
}

/** Something is not done, with the status that says why (RFC 8011, appendix B). */
export class Refusal extends Error {
  override readonly name = 'Refusal';

  /** @param unsupported attributes that are given back, since they or their values are not taken */
  constructor(
    readonly status: number,
    message: string,
    readonly unsupported: Attributes | null = null,
  ) {
    super(message);
  }
}

/** A printer as the serving side sees it. What it throws as a `Refusal` is answered; all else is its own fault. */
export interface ServedPrinter {
  /** Operations it does, by their numbers. */
  readonly operations: readonly number[];
  /** Media types it takes, and how they may be compressed (RFC 8011, 5.4.32). */
  readonly formats: readonly string[];
  readonly compressions: readonly string[];
  /** Whether a job may have several documents. */
  readonly takesSeveral: boolean;
  /** Whether a document may be printed otherwise than its job (PWG 5100.5). */
  readonly takesOfDocuments: boolean;
  /** Whether attributes that it does not take are left out where the job does not insist (RFC 8011, 4.1.7). */
  readonly leavesOut: boolean;
  /** All it tells of itself. @param address at which it was asked */
  readonly describe: (address: string) => Attributes | Promise<Attributes>;
  /** Whether it knows an attribute of a job, and whether it takes it with these values. */
  readonly knows: (name: string) => boolean;
  readonly takes: (name: string, values: Attributes[string]) => boolean;
  /** Those it still knows, the oldest first. */
  readonly jobs: () => readonly ServedJob[] | Promise<readonly ServedJob[]>;
  readonly job: (id: number) => ServedJob | null | Promise<ServedJob | null>;
  readonly create: (creation: Creation) => Promise<ServedJob>;
  readonly receive: (job: ServedJob, document: IncomingDocument) => Promise<ServedJob>;
  /** No further document comes. */
  readonly close: (job: ServedJob) => Promise<ServedJob>;
  /** False where it is over. */
  readonly cancel: (job: ServedJob) => Promise<boolean>;
  /** Somebody wants to know which printer this is (PWG 5100.13, 4.1). */
  readonly identify: () => void | Promise<void>;
  /** Where it tells what happens to its jobs. */
  readonly events?: ServedEvents;
  /** Operations of its own: of a job, or of the whole printer. */
  readonly ofJob?: ReadonlyMap<number, { readonly whyNot: string; readonly do: (id: number) => Promise<boolean> }>;
  readonly ofPrinter?: ReadonlyMap<number, () => void | Promise<void>>;
}
