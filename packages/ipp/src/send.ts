import type { Printer } from '@foglio/core';
import { askPrinter } from './client';
import { IppError } from './ipp-error';
import {
  allStrings,
  boolean,
  firstNumber,
  firstString,
  groupOf,
  integer,
  jobStateOf,
  keyword,
  nameValue,
  OPERATIONS,
  STATUS,
  type Attributes,
  type JobState,
} from './message';
import { PROFILE_ATTRIBUTES, readProfile } from './profile';
import type { ShippedDocument, ShippedJob } from './shipment';

/** A job as its printer tells of it. */
export interface JobStatus {
  readonly id: number;
  readonly state: JobState;
  readonly reasons: readonly string[];
  readonly sheetsCompleted: number;
  readonly message: string | null;
}

/** A document that is sent, and of which job it is: both counted from 0. */
export interface SentPart {
  readonly job: number;
  readonly document: number;
}

/** What is sent, with as much of its documents as whoever writes them needs. */
interface SentJob<Document> extends Pick<ShippedJob, 'attributes'> {
  readonly documents: readonly Document[];
}

export interface SendInput<Document extends Pick<ShippedDocument, 'attributes'> = ShippedDocument> {
  readonly printerUri: string;
  readonly shipment: { readonly jobs: readonly SentJob<Document>[] };
  /** Writes the PDF of one document: its sheets in order, with blanks "none". */
  readonly pdfOf: (document: Document, part: SentPart) => Promise<Uint8Array>;
  /** What the printer shows as the job's name; where there are several, with "(1 of 3)". */
  readonly jobName: string;
  readonly userName: string;
  /** How many of the jobs, from the first, the printer has whole already. */
  readonly sent?: number;
  /** Told a job's number as soon as the printer has given one, before any of its documents is sent. */
  readonly onCreated?: (jobId: number, job: number) => Promise<void>;
  /** Told where the printer refused a document of the job created last, which was cancelled there. */
  readonly onRefused?: () => Promise<void>;
  readonly signal?: AbortSignal;
}

/** A printer's own account of itself. */
export interface PrinterStatus {
  readonly profile: Printer;
  /** printer-state (RFC 8011, 5.4.11). */
  readonly state: 'idle' | 'processing' | 'stopped';
  /** printer-state-reasons; empty where there are none. */
  readonly reasons: readonly string[];
}

/** The profile of a printer, asked of the printer itself. @throws IppError */
export const askProfile = async (printerUri: string): Promise<Printer> => (await askStatus(printerUri)).profile;

/** What a printer is, and how it stands. @throws IppError */
export async function askStatus(printerUri: string): Promise<PrinterStatus> {
  const answer = await askPrinter(printerUri, {
    operation: OPERATIONS.getPrinterAttributes,
    operationAttributes: { 'requested-attributes': PROFILE_ATTRIBUTES.map(keyword) },
  });
  try {
    const attributes = groupOf(answer, 'printer');
    const state = firstNumber(attributes, 'printer-state');
    return {
      profile: readProfile(attributes),
      state: state === 5 ? 'stopped' : state === 4 ? 'processing' : 'idle',
      reasons: allStrings(attributes, 'printer-state-reasons').filter((reason) => reason !== 'none'),
    };
  } catch (error) {
    throw new IppError(`${printerUri}: ${(error as Error).message}`, null);
  }
}

/**
 * Asks whether the printer would take every job of a shipment just as it is (Validate-Job, RFC 8011, 4.2.3), so that what
 * it would leave out is known before any paper moves.
 *
 * @throws IppError naming the attributes it refuses or would ignore
 */
