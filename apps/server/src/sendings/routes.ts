import type { DeliveredSheet, SendingAct, Described, toSend } from '@foglio/api';
import { firstPortion, momentOf, type Portion } from '@foglio/core';
import { holdJob, IppError, releaseJob, type PrinterAddress } from '@foglio/ipp';
import type { Database } from '../database/connection';
import { WrittenJson, type Handlers } from '../http/bind';
import { cautionsStand, Problem } from '../http/problem';
import { documentsOf, findJob } from '../jobs/job-store';
import type { Plans } from '../plans/plans';
import { addressOf } from '../printers/access';
import { askPanel, passOn } from '../printers/panel';
import { askNow, findPrinter } from '../printers/printer-store';
import {
  changeSending,
  describeSending,
  enteredWith,
  findSending,
  isOver,
  listSendings,
  momentOfPrinting,
  passesAt,
  type StoredSending,
} from './sending-store';
import { userOf } from './as-known';
import { cancelSending } from './cancel';
import { enqueueSending } from './enqueue';
import { enterSending } from './enter';
import { placeSending } from './place';
import { afterAllCameOut } from './follow';

const MOST_LISTED = 200;

type Names =
  | 'sendings'
  | 'placeSending'
  | 'send'
  | 'sending'
  | SendingAct
  | 'sheets'
  | 'seen'
  | 'stack'
  | 'sendingDocument';

