import { createHash } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';
import { getReady, impose, PdfError, readDetails, takeIn, tooMuch } from '@foglio/pdf';
import type { PdfReport, PdfRequest } from './pdf-workers';

/**
 * Runs in a process of its own, so that the server answers while it works, and can be ended from outside whatever it is
 * doing. It is started before there is work, waits for one request, and ends with it: nothing of one file is left when
 * the next comes. Files go in and out by their paths, since the server would have to stop to copy them.
 */

/** More than a printer takes, in bytes. */
const MOST_OUTPUT = 2 ** 30;

const report = (what: PdfReport): Promise<void> =>
  new Promise((resolve, reject) => process.send?.(what, (error: Error | null) => (error ? reject(error) : resolve())));

const bytesOf = async (file: string): Promise<Uint8Array> => new Uint8Array(await readFile(file));

async function work(request: PdfRequest): Promise<void> {
  switch (request.kind) {
    case 'take-in': {
      const source = await bytesOf(request.source);
      const { bytes, facts, remarks } = await takeIn(source, request.password);
      const file = bytes === source ? request.source : request.target;
      if (bytes !== source) await write(file, bytes);
      const sha256 = createHash('sha256').update(bytes).digest('hex');
      return report({ kind: 'taken-in', taken: { file, bytes: bytes.length, sha256, facts, remarks } });
    }
    case 'read-details':
      return readDetails(await bytesOf(request.source), request.pages, (page, details) =>
        report({ kind: 'details', page, details }),
      );
    case 'impose': {
      // One file under two documents is read once, and so its fonts and images stand once.
      const read = new Map<string, Uint8Array>();
      for (const { file } of request.documents) read.set(file, read.get(file) ?? (await bytesOf(file)));
      const documents = request.documents.map((one) => ({ ...one, bytes: read.get(one.file) as Uint8Array }));
      await write(request.target, await impose({ ...request.how, documents }));
      return report({ kind: 'imposed' });
    }
  }
}

async function write(file: string, bytes: Uint8Array): Promise<void> {
  if (bytes.length > MOST_OUTPUT) throw tooMuch('room');
  await writeFile(file, bytes);
}

process.once('message', (request: PdfRequest) => {
  void (async () => {
    try {
      await work(request);
    } catch (error) {
      if (!(error instanceof PdfError)) throw error;
      await report({ kind: 'failed', trouble: error.trouble, message: error.message });
    }
    process.exit(0);
  })();
});
// The server is gone: nobody waits for what comes of it.
process.once('disconnect', () => process.exit(1));
await getReady();
