import {
  allStrings,
  firstBoolean,
  firstNumber,
  firstString,
  groupOf,
  OPERATIONS,
  STATUS,
  type Attributes,
  type Message,
  type Value,
} from '../message';
import { jobGroup } from './job-group';
import { createSubscription, getNotifications } from './notifications';
import { requested } from './requested';
import { requireWellFormed } from './well-formed';
import {
  Refusal,
  type Answer,
  type Creation,
  type ServedEvents,
  type ServedJob,
  type ServedPrinter,
} from './served-printer';

/** One request, as far as it has come. */
export interface Asked {
  readonly message: Message;
  /** What comes behind the message; it may still be on its way, and throws where it does not come whole. */
  readonly data: AsyncIterable<Uint8Array>;
  /** At which the printer was asked. */
  readonly address: string;
}

/** Does what a request asks of a printer (RFC 8011, section 4). What is wrong with it is answered, never thrown. */
export async function answerRequest(asked: Asked, printer: ServedPrinter): Promise<Answer> {
  try {
    requireWellFormed(asked.message);
    if (!printer.operations.includes(asked.message.code)) {
      throw new Refusal(STATUS.operationNotSupported, `operation ${asked.message.code} is not supported`);
    }
    return await perform(asked, printer);
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    const { status, message, unsupported } = error;
    return { status, message, ...(unsupported ? { groups: [{ tag: 'unsupported', attributes: unsupported }] } : {}) };
  }
}

async function perform(asked: Asked, printer: ServedPrinter): Promise<Answer> {
  const { message, address } = asked;
  const operation = groupOf(message, 'operation');
  const told = (job: ServedJob, left: Attributes | null = null): Answer => ({
    ...withLeft(left),
    groups: [
      ...(left ? [{ tag: 'unsupported' as const, attributes: left }] : []),
      { tag: 'job', attributes: jobGroup(job, address) },
    ],
  });
  switch (message.code) {
    case OPERATIONS.getPrinterAttributes: {
      requireFormat(operation, printer);
      const attributes = requested(await printer.describe(address), operation, 'printer');
      return { status: STATUS.ok, groups: [{ tag: 'printer', attributes }] };
    }
    case OPERATIONS.validateJob: {
      requireFormat(operation, printer);
      const { unsupported } = creationOf(message, printer);
      return { ...withLeft(unsupported), ...groupsOfLeft(unsupported) };
    }
    case OPERATIONS.createJob: {
      const { creation, unsupported } = creationOf(message, printer);
      return told(await printer.create(creation), unsupported);
    }
    case OPERATIONS.printJob: {
      requireFormat(operation, printer);
      const { creation, unsupported } = creationOf(message, printer);
      const created = await printer.create(creation);
      return told(await printer.receive(created, documentOf(asked, true)), unsupported);
    }
    case OPERATIONS.sendDocument:
      return told(await sendDocument(asked, printer, await jobOf(operation, printer)));
    case OPERATIONS.closeJob: {
      const job = await jobOf(operation, printer);
      if (job.documents === 0) throw new Refusal(STATUS.notPossible, `job ${job.id} has no document`);
      return told(job.isOpen ? await printer.close(job) : job);
    }
    case OPERATIONS.getJobAttributes: {
      const group = jobGroup(await jobOf(operation, printer), address);
      return { status: STATUS.ok, groups: [{ tag: 'job', attributes: requested(group, operation, 'job') }] };
    }
    case OPERATIONS.getJobs:
      return getJobs(operation, printer, address);
    case OPERATIONS.cancelJob: {
      const job = await jobOf(operation, printer);
      if (!(await printer.cancel(job))) throw new Refusal(STATUS.notPossible, `job ${job.id} is over`);
      return { status: STATUS.ok };
    }
    case OPERATIONS.createPrinterSubscriptions:
      return createSubscription(message, eventsOf(printer));
    case OPERATIONS.getNotifications:
      return getNotifications(operation, eventsOf(printer));
    case OPERATIONS.cancelMyJobs:
      return cancelMyJobs(operation, printer);
    case OPERATIONS.identifyPrinter:
      await printer.identify();
      return { status: STATUS.ok };
    default:
      return ofItsOwn(message.code, operation, printer);
  }
}

/** @throws Refusal */
function eventsOf({ events }: ServedPrinter): ServedEvents {
  if (!events) throw new Refusal(STATUS.operationNotSupported, 'nothing is told of what happens');
  return events;
}

async function ofItsOwn(code: number, operation: Attributes, printer: ServedPrinter): Promise<Answer> {
  await printer.ofPrinter?.get(code)?.();
  const change = printer.ofJob?.get(code);
  if (change) {
    const job = await jobOf(operation, printer);
    if (!(await change.do(job.id))) throw new Refusal(STATUS.notPossible, `job ${job.id} ${change.whyNot}`);
  }
  return { status: STATUS.ok };
}

