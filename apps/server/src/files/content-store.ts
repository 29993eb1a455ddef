import { createHash } from 'node:crypto';
import type { AboutDocument, Heading, PageFacts } from '@foglio/core';
import { PdfError } from '@foglio/pdf';
import { and, asc, eq } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { contentChunks, contents } from '../database/schema';
import { Problem } from '../http/problem';
import type { PdfWorkers } from '../pdf/pdf-workers';

/** Bytes a row: large enough to be quick, small enough to stream. */
const CHUNK = 1024 * 1024;

const UNIQUE_VIOLATION = '23505';

export interface StoredContent {
  readonly id: string;
  readonly bytes: number;
  readonly pages: readonly PageFacts[];
  readonly outline: readonly Heading[];
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
 * @throws Problem `file-unusable`
 */
export async function storeContent(
  db: Database,
  uploaded: Uint8Array,
  workers: PdfWorkers,
  password: string | null = null,
): Promise<StoredContent> {
  // What is stored opens by itself, so whoever has its very bytes needed no password for it.
  const known = await findContent(db, hashOf(uploaded));
  if (known) return known;
  const { bytes, facts, remarks } = await usable(() => workers.takeIn(uploaded, password));
  const { pages, outline, about } = facts;
  const sha256 = hashOf(bytes);
  const row = { sha256, bytes: bytes.length, pages, outline, about, remarks };
  try {
    return await db.transaction(async (tx) => {
      const [entered] = await tx.insert(contents).values(row).returning();
      const { id } = entered as StoredContent;
      for (let position = 0; position * CHUNK < bytes.length; position += 1) {
        const data = Buffer.from(bytes.subarray(position * CHUNK, (position + 1) * CHUNK));
        await tx.insert(contentChunks).values({ contentId: id, position, data });
      }
      return entered as StoredContent;
    });
  } catch (error) {
    // Another upload of the same file was quicker.
    const other = isDuplicate(error) ? await findContent(db, sha256) : undefined;
    if (!other) throw error;
    return other;
  }
}

const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
const findContent = (db: Database, sha256: string) =>
  db.query.contents.findFirst({ where: eq(contents.sha256, sha256) });

/** The whole of a document. */
export async function readContent(db: Database, id: string): Promise<Uint8Array> {
  const rows = await db
    .select({ data: contentChunks.data })
    .from(contentChunks)
    .where(eq(contentChunks.contentId, id))
    .orderBy(asc(contentChunks.position));
  return new Uint8Array(Buffer.concat(rows.map(({ data }) => data)));
}

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
