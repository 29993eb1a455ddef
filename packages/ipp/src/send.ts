import type { Format, Printer } from '@foglio/core';
import type { PrinterAddress } from './access';
import { askPrinter } from './client';
import { dataOf, type DocumentData } from './document-data';
import { IppError } from './ipp-error';
import { readJobStatus, type JobStatus } from './job-status';
import { cancelJob } from './jobs';
import { boolean, firstNumber, groupOf, integer, nameValue, OPERATIONS, STATUS, type Attributes } from './message';
import { askStatus } from './printer-status';
import type { SendInput } from './send-input';
import type { ShippedDocument } from './shipment';
import { validateJobs } from './validate';

/** Characters of a name beside its mark: what printers show, and some cut names off. */
const LONGEST_NAME = 60;

/** A job's name as its printer is given it. @param place "(1 of 3)", or nothing */
const nameOfJob = (name: string, place: string, mark: string): string =>
  [name.slice(0, LONGEST_NAME).toWellFormed(), place, mark].filter((part) => part !== '').join(' ');

/** A job's name without the mark that another Foglio put behind it. */
export const withoutMark = (name: string): string => name.replace(/ #[0-9a-f]{8}$/, '');

/** Whether a job is made first and gets its documents then; otherwise both go at once (RFC 8011, 4.2.1 and 4.2.4). */
export function makesJobsFirst({ jobs: { operations } }: Pick<Printer, 'jobs'>): boolean {
  const does = (operation: number): boolean => operations.length === 0 || operations.includes(operation);
  return (does(OPERATIONS.createJob) && does(OPERATIONS.sendDocument)) || !does(OPERATIONS.printJob);
}

/**
 * Sends a shipment: for each job Create-Job with everything about the paper, then a Send-Document for each of its documents
 * (RFC 8011, sections 4.2.4 and 4.3.1), or Print-Job where the printer knows nothing else. Every job is validated first.
 *
 * @returns how the jobs stand, in order
 * @throws IppError; a job whose document the printer refused is cancelled there first
 */
export async function sendShipment<Document extends Pick<ShippedDocument, 'attributes'>>(
  input: SendInput<Document>,
): Promise<JobStatus[]> {
  const jobs = await validateJobs(input);
  const statuses: JobStatus[] = [];
  for (const [index, job] of jobs.entries()) {
    if (index < (input.sent ?? 0)) continue;
    const place = jobs.length === 1 ? '' : `(${index + 1} of ${jobs.length})`;
    const written: WrittenJob = { ...job, documents: [], name: nameOfJob(input.jobName, place, input.mark), index };
    for (const [at, document] of job.documents.entries()) {
      const data = await input.documentOf(document, { job: index, document: at });
      written.documents.push({ attributes: document.attributes, data: 'parts' in data ? data : dataOf(data) });
    }
    statuses.push(await (makesJobsFirst(input.printer) ? sendJob(input, written) : printJob(input, written)));
  }
  return statuses;
}

/** A job ready to go. */
interface WrittenJob {
  readonly attributes: Attributes;
  readonly documents: { readonly attributes: Attributes; readonly data: DocumentData }[];
  readonly name: string;
  readonly index: number;
}

interface Sending extends Pick<SendInput, 'address' | 'userName' | 'onCreated' | 'onRefused' | 'signal'> {
  readonly shipment: { readonly format: Format };
}

/** What a printer answers of a job that takes no document any more (RFC 8011, 4.3.1). */
const GONE: readonly number[] = [STATUS.notPossible, STATUS.notFound];

async function sendJob(input: Sending, job: WrittenJob): Promise<JobStatus> {
  const { address } = input;
  const created = await askPrinter(address, {
    operation: OPERATIONS.createJob,
    ...common(input, { 'job-name': [nameValue(job.name)] }),
    groups: [{ tag: 'job', attributes: job.attributes }],
  });
  const jobId = firstNumber(groupOf(created, 'job'), 'job-id');
  if (jobId === null) throw new IppError('the printer gave the job no number', null);
  try {
    await input.onCreated?.(jobId, job.index);
    let status: JobStatus | null = null;
    for (const [place, document] of job.documents.entries()) {
      const isLast = place === job.documents.length - 1;
      const sent = await askPrinter(address, {
        operation: OPERATIONS.sendDocument,
        ...common(input, { 'job-id': [integer(jobId)] }, { ...formatOf(input), 'last-document': [boolean(isLast)] }),
        groups:
          Object.keys(document.attributes).length > 0 ? [{ tag: 'document', attributes: document.attributes }] : [],
        document: document.data,
        goesOn: () => isThere(address),
      });
      status = readJobStatus(jobId, groupOf(sent, 'job'));
    }
    return status as JobStatus;
  } catch (error) {
    // Without an answer the printer may have the whole document; cancelling could then stop it half-way. Nor is there
    // anything to cancel where it ended the job meanwhile, since it was off and on, or somebody called it off.
    if (error instanceof IppError && (error.status === null || GONE.includes(error.status)))
      throw new IppError(error.message, error.status, { jobCreated: true });
    await cancelJob(address, jobId, input.userName).catch(() => undefined);
    await input.onRefused?.();
    throw error;
  }
}

/** Without an answer nobody knows whether there is a job, nor its number: whoever settles that looks for its mark. */
async function printJob(input: Sending, job: WrittenJob): Promise<JobStatus> {
  const { address } = input;
  try {
    const answer = await askPrinter(address, {
      operation: OPERATIONS.printJob,
      ...common(input, {}, { 'job-name': [nameValue(job.name)], ...formatOf(input) }),
      groups: [{ tag: 'job', attributes: job.attributes }],
      document: job.documents[0]!.data,
      goesOn: () => isThere(address),
    });
    const attributes = groupOf(answer, 'job');
    const jobId = firstNumber(attributes, 'job-id');
    if (jobId === null) throw new IppError('the printer gave the job no number', null);
    await tellOrCancel(input, jobId, () => input.onCreated?.(jobId, job.index));
    return readJobStatus(jobId, attributes);
  } catch (error) {
    if (error instanceof IppError && error.status === null && error.reached)
      throw new IppError(error.message, null, { jobCreated: true });
    throw error;
  }
}

/** The printer has the job already when its number is told: whoever does not want it any more has it cancelled there. */
async function tellOrCancel(
  { address, userName }: Sending,
  jobId: number,
  tell: () => Promise<void> | undefined,
): Promise<void> {
  try {
    await tell();
  } catch (error) {
    await cancelJob(address, jobId, userName).catch(() => undefined);
    throw error;
  }
}

/** What is said with each request, who asks after what is asked about (RFC 8011, 4.1.5). */
function common({ userName, signal }: Sending, about: Attributes, more: Attributes = {}) {
  return {
    operationAttributes: { ...about, 'requesting-user-name': [nameValue(userName)], ...more },
    ...(signal ? { signal } : {}),
  };
}

const formatOf = ({ shipment }: Sending): Attributes => ({
  'document-format': [{ tag: 'mimeMediaType', value: shipment.format }],
});

/** Whether a printer that takes nothing more still answers: then it waits for something, such as paper. */
async function isThere(address: PrinterAddress): Promise<boolean> {
  try {
    await askStatus(address);
    return true;
  } catch (error) {
    if (error instanceof IppError) return false;
    throw error;
  }
}