export async function validateShipment<Document extends Pick<ShippedDocument, 'attributes'>>({
  printerUri,
  shipment,
  userName,
  signal,
}: Omit<SendInput<Document>, 'pdfOf'>): Promise<void> {
  for (const { attributes } of distinct(shipment.jobs)) {
    const answer = await askPrinter(printerUri, {
      operation: OPERATIONS.validateJob,
      operationAttributes: { 'requesting-user-name': [nameValue(userName)] },
      groups: [{ tag: 'job', attributes }],
      ...(signal ? { signal } : {}),
    });
    const ignored = Object.keys(groupOf(answer, 'unsupported'));
    if (ignored.length > 0) throw new IppError(`the printer would ignore ${ignored.join(', ')}`, answer.code);
  }
}

/** Jobs that differ in what is asked of the printer. */
const distinct = <Job extends Pick<ShippedJob, 'attributes'>>(jobs: readonly Job[]): Job[] => [
  ...new Map(jobs.map((job) => [JSON.stringify(job.attributes), job])).values(),
];

/**
 * Sends a shipment: for each job Create-Job with everything about the paper, then a Send-Document for each of its documents
 * (RFC 8011, sections 4.2.4 and 4.3.1). Every job is validated first.
 *
 * @returns how the jobs stand, in order
 * @throws IppError; a job whose document the printer refused is cancelled there first
 */
export async function sendShipment<Document extends Pick<ShippedDocument, 'attributes'>>(
  input: SendInput<Document>,
): Promise<JobStatus[]> {
  await validateShipment(input);
  const statuses: JobStatus[] = [];
  const { jobs } = input.shipment;
  for (const [index, job] of jobs.entries()) {
    if (index < (input.sent ?? 0)) continue;
    const name = jobs.length === 1 ? input.jobName : `${input.jobName} (${index + 1} of ${jobs.length})`;
    statuses.push(await sendJob(input, job, index, name));
  }
  return statuses;
}

/** What a printer answers of a job that takes no document any more (RFC 8011, 4.3.1). */
const GONE: readonly number[] = [STATUS.notPossible, STATUS.notFound];

async function sendJob<Document extends Pick<ShippedDocument, 'attributes'>>(
  input: SendInput<Document>,
  job: SentJob<Document>,
  index: number,
  name: string,
): Promise<JobStatus> {
  const { printerUri, signal } = input;
  const user = { 'requesting-user-name': [nameValue(input.userName)] };
  const created = await askPrinter(printerUri, {
    operation: OPERATIONS.createJob,
    operationAttributes: { ...user, 'job-name': [nameValue(name)] },
    groups: [{ tag: 'job', attributes: job.attributes }],
    ...(signal ? { signal } : {}),
  });
  const jobId = firstNumber(groupOf(created, 'job'), 'job-id');
  if (jobId === null) throw new IppError('the printer gave the job no number', null);
  try {
    await input.onCreated?.(jobId, index);
    let status: JobStatus | null = null;
    for (const [place, document] of job.documents.entries()) {
      const sent = await askPrinter(printerUri, {
        operation: OPERATIONS.sendDocument,
        operationAttributes: {
          'job-id': [integer(jobId)],
          ...user,
          'document-format': [{ tag: 'mimeMediaType', value: 'application/pdf' }],
          'last-document': [boolean(place === job.documents.length - 1)],
        },
        groups:
          Object.keys(document.attributes).length > 0 ? [{ tag: 'document', attributes: document.attributes }] : [],
        document: await input.pdfOf(document, { job: index, document: place }),
        ...(signal ? { signal } : {}),
      });
      status = readStatus(jobId, groupOf(sent, 'job'));
    }
    return status as JobStatus;
  } catch (error) {
    // Without an answer the printer may have the whole document; cancelling could then stop it half-way. Nor is there
    // anything to cancel where it ended the job meanwhile, since it was off and on, or somebody called it off.
    if (error instanceof IppError && (error.status === null || GONE.includes(error.status)))
      throw new IppError(error.message, error.status, true);
    await cancelJob(printerUri, jobId, input.userName).catch(() => undefined);
    await input.onRefused?.();
    throw error;
  }
}

