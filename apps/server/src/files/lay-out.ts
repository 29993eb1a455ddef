import { isLaidOutAs, type Form } from '@foglio/core';
import { inScratchFolder } from '@foglio/pdf';
import { eq } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { contents, files } from '../database/schema';
import { idOf } from '../http/body';
import { Problem } from '../http/problem';
import type { FileWithHash, PdfWorkers } from '../pdf/pdf-workers';
import { storeFile, type StoredContent, type StoredFile, type Taking } from './content-store';
import { enqueueReading } from './reading-queue';
import { fileSource, findForm } from './source-store';

/** A file with what it holds. */
export interface FoundFile {
  readonly file: typeof files.$inferSelect;
  readonly content: StoredContent;
}

/** @throws Problem `not-found` */
export async function findFile(db: Pick<Database, 'select'>, parameter: string): Promise<FoundFile> {
  const [found] = await db
    .select({ file: files, content: contents })
    .from(files)
    .innerJoin(contents, eq(files.contentId, contents.id))
    .where(eq(files.id, idOf(parameter)));
  if (!found) throw new Problem('not-found', 'This file is not here.');
  return found;
}

/** Enters a document under a name. */
async function enterFile(
  db: Pick<Database, 'insert'>,
  name: string,
  { content, sourceId, laid }: StoredFile,
): Promise<FoundFile> {
  const [file] = await db.insert(files).values({ contentId: content.id, name, sourceId, laid }).returning();
  return { file: file!, content };
}

/** Has labels, outline and details of a content read. */
export const readNext =
  (db: Database) =>
  (id: string): void =>
    void enqueueReading(db, id);

/**
 * Takes a document in and enters it, within a scratch folder that stays until all of it has come, also where its first pages
 * are told of before.
 *
 * @param bring writes the document to a path
 */
export function takeIntoStore(
  db: Database,
  workers: PdfWorkers,
  bring: (path: string) => Promise<FileWithHash>,
  taking: Taking,
): Promise<FoundFile> {
  return new Promise((resolve, reject) => {
    inScratchFolder(async (path) => {
      const stored = await storeFile(db, await bring(path('document')), workers, taking);
      const entered = await enterFile(db, taking.name, stored);
      resolve(entered);
      await stored.grow?.(entered.file.id);
    }).catch(reject);
  });
}

/**
 * The same document in another form. What was laid out so before is not laid out again; a document that is laid out so, or
 * has pages of its own, is what it is.
 *
 * @param first whether the first pages of what takes long are enough for now
 * @throws Problem `file-unusable` where it cannot be laid out so
 */
export async function layOutFile(
  db: Database,
  workers: PdfWorkers,
  found: FoundFile,
  form: Form,
  first = false,
): Promise<FoundFile> {
  const { name, sourceId, laid } = found.file;
  if (sourceId === null || isLaidOutAs(laid ?? undefined, form)) return found;
  const known = await findForm(db, sourceId, name, form);
  if (known) return enterFile(db, name, { ...known, sourceId, grow: null });
  const taking = { name, form, first, entered: readNext(db) };
  return takeIntoStore(db, workers, (path) => fileSource(db, sourceId, path), taking);
}