/** Whether everything was taken (RFC 8011, appendix B.1.2.2). */
const withLeft = (left: Attributes | null): { readonly status: number } => ({
  status: left ? STATUS.okIgnoredOrSubstituted : STATUS.ok,
});

const groupsOfLeft = (left: Attributes | null): Pick<Answer, 'groups'> =>
  left ? { groups: [{ tag: 'unsupported', attributes: left }] } : {};

/** A document format that is named is one that is taken (RFC 8011, 4.1.7). */
function requireFormat(operation: Attributes, { formats, compressions }: ServedPrinter): void {
  const format = firstString(operation, 'document-format');
  if (format !== null && !formats.includes(format.split(';')[0]!.trim().toLowerCase())) {
    throw new Refusal(STATUS.documentFormatNotSupported, `${format} is not supported`, {
      'document-format': operation['document-format'] ?? [],
    });
  }
  const compression = firstString(operation, 'compression');
  if (compression !== null && !compressions.includes(compression)) {
    throw new Refusal(STATUS.compressionNotSupported, `${compression} is not supported`, {
      compression: operation['compression'] ?? [],
    });
  }
}

/** What of some attributes is not taken: the attribute itself, or its value (RFC 8011, 4.1.7). */
function unsupportedOf(attributes: Attributes, { knows, takes }: ServedPrinter): Attributes | null {
  const found: Record<string, readonly Value[]> = {};
  for (const [name, values] of Object.entries(attributes)) {
    if (!knows(name)) found[name] = [{ tag: 'unsupported' }];
    else if (!takes(name, values)) found[name] = values;
  }
  return Object.keys(found).length > 0 ? found : null;
}

/** What a job is to be, and what of that is left out. @throws Refusal where the job insists on that, or the printer does */
function creationOf(
  message: Message,
  printer: ServedPrinter,
): { readonly creation: Creation; readonly unsupported: Attributes | null } {
  const operation = groupOf(message, 'operation');
  const asked = groupOf(message, 'job');
  const unsupported = unsupportedOf(asked, printer);
  const names = Object.keys(unsupported ?? {});
  const insists = firstBoolean(operation, 'ipp-attribute-fidelity') === true;
  if (unsupported && (insists || !printer.leavesOut)) {
    const text = `not supported: ${names.join(', ')}`;
    throw new Refusal(STATUS.attributesOrValuesNotSupported, text, unsupported);
  }
  const template = Object.fromEntries(Object.entries(asked).filter(([name]) => !names.includes(name)));
  const name = firstString(operation, 'job-name') ?? firstString(operation, 'document-name') ?? 'untitled';
  const user = firstString(operation, 'requesting-user-name') ?? 'anonymous';
  return { creation: { name, user, template, left: names }, unsupported };
}

function documentOf({ message, data }: Asked, isLast: boolean): Parameters<ServedPrinter['receive']>[1] {
  const operation = groupOf(message, 'operation');
  return {
    format: firstString(operation, 'document-format'),
    name: firstString(operation, 'document-name'),
    attributes: groupOf(message, 'document'),
    isLast,
    bytes: firstString(operation, 'compression') === 'gzip' ? unzipped(data) : data,
  };
}

