import type { IncomingHttpHeaders } from 'node:http';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Form } from '@foglio/core';
import { readForm } from '@foglio/core/validate';
import { desc, eq, sql } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { contents, files } from '../database/schema';
import type { Handlers } from '../http/bind';
import { diskFull } from '../http/disk-full';
import { Problem } from '../http/problem';
import { sayTicketErrors, shownName } from '../jobs/job-store';
import type { FileWithHash, PdfWorkers } from '../pdf/pdf-workers';
import { stopGrowing, streamContent, type StoredContent } from './content-store';
import { pagesAbout } from '../pdf/looked-at';
import { findFile, layOutFile, readNext, takeIntoStore, type FoundFile } from './lay-out';
import { receive } from './receive';
import { requireRoom } from './room';

type Names = 'uploadFile' | 'layOutFile' | 'stopLayingOut' | 'filesNamed' | 'file' | 'newFacts' | 'fileContent';

/** Taking in, facts, and the bytes. */
export const fileHandlers = (db: Database, workers: PdfWorkers, limit: number): Handlers<Names> => ({
  uploadFile: async ({ query: { name, form, first }, request }) => {
    if (Number(request.headers['content-length'] ?? 0) > limit) throw tooLarge(limit);
    await requireRoom(Number(request.headers['content-length'] ?? 0));
    const password = passwordIn(request.headers);
    const taking = { name, form: formIn(form), first: first ?? false, password, entered: readNext(db) };
    return fileAnswer(await takeIntoStore(db, workers, (path) => receiveBody(request, path, limit), taking));
  },
  layOutFile: async ({ params, body }) => {
    const form = sayTicketErrors(() => readForm(body.form));
    return fileAnswer(await layOutFile(db, workers, await findFile(db, params.id), form, body.first));
  },
  stopLayingOut: async ({ params }) => {
    const found = await findFile(db, params.id);
    stopGrowing(found.file.id);
    return fileAnswer(found);
  },
  filesNamed: async ({ query: { name } }) => {
    const pages = sql<number>`jsonb_array_length(${contents.pages})`;
    // A document in two forms is one.
    const document = sql`coalesce(${files.sourceId}, ${files.contentId})`;
    return db
      .selectDistinctOn([document], { id: files.id, name: files.name, bytes: contents.bytes, pages })
      .from(files)
      .innerJoin(contents, eq(files.contentId, contents.id))
      .where(eq(files.name, name))
      .orderBy(document, desc(files.createdAt));
  },
  file: async ({ params }) => {
    return fileAnswer(await findFile(db, params.id));
  },
  // At the first time, labels of all pages and the outline too.
  newFacts: async ({ params, query: { from = 0, look } }) => {
    const { content } = await findFile(db, params.id);
    const { detailsRead, pages, outline } = content;
    const first = from === 0;
    const told = pages.slice(from, first ? pages.length : detailsRead);
    const seen = look === undefined ? {} : lookedAt(workers, content, look);
    return { read: detailsRead, pages: told, ...(first ? { outline } : {}), ...seen };
  },
  fileContent: async ({ params, response }) => {
    const { content } = await findFile(db, params.id);
    response.type('application/pdf').set('Content-Length', String(content.bytes));
    response.set('Cache-Control', 'private, max-age=31536000, immutable');
    await pipeline(Readable.from(streamContent(db, content.id)), response);
  },
});

/** What is known by now about a page that is looked at, ahead of those before it; what is not is read next. */
function lookedAt({ lookedAt: looked }: PdfWorkers, { id, pages, detailsRead }: StoredContent, page: number) {
  const about = pagesAbout(page, pages.length).filter((one) => one > detailsRead);
  if (about.length === 0) return {};
  looked.look(id, page);
  return { ahead: { from: about[0]!, pages: about.map((one) => pages[one - 1]!) } };
}

const fileAnswer = ({ file: { id, name, laid }, content }: FoundFile) => {
  const { sha256, bytes, pages, outline, about, remarks, detailsRead } = content;
  return {
    id,
    name: shownName(name, laid),
    sha256: sha256 ?? content.id,
    bytes,
    pages,
    outline,
    about,
    remarks,
    ...(laid ? { laid } : {}),
    read: detailsRead,
  };
};

/** As JSON, since it has parts. */
function formIn(text: string | undefined): Form {
  if (text === undefined) return {};
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    throw new Problem('body-invalid', 'The parameter form is not JSON.');
  }
  return sayTicketErrors(() => readForm(data));
}

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
    if (error instanceof Problem || diskFull(error)) throw error;
  }
  throw new Problem('upload-broken-off', 'Send it again.');
}
