import { fileURLToPath } from 'node:url';
import { countChosen } from '@foglio/core';
import Piscina from 'piscina';
import { Problem } from '../http/problem';
import { sayTicketErrors } from '../jobs/job-store';
import { answer, type Answer, type PlannedDocument, type Question } from './answers';
import type { PlanReport, PlanRequest } from './plan-worker';
import type { Planning } from './planning';

/** Pages of a set from which on a plan is made in a thread of its own: these take some hundredths of a second. */
const MANY_PAGES = 3_000;

/** Threads, and for how long one waits for the next plan, in milliseconds: each holds 50 MB. */
const THREADS = {
  minThreads: 0,
  maxThreads: 2,
  idleTimeout: 30_000,
  resourceLimits: { maxOldGenerationSizeMb: 1_000 },
};

/** Plans on the server: small ones at once, large ones beside it, so that nobody else waits for them. */
export class Plans {
  private readonly threads: Piscina<PlanRequest, PlanReport>;

  /** @param program the thread's: another file in the built server than in its tests */
  constructor(program: string | URL) {
    const filename = program instanceof URL ? fileURLToPath(program) : program;
    this.threads = new Piscina({ ...THREADS, filename });
  }

  /** @throws Problem `ticket-invalid` */
  async ask<Asked extends Question>(
    question: Asked,
    planning: Planning,
    documents: readonly PlannedDocument[],
  ): Promise<Answer<Asked['kind']>> {
    if (weigh(question, planning, documents) < MANY_PAGES) {
      return sayTicketErrors(() => answer(question, planning, documents));
    }
    const report = await this.threads.run({ question, planning, documents });
    if ('answer' in report) return report.answer as Answer<Asked['kind']>;
    const { message, place, position } = report.refused;
    throw new Problem('ticket-invalid', message, { place, position });
  }

  async close(): Promise<void> {
    await this.threads.destroy();
  }
}

/** Plans that are made to find what would have cost less. */
const WAYS = 8;

/** Pages, and sheets that may have to be written out for all sets, that a plan is about; 0 where there will be none. */
function weigh({ kind }: Question, { ticket }: Planning, documents: readonly PlannedDocument[]): number {
  const pages = countChosen(ticket, documents);
  // Each way in which it might have been printed is a plan of its own.
  if (kind === 'spent') return pages * WAYS;
  return kind === 'seen' || kind === 'shipping' || kind === 'pagesSent' ? pages * ticket.copies : pages;
}