/** How a job stands at its printer. @throws IppError; with status not-found where the printer no longer knows it */
export async function askJob(printerUri: string, jobId: number): Promise<JobStatus> {
  const requested = ['job-id', 'job-state', 'job-state-reasons', 'job-state-message', 'job-media-sheets-completed'];
  const answer = await askPrinter(printerUri, {
    operation: OPERATIONS.getJobAttributes,
    operationAttributes: { 'job-id': [integer(jobId)], 'requested-attributes': requested.map(keyword) },
  });
  return readStatus(jobId, groupOf(answer, 'job'));
}

export interface Dropping {
  readonly jobName: string;
  readonly userName: string;
  /** Numbers of jobs that are known to be had by the printer. */
  readonly known: readonly number[];
}

/**
 * Cancels jobs of that name and user that the printer made and still waits for documents of, but for those known: their
 * sender never heard that they were made (Get-Jobs, RFC 8011, section 4.2.6). Nothing of them has been printed.
 *
 * @throws IppError
 */
export async function dropIncoming(printerUri: string, { jobName, userName, known }: Dropping): Promise<void> {
  const requested = ['job-id', 'job-name', 'job-state-reasons', 'job-originating-user-name'];
  const answer = await askPrinter(printerUri, {
    operation: OPERATIONS.getJobs,
    operationAttributes: {
      'requesting-user-name': [nameValue(userName)],
      'requested-attributes': requested.map(keyword),
      'which-jobs': [keyword('not-completed')],
      'my-jobs': [boolean(true)],
    },
  });
  for (const { tag, attributes } of answer.groups) {
    const id = firstNumber(attributes, 'job-id');
    if (tag !== 'job' || id === null || known.includes(id)) continue;
    const isOurs =
      firstString(attributes, 'job-name') === jobName &&
      (firstString(attributes, 'job-originating-user-name') ?? userName) === userName &&
      allStrings(attributes, 'job-state-reasons').includes('job-incoming');
    if (isOurs) await cancelJob(printerUri, id, userName);
  }
}

/** Cancel-Job (RFC 8011, section 4.3.3). @throws IppError */
export const cancelJob = (printerUri: string, jobId: number, userName: string): Promise<void> =>
  changeJob(OPERATIONS.cancelJob, printerUri, jobId, userName);

/** Hold-Job (RFC 8011, section 4.3.5): a job that has not begun waits. @throws IppError */
export const holdJob = (printerUri: string, jobId: number, userName: string): Promise<void> =>
  changeJob(OPERATIONS.holdJob, printerUri, jobId, userName);

/** Release-Job (RFC 8011, section 4.3.6). @throws IppError */
export const releaseJob = (printerUri: string, jobId: number, userName: string): Promise<void> =>
  changeJob(OPERATIONS.releaseJob, printerUri, jobId, userName);

/** Pause-Printer and Resume-Printer (RFC 8011, sections 4.2.7 and 4.2.8). @throws IppError */
export async function pausePrinter(printerUri: string, paused: boolean, userName: string): Promise<void> {
  await askPrinter(printerUri, {
    operation: paused ? OPERATIONS.pausePrinter : OPERATIONS.resumePrinter,
    operationAttributes: { 'requesting-user-name': [nameValue(userName)] },
  });
}

async function changeJob(operation: number, printerUri: string, jobId: number, userName: string): Promise<void> {
  await askPrinter(printerUri, {
    operation,
    operationAttributes: { 'job-id': [integer(jobId)], 'requesting-user-name': [nameValue(userName)] },
  });
}

function readStatus(id: number, job: Attributes): JobStatus {
  return {
    id,
    state: jobStateOf(firstNumber(job, 'job-state') ?? 0) ?? 'pending',
    reasons: allStrings(job, 'job-state-reasons'),
    sheetsCompleted: firstNumber(job, 'job-media-sheets-completed') ?? 0,
    message: firstString(job, 'job-state-message'),
  };
}
