import type { IncomingHttpHeaders } from 'node:http';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { inScratchFolder } from '@foglio/pdf';
import { desc, eq, sql } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { contents, files } from '../database/schema';
import type { Handlers } from '../http/bind';
import { idOf } from '../http/body';
import { Problem } from '../http/problem';
import type { FileWithHash, PdfWorkers } from '../pdf/pdf-workers';
import { storeContent, streamContent, type StoredContent } from './content-store';
import { enqueueReading } from './reading-queue';
import { receive } from './receive';

type Names = 'uploadFile' | 'filesNamed' | 'file' | 'newFacts' | 'fileContent';

/** Taking in, facts, and the bytes. */
export const fileHandlers = (db: Database, workers: PdfWorkers, limit: number): Handlers<Names> => ({
  uploadFile: async ({ query: { name }, request }) => {
    if (Number(request.headers['content-length'] ?? 0) > limit) throw tooLarge(limit);
    const password = passwordIn(request.headers);
    const settled = (id: string): void => void enqueueReading(db, id);
    const content = await inScratchFolder(async (path) => {
      const uploaded = await receiveBody(request, path('uploaded'), limit);
      return storeContent(db, uploaded, workers, { password, settled });
    });
    const [file] = await db.insert(files).values({ contentId: content.id, name }).returning();
    return fileAnswer(file!.id, name, content);
  },
  filesNamed: async ({ query: { name } }) => {
    const pages = sql<number>`jsonb_array_length(${contents.pages})`;
    return db
      .selectDistinctOn([files.contentId], { id: files.id, name: files.name, bytes: contents.bytes, pages })
      .from(files)
      .innerJoin(contents, eq(files.contentId, contents.id))
      .where(eq(files.name, name))
      .orderBy(files.contentId, desc(files.createdAt));
  },
  file: async ({ params }) => {
    const { file, content } = await findFile(db, params.id);
    return fileAnswer(file.id, file.name, content);
  },
  // At the first time, labels of all pages and the outline too.
  newFacts: async ({ params, query: { from = 0 } }) => {
    const { content } = await findFile(db, params.id);
    const { detailsRead, pages, outline } = content;
    const first = from === 0 && outline !== null;
    const told = pages.slice(from, first ? pages.length : detailsRead);
    return { read: detailsRead, pages: told, ...(first ? { outline } : {}) };
  },
  fileContent: async ({ params, response }) => {
    const { content } = await findFile(db, params.id);
    response.type('application/pdf').set('Content-Length', String(content.bytes));
    response.set('Cache-Control', 'private, max-age=31536000, immutable');
    await pipeline(Readable.from(streamContent(db, content.id)), response);
  },
});

const fileAnswer = (id: string, name: string, content: StoredContent) => {
  const { sha256, bytes, pages, outline, about, remarks, detailsRead } = content;
  return {
    id,
    name,
    sha256: sha256 ?? content.id,
    bytes,
    pages,
    ...(outline ? { outline } : {}),
    about,
    remarks,
    read: detailsRead,
  };
};

/** A header and not a parameter, since addresses are logged; percent-encoded, since headers are Latin-1. */
function passwordIn(headers: IncomingHttpHeaders): string | null {
  const given = headers['document-password'];
  if (typeof given !== 'string') return null;
  try {
    return decodeURIComponent(given);
  } catch {
    throw new Problem('body-invalid', 'The header Document-Password is not percent-encoded.');
  }
}

const tooLarge = (limit: number): Problem =>
  new Problem('body-too-large', `Files of up to ${Math.round(limit / 1024 / 1024)} MB are taken.`);

async function findFile(db: Database, parameter: string) {
  const [found] = await db
    .select({ file: files, content: contents })
    .from(files)
    .innerJoin(contents, eq(files.contentId, contents.id))
    .where(eq(files.id, idOf(parameter)));
  if (!found) throw new Problem('not-found', 'This file is not here.');
  return found;
}

/** Writes the whole body to a file. @throws Problem `upload-broken-off`, `body-too-large` */
async function receiveBody(
  request: AsyncIterable<Buffer> & { complete: boolean },
  path: string,
  limit: number,
): Promise<FileWithHash> {
  try {
    const file = await receive(request, path, limit, () => tooLarge(limit));
    if (request.complete) return file;
  } catch (error) {
    if (error instanceof Problem || (error as { code?: string }).code === 'ENOSPC') throw error;
  }
  throw new Problem('upload-broken-off', 'Send it again.');
}
