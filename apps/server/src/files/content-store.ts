import { createWriteStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import type { AboutDocument, Form, Heading, LaidOut, PageFacts } from '@foglio/core';
import { PdfError } from '@foglio/pdf';
import { and, eq, sql } from 'drizzle-orm';
import pLimit from 'p-limit';
import type { Database } from '../database/connection';
import { contentChunks, contents, files } from '../database/schema';
import { Problem } from '../http/problem';
import { Stopped, type FileWithHash, type Growing, type PdfWorkers, type TakenFile } from '../pdf/pdf-workers';
import { chunksFrom, chunksOf } from './chunks';
import { comeAgain, findForm, findSource, storeSource } from './source-store';

const UNIQUE_VIOLATION = '23505';

export interface StoredContent {
  readonly id: string;
  /** Null: taken in before digests were kept. */
  readonly sha256: string | null;
  readonly bytes: number;
  readonly pages: readonly PageFacts[];
  readonly outline: readonly Heading[];
  readonly about: AboutDocument;
  readonly remarks: readonly string[];
  /** Of how many pages, from the first, all facts are known. */
  readonly detailsRead: number;
}

/** A document as it was stored, and where it came from. */
export interface StoredFile {
  readonly content: StoredContent;
  /** What it was laid out from, and how; null: it has pages of its own. */
  readonly sourceId: string | null;
  readonly laid: LaidOut | null;
  /**
   * Where these are the first pages: what puts the whole in their place in the file that was entered for them, or the
   * trouble why it never will be there. Never fails.
   */
  readonly grow: ((fileId: string) => Promise<void>) | null;
}

/** What a document is taken in with. */
export interface Taking {
  readonly name: string;
  /** How it is laid out, where it has no pages of its own. */
  readonly form?: Form;
  /** Where the file needs one; used and forgotten. */
  readonly password?: string | null;
  /** Whether the first pages of what takes long are stored and told of before the whole. */
  readonly first?: boolean;
  /** Told the id of what was entered anew. */
  readonly entered?: (id: string) => void;
}

/**
 * Takes a document in and stores what came of it within one transaction: a crash leaves nothing behind, and what is
 * answered for is on disk. The same bytes are stored once, and looked at once; the same form of a document is laid out once.
 *
 * @throws Problem `file-unusable`
 */
export async function storeFile(
  db: Database,
  uploaded: FileWithHash,
  workers: PdfWorkers,
  { name, form = {}, password = null, first = false, entered = () => undefined }: Taking,
): Promise<StoredFile> {
  // What is stored opens by itself, so whoever has its very bytes needed no password for it.
  const known = await findContent(db, uploaded.sha256);
  if (known) return { content: known, sourceId: null, laid: null, grow: null };
  const source = await findSource(db, uploaded.sha256);
  const before = source && (await findForm(db, source.id, name, form));
  if (before) return { ...before, sourceId: source.id, grow: null };
  const how = { name, form, password, first };
  const taken = await usable(() => workers.takeIn(uploaded.path, `${uploaded.path}.open`, how));
  const stored = await enterTaken(db, uploaded, taken, entered);
  const { rest } = taken;
  return rest ? { ...stored, grow: (fileId) => grow({ db, fileId, uploaded, stored, rest, entered }) } : stored;
}

/**
 * The same of a mail and of all that is attached to it, each a document of its own, in their order.
 *
 * @throws Problem `file-unusable` where one of them cannot be used
 */
export async function storeWithAttached(
  db: Database,
  uploaded: FileWithHash,
  workers: PdfWorkers,
  taking: Taking,
): Promise<StoredFile[]> {
  const first = await storeFile(db, uploaded, workers, taking);
  const all = [first];
  for (const attachment of first.laid?.attachments ?? []) {
    all.push(await storeFile(db, uploaded, workers, { ...taking, form: { ...taking.form, attachment } }));
  }
  return all;
}

/** Stores what came of a document. */
async function enterTaken(
  db: Database,
  uploaded: FileWithHash,
  { made, facts: { pages, outline, about }, remarks, laid }: TakenFile,
  entered: (id: string) => void,
): Promise<StoredFile> {
  const { path, sha256, bytes } = made ?? uploaded;
  try {
    const file = await db.transaction(async (tx): Promise<StoredFile> => {
      const sourceId = laid ? await storeSource(tx, uploaded) : null;
      const [row] = await tx.insert(contents).values({ sha256, bytes, pages, outline, about, remarks }).returning();
      const content = row as StoredContent;
      for await (const chunk of chunksOf(path)) {
        await tx.insert(contentChunks).values({ contentId: content.id, ...chunk });
      }
      return { content, sourceId, laid, grow: null };
    });
    entered(file.content.id);
    return file;
  } catch (error) {
    // Another upload of the same file was quicker.
    const other = isDuplicate(error) ? await findContent(db, sha256) : undefined;
    if (!other) throw error;
    return { content: other, sourceId: laid ? await storeSource(db, uploaded) : null, laid, grow: null };
  }
}

/** Files that are being laid out, and what ends that. */
const underWay = new Map<string, () => void>();

/** Milliseconds from one word on how far it is to the next. */
const PROGRESS_MS = 1_000;

interface GrowingFile {
  readonly db: Database;
  readonly fileId: string;
  readonly uploaded: FileWithHash;
  readonly stored: StoredFile;
  readonly rest: Growing;
  readonly entered: (id: string) => void;
}

/**
 * Puts the whole of a document in the place of its first pages, and tells every window. In this file alone: another document
 * may begin with the very same pages.
 */
async function grow({ db, fileId, uploaded, stored, rest, entered }: GrowingFile): Promise<void> {
  const { content: first, laid } = stored;
  const tell = sql`select pg_notify('foglio_news', ${`file ${first.sha256}`})`;
  // One after the other: what is told on the way never stands for what came of it.
  const inTurn = pLimit(1);
  const put = (change: Pick<typeof files.$inferInsert, 'laid'> & { contentId?: string }): Promise<void> =>
    inTurn(async () => {
      await db.update(files).set(change).where(eq(files.id, fileId));
      await db.execute(tell);
    });
  let told = Date.now();
  rest.follow((done, of) => {
    if (Date.now() - told < PROGRESS_MS) return;
    told = Date.now();
    // Nothing is lost where it is not told once.
    void put({ laid: { ...laid!, unfinished: { trouble: null, done, of } } }).catch(() => undefined);
  });
  underWay.set(fileId, rest.stop);
  try {
    const taken = await rest.whole;
    told = Infinity;
    const whole = await enterTaken(db, uploaded, taken, entered);
    await put({ contentId: whole.content.id, laid: whole.laid });
  } catch (error) {
    told = Infinity;
    const isSaid = error instanceof PdfError || error instanceof Stopped;
    const trouble = isSaid ? error.message : 'Foglio stopped in the middle of it. Take it in again.';
    await put({ laid: { ...laid!, unfinished: { trouble } } }).catch(() => undefined);
  } finally {
    underWay.delete(fileId);
  }
}

/** Ends what is being laid out for a file, if anything is. */
export const stopGrowing = (fileId: string): void => underWay.get(fileId)?.();

/** What was being laid out when the server ended is told as such. */
export async function giveUpUnfinished(db: Database): Promise<void> {
  const trouble = JSON.stringify({ trouble: 'Foglio was stopped in the middle of it. Take it in again.' });
  await db
    .update(files)
    .set({ laid: sql`jsonb_set(${files.laid}, '{unfinished}', ${trouble}::jsonb)` })
    .where(sql`${files.laid} -> 'unfinished' ->> 'trouble' is null and ${files.laid} ? 'unfinished'`);
}

const findContent = (db: Database, sha256: string) => comeAgain(db, eq(contents.sha256, sha256));

/** Writes the whole of a document to a file. */
export const fileContent = (db: Database, id: string, path: string): Promise<void> =>
  pipeline(streamContent(db, id), createWriteStream(path));

/** A document chunk by chunk, so that serving it holds no more than one in memory. */
export const streamContent = (db: Database, id: string): AsyncGenerator<Buffer> =>
  chunksFrom((position) =>
    db
      .select({ data: contentChunks.data })
      .from(contentChunks)
      .where(and(eq(contentChunks.contentId, id), eq(contentChunks.position, position))),
  );

/** Work on a file whose trouble is the file's own. @throws Problem `file-unusable` */
export async function usable<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof PdfError && error.trouble === 'no-room') throw new Problem('disk-full', error.message);
    if (error instanceof PdfError) throw new Problem('file-unusable', error.message, { trouble: error.trouble });
    throw error;
  }
}

/** Drizzle wraps the driver's error as its cause. */
function isDuplicate(error: unknown): boolean {
  const { code, cause } = error as { code?: string; cause?: { code?: string } };
  return code === UNIQUE_VIOLATION || cause?.code === UNIQUE_VIOLATION;
}
