import {
  allStrings,
  enumeration,
  firstBoolean,
  firstNumber,
  firstString,
  groupOf,
  integer,
  JOB_STATES,
  keyword,
  nameValue,
  OPERATIONS,
  STATUS,
  text,
  uri,
  type Attributes,
  type Group,
  type Message,
  type Value,
} from '@foglio/ipp';
import { PdfError } from '@foglio/pdf';
import type { PrintJob } from './archive';
import { isOver, type Machine } from './machine';
import { answersOf, JOB_TEMPLATE, MAX_COPIES, printerAttributesOf } from './printer-attributes';

/** What the printer says to a request, besides its version and number. */
export interface Answer {
  readonly status: number;
  readonly message?: string;
  readonly groups?: readonly Group[];
}

/** Answers one request. The document of Send-Document must have come whole. */
export async function answer(
  request: Message,
  document: Uint8Array,
  machine: Machine,
  address: string,
): Promise<Answer> {
  const operation = groupOf(request, 'operation');
  switch (request.code) {
    case OPERATIONS.getPrinterAttributes:
      return printerAttributes(operation, machine, address);
    case OPERATIONS.validateJob:
      return refusal(groupOf(request, 'job'), machine) ?? { status: STATUS.ok };
    case OPERATIONS.createJob:
      return createJob(request, machine, address);
    case OPERATIONS.printJob:
      return printJob(request, document, machine, address);
    case OPERATIONS.sendDocument:
      return withJob(operation, machine, (job) => sendDocument(job, request, document, machine, address));
    case OPERATIONS.closeJob:
      return withJob(operation, machine, (job) => closeJob(job, machine, address));
    case OPERATIONS.getJobAttributes:
      return withJob(operation, machine, (job) => jobAnswer(job, address));
    case OPERATIONS.getJobs:
      return getJobs(operation, machine, address);
    case OPERATIONS.cancelJob:
      return changeJob(operation, machine, 'is over', (job) => machine.cancel(job));
    case OPERATIONS.holdJob:
      return changeJob(operation, machine, 'has begun', (job) => machine.hold(job));
    case OPERATIONS.releaseJob:
      return changeJob(operation, machine, 'is not held', (job) => machine.release(job));
    case OPERATIONS.restartJob:
      return changeJob(operation, machine, 'is not over', (job) => machine.restart(job));
    case OPERATIONS.pausePrinter:
    case OPERATIONS.resumePrinter:
      machine.pause(request.code === OPERATIONS.pausePrinter);
      return { status: STATUS.ok };
    default:
      return { status: STATUS.operationNotSupported, message: `operation ${request.code} is not supported` };
  }
}

/** Why a job's attributes cannot be taken, or null (RFC 8011, section 4.1.7: unsupported attributes are given back). */
function refusal(job: Attributes, machine: Machine): Answer | null {
  const unsupported: Record<string, Value[]> = {};
  for (const [name, values] of Object.entries(job)) {
    if (!JOB_TEMPLATE.includes(name)) unsupported[name] = [{ tag: 'unsupported' }];
    else if (!supports(name, values, machine)) unsupported[name] = [...values];
  }
  const names = Object.keys(unsupported);
  if (names.length === 0) return null;
  return {
    status: STATUS.attributesOrValuesNotSupported,
    message: `not supported: ${names.join(', ')}`,
    groups: [{ tag: 'unsupported', attributes: unsupported }],
  };
}

function supports(name: string, values: readonly Value[], machine: Machine): boolean {
  const { profile } = machine;
  if (name === 'copies')
    return values.every((value) => value.tag === 'integer' && value.value >= 1 && value.value <= MAX_COPIES);
  if (name === 'media-col') {
    return values.every((value) => {
      const source = value.tag === 'collection' ? firstString(value.value, 'media-source') : null;
      return source === null || source === 'auto' || profile.trays.some((tray) => tray.id === source);
    });
  }
  if (name === 'overrides') {
    const taken = [...profile.jobs.overrides, 'pages'];
    return values.every(
      (value) =>
        value.tag === 'collection' &&
        Object.entries(value.value).every(
          ([member, own]) => taken.includes(member) && (member === 'pages' || supports(member, own, machine)),
        ),
    );
  }
  const known = answersOf(profile)[`${name}-supported`];
  return !known || values.every((value) => known.some((one) => JSON.stringify(one) === JSON.stringify(value)));
}

async function createJob(request: Message, machine: Machine, address: string): Promise<Answer> {
  const operation = groupOf(request, 'operation');
  const template = groupOf(request, 'job');
  const refused = refusal(template, machine);
  if (refused) return refused;
  const name = firstString(operation, 'job-name') ?? 'untitled';
  const job = await machine.createJob(name, firstString(operation, 'requesting-user-name') ?? 'anonymous', template);
  return jobAnswer(job, address);
}

