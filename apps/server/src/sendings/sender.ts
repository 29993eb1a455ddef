import { isGreyByItself, rasterFor } from '@foglio/core';
import { dataOfFile, dropIncoming, IppError, sendShipment, STATUS } from '@foglio/ipp';
import pLimit from 'p-limit';
import { inScratchFolder } from '@foglio/pdf';
import type { Database } from '../database/connection';
import { isDatabaseAway, onceDatabaseAnswers } from '../database/outage';
import { forLog } from '../database/query-error';
import { diskFull } from '../http/disk-full';
import { Problem } from '../http/problem';
import { documentsOf } from '../jobs/job-store';
import { imposeStored } from '../pdf/impose-stored';
import type { PdfWorkers } from '../pdf/pdf-workers';
import type { SentDocument } from '../plans/planning';
import type { Plans } from '../plans/plans';
import { findPrinter } from '../printers/printer-store';
import {
  changeSending,
  findSending,
  momentOfPrinting,
  putOff,
  takeNext,
  type SendingChange,
  type StoredSending,
} from './sending-store';
import { markOf } from './as-known';
import { enqueueSending } from './enqueue';
import { log } from '../log';
import { addressOf } from '../printers/access';

/** Jobs that are imposed at once, each in a process of its own. */
const IMPOSED_AT_ONCE = 3;

/** A printer that is up and cannot take a job now (RFC 8011, appendix B.1.5). */
const BUSY: readonly number[] = [
  STATUS.serviceUnavailable,
  STATUS.temporaryError,
  STATUS.notAcceptingJobs,
  STATUS.busy,
];

/** Imposing takes a processor and memory, sending neither. */
const imposeInTurn = pLimit(IMPOSED_AT_ONCE);

/** What sending needs of the server. */
export interface SendingParts {
  readonly db: Database;
  readonly workers: PdfWorkers;
  readonly plans: Plans;
}

/** Sends what waits for a printer, one after the other in the order it was sent off, until nothing does. */
export async function sendWaiting(parts: SendingParts, printerId: string, server: number): Promise<void> {
  for (;;) {
    const next = await takeNext(parts.db, printerId, server);
    if (!next) return;
    await sendSending(parts, next);
  }
}

/**
 * Sends one sending: imposes, sends. It ends as "printing" once the printer has the whole document, or as "failed" with
 * the reason; if the process dies in between it stays "sending" under this server's number, and the keeper settles it.
 */
async function sendSending(parts: SendingParts, sending: StoredSending): Promise<void> {
  const { db } = parts;
  const { id } = sending;
  try {
    await transmit(parts, sending);
    await change(db, id, { state: 'printing', server: null });
  } catch (error) {
    if (error instanceof Canceled) return;
    const isAway = isDatabaseAway(error);
    if (!(error instanceof IppError) && !(error instanceof Problem) && !isAway)
      log.error({ sending: id, err: forLog(error) }, 'sending');
    const reason = isAway ? 'the database did not answer' : (error as Error).message.replace(/\.$/, '');
    if (isUncertain(error)) {
      // The connection broke, or it ended the job: the printer alone knows what it got. The keeper asks it.
      await change(db, id, { message: `Sending broke off: ${reason}.`, server: null });
    } else if (isAway || isPassing(error)) {
      const later = await change(
        db,
        id,
        putOff(sending, `It could not be sent: ${reason}. It is tried again by itself.`),
      );
      if (later) await onceDatabaseAnswers(() => enqueueSending(db, later));
    } else {
      const message = await sayFailure(db, id, reason);
      // Backs that could not be sent can be begun again over their fronts.
      const state = sending.pass === 2 ? 'turning' : 'failed';
      await change(db, id, { state, message, server: null });
    }
  }
}

/** The sending was canceled before the printer had anything of it. */
class Canceled extends Error {
  override readonly name = 'Canceled';
}

