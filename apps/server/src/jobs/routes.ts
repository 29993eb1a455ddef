import { createReadStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { inScratchFolder } from '@foglio/pdf';
import { eq } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { jobs } from '../database/schema';
import type { Handlers } from '../http/bind';
import { saveAs } from '../http/download';
import { Problem } from '../http/problem';
import { howItCame, howTheyCame } from '../incoming/came-by';
import { imposeStored } from '../pdf/impose-stored';
import type { PdfWorkers } from '../pdf/pdf-workers';
import { planningNow } from '../plans/planning';
import type { Plans } from '../plans/plans';
import { findPrinter, listPrinters } from '../printers/printer-store';
import { inDraftOfJob } from '../series/series-store';
import { briefer } from './briefs';
import { acceptTicket, documentsOf, findJob, listJobs, saveJob, type StoredJob } from './job-store';

type Names = 'jobs' | 'createJob' | 'job' | 'saveTicket' | 'changePrinter' | 'removeJob' | 'imposedPdf' | 'sheetList';

/** Set-ups with their documents, and the imposed PDF. */
export const jobHandlers = (db: Database, workers: PdfWorkers, plans: Plans): Handlers<Names> => {
  const briefsOf = briefer(db, plans);
  return {
    jobs: async ({ query }) => {
      const { jobs: found, total } = await listJobs(db, query);
      const came = await howTheyCame(
        db,
        found.map(({ id }) => id),
      );
      const briefs = await briefsOf(found);
      return { total, jobs: briefs.map((brief) => ({ ...brief, came: came.get(brief.id) ?? null })) };
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
        const how = { planning, parts: null, raster: null, blanks: 'every-sheet', grey: true } as const;
        const [made] = await imposeStored(db, workers, how, documents, path);
        saveAs(response, query.name ?? planning.ticket.title, '.pdf');
        await pipeline(createReadStream(made!), response);
      });
    },
    sheetList: async ({ params, query, response }) => {
      const { planning, documents } = await toPlan(db, params.id);
      const list = await plans.ask({ kind: 'sheetList' }, planning, documents);
      saveAs(response, query.name ?? planning.ticket.title, '.csv');
      response.end(list);
    },
  };
};

const briefly = ({ id, revision }: StoredJob) => ({ id, revision });

/** What is planned of a job: against its printer as last seen. */
async function toPlan(db: Database, id: string) {
  const { ticket, printerId } = await findJob(db, id);
  const { profile, uri } = await findPrinter(db, printerId);
  const documents = await documentsOf(db, ticket);
  return { documents, planning: planningNow(ticket, profile), address: uri };
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