/** Data as it was before gzip (RFC 1952). */
async function* unzipped(data: AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array> {
  const [{ createGunzip }, { Readable }] = await Promise.all([import('node:zlib'), import('node:stream')]);
  const gunzip = createGunzip();
  const source = Readable.from(data);
  source.on('error', (error) => gunzip.destroy(error));
  try {
    yield* source.pipe(gunzip) as AsyncIterable<Uint8Array>;
  } catch (error) {
    if (!(error as { code?: string }).code?.startsWith('Z_')) throw error;
    throw new Refusal(STATUS.compressionError, 'what came is not compressed as it says');
  } finally {
    source.destroy();
  }
}

async function sendDocument(asked: Asked, printer: ServedPrinter, job: ServedJob): Promise<ServedJob> {
  const operation = groupOf(asked.message, 'operation');
  if (!job.isOpen) throw new Refusal(STATUS.notPossible, `job ${job.id} takes no further document`);
  const isLast = firstBoolean(operation, 'last-document');
  // RFC 8011, 4.3.1: it must be said.
  if (isLast === null) throw new Refusal(STATUS.badRequest, 'last-document is missing');
  requireFormat(operation, printer);
  const { some, data } = await peek(asked.data);
  if (!some && isLast && job.documents > 0) return printer.close(job);
  if (job.documents > 0 && !printer.takesSeveral) {
    throw new Refusal(STATUS.multipleDocumentJobsNotSupported, 'a job has one document here');
  }
  const own = groupOf(asked.message, 'document');
  const unsupported = unsupportedOf(own, printer.takesOfDocuments ? printer : { ...printer, knows: () => false });
  if (unsupported) {
    const names = Object.keys(unsupported).join(', ');
    throw new Refusal(STATUS.attributesOrValuesNotSupported, `not supported: ${names}`, unsupported);
  }
  return printer.receive(job, documentOf({ ...asked, data }, isLast));
}

/** Whether anything comes; and all of it, from its first byte. */
async function peek(
  data: AsyncIterable<Uint8Array>,
): Promise<{ readonly some: boolean; readonly data: AsyncIterable<Uint8Array> }> {
  const parts = data[Symbol.asyncIterator]();
  let first = await parts.next();
  while (!first.done && first.value.length === 0) first = await parts.next();
  async function* all(): AsyncGenerator<Uint8Array> {
    try {
      for (let part = first; !part.done; part = await parts.next()) yield part.value;
    } finally {
      await parts.return?.();
    }
  }
  return { some: !first.done, data: all() };
}

/** @throws Refusal where no job is named, or it is not known */
async function jobOf(operation: Attributes, printer: ServedPrinter): Promise<ServedJob> {
  const fromUri = /\/(\d+)$/.exec(firstString(operation, 'job-uri') ?? '')?.[1];
  const id = firstNumber(operation, 'job-id') ?? (fromUri === undefined ? null : Number(fromUri));
  if (id === null) throw new Refusal(STATUS.badRequest, 'job-id is missing');
  const job = await printer.job(id);
  if (!job) throw new Refusal(STATUS.notFound, 'no such job');
  return job;
}

const OVER: readonly ServedJob['state'][] = ['completed', 'canceled', 'aborted'];
export const isJobOver = ({ state }: Pick<ServedJob, 'state'>): boolean => OVER.includes(state);

/** Get-Jobs (RFC 8011, 4.2.6): those not over in the order in which they are printed, those over the latest first. */
async function getJobs(operation: Attributes, printer: ServedPrinter, address: string): Promise<Answer> {
  const which = firstString(operation, 'which-jobs') ?? 'not-completed';
  if (which !== 'completed' && which !== 'not-completed' && which !== 'all') {
    const values = operation['which-jobs'] ?? [];
    throw new Refusal(STATUS.attributesOrValuesNotSupported, `which-jobs: ${which}`, { 'which-jobs': values });
  }
  const mine = firstBoolean(operation, 'my-jobs') === true ? firstString(operation, 'requesting-user-name') : null;
  const ids = (operation['job-ids'] ?? []).flatMap((one) => (one.tag === 'integer' ? [one.value] : []));
  const found = (await printer.jobs()).filter(
    (job) =>
      (ids.length > 0 ? ids.includes(job.id) : which === 'all' || isJobOver(job) === (which === 'completed')) &&
      (mine === null || job.user === mine),
  );
  const limit = firstNumber(operation, 'limit') ?? Infinity;
  const listed = (which === 'completed' ? found.toReversed() : found).slice(0, limit);
  // Where nothing is asked for in particular, no more than which jobs there are.
  const wanted = allStrings(operation, 'requested-attributes').length > 0;
  return {
    status: STATUS.ok,
    groups: listed.map((job) => {
      const group = jobGroup(job, address);
      const short = { 'job-uri': group['job-uri'] ?? [], 'job-id': group['job-id'] ?? [] };
      return { tag: 'job', attributes: wanted ? requested(group, operation, 'job') : short };
    }),
  };
}

/** Cancel-My-Jobs (PWG 5100.11, section 4.2): all of who asks, or those of them that are named. */
async function cancelMyJobs(operation: Attributes, printer: ServedPrinter): Promise<Answer> {
  const user = firstString(operation, 'requesting-user-name') ?? 'anonymous';
  const ids = (operation['job-ids'] ?? []).flatMap((one) => (one.tag === 'integer' ? [one.value] : []));
  const jobs = (await printer.jobs()).filter((job) => job.user === user && !isJobOver(job));
  const named = ids.length > 0 ? jobs.filter(({ id }) => ids.includes(id)) : jobs;
  const missing = ids.filter((id) => !jobs.some((job) => job.id === id));
  if (missing.length > 0)
    throw new Refusal(STATUS.notPossible, `not jobs of ${user} that go on: ${missing.join(', ')}`);
  for (const job of named) await printer.cancel(job);
  return { status: STATUS.ok };
}
