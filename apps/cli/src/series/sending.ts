import { createHash } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { userInfo } from 'node:os';
import {
  isGreyByItself,
  momentOf,
  partOf,
  rasterFor,
  sayDifference,
  whyUnfit,
  type Printer,
  type Ticket,
} from '@foglio/core';
import {
  askJob,
  askProfile,
  askStatus,
  cancelJob,
  dropIncoming,
  IppError,
  sayFaults,
  sendShipment,
  shipmentOf,
  STATUS,
  type JobStatus,
  type Marked,
  type PrinterAddress,
} from '@foglio/ipp';
import { impose, inFormat } from '@foglio/pdf';
import { planAt } from '@foglio/sentence';
import { InputError } from '../input-error';
import type { Opening } from '../document-file';
import type { Job } from '../job-file';
import type { Journal, Note } from './journal';
import { openRow, outcomeOf, type OpenRow, type Row } from './row';

/** Files that the printer has before they are printed: one that it prints and the next, so that it never waits. */
const AHEAD = 2;
const ASK_EVERY_MS = 200;
const ASK_AGAIN_MS = 2000;
const ENDED = ['completed', 'canceled', 'aborted'];

export interface Sending {
  readonly setup: Ticket;
  readonly address: PrinterAddress;
  readonly journal: Journal;
  readonly opening: Opening;
  readonly say: (text: string) => void;
}

/** The series cannot go on before a person has looked at what came of a file. */
export class SeriesStopped extends Error {
  override readonly name = 'SeriesStopped';
}

/**
 * Sends files one after the other, and follows them until they have come out. What the journal says is done is not done
 * again; what was begun is settled with the printer first.
 */
export class Sender {
  /** Sent and not over yet, in order. */
  private open: Note[] = [];
  private readonly user = userInfo().username;
  private lastFault = '';

  constructor(private readonly sending: Sending) {}

  /** @throws SeriesStopped; IppError where the printer refuses it or is away */
  async send(row: Row): Promise<void> {
    const { journal, say } = this.sending;
    const known = journal.of({ file: row.path, sha256: row.sha256 });
    if (known?.state === 'over') return;
    if (known?.state === 'sent') {
      this.open.push(known);
      return;
    }
    await this.follow(AHEAD - 1);
    const note = await this.transmit(row, known);
    this.open.push(note);
    say(`${row.name}: ${note.sheets} sheets, job ${note.jobs.join(' ')}`);
  }

  /** Waits until no more than so many files are at the printer. @throws SeriesStopped */
  async follow(most = 0): Promise<void> {
    for (;;) {
      const still: Note[] = [];
      for (const note of this.open) {
        const over = await this.look(note);
        if (!over) still.push(note);
      }
      this.open = still;
      if (still.length <= most) return;
      await wait(ASK_EVERY_MS);
    }
  }

  private async transmit(row: Row, known: Note | null): Promise<Note> {
    const { setup, address, journal, opening } = this.sending;
    const { ticket, documents } = await openRow(row, setup, opening);
    const printer = await this.stillAsPlanned(row, { ticket, documents });
    const planned = planAt(ticket, documents, printer, momentOf(new Date()));
    const shipment = shipmentOf(planned, ticket, printer);
    const jobName = row.name;
    const marked = { mark: markOf(row), userName: this.user };
    const jobs = known ? await this.settle(known, marked) : [];
    let note: Omit<Note, 'at'> = {
      file: row.path,
      sha256: row.sha256,
      state: 'begun',
      jobs,
      pages: row.pages,
      sheets: planned.tally.sheets,
      delivered: 0,
      outcome: 'being sent',
      remark: null,
    };
    const keep = (change: Partial<Note>): void => {
      note = journal.note({ ...note, ...change });
    };
    keep({});
    const grey = !isGreyByItself(ticket, printer);
    const raster = rasterFor(shipment.format, ticket, printer);
    await sendShipment({
      address,
      printer,
      shipment,
      documentOf: async ({ sheets }) => {
        const plan = partOf(planned, sheets);
        return inFormat(await impose({ plan, ticket, documents, blanks: 'none', grey }), sheets, raster);
      },
      jobName,
      ...marked,
      sent: jobs.length,
      onCreated: (job) => Promise.resolve(keep({ jobs: [...note.jobs, job] })),
      onRefused: () => Promise.resolve(keep({ jobs: note.jobs.slice(0, -1) })),
    });
    keep({ state: 'sent', outcome: 'being printed' });
    return note as Note;
  }

