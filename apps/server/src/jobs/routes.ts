import { createReadStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { informationSheetOf, sheetList, SHEET_LIST_HEAD } from '@foglio/core';
import { inScratchFolder } from '@foglio/pdf';
import { eq } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { jobs } from '../database/schema';
import type { Handlers } from '../http/bind';
import { saveAs, writeCsv } from '../http/download';
import { Problem } from '../http/problem';
import { howAllCame, howItCame } from '../incoming/came-by';
import { IMPOSED, imposeStored } from '../pdf/impose-stored';
import type { PdfWorkers } from '../pdf/pdf-workers';
import { findPrinter, listPrinters, type StoredPrinter } from '../printers/printer-store';
import { inDraftOfJob } from '../series/series-store';
import {
  acceptTicket,
  documentsOf,
  findJob,
  listJobs,
  planTicket,
  readDocumentsOf,
  saveJob,
  type StoredJob,
} from './job-store';

/** Sheets shown of a job in a list. */
const STRIP = 12;

type Names = 'jobs' | 'createJob' | 'job' | 'saveTicket' | 'changePrinter' | 'removeJob' | 'imposedPdf' | 'sheetList';

/** Set-ups with their documents, and the imposed PDF. */
export const jobHandlers = (db: Database, workers: PdfWorkers): Handlers<Names> => ({
  jobs: async () => {
    const printers = await listPrinters(db);
    const came = await howAllCame(db);
    const told = async (job: StoredJob) => ({
      ...(await describeBriefly(db, job, printers)),
      came: came.get(job.id) ?? null,
    });
    return Promise.all((await listJobs(db)).map(told));
  },
  createJob: async ({ body }) => {
    const ticket = await acceptTicket(db, body.ticket);
    const printer = body.printerId ? await findPrinter(db, body.printerId) : (await listPrinters(db))[0];
    if (!printer) throw new Problem('not-found', 'No printer is known yet; add one first.');
    const [job] = await db.insert(jobs).values({ ticket, printerId: printer.id }).returning();
    return describe(db, job as StoredJob);
  },
  job: async ({ params }) => describe(db, await findJob(db, params.id)),
  saveTicket: async ({ params, body }) => {
    const job = await findJob(db, params.id);
    const change = { ticket: await acceptTicket(db, body.ticket) };
    return briefly(await inDraftOfJob(db, job.id, (tx) => saveJob(tx, job.id, body.revision, change)));
  },
  changePrinter: async ({ params, body }) => {
    const job = await findJob(db, params.id);
    const change = { printerId: (await findPrinter(db, body.printerId)).id };
    return briefly(await inDraftOfJob(db, job.id, (tx) => saveJob(tx, job.id, body.revision, change)));
  },
  removeJob: async ({ params }) => {
    const job = await findJob(db, params.id);
    await db.delete(jobs).where(eq(jobs.id, job.id));
  },
  imposedPdf: async ({ params, query, response }) => {
    const { ticket, documents, plan } = await planJob(db, params.id);
    const stop = plan.checks.find((check) => check.level === 'stop');
    if (stop) throw new Problem('stop-stands', stop.message);
    await inScratchFolder(async (path) => {
      await imposeStored(db, workers, { ticket, plan, blanks: 'every-sheet', grey: true }, documents, path);
      saveAs(response, query.name ?? ticket.title, '.pdf');
      await pipeline(createReadStream(path(IMPOSED)), response);
    });
  },
  sheetList: async ({ params, query, response }) => {
    const { ticket, documents, plan, printer } = await planJob(db, params.id);
    saveAs(response, query.name ?? ticket.title, '.csv');
    response.send(writeCsv([SHEET_LIST_HEAD, ...sheetList(plan, documents, printer.profile)]));
  },
});

const briefly = ({ id, revision }: StoredJob) => ({ id, revision });

/** A job as planned against its printer as last seen. */
async function planJob(db: Database, id: string) {
  const { ticket, printerId } = await findJob(db, id);
  const printer = await findPrinter(db, printerId);
  const documents = await readDocumentsOf(db, ticket);
  return { ticket, documents, printer, plan: planTicket(ticket, documents, printer.profile) };
}

async function describe(db: Database, job: StoredJob) {
  const documents = await documentsOf(db, job.ticket);
  const { id, ticket, revision, printerId, updatedAt, lastSentAt } = job;
  return {
    id,
    ticket,
    revision,
    printerId,
    updatedAt,
    lastSentAt,
    documents: documents.map(({ contentId: _, ...document }) => document),
    came: await howItCame(db, id),
  };
}

/** For a list: the totals and the first sheets, or what is wrong with the set-up. */
async function describeBriefly(db: Database, job: StoredJob, printers: readonly StoredPrinter[]) {
  const { id, ticket, printerId, updatedAt, lastSentAt } = job;
  const brief = { id, ticket, printerId, updatedAt, lastSentAt };
  const printer = printers.find((one) => one.id === printerId);
  let isRead = true;
  try {
    const documents = await documentsOf(db, ticket);
    isRead = documents.every(({ outline }) => outline !== undefined);
    const names = documents.map(({ name }) => name);
    if (!printer) return { ...brief, names, trouble: 'Its printer is not known any more.' };
    const plan = planTicket(ticket, documents, printer.profile);
    const { tally } = plan;
    const information = informationSheetOf(plan);
    const strip = [...(information ? [information] : []), ...plan.sheets]
      .slice(0, STRIP)
      .map(({ tray, back, front, paper }) => ({
        tray,
        twoSided: back !== null,
        orientation: front.orientation,
        size: paper.size,
      }));
    return { ...brief, names, sheets: tally.sheets, sheetsPerSet: tally.sheetsPerSet, strip };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return { ...brief, names: [], trouble: isRead ? error.message : 'Its pages are being looked through.' };
  }
}
