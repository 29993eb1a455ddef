import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import type { IncomingHttpHeaders } from 'node:http';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { fileName, knownPages } from '@foglio/api';
import { inScratchFolder } from '@foglio/pdf';
import { desc, eq, sql } from 'drizzle-orm';
import { Router } from 'express';
import type { Database } from '../database/connection';
import { contents, files } from '../database/schema';
import { bodyReader, idOf } from '../http/body';
import { Problem } from '../http/problem';
import type { FileWithHash, PdfWorkers } from '../pdf/pdf-workers';
import { storeContent, streamContent, type StoredContent } from './content-store';
import { enqueueReading } from './reading-queue';

const readName = bodyReader(fileName);
const readKnown = bodyReader(knownPages);

/** `/api/files`: upload, facts, and the bytes. */
export function fileRoutes(db: Database, workers: PdfWorkers, limit: number): Router {
  const router = Router();

  router.post('/', async (request, response) => {
    const { name } = readName(request.query);
    if (Number(request.headers['content-length'] ?? 0) > limit) throw tooLarge(limit);
    const password = passwordIn(request.headers);
    const settled = (id: string): void => void enqueueReading(db, id);
    const content = await inScratchFolder(async (path) => {
      const uploaded = await receive(request, path('uploaded'), limit);
      return storeContent(db, uploaded, workers, { password, settled });
    });
    const [file] = await db.insert(files).values({ contentId: content.id, name }).returning();
    response.status(201).json(fileAnswer(file?.id, name, content));
  });

  router.get('/', async (request, response) => {
    const { name } = readName(request.query);
    const pages = sql<number>`jsonb_array_length(${contents.pages})`;
    const found = await db
      .selectDistinctOn([files.contentId], { id: files.id, name: files.name, bytes: contents.bytes, pages })
      .from(files)
      .innerJoin(contents, eq(files.contentId, contents.id))
      .where(eq(files.name, name))
      .orderBy(files.contentId, desc(files.createdAt));
    response.json(found);
  });

  router.get('/:id', async (request, response) => {
    const { file, content } = await findFile(db, request.params.id);
    response.json(fileAnswer(file.id, file.name, content));
  });

  /** What became known of pages since so many were; at the first time, labels of all pages and the outline too. */
  router.get('/:id/facts', async (request, response) => {
    const { content } = await findFile(db, request.params.id);
    const { from = 0 } = readKnown({ from: Number(request.query['from'] ?? 0) });
    const { detailsRead, pages, outline } = content;
    const first = from === 0 && outline !== null;
    const told = pages.slice(from, first ? pages.length : detailsRead);
    response.json({ read: detailsRead, pages: told, ...(first ? { outline } : {}) });
  });

  router.get('/:id/content', async (request, response) => {
    const { content } = await findFile(db, request.params.id);
    response.type('application/pdf').set('Content-Length', String(content.bytes));
    response.set('Cache-Control', 'private, max-age=31536000, immutable');
    await pipeline(Readable.from(streamContent(db, content.id)), response);
  });

  return router;
}

const fileAnswer = (id: string | undefined, name: string, content: StoredContent) => {
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

async function findFile(db: Database, parameter: string | undefined) {
  const [found] = await db
    .select({ file: files, content: contents })
    .from(files)
    .innerJoin(contents, eq(files.contentId, contents.id))
    .where(eq(files.id, idOf(parameter)));
  if (!found) throw new Problem('not-found', 'This file is not here.');
  return found;
}

/** Writes the whole body to a file. @throws Problem `upload-broken-off`, `body-too-large` */
async function receive(
  request: AsyncIterable<Buffer> & { complete: boolean },
  path: string,
  limit: number,
): Promise<FileWithHash> {
  const hash = createHash('sha256');
  let length = 0;
  async function* counted(): AsyncGenerator<Buffer> {
    for await (const part of request) {
      length += part.length;
      if (length > limit) throw tooLarge(limit);
      hash.update(part);
      yield part;
    }
  }
  try {
    await pipeline(counted, createWriteStream(path));
  } catch (error) {
    if (error instanceof Problem || (error as { code?: string }).code === 'ENOSPC') throw error;
    throw new Problem('upload-broken-off', 'Send it again.');
  }
  if (!request.complete) throw new Problem('upload-broken-off', 'Send it again.');
  return { path, bytes: length, sha256: hash.digest('hex') };
}
