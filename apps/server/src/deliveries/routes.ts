import type { DeliveredSheet, DeliveryAct, Described, sending } from '@foglio/api';
import { momentOf, sayDifference, sealOf, type Plan, type Seal, type Sealed } from '@foglio/core';
import { asSeen, cancelJob, holdJob, IppError, releaseJob, shipmentOf } from '@foglio/ipp';
import { eq } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { type deliveries, jobs } from '../database/schema';
import type { Handlers } from '../http/bind';
import { cautionsStand, Problem } from '../http/problem';
import { documentsOf, findJob, planTicket, readDocumentsOf } from '../jobs/job-store';
import { askPanel, passOn } from '../printers/panel';
import { askNow, findPrinter } from '../printers/printer-store';
import {
  cancelUnsent,
  changeDelivery,
  describeDelivery,
  enteredWith,
  enterOnce,
  findDelivery,
  isOver,
  listDeliveries,
  momentOfPrinting,
  passesAt,
  type StoredDelivery,
} from './delivery-store';
import { enqueueDelivery } from './enqueue';

const MOST_LISTED = 200;

type Names = 'deliveries' | 'send' | 'delivery' | DeliveryAct | 'seen' | 'stack' | 'deliveryDocument';

/** Sending, how it goes, and what came out. */
export function deliveryHandlers(db: Database): Handlers<Names> {
  const find = (id: string): Promise<StoredDelivery> => findDelivery(db, id);
  return {
    deliveries: async () => (await listDeliveries(db, MOST_LISTED)).map(describeDelivery),
    send: async ({ body }) => describeDelivery(await send(db, body)),
    delivery: async ({ params }) => describeDelivery(await find(params.id)),
    again: async ({ params, body: { key } }) => {
      const earlier = await find(params.id);
      if (!isOver(earlier)) throw new Problem('delivery-not-over', 'Wait until it is over, or cancel it.');
      const { jobId, printerId, ticket, profile, sheets, handling } = earlier;
      const pass = handling === null ? null : 1;
      return describeDelivery(await enter(db, { key, jobId, printerId, ticket, profile, sheets, handling, pass }));
    },
    cancel: async ({ params }) => describeDelivery(await cancel(db, await find(params.id))),
    'first-pass': async ({ params, body }) => describeDelivery(await beginPass(db, params.id, 1, body.key)),
    'second-pass': async ({ params, body }) => describeDelivery(await beginPass(db, params.id, 2, body.key)),
    hold: async ({ params }) => describeDelivery(await changeAtPrinter(db, params.id, holdJob)),
    release: async ({ params }) => {
      const before = await passesAt(db, await find(params.id));
      if (before) {
        const detail = `Release it when the backs of “${before.ticket.title}” are printed: it would come onto their stack.`;
        throw new Problem('printer-refuses', detail);
      }
      return describeDelivery(await changeAtPrinter(db, params.id, releaseJob));
    },
    seen: async ({ params }) => {
      const delivery = await find(params.id);
      const { ticket, profile } = delivery;
      const plan = planTicket(ticket, await documentsOf(db, ticket), profile, momentOfPrinting(delivery));
      const { way, reason, jobs } = shipmentOf(plan, ticket, profile);
      return { way, reason, jobs: jobs.length, sheets: asSeen({ way, reason, jobs }) };
    },
    stack: async ({ params }) => {
      const delivery = await find(params.id);
      if (delivery.printerJobs.length === 0) throw new Problem('not-found', 'Nothing has reached the printer yet.');
      return stackOf(db, delivery);
    },
    deliveryDocument: async ({ params: { id, job, document }, response }) => {
      await passOn(await panelOf(db, await find(id), Number(job), `/documents/${Number(document)}`), response);
    },
  };
}

/**
 * Accepts a job for sending, if it is still what the person saw: the same revision, and the same seal when planned against
 * the printer as it is now. What was entered with this key is given again, whatever became of the job since.
 */
async function send(
  db: Database,
  { jobId, revision, sheets, confirmed = [], key, seal }: Described<typeof sending>,
): Promise<StoredDelivery> {
  const entered = await enteredWith(db, key, jobId);
  if (entered) return entered;
  const job = await findJob(db, jobId);
  if (job.revision !== revision) {
    throw new Problem('job-changed', 'The job was changed after this; look at its sheets again, then send.');
  }
  const printer = await findPrinter(db, job.printerId);
  const { profile } = await askNow(db, printer);
  const documents = await readDocumentsOf(db, job.ticket);
  const moment = seal?.moment ?? momentOf(new Date());
  const plan = planTicket(job.ticket, documents, profile, moment);
  if (plan.tally.sheets !== sheets) {
    throw new Problem(
      'plan-changed',
      `It now comes to ${plan.tally.sheets} sheets, not ${sheets}; look again, then send.`,
    );
  }
  if (seal) requireSeen(seal, { plan, ticket: job.ticket, documents, printer: profile, address: printer.uri, moment });
  const stop = plan.checks.find((check) => check.level === 'stop');
  if (stop) throw new Problem('stop-stands', stop.message, { check: stop.code });
  const cautions = plan.checks.filter((check) => check.level === 'caution' && !confirmed.includes(check.code));
  if (cautions.length > 0) throw cautionsStand(cautions);
  const { ticket, printerId } = job;
  return enter(db, { key, moment, jobId: job.id, printerId, ticket, profile, sheets, ...passesOf(plan) });
}