/** Print-Job (RFC 8011, 4.2.1): the job and its one document in one request. */
async function printJob(request: Message, document: Uint8Array, machine: Machine, address: string): Promise<Answer> {
  const created = await createJob(request, machine, address);
  if (created.status !== STATUS.ok) return created;
  const id = firstNumber(created.groups?.[0]?.attributes ?? {}, 'job-id') ?? -1;
  const job = machine.jobs.get(id) as PrintJob;
  return takeDocument(job, request, document, machine, address, true);
}

async function sendDocument(
  job: PrintJob,
  request: Message,
  document: Uint8Array,
  machine: Machine,
  address: string,
): Promise<Answer> {
  if (job.whole || isOver(job)) {
    return { status: STATUS.notPossible, message: `job ${job.id} takes no further document` };
  }
  const isLast = firstBoolean(groupOf(request, 'operation'), 'last-document');
  // RFC 8011, 4.3.1: it must be said.
  if (isLast === null) return { status: STATUS.badRequest, message: 'last-document is missing' };
  if (document.length === 0 && isLast && job.documents.length > 0) return closeJob(job, machine, address);
  if (job.documents.length > 0 && !machine.profile.jobs.documents) {
    return { status: STATUS.multipleDocumentJobsNotSupported, message: 'a job has one document here' };
  }
  return takeDocument(job, request, document, machine, address, isLast);
}

async function takeDocument(
  job: PrintJob,
  request: Message,
  document: Uint8Array,
  machine: Machine,
  address: string,
  isLast: boolean,
): Promise<Answer> {
  const format = firstString(groupOf(request, 'operation'), 'document-format');
  if (format !== null && format !== 'application/pdf' && format !== 'application/octet-stream') {
    return { status: STATUS.documentFormatNotSupported, message: `${format} is not supported` };
  }
  const own = groupOf(request, 'document');
  const refused = refusal(own, machine);
  if (refused) return refused;
  try {
    await machine.receiveDocument(job, own, document, isLast);
  } catch (error) {
    if (error instanceof PdfError) return { status: STATUS.documentFormatError, message: error.message };
    throw error;
  }
  return jobAnswer(job, address);
}

/** Close-Job (PWG 5100.7): no further document comes. */
async function closeJob(job: PrintJob, machine: Machine, address: string): Promise<Answer> {
  if (job.documents.length === 0) return { status: STATUS.notPossible, message: `job ${job.id} has no document` };
  if (!job.whole) await machine.closeJob(job);
  return jobAnswer(job, address);
}

/** Does something to a job, or says why that is not possible. */
const changeJob = (
  operation: Attributes,
  machine: Machine,
  whyNot: string,
  change: (job: PrintJob) => Promise<boolean>,
): Promise<Answer> =>
  withJob(operation, machine, async (job) =>
    (await change(job)) ? { status: STATUS.ok } : { status: STATUS.notPossible, message: `job ${job.id} ${whyNot}` },
  );

async function withJob(
  operation: Attributes,
  machine: Machine,
  then: (job: PrintJob) => Answer | Promise<Answer>,
): Promise<Answer> {
  const fromUri = /(\d+)$/.exec(firstString(operation, 'job-uri') ?? '')?.[1];
  const id = firstNumber(operation, 'job-id') ?? Number(fromUri);
  const job = machine.jobs.get(id);
  return job ? then(job) : { status: STATUS.notFound, message: 'no such job' };
}

function getJobs(operation: Attributes, machine: Machine, address: string): Answer {
  const wanted = firstString(operation, 'which-jobs') ?? 'not-completed';
  const jobs = [...machine.jobs.values()].filter((job) => isOver(job) === (wanted === 'completed'));
  return { status: STATUS.ok, groups: jobs.map((job) => jobGroup(job, address)) };
}

const jobAnswer = (job: PrintJob, address: string): Answer => ({ status: STATUS.ok, groups: [jobGroup(job, address)] });

function jobGroup(job: PrintJob, address: string): Group {
  return {
    tag: 'job',
    attributes: {
      'job-uri': [uri(`${address}/${job.id}`)],
      'job-id': [integer(job.id)],
      'job-name': [nameValue(job.name)],
      'job-originating-user-name': [nameValue(job.user)],
      'job-state': [enumeration(JOB_STATES[job.state])],
      'job-state-reasons': job.reasons.map(keyword),
      ...(job.message ? { 'job-state-message': [text(job.message)] } : {}),
      'job-media-sheets-completed': [integer(job.delivered.length)],
      ...(job.sheets === null ? {} : { 'job-media-sheets': [integer(job.sheets)] }),
    },
  };
}

function printerAttributes(operation: Attributes, machine: Machine, address: string): Answer {
  const wanted = allStrings(operation, 'requested-attributes');
  const everything = printerAttributesOf(machine, address);
  const all = wanted.length === 0 || wanted.includes('all') || wanted.includes('printer-description');
  const attributes = Object.fromEntries(Object.entries(everything).filter(([name]) => all || wanted.includes(name)));
  return { status: STATUS.ok, groups: [{ tag: 'printer', attributes }] };
}
