import type { AboutDocument, DocumentFacts, Heading, Orientation, PageFacts, Printer, Ticket } from '@foglio/core';

/** What the server's API answers with. */

export interface FileRecord {
  readonly id: string;
  readonly name: string;
  readonly pages: readonly PageFacts[];
  readonly outline: readonly Heading[];
  /** What the file says of itself. */
  readonly about: AboutDocument;
  /** What a person should know of the file, in sentences. */
  readonly remarks: readonly string[];
  /** Of how many pages, from the first, all facts are known. */
  readonly read: number;
}

/** What became known of pages since they were last asked for. */
export interface FactsRecord {
  readonly read: number;
  readonly pages: readonly PageFacts[];
}

/** A document of a job: facts for planning, and the id by which its bytes are fetched. */
export interface JobDocument extends DocumentFacts {
  readonly id: string;
  /** What a person should know of the file, in sentences. */
  readonly remarks: readonly string[];
  /** Of how many pages, from the first, all facts are known. */
  readonly read: number;
}

export interface JobRecord {
  readonly id: string;
  readonly ticket: Ticket;
  readonly revision: number;
  readonly printerId: string;
  readonly documents: readonly JobDocument[];
}

export interface JobBrief {
  readonly id: string;
  readonly ticket: Ticket;
  readonly printerId: string;
  readonly updatedAt: string;
  readonly lastSentAt: string | null;
  readonly names: readonly string[];
  readonly sheets?: number;
  readonly sheetsPerSet?: number;
  readonly strip?: readonly StripSheet[];
  readonly trouble?: string;
}

export interface StripSheet {
  readonly tray: string | null;
  readonly twoSided: boolean;
  readonly orientation: Orientation;
  readonly size: string;
}

export interface PrinterRecord {
  readonly id: string;
  readonly name: string;
  readonly uri: string;
  /** Has a front panel that can be worked from here. */
  readonly simulated: boolean;
  readonly answers: boolean;
  readonly state: 'idle' | 'processing' | 'stopped';
  /** printer-state-reasons (RFC 8011, 5.4.12). */
  readonly reasons: readonly string[];
  /** What keeps it from printing and what to do about it, in sentences. */
  readonly faults: readonly string[];
  readonly profile: Printer;
}

export type DeliveryState =
  | 'queued'
  | 'sending'
  | 'printing'
  | 'held'
  | 'turning'
  | 'completed'
  | 'canceled'
  | 'aborted'
  | 'failed'
  | 'interrupted';

/** What can be done to a sending. */
export type DeliveryAct = 'again' | 'cancel' | 'hold' | 'release' | 'first-pass' | 'second-pass';

export interface DeliveryRecord {
  readonly id: string;
  readonly jobId: string | null;
  readonly printerId: string;
  readonly title: string;
  readonly copies: number;
  readonly state: DeliveryState;
  readonly message: string | null;
  readonly sheets: number;
  readonly sheetsDone: number;
  /** Of a job in two passes: which one it is at, 1 or 2; null: it goes in one. */
  readonly pass: number | null;
  /** Of a job in two passes: how the stack goes back in between them. */
  readonly handling: 'turn-over' | 'as-it-lies' | null;
  /** By which way it goes and why, in words; null before it is being sent. */
  readonly reason: string | null;
  readonly createdAt: string;
  readonly updatedAt: string;
}

/** A sheet as the printer delivered it; pages are those of one of the files it was sent. */
export interface DeliveredSheet {
  /** The printer's number of the job, and the document within it, from 1. */
  readonly job: number;
  readonly document: number;
  readonly index: number;
  readonly set: number;
  readonly tray: string;
  readonly sides: string;
  readonly front: number;
  readonly back: number | null;
  /** What lies up and what lies down in the output; null: nothing is printed there. */
  readonly upper: PrintedFace | null;
  readonly lower: PrintedFace | null;
}

/** A page of one of the files that a printer was sent. */
export interface PrintedFace {
  readonly job: number;
  readonly document: number;
  readonly page: number;
}

export interface StackRecord {
  readonly delivered: readonly DeliveredSheet[];
  readonly sheets: number | null;
}

/** A sheet as the printer is told of it. */
export interface SheetAsSeen {
  readonly job: number;
  readonly document: number;
  /** Its number in the plan; 0: a slip between sets. */
  readonly sheet: number;
  readonly pages: readonly number[];
  /** The tray's id; null: the printer chooses by the size of the page. */
  readonly source: string | null;
  readonly sides: string;
  readonly orientation: Orientation;
  /** Which attributes say so. */
  readonly because: string;
}

export interface SeenRecord {
  readonly reason: string;
  readonly jobs: number;
  readonly sheets: readonly SheetAsSeen[];
}

/** What the server says when it refuses (RFC 9457). */
export interface ProblemRecord {
  readonly title: string;
  readonly detail: string;
  readonly code: string;
  /** Of a file that cannot be used: why, in one word. */
  readonly trouble?: string;
}