/** @throws Problem `plan-changed` where what reaches paper is not what was seen */
function requireSeen(seal: Seal, now: Sealed): void {
  const differs = sayDifference(seal, sealOf(now));
  if (differs === null) return;
  throw new Problem('plan-changed', `Since you looked, this changed: ${differs}. Look at the sheets again, then send.`);
}

/** Of a job in two passes: where it begins. */
const passesOf = ({ passes }: Pick<Plan, 'passes'>) =>
  passes ? ({ pass: 1, handling: passes[1].handling } as const) : { pass: null, handling: null };

/** The delivery and its place in the queue are entered together: either both are there, or neither. */
async function enter(db: Database, values: typeof deliveries.$inferInsert): Promise<StoredDelivery> {
  return db.transaction(async (tx) => {
    const { delivery: entered, isNew } = await enterOnce(tx, values);
    if (!isNew) return entered;
    if (values.jobId) await tx.update(jobs).set({ lastSentAt: new Date() }).where(eq(jobs.id, values.jobId));
    await enqueueDelivery(tx, entered);
    return entered;
  });
}

async function cancel(db: Database, delivery: StoredDelivery): Promise<StoredDelivery> {
  const unsent = await cancelUnsent(db, delivery.id);
  if (unsent) return unsent;
  const current = await findDelivery(db, delivery.id);
  if (isOver(current)) throw new Problem('delivery-over', 'There is nothing left to cancel.');
  if (current.printerJobs.length === 0)
    throw new Problem('delivery-not-over', 'It is just being sent; try again in a moment.');
  const printer = await findPrinter(db, current.printerId);
  // Of several jobs those already printed cannot be cancelled any more.
  const outcomes = await Promise.allSettled(current.printerJobs.map((job) => cancelJob(printer.uri, job, 'foglio')));
  const refused = outcomes.flatMap((one) => (one.status === 'rejected' ? [one.reason as unknown] : []));
  if (refused.length === outcomes.length) {
    const [error] = refused;
    if (error instanceof IppError) throw new Problem('printer-away', `${printer.name}: ${error.message}`);
    throw error;
  }
  // A sending that the cancelling broke off may have been entered as failed already.
  await changeDelivery(db, delivery.id, ['sending', 'failed'], { state: 'canceled', message: null });
  return findDelivery(db, delivery.id);
}

/** The stack is in again, so its backs can be printed; or the fronts went wrong and are printed once more. @throws Problem */
async function beginPass(db: Database, id: string, pass: 1 | 2, key?: string): Promise<StoredDelivery> {
  const { id: known, printerJobs, earlierJobs, pass: at } = await findDelivery(db, id);
  // A second pass that was broken off before anything of it was printed begins once more over the same fronts.
  const fronts = at === 1 ? printerJobs : earlierJobs;
  return db.transaction(async (tx) => {
    const begun = await changeDelivery(tx, known, ['turning'], {
      state: 'queued',
      pass,
      passKey: key ?? null,
      printerJobs: [],
      earlierJobs: pass === 2 ? fronts : [],
      sheetsDone: 0,
      message: null,
    });
    if (!begun) {
      // It was begun with this very request, whose answer was lost.
      const now = await findDelivery(db, id);
      if (key !== undefined && now.passKey === key) return now;
      throw new Problem('delivery-not-over', 'It does not wait for its stack to be put back.');
    }
    await enqueueDelivery(tx, begun);
    return begun;
  });
}

/** Holds or releases the jobs of a delivery that the printer has and has not begun. @throws Problem */
async function changeAtPrinter(
  db: Database,
  id: string,
  change: (printerUri: string, job: number, user: string) => Promise<void>,
): Promise<StoredDelivery> {
  const delivery = await findDelivery(db, id);
  if (isOver(delivery)) throw new Problem('delivery-over', 'There is nothing left to print of it.');
  if (delivery.printerJobs.length === 0) throw new Problem('delivery-not-over', 'The printer has not got it yet.');
  const printer = await findPrinter(db, delivery.printerId);
  const outcomes = await Promise.allSettled(delivery.printerJobs.map((job) => change(printer.uri, job, 'foglio')));
  if (outcomes.every(({ status }) => status === 'rejected')) {
    const [first] = outcomes;
    const error: unknown = first?.status === 'rejected' ? first.reason : null;
    if (error instanceof IppError) throw new Problem('printer-refuses', `${printer.name}: ${error.message}`);
    throw error;
  }
  return delivery;
}

interface PanelJob {
  readonly sheets: number | null;
  readonly delivered: readonly DeliveredSheet[];
}

/** The output of all jobs of a delivery, one on the other. */
async function stackOf(db: Database, delivery: StoredDelivery) {
  const jobs: PanelJob[] = [];
  for (const job of delivery.printerJobs) jobs.push((await (await panelOf(db, delivery, job)).json()) as PanelJob);
  const delivered = jobs.flatMap((job) => job.delivered).map((sheet, index) => ({ ...sheet, index: index + 1 }));
  return { sheets: delivery.sheets, delivered };
}

/** What a simulated printer keeps of a job of this delivery. @throws Problem where it is a real printer, or away */
async function panelOf(db: Database, delivery: StoredDelivery, job: number, part = ''): Promise<Response> {
  if (![...delivery.earlierJobs, ...delivery.printerJobs].includes(job))
    throw new Problem('not-found', 'This sending has no such job.');
  return askPanel(await findPrinter(db, delivery.printerId), `/jobs/${job}${part}`);
}
