import type { Format, Printer } from '@foglio/core';
import type { PrinterAddress } from './access';
import type { DocumentData } from './document-data';
import type { ShippedDocument, ShippedJob } from './shipment';

/** A document that is sent, and of which job it is: both counted from 0. */
export interface SentPart {
  readonly job: number;
  readonly document: number;
}

/** What is sent, with as much of its documents as whoever writes them needs. */
export interface SentJob<Document> extends Pick<ShippedJob, 'attributes'> {
  readonly documents: readonly Document[];
}

export interface SendInput<Document extends Pick<ShippedDocument, 'attributes'> = ShippedDocument> {
  readonly address: PrinterAddress;
  /** What the printer takes, as it was when the shipment was made for it. */
  readonly printer: Pick<Printer, 'jobs'>;
  readonly shipment: { readonly format: Format; readonly jobs: readonly SentJob<Document>[] };
  /**
   * Writes one document in the shipment's format: its sheets in order, with blanks "none". All documents of a job are
   * written before the printer is asked to make it, since it waits for no more than a while for the next of them.
   */
  readonly documentOf: (document: Document, part: SentPart) => Promise<Uint8Array | DocumentData>;
  /** What the printer shows as the job's name; where there are several, with "(1 of 3)". */
  readonly jobName: string;
  /** What its name ends with, and that of no other sending: by it a job is known again whose number got lost. */
  readonly mark: string;
  readonly userName: string;
  /** How many of the jobs, from the first, the printer has whole already. */
  readonly sent?: number;
  /** Told a job's number as soon as the printer has given one, before any of its documents is sent if it can be. */
  readonly onCreated?: (jobId: number, job: number) => Promise<void>;
  /** Told where the printer refused a document of the job created last, which was cancelled there. */
  readonly onRefused?: () => Promise<void>;
  readonly signal?: AbortSignal;
}
