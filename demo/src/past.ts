import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { plan, portionPlan, spentOf, type DocumentFacts, type Portion, type Printer, type Ticket } from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { Client } from 'pg';

/**
 * A quarter of deliveries that never were: the demo's jobs as an office prints them week after week, each planned and reckoned as
 * what is delivered is. They are entered once, into a database that has none.
 */

/** A job as it was printed every so often. */
interface Habit {
  readonly title: string;
  /** As it was called then, where it is not the demo's job itself. */
  readonly called?: string;
  /** On this day of the week (1: Monday) of every so many weeks. */
  readonly on: number;
  readonly every: number;
  readonly printer: string;
  readonly change?: Partial<Record<keyof Ticket, unknown>>;
  /** The set-up that it is printed by; otherwise as the demo's job is set up. */
  readonly setup?: string;
  /** Between the first and the second number of copies. */
  readonly copies: readonly [number, number];
  /** Every so often a jam: the rest was printed again. */
  readonly jams?: number;
  /** Every so often all of it was printed once more. */
  readonly repeats?: number;
}

const WEEKS = 13;

const HABITS: readonly Habit[] = [
  { title: 'Players’ notes', on: 4, every: 1, printer: 'upper-office', change: { color: 'auto' }, copies: [10, 14] },
  { title: 'News for players', on: 3, every: 1, printer: 'library', copies: [20, 26] },
  { title: 'Rehearsal timetable', on: 1, every: 1, printer: 'upper-office', copies: [5, 8], repeats: 3 },
  {
    title: 'Season contract',
    on: 2,
    every: 1,
    printer: 'upper-office',
    setup: 'Contracts to be signed',
    copies: [2, 6],
    jams: 6,
  },
  {
    title: 'Autumn programme',
    on: 5,
    every: 2,
    printer: 'upper-office',
    setup: 'Programme booklet, card cover',
    copies: [30, 60],
    jams: 4,
  },
  { title: 'Flyer, open rehearsal', on: 5, every: 2, printer: 'box-office', copies: [20, 30] },
  { title: 'Stage plan', on: 1, every: 2, printer: 'upper-office', copies: [3, 5] },
  { title: 'Season budget', on: 2, every: 4, printer: 'upper-office', copies: [5, 8] },
  { title: 'Letter to the Town Hall', on: 4, every: 2, printer: 'upper-office', copies: [1, 3] },
  {
    title: 'Season contract',
    called: 'Contract, drafts to read',
    on: 3,
    every: 1,
    printer: 'library',
    change: { sides: 'one-sided', routes: [] },
    copies: [3, 5],
  },
];

interface JobOfDemo {
  readonly id: string;
  readonly ticket: Ticket;
  readonly documents: readonly (DocumentFacts & { readonly read: number })[];
}

interface SetupOfDemo {
  readonly id: string;
  readonly name: string;
  readonly ticket: Ticket;
}

interface PrinterOfDemo {
  readonly id: string;
  readonly name: string;
  readonly profile: unknown;
}

/** The same numbers at every start (a linear congruential generator, Knuth, The Art of Computer Programming 2, 3.3.4). */
function numbers(seed: number): (least: number, most: number) => number {
  let state = seed;
  return (least, most) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return least + Math.floor((state / 2 ** 32) * (most - least + 1));
  };
}

async function ask<T>(base: string, path: string): Promise<T> {
  const answer = await fetch(`${base}/api/${path}`);
  if (!answer.ok) throw new Error(`demo: ${path} answered ${answer.status}`);
  return (await answer.json()) as T;
}

/** A job of the demo, once all is known of its pages. */
async function jobCalled(base: string, title: string): Promise<JobOfDemo | null> {
  const { jobs } = await ask<{ jobs: { id: string }[] }>(base, `jobs?search=${encodeURIComponent(title)}`);
  const [found] = jobs;
  if (!found) return null;
  for (;;) {
    const job = await ask<JobOfDemo>(base, `jobs/${found.id}`);
    if (job.documents.every(({ read, pages }) => read >= pages.length)) return job;
    await wait(200);
  }
}

const DAY_MS = 86_400_000;

/** The days of a habit, by this machine's calendar, the earliest first. */
function daysOf({ on, every }: Habit, now: Date): string[] {
  const days: string[] = [];
  for (let week = WEEKS; week >= 0; week -= 1) {
    const date = new Date(now.getTime() - week * 7 * DAY_MS);
    date.setDate(date.getDate() - ((date.getDay() + 6) % 7) + on - 1);
    if (week % every === 0 && date <= now) days.push(date.toLocaleDateString('sv-SE'));
  }
  return days;
}

