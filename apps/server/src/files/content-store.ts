import { createHash } from 'node:crypto';
import type { Heading, PageFacts } from '@foglio/core';
import { PdfError, readFacts, type PdfFacts } from '@foglio/pdf';
import { and, asc, eq } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { contentChunks, contents } from '../database/schema';
import { Problem } from '../http/problem';

/** Bytes a row: large enough to be quick, small enough to stream. */
const CHUNK = 1024 * 1024;

const UNIQUE_VIOLATION = '23505';

export interface StoredContent {
  readonly id: string;
  readonly bytes: number;
  readonly pages: readonly PageFacts[];
  readonly outline: readonly Heading[];
  /** Of how many pages, from the first, all facts are known. */
  readonly detailsRead: number;
}

/**
 * Takes a document in from a stream, within one transaction: a crash or a broken connection leaves nothing behind, and
 * what is answered for is on disk. The same bytes are stored once.
 *
 * @throws Problem `body-too-large`, `file-unusable`
 */
export async function storeContent(db: Database, stream: AsyncIterable<Buffer>, limit: number): Promise<StoredContent> {
  const hash = createHash('sha256');
  try {
    return await db.transaction(async (tx) => {
      const [row] = await tx.insert(contents).values({}).returning({ id: contents.id });
      const id = (row as { id: string }).id;
      const chunks: Buffer[] = [];
      for await (const data of inChunks(stream, limit)) {
        hash.update(data);
        await tx.insert(contentChunks).values({ contentId: id, position: chunks.length, data });
        chunks.push(data);
      }
      const whole = Buffer.concat(chunks);
      const facts = await factsOf(whole);
      await tx
        .update(contents)
        .set({ sha256: hash.copy().digest('hex'), bytes: whole.length, ...facts })
        .where(eq(contents.id, id));
      return { id, bytes: whole.length, ...facts, detailsRead: 0 };
    });
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    const known = await db.query.contents.findFirst({ where: eq(contents.sha256, hash.digest('hex')) });
    if (!known) throw error;
    return known;
  }
}

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

async function factsOf(bytes: Uint8Array): Promise<PdfFacts> {
  try {
    return await readFacts(bytes);
  } catch (error) {
    if (error instanceof PdfError) throw new Problem('file-unusable', error.message, { trouble: error.trouble });
    throw error;
  }
}

async function* inChunks(stream: AsyncIterable<Buffer>, limit: number): AsyncGenerator<Buffer> {
  let parts: Buffer[] = [];
  let held = 0;
  let total = 0;
  for await (const part of stream) {
    total += part.length;
    if (total > limit) {
      throw new Problem('body-too-large', `Files of up to ${Math.round(limit / 1024 / 1024)} MB are taken.`);
    }
    parts.push(part);
    held += part.length;
    if (held < CHUNK) continue;
    yield Buffer.concat(parts);
    parts = [];
    held = 0;
  }
  if (held > 0) yield Buffer.concat(parts);
}

/** Drizzle wraps the driver's error as its cause. */
function isDuplicate(error: unknown): boolean {
  const { code, cause } = error as { code?: string; cause?: { code?: string } };
  return code === UNIQUE_VIOLATION || cause?.code === UNIQUE_VIOLATION;
}
