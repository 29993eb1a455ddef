import { createReadStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { momentOf, type Printer, type Ticket } from '@foglio/core';
import { inScratchFolder } from '@foglio/pdf';
import { eq } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { jobs } from '../database/schema';
import type { Handlers } from '../http/bind';
import { saveAs } from '../http/download';
import { Problem } from '../http/problem';
import { howAllCame, howItCame } from '../incoming/came-by';
import { IMPOSED, imposeStored } from '../pdf/impose-stored';
import type { PdfWorkers } from '../pdf/pdf-workers';
import type { Planning } from '../plans/planning';
import type { Plans } from '../plans/plans';
import { findPrinter, listPrinters, type StoredPrinter } from '../printers/printer-store';
import { inDraftOfJob } from '../series/series-store';
import { acceptTicket, documentsOf, findJob, listJobs, readDocumentsOf, saveJob, type StoredJob } from './job-store';

type Names = 'jobs' | 'createJob' | 'job' | 'saveTicket' | 'changePrinter' | 'removeJob' | 'imposedPdf' | 'sheetList';

/** Set-ups with their documents, and the imposed PDF. */
export const jobHandlers = (db: Database, workers: PdfWorkers, plans: Plans): Handlers<Names> => ({
  jobs: async () => {
    const printers = await listPrinters(db);
    const came = await howAllCame(db);
    const told = async (job: StoredJob) => ({
      ...(await describeBriefly({ db, plans }, job, printers)),
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
    const { planning, documents, address } = await toPlan(db, params.id);
    const { checks } = await plans.ask({ kind: 'fitness', address, seal: null }, planning, documents);
    const stop = checks.find((check) => check.level === 'stop');
    if (stop) throw new Problem('stop-stands', stop.message);
    await inScratchFolder(async (path) => {
      await imposeStored(db, workers, { planning, part: null, blanks: 'every-sheet', grey: true }, documents, path);
      saveAs(response, query.name ?? planning.ticket.title, '.pdf');
      await pipeline(createReadStream(path(IMPOSED)), response);
    });
  },
  sheetList: async ({ params, query, response }) => {
    const { planning, documents } = await toPlan(db, params.id);
    const list = await plans.ask({ kind: 'sheetList' }, planning, documents);
    saveAs(response, query.name ?? planning.ticket.title, '.csv');
    response.end(list);
  },
});

interface Parts {
  readonly db: Database;
  readonly plans: Plans;
}

const briefly = ({ id, revision }: StoredJob) => ({ id, revision });

/** What is planned of a job: against its printer as last seen. */
async function toPlan(db: Database, id: string) {
  const { ticket, printerId } = await findJob(db, id);
  const { profile, uri } = await findPrinter(db, printerId);
  const documents = await readDocumentsOf(db, ticket);
  return { documents, planning: planNow(ticket, profile), address: uri };
}

const planNow = (ticket: Ticket, printer: Printer): Planning => ({
  ticket,
  printer,
  moment: momentOf(new Date()),
  pass: null,
});

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
async function describeBriefly({ db, plans }: Parts, job: StoredJob, printers: readonly StoredPrinter[]) {
  const { id, ticket, printerId, updatedAt, lastSentAt } = job;
  const brief = { id, ticket, printerId, updatedAt, lastSentAt };
  const printer = printers.find((one) => one.id === printerId);
  let isRead = true;
  try {
    const documents = await documentsOf(db, ticket);
    isRead = documents.every(({ outline }) => outline !== undefined);
    const names = documents.map(({ name }) => name);
    if (!printer) return { ...brief, names, trouble: 'Its printer is not known any more.' };
    return { ...brief, names, ...(await plans.ask({ kind: 'brief' }, planNow(ticket, printer.profile), documents)) };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return { ...brief, names: [], trouble: isRead ? error.message : 'Its pages are being looked through.' };
  }
}