/** Sending, how it goes, and what came out. */
export function sendingHandlers(db: Database, plans: Plans): Handlers<Names> {
  const find = (id: string): Promise<StoredSending> => findSending(db, id);
  return {
    sendings: async () => (await listSendings(db, MOST_LISTED)).map(describeSending),
    send: async ({ body }) => describeSending(await send(db, plans, body)),
    sending: async ({ params }) => describeSending(await find(params.id)),
    placeSending: async ({ params, body }) =>
      describeSending(await placeSending(db, await find(params.id), body.before)),
    again: async ({ params, body: { key, by, marks } }) => {
      const earlier = await find(params.id);
      if (!isOver(earlier)) throw new Problem('sending-not-over', 'Wait until it is over, or cancel it.');
      const userName = by ?? earlier.userName;
      const values = marks ? await portionOf(db, plans, earlier, marks) : allOf(earlier);
      const again = { ...values, key, userName, againOf: earlier.id };
      return describeSending(await db.transaction((tx) => enterSending(tx, again)));
    },
    'other-sets': async ({ params, body: { key, by } }) =>
      describeSending(await sendOthers(db, plans, await find(params.id), key, by)),
    'first-alone': async ({ params }) => describeSending(await leaveAtFirst(db, await find(params.id))),
    'came-out': async ({ params }) => describeSending(await cameOut(db, await find(params.id))),
    cancel: async ({ params }) => describeSending(await cancelSending(db, await find(params.id))),
    'first-pass': async ({ params, body }) => describeSending(await beginPass(db, params.id, 1, body.key)),
    'second-pass': async ({ params, body }) => describeSending(await beginPass(db, params.id, 2, body.key)),
    hold: async ({ params }) => describeSending(await changeAtPrinter(db, params.id, holdJob)),
    release: async ({ params }) => {
      const before = await passesAt(db, await find(params.id));
      if (before) {
        const detail = `Release it when the backs of “${before.ticket.title}” are printed: it would come onto their stack.`;
        throw new Problem('printer-refuses', detail);
      }
      return describeSending(await changeAtPrinter(db, params.id, releaseJob));
    },
    sheets: async ({ params }) => {
      const sending = await find(params.id);
      const { ticket, profile: printer, portion, sheetsDone: done } = sending;
      const planning = { ticket, printer, moment: momentOfPrinting(sending), pass: null, portion: null };
      return new WrittenJson(
        await plans.ask({ kind: 'sheets', portion, done }, planning, await documentsOf(db, ticket)),
      );
    },
    seen: async ({ params }) => {
      const sending = await find(params.id);
      const { ticket, profile: printer } = sending;
      const planning = { ticket, printer, moment: momentOfPrinting(sending), pass: null, portion: sending.portion };
      return new WrittenJson(await plans.ask({ kind: 'seen' }, planning, await documentsOf(db, ticket)));
    },
    stack: async ({ params }) => {
      const sending = await find(params.id);
      if (sending.printerJobs.length === 0) throw new Problem('not-found', 'Nothing has reached the printer yet.');
      return { ...(await stackOf(db, sending)), ...(await namesOf(db, plans, sending)) };
    },
    sendingDocument: async ({ params: { id, job, document }, response }) => {
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
  plans: Plans,
  { jobId, revision, sheets, confirmed = [], key, seal, by }: Described<typeof toSend>,
): Promise<StoredSending> {
  const entered = await enteredWith(db, key, jobId);
  if (entered) return entered;
  const job = await findJob(db, jobId);
  if (job.revision !== revision) {
    throw new Problem('job-changed', 'The job was changed after this; look at its sheets again, then send.');
  }
  const printer = await findPrinter(db, job.printerId);
  const { profile } = await askNow(db, printer);
  const documents = await documentsOf(db, job.ticket);
  const moment = seal?.moment ?? momentOf(new Date());
  const { ticket, printerId } = job;
  const planning = { ticket, printer: profile, moment, pass: null, portion: null };
  const asked = { kind: 'fitness', address: printer.uri, seal: seal ?? null } as const;
  const now = await plans.ask(asked, planning, documents);
  if (now.tally.sheets !== sheets) {
    throw new Problem(
      'plan-changed',
      `It now comes to ${now.tally.sheets} sheets, not ${sheets}; look again, then send.`,
    );
  }
  if (now.differs !== null) {
    const detail = `Since you looked, this changed: ${now.differs}. Look at the sheets again, then send.`;
    throw new Problem('plan-changed', detail);
  }
  const stop = now.checks.find((check) => check.level === 'stop');
  if (stop) throw new Problem('stop-stands', stop.message, { check: stop.code });
  const cautions = now.checks.filter((check) => check.level === 'caution' && !confirmed.includes(check.code));
  if (cautions.length > 0) throw cautionsStand(cautions);
  const portion = firstPortion(ticket);
  const first = portion ? await plans.ask({ ...asked, seal: null }, { ...planning, portion }, documents) : now;
  const { tally, pass, handling } = first;
  const made = { ticket, profile, sheets: tally.sheets, sides: tally.sides, tally, pass, handling, portion };
  const values = { key, moment, jobId: job.id, printerId, userName: by ?? null, ...made };
  return db.transaction((tx) => enterSending(tx, values));
}

/** A sending once more, as it was. */
const allOf = ({
  jobId,
  printerId,
  ticket,
  profile,
  sheets,
  sides,
  tally,
  handling,
  portion,
  partOf,
}: StoredSending) => ({
  ...{ jobId, printerId, ticket, profile, sheets, sides, tally, handling, portion, partOf },
  pass: handling === null ? null : (1 as const),
});

/** Another portion of what a sending is of, with the texts that stand on it. @throws Problem `body-invalid` where there are no such sheets */
async function portionOf(db: Database, plans: Plans, earlier: StoredSending, portion: Portion) {
  const { id, ticket, profile } = earlier;
  const documents = await documentsOf(db, ticket);
  const moment = momentOfPrinting(earlier);
  const planning = { ticket, printer: profile, moment, pass: null, portion };
  const asked = { kind: 'fitness', address: '', seal: null } as const;
  const { tally, pass, handling } = await plans.ask(asked, planning, documents);
  const { sheets, sides } = tally;
  if (sheets === 0) throw new Problem('body-invalid', 'None of these sheets is there: look at their numbers again.');
  return { ...allOf(earlier), moment, sheets, sides, tally, pass, handling, portion, partOf: id };
}

/** The others of which the first set was looked at; both change together. What comes again with its key is told what the first one entered. */
async function sendOthers(
  db: Database,
  plans: Plans,
  first: StoredSending,
  key: string | undefined,
  by: string | undefined,
): Promise<StoredSending> {
  const values = await portionOf(db, plans, first, 'other-sets');
  return db.transaction(async (tx) => {
    const ended = await endProof(tx, first.id);
    if (ended) return enterSending(tx, { ...values, key, userName: by ?? first.userName });
    const known = await enteredWith(tx, key, first.jobId);
    if (known) return known;
    throw nothingHeld();
  });
}

const endProof = (db: Database, id: string): Promise<StoredSending | null> =>
  changeSending(db, id, ['proofed'], { state: 'completed', message: null });

const nothingHeld = (): Problem =>
  new Problem('sending-not-over', 'It has no sets that wait until the first was looked at.');

/** @throws Problem `sending-not-over` */
async function leaveAtFirst(db: Database, { id }: StoredSending): Promise<StoredSending> {
  const ended = await endProof(db, id);
  if (ended) return ended;
  const now = await findSending(db, id);
  // Said twice, it is said.
  if (now.portion === 'first-set' && now.state === 'completed') return now;
  throw nothingHeld();
}

/** A person looked, and all of it lies there: after fronts the stack is to go back in. @throws Problem `sending-not-over` */
async function cameOut(db: Database, sending: StoredSending): Promise<StoredSending> {
  const { id, sheets } = sending;
  const change = { state: afterAllCameOut(sending), message: null, sheetsDone: sheets } as const;
  const changed = await changeSending(db, id, ['uncertain'], change);
  if (changed) return changed;
  const now = await findSending(db, id);
  // Said twice, it is said.
  if (now.state === change.state) return now;
  throw new Problem('sending-not-over', 'What came of it is known, or is still to come.');
}

/** The stack is in again, so its backs can be printed; or the fronts went wrong and are printed once more. @throws Problem */
async function beginPass(db: Database, id: string, pass: 1 | 2, key?: string): Promise<StoredSending> {
  const { id: known, printerJobs, earlierJobs, pass: at } = await findSending(db, id);
  // A second pass that was broken off before anything of it was printed begins once more over the same fronts.
  const fronts = at === 1 ? printerJobs : earlierJobs;
  return db.transaction(async (tx) => {
    const begun = await changeSending(tx, known, ['turning'], {
      state: 'queued',
      pass,
      passKey: key ?? null,
      printerJobs: [],
      earlierJobs: pass === 2 ? fronts : [],
      jobEnds: {},
      sheetsDone: 0,
      message: null,
    });
    if (!begun) {
      // It was begun with this very request, whose answer was lost.
      const now = await findSending(db, id);
      if (key !== undefined && now.passKey === key) return now;
      throw new Problem('sending-not-over', 'It does not wait for its stack to be put back.');
    }
    await enqueueSending(tx, begun);
    return begun;
  });
}

/** Holds or releases the jobs of a sending that the printer has and has not begun. @throws Problem */
async function changeAtPrinter(
  db: Database,
  id: string,
  change: (printer: PrinterAddress, job: number, user: string) => Promise<void>,
): Promise<StoredSending> {
  const sending = await findSending(db, id);
  if (isOver(sending)) throw new Problem('sending-over', 'There is nothing left to print of it.');
  if (sending.printerJobs.length === 0) throw new Problem('sending-not-over', 'The printer has not got it yet.');
  const printer = await findPrinter(db, sending.printerId);
  const outcomes = await Promise.allSettled(
    sending.printerJobs.map((job) => change(addressOf(printer), job, userOf(sending))),
  );
  if (outcomes.every(({ status }) => status === 'rejected')) {
    const [first] = outcomes;
    const error: unknown = first?.status === 'rejected' ? first.reason : null;
    if (error instanceof IppError) throw new Problem('printer-refuses', `${printer.name}: ${error.message}`);
    throw error;
  }
  return sending;
}

interface PanelJob {
  readonly sheets: number | null;
  readonly delivered: readonly DeliveredSheet[];
}

/** The output of all jobs of a sending, one on the other. */
async function stackOf(db: Database, sending: StoredSending) {
  const jobs: PanelJob[] = [];
  for (const job of sending.printerJobs) jobs.push((await (await panelOf(db, sending, job)).json()) as PanelJob);
  const delivered = jobs.flatMap((job) => job.delivered).map((sheet, index) => ({ ...sheet, index: index + 1 }));
  return { sheets: sending.sheets, delivered };
}

/** What stands on the pages of the files that a sending went as; nothing where that cannot be planned any more. */
async function namesOf(db: Database, plans: Plans, sending: StoredSending) {
  const { ticket, profile: printer, portion, pass, earlierJobs, printerJobs } = sending;
  const moment = momentOfPrinting(sending);
  try {
    const documents = await documentsOf(db, ticket);
    const ofPass = async (at: 1 | 2 | null, numbers: readonly number[]) => {
      const sent = await plans.ask({ kind: 'pagesSent' }, { ticket, printer, moment, pass: at, portion }, documents);
      return sent.flatMap((one) => {
        // Of a job that is not at the printer yet nothing came out.
        const job = numbers[one.job - 1];
        return job === undefined ? [] : [{ ...one, job }];
      });
    };
    const fronts = pass === 2 ? await ofPass(1, earlierJobs) : [];
    const pages = [...fronts, ...(await ofPass(pass, printerJobs))];
    return { documents: documents.map(({ name }) => name), pages };
  } catch (error) {
    if (error instanceof Problem) return {};
    throw error;
  }
}

/** What a simulated printer keeps of a job of this sending. @throws Problem where it is a real printer, or away */
async function panelOf(db: Database, sending: StoredSending, job: number, part = ''): Promise<Response> {
  if (![...sending.earlierJobs, ...sending.printerJobs].includes(job))
    throw new Problem('not-found', 'This sending has no such job.');
  return askPanel(await findPrinter(db, sending.printerId), `/jobs/${job}${part}`);
}