/** What happened at the printer is kept, also where the database is away just then. */
const change = (db: Database, id: string, what: SendingChange): Promise<StoredSending | null> =>
  onceDatabaseAnswers(() => changeSending(db, id, ['sending'], what));

/** Of several jobs, those before the refused one are printed. */
async function sayFailure(db: Database, id: string, reason: string): Promise<string> {
  const { printerJobs, parts } = await onceDatabaseAnswers(() => findSending(db, id));
  const taken = printerJobs.length;
  if (taken === 0) return `Nothing was printed: ${reason}.`;
  return `Only the first ${taken} of ${parts} jobs reached the printer: ${reason}.`;
}

/** Whether the printer may have taken the job although sending failed here. */
const isUncertain = (error: unknown): boolean => error instanceof IppError && error.jobCreated;

/**
 * Whether another try may go better: the printer was away before it made a job of it, or has too much to do; or there was no
 * room here.
 */
const isPassing = (error: unknown): boolean =>
  (error instanceof IppError && (error.status === null || BUSY.includes(error.status))) ||
  (error instanceof Problem && error.code === 'disk-full') ||
  diskFull(error) !== null;

/** What a job is beside its title: ", first set, backs". */
const partName = ({ portion, pass }: StoredSending): string =>
  (portion === null
    ? ''
    : portion === 'first-set'
      ? ', first set'
      : portion === 'other-sets'
        ? ', other sets'
        : ', sheets again') + (pass === null ? '' : pass === 1 ? ', fronts' : ', backs');

/** Sends what the printer has not got yet: all of it, or the jobs after those it has whole. */
async function transmit({ db, workers, plans }: SendingParts, sending: StoredSending): Promise<void> {
  const { id, ticket, profile } = sending;
  const printer = await findPrinter(db, sending.printerId);
  const documents = await documentsOf(db, ticket);
  const planning = {
    ticket,
    printer: profile,
    // The same also after midnight, and where it is sent in parts.
    moment: momentOfPrinting(sending),
    pass: sending.pass,
    portion: sending.portion,
  };
  const shipment = await plans.ask({ kind: 'shipping' }, planning, documents);
  await changeSending(db, id, ['sending'], { parts: shipment.jobs.length, reason: shipment.reason });
  const printerJobs = [...sending.printerJobs];
  const jobName = (ticket.title || (documents[0]?.name ?? 'Foglio')) + partName(sending);
  const marked = markOf(sending);
  // A job that was made while its answer got lost would wait at the printer for documents that go to another one.
  if (sending.attempts > 0) await dropIncoming(addressOf(printer), marked, printerJobs);
  const sent = printerJobs.length;
  const parts = shipment.jobs.flatMap(({ documents: all }, job) =>
    job < sent ? [] : all.map((_, document) => ({ job, document })),
  );
  await inScratchFolder(async (path) => {
    const raster = rasterFor(shipment.format, ticket, profile);
    const how = { planning, parts, raster, blanks: 'none', grey: !isGreyByItself(ticket, profile) } as const;
    // All of them before the first job is made, by one worker that reads the documents once; then from disk.
    let made: Promise<string[]> | null = null;
    const imposed = async ({ job, document }: SentDocument): Promise<string> => {
      const files = await (made ??= imposeInTurn(() => imposeStored(db, workers, how, documents, path)));
      return files[parts.findIndex((one) => one.job === job && one.document === document)]!;
    };
    await sendShipment({
      address: addressOf(printer),
      printer: profile,
      shipment,
      documentOf: async (_, part) => dataOfFile(await imposed(part)),
      jobName,
      ...marked,
      sent,
      onCreated: async (job) => {
        printerJobs.push(job);
        if (!(await change(db, id, { printerJobs }))) throw new Canceled(`${id} was canceled meanwhile`);
      },
      onRefused: async () => {
        printerJobs.pop();
        await change(db, id, { printerJobs });
      },
    });
  });
}
