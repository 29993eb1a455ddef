import type { PrinterAddress } from './access';
import { askPrinter } from './client';
import { IppError } from './ipp-error';
import { JOB_STATUS_ATTRIBUTES, readJobStatus, type JobStatus } from './job-status';
import {
  allStrings,
  boolean,
  firstNumber,
  firstString,
  groupOf,
  integer,
  keyword,
  nameValue,
  OPERATIONS,
} from './message';

/** How a job stands at its printer. @throws IppError; with status not-found where the printer no longer knows it */
export async function askJob(address: PrinterAddress, jobId: number): Promise<JobStatus> {
  const answer = await askPrinter(address, {
    operation: OPERATIONS.getJobAttributes,
    operationAttributes: { 'job-id': [integer(jobId)], 'requested-attributes': JOB_STATUS_ATTRIBUTES.map(keyword) },
  });
  const job = groupOf(answer, 'job');
  const told = firstNumber(job, 'job-id');
  if (told !== null && told !== jobId) throw new IppError(`it tells of job ${told}, not of ${jobId}`, null);
  return readJobStatus(jobId, job);
}

/** By what jobs of one sending are known again, whose numbers got lost. */
export interface Marked {
  /** What the name of each of them ends with, and of no other. */
  readonly mark: string;
  readonly userName: string;
}

/** A job as a list of jobs tells of it. */
interface Listed {
  readonly id: number;
  readonly reasons: readonly string[];
}

/** Jobs of that mark and user (Get-Jobs, RFC 8011, section 4.2.6). @throws IppError */
async function markedJobs(
  address: PrinterAddress,
  { mark, userName }: Marked,
  which: 'completed' | 'not-completed',
): Promise<Listed[]> {
  const requested = ['job-id', 'job-name', 'job-state-reasons', 'job-originating-user-name'];
  const answer = await askPrinter(address, {
    operation: OPERATIONS.getJobs,
    operationAttributes: {
      'requesting-user-name': [nameValue(userName)],
      limit: [integer(MOST_LISTED)],
      'requested-attributes': requested.map(keyword),
      'which-jobs': [keyword(which)],
      'my-jobs': [boolean(true)],
    },
  });
  return answer.groups.flatMap(({ tag, attributes }) => {
    const id = firstNumber(attributes, 'job-id');
    const isOurs =
      firstString(attributes, 'job-name')?.endsWith(mark) &&
      (firstString(attributes, 'job-originating-user-name') ?? userName) === userName;
    return tag === 'job' && id !== null && isOurs ? [{ id, reasons: allStrings(attributes, 'job-state-reasons') }] : [];
  });
}

/** Jobs that are listed at once; the latest are among them. */
const MOST_LISTED = 500;

/**
 * Cancels jobs of that mark and user that the printer made and still waits for documents of, but for those known: their
 * sender never heard that they were made. Nothing of them has been printed.
 *
 * @param known numbers of jobs that are known to be had by the printer
 * @throws IppError
 */
export async function dropIncoming(address: PrinterAddress, marked: Marked, known: readonly number[]): Promise<void> {
  for (const { id, reasons } of await markedJobs(address, marked, 'not-completed')) {
    if (!known.includes(id) && reasons.includes('job-incoming')) await cancelJob(address, id, marked.userName);
  }
}

/** The numbers of all jobs of that mark that the printer still knows, those over too. @throws IppError */
export async function findJobs(address: PrinterAddress, marked: Marked): Promise<number[]> {
  const going = await markedJobs(address, marked, 'not-completed');
  const over = await markedJobs(address, marked, 'completed');
  return [...new Set([...going, ...over].map(({ id }) => id))].sort((one, other) => one - other);
}

/** Cancel-Job (RFC 8011, section 4.3.3). @throws IppError */
export const cancelJob = (address: PrinterAddress, jobId: number, userName: string): Promise<void> =>
  changeJob(OPERATIONS.cancelJob, address, jobId, userName);

/** Hold-Job (RFC 8011, section 4.3.5): a job that has not begun waits. @throws IppError */
export const holdJob = (address: PrinterAddress, jobId: number, userName: string): Promise<void> =>
  changeJob(OPERATIONS.holdJob, address, jobId, userName);

/** Release-Job (RFC 8011, section 4.3.6). @throws IppError */
export const releaseJob = (address: PrinterAddress, jobId: number, userName: string): Promise<void> =>
  changeJob(OPERATIONS.releaseJob, address, jobId, userName);

/** Pause-Printer and Resume-Printer (RFC 8011, sections 4.2.7 and 4.2.8). @throws IppError */
export async function pausePrinter(address: PrinterAddress, paused: boolean, userName: string): Promise<void> {
  await askPrinter(address, {
    operation: paused ? OPERATIONS.pausePrinter : OPERATIONS.resumePrinter,
    operationAttributes: { 'requesting-user-name': [nameValue(userName)] },
  });
}

async function changeJob(operation: number, address: PrinterAddress, jobId: number, userName: string): Promise<void> {
  await askPrinter(address, {
    operation,
    operationAttributes: { 'job-id': [integer(jobId)], 'requesting-user-name': [nameValue(userName)] },
  });
}
