import type { Plan, Printer, Ticket } from '@foglio/core';
import { askPrinter, IppError } from './client';
import { jobAttributes, overriddenNames } from './job-attributes';
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
  type Attributes,
  type JobState,
} from './message';
import { PROFILE_ATTRIBUTES, readProfile } from './profile';

/** A job as its printer tells of it. */
export interface JobStatus {
  readonly id: number;
  readonly state: JobState;
  readonly reasons: readonly string[];
  readonly sheetsCompleted: number;
  readonly message: string | null;
}

export interface SendInput {
  readonly printerUri: string;
  readonly printer: Printer;
  readonly plan: Plan;
  readonly ticket: Ticket;
  /** The plan imposed with blanks "none". */
  readonly pdf: Uint8Array;
  /** What the printer shows as the job's name. */
  readonly jobName: string;
  readonly userName: string;
  /** Told the job's number as soon as the printer has given one, before any of the document is sent. */
  readonly onCreated?: (jobId: number) => Promise<void>;
  readonly signal?: AbortSignal;
}

/** The profile of a printer, asked of the printer itself. @throws IppError */
export async function askProfile(printerUri: string): Promise<Printer> {
  const answer = await askPrinter(printerUri, {
    operation: OPERATIONS.getPrinterAttributes,
    operationAttributes: { 'requested-attributes': PROFILE_ATTRIBUTES.map(keyword) },
  });
  try {
    return readProfile(groupOf(answer, 'printer'));
  } catch (error) {
    throw new IppError(`${printerUri}: ${(error as Error).message}`, null);
  }
}

/**
 * Why a printer cannot take a plan as one job, in words; null where it can. Sheets that differ in paper or sides need
 * `overrides` (PWG 5100.6, overrides-supported).
 */
export function whyNotOneJob(plan: Plan, printer: Printer): string | null {
  if (!printer.duplex && plan.sheets.some((sheet) => sheet.back)) return `${printer.name} prints one side only`;
  const lacking = overriddenNames(plan).filter((name) => !printer.jobs.overrides.includes(name));
  if (lacking.length === 0) return null;
  const what = lacking.map((name) => (name === 'sides' ? 'one and both sides' : 'different papers')).join(' or ');
  return `${printer.name} cannot mix ${what} within one job`;
}

/**
 * Sends a plan as one job: Create-Job with everything about the paper, then Send-Document with the imposed PDF
 * (RFC 8011, sections 4.2.4 and 4.3.1).
 *
 * @throws IppError; a job whose document the printer refused is cancelled there first
 */
export async function sendPlan(input: SendInput): Promise<JobStatus> {
  const why = whyNotOneJob(input.plan, input.printer);
  if (why) throw new IppError(why, null);
  const { printerUri, signal } = input;
  const user = { 'requesting-user-name': [nameValue(input.userName)] };
  const created = await askPrinter(printerUri, {
    operation: OPERATIONS.createJob,
    operationAttributes: { ...user, 'job-name': [nameValue(input.jobName)] },
    groups: [{ tag: 'job', attributes: jobAttributes(input.plan, input.ticket) }],
    ...(signal ? { signal } : {}),
  });
  const jobId = firstNumber(groupOf(created, 'job'), 'job-id');
  if (jobId === null) throw new IppError('the printer gave the job no number', null);
  try {
    await input.onCreated?.(jobId);
    const sent = await askPrinter(printerUri, {
      operation: OPERATIONS.sendDocument,
      operationAttributes: {
        'job-id': [integer(jobId)],
        ...user,
        'document-format': [{ tag: 'mimeMediaType', value: 'application/pdf' }],
        'last-document': [boolean(true)],
      },
      document: input.pdf,
      ...(signal ? { signal } : {}),
    });
    return readStatus(jobId, groupOf(sent, 'job'));
  } catch (error) {
    // Without an answer the printer may have the whole document; cancelling could then stop it half-way.
    if (error instanceof IppError && error.status === null) throw new IppError(error.message, null, true);
    await cancelJob(printerUri, jobId, input.userName).catch(() => undefined);
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

/** Cancel-Job (RFC 8011, section 4.3.3). @throws IppError */
export async function cancelJob(printerUri: string, jobId: number, userName: string): Promise<void> {
  await askPrinter(printerUri, {
    operation: OPERATIONS.cancelJob,
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
