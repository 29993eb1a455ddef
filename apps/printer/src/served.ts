import { setTimeout as wait } from 'node:timers/promises';
import { firstString, OPERATIONS, STATUS, type Value } from '@foglio/ipp';
import {
  answersOf,
  BrokenOff,
  isJobOver,
  Refusal,
  type IncomingDocument,
  type ServedJob,
  type ServedPrinter,
} from '@foglio/ipp/serving';
import { PdfError, takeIn } from '@foglio/pdf';
import type { PrintJob } from './archive';
import { isFull } from './disk';
import type { JobEvents } from './events';
import type { Machine } from './machine';
import { attributesOf, FORMATS, JOB_TEMPLATE, MOST_COPIES } from './printer-attributes';

/** The simulated printer as it is served by IPP. It insists on all that a job asks of it. */
export function served(machine: Machine, events: JobEvents): ServedPrinter {
  const known = ({ id }: Pick<ServedJob, 'id'>): PrintJob => machine.jobs.get(id) as PrintJob;
  return {
    operations: Object.values(OPERATIONS),
    formats: FORMATS,
    compressions: ['none'],
    takesSeveral: machine.profile.jobs.documents,
    takesOfDocuments: machine.profile.jobs.documents,
    leavesOut: false,
    describe: (address) => attributesOf(machine, address),
    knows: (name) => JOB_TEMPLATE.includes(name),
    takes: (name, values) => takes(name, values, machine),
    jobs: () => [...machine.jobs.values()].map(describeJob),
    job: (id) => {
      const job = machine.jobs.get(id);
      return job ? describeJob(job) : null;
    },
    create: async ({ name, user, template }) => describeJob(await machine.createJob(name, user, template)),
    receive: async (job, document) => {
      await receive(known(job), document, machine);
      return describeJob(known(job));
    },
    close: async (job) => {
      await machine.closeJob(known(job));
      return describeJob(known(job));
    },
    cancel: (job) => machine.cancel(known(job)),
    events,
    identify: () => console.log(`${machine.profile.name} is here.`),
    ofJob: new Map([
      [OPERATIONS.holdJob, { whyNot: 'has begun', do: (id) => machine.hold(known({ id })) }],
      [OPERATIONS.releaseJob, { whyNot: 'is not held', do: (id) => machine.release(known({ id })) }],
      [OPERATIONS.restartJob, { whyNot: 'is not over', do: (id) => machine.restart(known({ id })) }],
    ]),
    ofPrinter: new Map([
      [OPERATIONS.pausePrinter, () => machine.pause(true)],
      [OPERATIONS.resumePrinter, () => machine.pause(false)],
    ]),
  };
}

function takes(name: string, values: readonly Value[], machine: Machine): boolean {
  const { profile } = machine;
  if (name === 'copies')
    return values.every((value) => value.tag === 'integer' && value.value >= 1 && value.value <= MOST_COPIES);
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
          ([member, own]) => taken.includes(member) && (member === 'pages' || takes(member, own, machine)),
        ),
    );
  }
  const known = answersOf(profile)[`${name}-supported`];
  return !known || values.every((value) => known.some((one) => JSON.stringify(one) === JSON.stringify(value)));
}

/** Takes a document in at the printer's pace. Where it does not come whole, its job is aborted. */
async function receive(job: PrintJob, document: IncomingDocument, machine: Machine): Promise<void> {
  const { intakeKb } = machine;
  const parts: Uint8Array[] = [];
  try {
    for await (const part of document.bytes) {
      parts.push(part);
      if (Number.isFinite(intakeKb)) await wait(part.length / intakeKb);
    }
  } catch (error) {
    if (error instanceof BrokenOff) await machine.abortIncoming(job);
    throw error;
  }
  try {
    const bytes = new Uint8Array(Buffer.concat(parts));
    // Pictures are kept as pages, so that they can be looked at like all others.
    const pages = isPicture(bytes) ? (await takeIn(bytes)).bytes : bytes;
    await machine.receiveDocument(job, document.attributes, pages, document.isLast);
  } catch (error) {
    if (error instanceof PdfError) throw new Refusal(STATUS.documentFormatError, error.message);
    if (isFull(error)) throw new Refusal(STATUS.temporaryError, 'the printer’s disk is full');
    throw error;
  }
}

/** What pictures begin with: PWG Raster (PWG 5102.4, 4.1) and JPEG (ITU-T T.81, B.1.1.3). */
const isPicture = (bytes: Uint8Array): boolean =>
  ['RaS2', '\xff\xd8'].some((first) => Buffer.from(bytes.subarray(0, first.length)).toString('latin1') === first);

const describeJob = (job: PrintJob): ServedJob => {
  const { id, name, user, state, reasons, message, documents, sheets, deliveredCount } = job;
  return {
    id,
    name,
    user,
    state,
    reasons,
    message,
    createdAt: null,
    processingAt: null,
    completedAt: null,
    sheets,
    sheetsCompleted: deliveredCount,
    impressions: null,
    impressionsCompleted: null,
    documents: documents.length,
    isOpen: !job.whole && !isJobOver(job),
  };
};
