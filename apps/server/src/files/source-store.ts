import { createWriteStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { formFor, type Form, type LaidOut } from '@foglio/core';
import { and, desc, eq, isNotNull, type SQL } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { contents, files, sourceChunks, sources } from '../database/schema';
import type { FileWithHash } from '../pdf/pdf-workers';
import { chunksFrom, chunksOf } from './chunks';

/** A document that was laid out from a source before. */
export interface KnownForm {
  readonly content: typeof contents.$inferSelect;
  readonly laid: LaidOut;
}

/** The form of a source under a name, since lines on its pages may tell that; undefined where it was not laid out so to its end. */
export async function findForm(
  db: Database,
  sourceId: string,
  name: string,
  asked: Form,
): Promise<KnownForm | undefined> {
  const rows = await db
    .select({ laid: files.laid, content: contents })
    .from(files)
    .innerJoin(contents, eq(files.contentId, contents.id))
    .where(and(eq(files.sourceId, sourceId), eq(files.name, name), isNotNull(files.laid)))
    .orderBy(desc(files.createdAt));
  const found = rows.find(
    ({ laid }) => !laid!.unfinished && JSON.stringify(laid!.form) === JSON.stringify(formFor(laid!.kind, asked)),
  );
  const content = found && (await comeAgain(db, eq(contents.id, found.content.id)));
  return content && { content, laid: found.laid! };
}

/**
 * A content that is here already comes once more: it is kept like one that has just come, so that it is not swept before a
 * file refers to it. Undefined where there is none, or not any more.
 */
export async function comeAgain(db: Database, which: SQL): Promise<typeof contents.$inferSelect | undefined> {
  const [content] = await db.update(contents).set({ createdAt: new Date() }).where(which).returning();
  return content;
}

/** The same of a source. */
export async function findSource(
  db: Pick<Database, 'update'>,
  sha256: string,
): Promise<typeof sources.$inferSelect | undefined> {
  const [found] = await db.update(sources).set({ createdAt: new Date() }).where(eq(sources.sha256, sha256)).returning();
  return found;
}

/** Stores a source, once. @returns its id */
export async function storeSource(
  tx: Pick<Database, 'insert' | 'update'>,
  { path, bytes, sha256 }: FileWithHash,
): Promise<string> {
  const [stored] = await tx.insert(sources).values({ sha256, bytes }).onConflictDoNothing().returning();
  if (!stored) {
    // Another upload of the same file was quicker.
    return (await findSource(tx, sha256))!.id;
  }
  for await (const chunk of chunksOf(path)) await tx.insert(sourceChunks).values({ sourceId: stored.id, ...chunk });
  return stored.id;
}

/** Writes the whole of a source to a file. */
export async function fileSource(db: Database, id: string, path: string): Promise<FileWithHash> {
  const source = await db.query.sources.findFirst({ where: eq(sources.id, id) });
  await pipeline(sourceParts(db, id), createWriteStream(path));
  return { path, bytes: source!.bytes, sha256: source!.sha256 };
}

const sourceParts = (db: Database, id: string): AsyncGenerator<Buffer> =>
  chunksFrom((position) =>
    db
      .select({ data: sourceChunks.data })
      .from(sourceChunks)
      .where(and(eq(sourceChunks.sourceId, id), eq(sourceChunks.position, position))),
  );
