import { createHash } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';
import { constants, setPriority } from 'node:os';
import { momentOf } from '@foglio/core';
import {
  collectOften,
  startPdfium,
  imposeParts,
  noRoom,
  PdfError,
  readDetails,
  rehearse,
  tooMuch,
  writeRaster,
} from '@foglio/pdf';
import {
  BrowserGone,
  layThrough,
  rehearseReading,
  takeInDocument,
  type LayInBrowser,
  type TakenDocument,
} from '@foglio/typeset';
import { diskFull } from '../http/disk-full';
import { planOf, planSent } from '../plans/planning';
import type { BrowserReport } from './browser-keeper';
import type { FileWithHash, PdfReport, PdfRequest } from './pdf-workers';

/**
 * Runs in a process of its own, so that the server answers while it works, and can be ended from outside whatever it is
 * doing. It is started before there is work, waits for one request, and ends with it: nothing of one file is left when
 * the next comes. Files go in and out by their paths, since the server would have to stop to copy them.
 */

/** How long a worker has to be idle before it rehearses, in milliseconds. */
const REHEARSE_AFTER_MS = 1_500;

/**
 * Whether it makes itself ready for work that may come. Where hundreds of workers are started, as in tests, and most of them
 * for nothing, a second for each is not well spent.
 */
const rehearses = process.env['FOGLIO_REHEARSE'] !== 'no';

/** More than a printer takes, in bytes. */
const MOST_OUTPUT = 2 ** 30;

/** Where the server is gone, nobody waits for what comes of it. */
const report = (what: PdfReport): Promise<void> =>
  new Promise((resolve) => process.send?.(what, (error: Error | null) => (error ? process.exit(1) : resolve())));

const bytesOf = async (file: string): Promise<Uint8Array> => new Uint8Array(await readFile(file));

async function work(request: PdfRequest): Promise<void> {
  switch (request.kind) {
    case 'take-in': {
      const source = await bytesOf(request.source);
      const [today] = momentOf(new Date()).split('T') as [string];
      const tell = async (kind: 'begun' | 'taken-in', taken: TakenDocument, target: string) => {
        const { bytes, facts, remarks, laid = null } = taken;
        const made = bytes === source ? null : await make(target, bytes);
        return report({ kind, taken: { made, facts, remarks, laid } });
      };
      const begun = (beginning: TakenDocument) => tell('begun', beginning, `${request.target}.begun`);
      const progress = (done: number, of: number): void => void report({ kind: 'progress', done, of });
      const how = { ...request, today, lay, ...(request.first ? { begun, progress } : {}) };
      return tell('taken-in', await takeInDocument(source, how), request.target);
    }
    case 'read-details':
      // Whoever types or scrolls meanwhile goes first.
      setPriority(constants.priority.PRIORITY_LOW);
      collectOften();
      return readDetails(await bytesOf(request.source), request.pages, (page, details) =>
        report({ kind: 'details', page, details }),
      );
    case 'impose': {
      // One file under two documents is read once, and so its fonts and images stand once.
      const read = new Map<string, Uint8Array>();
      for (const { file } of request.documents) read.set(file, read.get(file) ?? (await bytesOf(file)));
      const documents = request.documents.map((one) => ({ ...one, bytes: read.get(one.file) as Uint8Array }));
      const { planning, parts, raster, ...how } = request.how;
      const whole = planOf(planning, documents);
      const plans = parts ? planSent(whole, planning, parts) : [whole];
      let at = 0;
      for await (const made of imposeParts({ ...how, plans, ticket: planning.ticket, documents })) {
        const target = request.targets[at]!;
        await write(raster ? `${target}.pdf` : target, ...made);
        if (raster) await writeRaster(`${target}.pdf`, target, plans[at]!.sheets, raster);
        at += 1;
      }
      return report({ kind: 'imposed' });
    }
  }
}

/** The server's browser, which it starts where none runs yet; where that has just ended, the next one. */
const lay: LayInBrowser = async (work) => {
  const first = await askForBrowser(null);
  try {
    return await layThrough(first)(work);
  } catch (error) {
    if (!(error instanceof BrowserGone)) throw error;
    return layThrough(await askForBrowser(first))(work);
  }
};

/** @returns where it is reached; @throws PdfError where there is none */
async function askForBrowser(failed: string | null): Promise<string> {
  const told = new Promise<BrowserReport>((resolve) => void process.once('message', resolve));
  await report({ kind: 'browser-wanted', failed });
  const found = await told;
  if ('trouble' in found) throw new PdfError(found.trouble, found.message);
  return found.endpoint;
}

async function make(path: string, bytes: Uint8Array): Promise<FileWithHash> {
  await write(path, bytes);
  return { path, bytes: bytes.length, sha256: createHash('sha256').update(bytes).digest('hex') };
}

async function write(file: string, ...pieces: readonly Uint8Array[]): Promise<void> {
  if (pieces.reduce((sum, { length }) => sum + length, 0) > MOST_OUTPUT) throw tooMuch('room');
  await writeFile(file, pieces);
}

process.once('message', (request: PdfRequest) => {
  clearTimeout(rehearsal);
  void (async () => {
    try {
      await work(request);
    } catch (error) {
      const full = diskFull(error);
      const trouble = full ? noRoom(full) : error;
      if (!(trouble instanceof PdfError)) throw error;
      await report({ kind: 'failed', trouble: trouble.trouble, message: trouble.message });
    }
    process.exit(0);
  })();
});
// Not at once: work that waits for this worker goes first, and whoever started it has other things to do now.
const rehearsal = setTimeout(() => {
  if (rehearses) void rehearse().then(rehearseReading);
}, REHEARSE_AFTER_MS);
// The server is gone: nobody waits for what comes of it.
process.once('disconnect', () => process.exit(1));
if (rehearses) await startPdfium();