  /**
   * The printer as it is now. Hours may lie between planning and sending: what then reaches paper must be what was planned.
   *
   * @throws SeriesStopped where it is not
   */
  private async stillAsPlanned(row: Row, job: Pick<Job, 'ticket' | 'documents'>): Promise<Printer> {
    const printer = await askProfile(this.sending.address);
    const now = outcomeOf(job, row.sha256, printer);
    const seen = row.outcome?.seal;
    const why = seen && now.seal ? sayDifference(seen, now.seal) : whyUnfit(now);
    if (why === null) return printer;
    throw new SeriesStopped(
      `${row.name}: since it was planned, this changed: ${why}. Nothing of it was sent; run again to plan it anew.`,
    );
  }

  /**
   * What the printer has whole of a file that was begun when a process ended: the numbers of these jobs. What it made and
   * got nothing of is cancelled there, so that nothing is printed twice.
   *
   * @throws SeriesStopped where it cannot be told what came out
   */
  private async settle(known: Note, marked: Marked): Promise<number[]> {
    const { address } = this.sending;
    await dropIncoming(address, marked, known.jobs);
    const whole: number[] = [];
    for (const job of known.jobs) {
      const status = await this.ask(job);
      if (status === null) throw this.uncertain(known, 'the printer no longer knows it');
      if (status.reasons.includes('job-incoming')) await cancelJob(address, job, this.user);
      else if (status.state === 'canceled' || status.state === 'aborted') {
        const { sheetsCompleted } = status;
        if (sheetsCompleted === null)
          throw this.uncertain(known, 'the printer does not say whether it printed any of it');
        if (sheetsCompleted > 0) throw this.uncertain(known, `${sheetsCompleted} sheets of it came out`);
      } else whole.push(job);
    }
    return whole;
  }

  private uncertain(known: Note, why: string): SeriesStopped {
    const remark = `it was begun before, and ${why}; look at the output`;
    this.sending.journal.note({ ...known, state: 'over', outcome: 'not certain', remark });
    return new SeriesStopped(`${known.file}: ${remark}. Run again, the series goes on after it.`);
  }

  /** Whether a file is over; notes what came of it. @throws SeriesStopped where it was broken off */
  private async look(note: Note): Promise<boolean> {
    const { journal } = this.sending;
    const statuses: JobStatus[] = [];
    for (const job of note.jobs) {
      const status = await this.ask(job);
      if (!status) return this.forgotten(note);
      statuses.push(status);
    }
    if (statuses.some(({ state }) => state === 'processing-stopped')) await this.sayFault();
    if (!statuses.every(({ state }) => ENDED.includes(state))) return false;
    const isWhole = statuses.every(({ state }) => state === 'completed');
    const delivered = isWhole ? note.sheets : statuses.reduce((sum, one) => sum + (one.sheetsCompleted ?? 0), 0);
    const outcome = isWhole ? 'delivered' : 'broken off';
    const remark = statuses.find(({ message }) => message !== null)?.message ?? null;
    journal.note({ ...note, state: 'over', delivered, outcome, remark });
    this.lastFault = '';
    if (!isWhole) {
      const told = `${note.file}: the printer broke it off after ${delivered} of ${note.sheets} sheets`;
      throw new SeriesStopped(`${told}. Run again, the series goes on after it.`);
    }
    return true;
  }

  /** The printer forgets what it has ended. It had all of it, so it came out unless somebody called it off there. */
  private forgotten(note: Note): true {
    const remark = 'the printer had all of it and no longer knows it; look at the output';
    this.sending.journal.note({ ...note, state: 'over', outcome: 'not certain', remark });
    return true;
  }

  /** What the printer needs, told once for as long as it needs it. */
  private async sayFault(): Promise<void> {
    const { address, say } = this.sending;
    const { profile, reasons } = await askStatus(address);
    const fault = sayFaults(reasons, profile).join(' ') || 'The printer has stopped; look at its panel.';
    if (fault !== this.lastFault) say(fault);
    this.lastFault = fault;
  }

  /** Null: the printer does not know it. One that is away is asked until it is there: it has the job. */
  private async ask(job: number): Promise<JobStatus | null> {
    for (let told = false; ; told = true) {
      try {
        return await askJob(this.sending.address, job);
      } catch (error) {
        if (!(error instanceof IppError)) throw error;
        if (error.status === STATUS.notFound) return null;
        if (error.status !== null) throw error;
        if (!told) this.sending.say(`${error.message}; it is asked until it answers`);
        await wait(ASK_AGAIN_MS);
      }
    }
  }
}

/** By what jobs of a file are known again: the same after a crash, and not that of the same content under another name. */
const markOf = ({ path, sha256 }: Row): string =>
  `#${createHash('sha256').update(`${sha256} ${path}`).digest('hex').slice(0, 8)}`;

/** A printer without a duplex unit would need its stack turned for every file. @throws InputError */
export function requireOnePass(rows: readonly OpenRow[], printer: Printer): void {
  const row = rows.find(({ outcome }) => outcome.checks.some(({ code }) => code === 'two-passes'));
  if (row)
    throw new InputError(row.path, `${printer.name} prints one side only: print it one-sided, or on another printer`);
}