/** Where a habit is printed, and by which set-up. */
interface Place {
  readonly id: string;
  readonly name: string;
  readonly printer: Printer;
  readonly setup: SetupOfDemo | undefined;
}

/** One delivery, of all of a ticket or a portion of it, as the server counts what was delivered. */
async function enter(
  client: Client,
  { id: jobId, documents }: JobOfDemo,
  { id: printerId, name, printer, setup }: Place,
  one: {
    readonly day: string;
    readonly ticket: Ticket;
    readonly portion: Portion | null;
    readonly again: 'broken-off' | 'wished' | null;
  },
): Promise<void> {
  const { day, ticket, portion, again } = one;
  const whole = plan(ticket, documents, printer);
  const made = portion ? portionPlan(whole, portion, { ticket, documents, printer }) : whole;
  const { papers, saved, cheaper, ...sums } = spentOf(made, { ticket, documents, printer, portion });
  const id = randomUUID();
  const row: Record<string, unknown> = {
    ...{ id, day, printer_id: printerId, printer_name: name, job_id: jobId, title: ticket.title, kind: sums.kind },
    ...{ setup_id: setup?.id, setup_name: setup?.name },
    ...{ sheets: sums.sheets, two_sided_sheets: sums.twoSidedSheets, sides: sums.sides, color_sides: sums.colorSides },
    ...{ gray_sides: sums.graySides, paper: sums.paper, printing: sums.printing, gray: sums.gray },
    ...{
      saved_sheets: saved.sheets,
      saved: saved.cost,
      again,
      again_said: again === 'broken-off' ? 'Paper jam.' : null,
    },
    ...{ cheaper_way: cheaper?.way ?? null, cheaper_saves: cheaper?.saves ?? 0, cheaper_text: cheaper?.smallestTextPt },
  };
  const names = Object.keys(row);
  const places = names.map((_, at) => `$${at + 1}`).join(', ');
  await client.query(`insert into spent (${names.join(', ')}) values (${places})`, Object.values(row));
  for (const { size, type, sheets, cost } of papers) {
    const values = [id, day, printerId, size, type ?? '', sheets, cost];
    await client.query(
      'insert into spent_papers (id, day, printer_id, size, type, sheets, cost) values ($1, $2, $3, $4, $5, $6, $7)',
      values,
    );
  }
}

/** Enters all of it, unless something was delivered already. */
async function seed(base: string, client: Client): Promise<void> {
  const { rows } = await client.query<{ some: boolean }>('select exists (select from spent) as some');
  if (rows[0]?.some) return;
  const printers = await ask<PrinterOfDemo[]>(base, 'printers');
  const setups = await ask<SetupOfDemo[]>(base, 'setups');
  const between = numbers(1847);
  await client.query('begin');
  for (const habit of HABITS) {
    const job = await jobCalled(base, habit.title);
    const printer = printers.find(({ id }) => id === habit.printer);
    if (!job || !printer) continue;
    const setup = setups.find(({ name }) => name === habit.setup);
    const at = { ...printer, printer: readPrinter(printer.profile), setup };
    for (const [round, day] of daysOf(habit, new Date()).entries()) {
      const changed = { copies: between(...habit.copies), title: habit.called ?? habit.title, ...habit.change };
      const { documents } = job.ticket;
      const ticket = readTicket({ ...(setup?.ticket ?? job.ticket), documents, ...changed });
      await enter(client, job, at, { day, ticket, portion: null, again: null });
      const isTurn = (every: number | undefined): boolean => every !== undefined && round % every === every - 1;
      const rest: Portion = [{ sets: [1, 1], sheets: [[2, 99]] }];
      if (isTurn(habit.jams)) await enter(client, job, at, { day, ticket, portion: rest, again: 'broken-off' });
      if (isTurn(habit.repeats)) await enter(client, job, at, { day, ticket, portion: null, again: 'wished' });
    }
  }
  await client.query('commit');
  console.log('Entered a quarter of deliveries that never were, for Spend.');
}

const [base, database] = process.argv.slice(2);
if (!base || !database) {
  console.error('usage: past http://127.0.0.1:PORT postgres://…');
  process.exit(2);
}
const client = new Client({ connectionString: database });
await client.connect();
try {
  await seed(base, client);
} finally {
  await client.end();
}
