import { STATUS, withoutMark } from '@foglio/ipp';
import {
  isJobOver,
  Refusal,
  takesValues,
  wishesOf,
  withinOctets,
  type IncomingDocument,
  type ServedJob,
  type ServedPrinter,
} from '@foglio/ipp/serving';
import { inScratchFolder } from '@foglio/pdf';
import { eq, sql } from 'drizzle-orm';
import pLimit from 'p-limit';
import type { Database } from '../database/connection';
import { incoming, files } from '../database/schema';
import { storeWithAttached, type StoredFile } from '../files/content-store';
import { enqueueReading } from '../files/reading-queue';
import { receive } from '../files/receive';
import { diskFull } from '../http/disk-full';
import { Problem } from '../http/problem';
import type { PdfWorkers } from '../pdf/pdf-workers';
import { cancelSending } from '../sendings/cancel';
import { cameWhole, withdraw } from './arrival';
import { changeIncoming, enterIncoming, findIncoming, listIncoming, servedJob, type Incoming } from './incoming-store';
import type { Queue } from './queue';
import { attributesOf, COMPRESSIONS, FORMATS, QUEUE_OPERATIONS, templateOf } from './queue-attributes';

/** What the queues need of the server. */
export interface QueueParts {
  readonly db: Database;
  readonly workers: PdfWorkers;
  /** Bytes of a document. */
  readonly uploadLimit: number;
  /** Address of the page in the application that tells of the queues. */
  readonly page: () => string;
}

/** Jobs that a program is told of. */
const MOST_LISTED = 500;

/** A queue as it is served by IPP. */
export function queuePrinter(parts: QueueParts, queue: Queue): ServedPrinter {
  const { db } = parts;
  const template = templateOf(queue);
  const find = async (id: number): Promise<ServedJob | null> => {
    const found = await findIncoming(db, queue.name, id);
    return found && servedJob(found);
  };
  const again = async ({ id }: ServedJob): Promise<ServedJob> => (await find(id))!;
  const jobs = async (): Promise<ServedJob[]> => (await listIncoming(db, queue.name, MOST_LISTED)).map(servedJob);
  const told = attributesOf(queue, `ipp://localhost/ipp/print/${queue.name}`, {
    queued: 0,
    changedAt: STARTED,
    page: parts.page(),
  });
  return {
    operations: QUEUE_OPERATIONS,
    formats: FORMATS,
    compressions: COMPRESSIONS,
    takesSeveral: true,
    takesOfDocuments: false,
    leavesOut: true,
    describe: async (address) => {
      const queued = (await jobs()).filter((job) => !isJobOver(job)).length;
      return attributesOf(queue, address, { queued, changedAt: STARTED, page: parts.page() });
    },
    knows: (name) => template.includes(name),
    takes: (name, values) => takesValues(told, name, values),
    jobs,
    job: find,
    create: async ({ name, user, template: asked, left }) => {
      requireRoom();
      const wishes = wishesOf(asked, left);
      return servedJob(
        await enterIncoming(db, queue, { name: clean(withoutMark(name)), userName: clean(user), wishes }),
      );
    },
    receive: async (job, document) => {
      await takeDocument(parts, queue, job, document);
      return again(job);
    },
    close: async (job) => {
      await db.transaction((tx) => cameWhole(tx, queue, job.id));
      return again(job);
    },
    // Whoever has the application open sees it there.
    identify: async () => void (await db.execute(sql`select pg_notify('foglio_news', ${`identify ${queue.name}`})`)),
    cancel: async ({ id }) => {
      const found = await findIncoming(db, queue.name, id);
      return found !== null && cancel(db, found);
    },
  };
}

const STARTED = new Date();

/** Octets of a name (RFC 8011, 5.1.3). */
const LONGEST_NAME = 255;

/** What a name can be, in the database and in answers. */
const clean = (name: string): string => withinOctets(name.replaceAll('\0', ''), LONGEST_NAME);

/** Each document that is taken in has a process of its own; more of them would only keep each other waiting. */
const takeTurn = pLimit(4);
const MOST_WAITING = 60;

/** @throws Refusal where too many documents come at once: programs try again by themselves (RFC 8011, B.1.5.8) */
function requireRoom(): void {
  if (takeTurn.pendingCount < MOST_WAITING) return;
  throw new Refusal(STATUS.busy, 'too many documents come at once; try again in a moment');
}

/** Takes a document in like an upload, and answers for it only once it is stored. */
async function takeDocument(
  { db, workers, uploadLimit }: QueueParts,
  queue: Queue,
  { id, name }: ServedJob,
  document: IncomingDocument,
): Promise<void> {
  const entered = (content: string): void => void enqueueReading(db, content);
  const named = clean(document.name ?? name);
  let stored: StoredFile[];
  requireRoom();
  try {
    stored = await inScratchFolder(async (path) => {
      const file = await receive(document.bytes, path('incoming'), uploadLimit, tooLarge);
      if (file.bytes === 0) throw new Refusal(STATUS.badRequest, 'no document came');
      const taking = { name: named, form: queue.ticket.documents[0]!.form, entered };
      return takeTurn(() => storeWithAttached(db, file, workers, taking));
    });
  } catch (error) {
    const full = error instanceof Problem && error.code === 'disk-full' ? error.message : diskFull(error);
    await changeIncoming(db, id, ['open'], { state: 'aborted', message: full ?? sayTrouble(error) });
    // Nothing is wrong with it: programs try again later (RFC 8011, B.1.5.6).
    if (full) throw new Refusal(STATUS.temporaryError, full);
    if (error instanceof Problem) throw new Refusal(STATUS.documentFormatError, error.message);
    throw error;
  }
  await db.transaction(async (tx) => {
    const rows = stored.map(({ content, sourceId, laid }) => ({ contentId: content.id, name: named, sourceId, laid }));
    const entered = await tx.insert(files).values(rows).returning();
    const [taken] = await tx
      .update(incoming)
      .set({
        files: sql`${incoming.files} || ${JSON.stringify(entered.map(({ id: file }) => file))}::jsonb`,
        updatedAt: new Date(),
      })
      .where(eq(incoming.id, id))
      .returning();
    if (taken?.state !== 'open') throw new Refusal(STATUS.notPossible, `job ${id} takes no further document`);
    if (document.isLast) await cameWhole(tx, queue, id);
  });
}

const tooLarge = (): Refusal => new Refusal(STATUS.requestEntityTooLarge, 'it is larger than what is taken here');

const sayTrouble = (error: unknown): string =>
  error instanceof Problem || error instanceof Refusal ? error.message : 'The document did not come whole.';

/** Whatever it is at: what still comes is not taken, what waits is withdrawn, what is printed is cancelled at the printer. */
async function cancel(db: Database, { job, sending }: Incoming): Promise<boolean> {
  if (isJobOver(servedJob({ job, sending }))) return false;
  if (sending) {
    try {
      await cancelSending(db, sending);
    } catch (error) {
      if (error instanceof Problem && error.code === 'sending-over') return false;
      if (error instanceof Problem) throw new Refusal(STATUS.notPossible, error.message);
      throw error;
    }
    return true;
  }
  return withdraw(db, job.id);
}
