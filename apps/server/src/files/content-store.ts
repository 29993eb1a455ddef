import { createReadStream, createWriteStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import type { AboutDocument, Heading, PageFacts } from '@foglio/core';
import { PdfError, withNavigation, type Navigation } from '@foglio/pdf';
import { and, eq, isNull } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { contentChunks, contents } from '../database/schema';
import { Problem } from '../http/problem';
import type { FileWithHash, PdfWorkers } from '../pdf/pdf-workers';

/** Bytes a row: large enough to be quick, small enough to stream. */
const CHUNK = 1024 * 1024;

const UNIQUE_VIOLATION = '23505';

export interface StoredContent {
  readonly id: string;
  /** Null: taken in before digests were kept. */
  readonly sha256: string | null;
  readonly bytes: number;
  readonly pages: readonly PageFacts[];
  /** Null: not read yet, nor page labels. */
  readonly outline: readonly Heading[] | null;
  readonly about: AboutDocument;
  readonly remarks: readonly string[];
  /** Of how many pages, from the first, all facts are known. */
  readonly detailsRead: number;
}

/**
 * Takes a document in and stores what came of it within one transaction: a crash leaves nothing behind, and what is
 * answered for is on disk. The same bytes are stored once, and looked at once.
 *
 * @param password where the file needs one; used and forgotten
 * @param settled told the id once labels and outline, which come later, are entered too, or will not come from here
 * @throws Problem `file-unusable`
 */
export async function storeContent(
  db: Database,
  uploaded: FileWithHash,
  workers: PdfWorkers,
  { password = null, settled = () => undefined }: { password?: string | null; settled?: (id: string) => void } = {},
): Promise<StoredContent> {
  // What is stored opens by itself, so whoever has its very bytes needed no password for it.
  const known = await findContent(db, uploaded.sha256);
  if (known) return known;
  const taken = await usable(() => workers.takeIn(uploaded.path, `${uploaded.path}.open`, password));
  const { path, sha256 } = taken.made ?? uploaded;
  try {
    const stored = await db.transaction(async (tx) => {
      const { bytes } = taken.made ?? uploaded;
      const { pages, about } = taken.facts;
      const { remarks } = taken;
      const [row] = await tx.insert(contents).values({ sha256, bytes, pages, about, remarks }).returning();
      const stored = row as StoredContent;
      let position = 0;
      for await (const data of createReadStream(path, { highWaterMark: CHUNK }) as AsyncIterable<Buffer>) {
        await tx.insert(contentChunks).values({ contentId: stored.id, position, data });
        position += 1;
      }
      return stored;
    });
    void enterNavigation(db, stored, taken.navigation).finally(() => settled(stored.id));
    return stored;
  } catch (error) {
    // Another upload of the same file was quicker.
    const other = isDuplicate(error) ? await findContent(db, sha256) : undefined;
    if (!other) throw error;
    return other;
  }
}

/** Labels and outline of a document, where nobody entered them yet. What fails here, whoever reads the details makes good. */
async function enterNavigation(
  db: Database,
  { id, pages }: StoredContent,
  read: Promise<Navigation | null>,
): Promise<void> {
  const navigation = await read;
  if (!navigation) return;
  await db
    .update(contents)
    .set(withNavigation({ pages }, navigation))
    .where(and(eq(contents.id, id), isNull(contents.outline)))
    .catch(() => undefined);
}

const findContent = (db: Database, sha256: string) =>
  db.query.contents.findFirst({ where: eq(contents.sha256, sha256) });

/** Writes the whole of a document to a file. */
export const fileContent = (db: Database, id: string, path: string): Promise<void> =>
  pipeline(streamContent(db, id), createWriteStream(path));

/** A document chunk by chunk, so that serving it holds no more than one in memory. */
export async function* streamContent(db: Database, id: string): AsyncGenerator<Buffer> {
  for (let position = 0; ; position += 1) {
    const [row] = await db
      .select({ data: contentChunks.data })
      .from(contentChunks)
      .where(and(eq(contentChunks.contentId, id), eq(contentChunks.position, position)));
    if (!row) return;
    yield row.data;
  }
}

/** Work on a file whose trouble is the file's own. @throws Problem `file-unusable` */
export async function usable<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof PdfError) throw new Problem('file-unusable', error.message, { trouble: error.trouble });
    throw error;
  }
}

/** Drizzle wraps the driver's error as its cause. */
function isDuplicate(error: unknown): boolean {
  const { code, cause } = error as { code?: string; cause?: { code?: string } };
  return code === UNIQUE_VIOLATION || cause?.code === UNIQUE_VIOLATION;
}
