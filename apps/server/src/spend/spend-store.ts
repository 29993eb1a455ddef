import type { SpendFigures, SpendPaper, SpendRecord } from '@foglio/api';
import { sql, type SQL } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { printers, setups } from '../database/schema';
import { spent, spentPapers } from '../database/spent-schema';

/** Which deliveries are added up. */
export interface Which {
  /** First and last day, ISO 8601. */
  readonly from: string;
  readonly to: string;
  readonly printer?: string;
}

/** Days up to which each has a column of its own, and up to which each week has. */
const BY_DAY = 31;
const BY_WEEK = 217;

const DAY_MS = 86_400_000;

/** Lines of what was printed again, and of what would have cost less: such as are worth most. */
const MOST_LINES = 12;

/** By day, by week (from Monday, ISO 8601) or by month: so many that a chart can be read. */
export function stepOf({ from, to }: Which): SpendRecord['step'] {
  const days = (Date.parse(to) - Date.parse(from)) / DAY_MS + 1;
  return days <= BY_DAY ? 'day' : days <= BY_WEEK ? 'week' : 'month';
}

const within = ({ from, to, printer }: Which): SQL =>
  sql`${spent.day} between ${from} and ${to}${printer === undefined ? sql`` : sql` and ${spent.printerId} = ${printer}`}`;

const FIGURES = sql`
  count(*)::int as "deliveries",
  coalesce(sum(sheets), 0)::float8 as "sheets",
  coalesce(sum(two_sided_sheets), 0)::float8 as "twoSidedSheets",
  coalesce(sum(sides), 0)::float8 as "sides",
  coalesce(sum(color_sides), 0)::float8 as "colorSides",
  coalesce(sum(gray_sides), 0)::float8 as "graySides",
  coalesce(sum(paper), 0)::float8 as "paper",
  coalesce(sum(printing), 0)::float8 as "printing",
  coalesce(sum(gray), 0)::float8 as "gray",
  coalesce(sum(saved_sheets), 0)::float8 as "savedSheets",
  coalesce(sum(saved), 0)::float8 as "saved",
  coalesce(sum(sheets) filter (where again is not null), 0)::float8 as "againSheets",
  coalesce(sum(paper + printing) filter (where again is not null), 0)::float8 as "again"`;

/** Sums by one thing or another; by what, the bits of the last column tell (PostgreSQL, GROUPING). */
interface Summed extends Record<string, unknown>, SpendFigures {
  readonly period: string | null;
  readonly printerId: string | null;
  readonly kind: SpendRecord['kinds'][number]['kind'] | null;
  readonly setupId: string | null;
  /** As they were called last, where they are gone. */
  readonly printerName: string;
  readonly setupName: string | null;
  readonly by: number;
}

/** Of period, printer, kind and set-up: what was not grouped by has its bit set. */
const BY = { all: 0b1111, period: 0b0111, printer: 0b1011, kind: 0b1101, setup: 0b1110 } as const;

/** Of one paper, in a period or, null, in all. */
interface PaperSum extends Record<string, unknown>, SpendPaper {
  readonly period: string | null;
}

/** Adds up what was delivered; all of it in the database. */
export async function spendOf(db: Database, which: Which): Promise<SpendRecord> {
  const step = stepOf(which);
  const [summed, papers, again, cheaper, since, names] = await Promise.all([
    sums(db, which, step),
    sumsOfPapers(db, which, step),
    printedAgain(db, which),
    wouldCostLess(db, which),
    firstDay(db),
    namesNow(db),
  ]);
  const of = (by: number): Summed[] => summed.filter((row) => row.by === by);
  const papersOf = (period: string | null): SpendPaper[] =>
    papers
      .filter((one) => one.period === period)
      .map(({ size, type, sheets, cost }) => ({ size, type: type === '' ? null : type, sheets, cost }));
  return {
    ...{ from: which.from, to: which.to, since, step },
    total: figuresOf(of(BY.all)[0]!),
    periods: of(BY.period)
      .toSorted((one, other) => one.period!.localeCompare(other.period!))
      .map((row) => ({ from: row.period!, ...figuresOf(row), papers: papersOf(row.period) })),
    printers: byMoney(of(BY.printer)).map((row) => {
      const id = row.printerId!;
      return { id, name: names.get(id) ?? row.printerName, ...figuresOf(row) };
    }),
    papers: papersOf(null),
    kinds: byMoney(of(BY.kind)).map((row) => ({ kind: row.kind!, ...figuresOf(row) })),
    setups: byMoney(of(BY.setup)).map((row) => {
      const name = row.setupId === null ? null : names.get(row.setupId);
      // One that is gone cannot be led to.
      return { id: name === undefined ? null : row.setupId, name: name ?? row.setupName, ...figuresOf(row) };
    }),
    again,
    cheaper: cheaper.map((one) => ({ ...one, setupId: one.setupId && names.has(one.setupId) ? one.setupId : null })),
  };
}

const byMoney = (rows: readonly Summed[]): Summed[] =>
  rows.toSorted((one, other) => other.paper + other.printing - one.paper - one.printing);

function figuresOf(row: Summed): SpendFigures {
  const {
    period: _,
    printerId: __,
    kind: ___,
    setupId: ____,
    printerName: _____,
    setupName: ______,
    by: _______,
    ...sum
  } = row;
  return sum;
}

async function sums(db: Database, which: Which, step: string): Promise<Summed[]> {
  const { rows } = await db.execute<Summed>(sql`
    select period::text, printer_id as "printerId", max(printer_name) as "printerName", kind, setup_id as "setupId",
      max(setup_name) as "setupName", ${FIGURES}, grouping(period, printer_id, kind, setup_id) as "by"
    from (select *, date_trunc(${step}, day)::date as period from ${spent} where ${within(which)}) as delivered
    group by grouping sets ((), (period), (printer_id), (kind), (setup_id))`);
  return rows;
}

async function sumsOfPapers(db: Database, which: Which, step: string): Promise<PaperSum[]> {
  const { rows } = await db.execute<PaperSum>(sql`
    select period::text, size, type, sum(papers.sheets)::float8 as sheets, sum(papers.cost)::float8 as cost
    from (select id, date_trunc(${step}, day)::date as period from ${spent} where ${within(which)}) as delivered
    join ${spentPapers} as papers using (id)
    group by grouping sets ((size, type), (period, size, type))
    order by sum(papers.cost) desc, sum(papers.sheets) desc, size, type`);
  return rows;
}

async function printedAgain(db: Database, which: Which): Promise<SpendRecord['again']> {
  type Line = SpendRecord['again'][number];
  const { rows } = await db.execute<Line & Record<string, unknown>>(sql`
    select title, (array_agg(delivered.job_id order by delivered.day desc) filter (where jobs.id is not null))[1] as "jobId",
      again as why, again_said as said, count(*)::int as times, sum(sheets)::float8 as sheets,
      sum(paper + printing)::float8 as cost
    from (select * from ${spent} where ${within(which)} and again is not null) as delivered
    left join jobs on jobs.id = delivered.job_id
    group by title, again, again_said order by cost desc, title limit ${MOST_LINES}`);
  return rows;
}

async function wouldCostLess(db: Database, which: Which): Promise<SpendRecord['cheaper']> {
  type Line = SpendRecord['cheaper'][number];
  const { rows } = await db.execute<Line & Record<string, unknown>>(sql`
    select title, (array_agg(delivered.job_id order by delivered.day desc) filter (where jobs.id is not null))[1] as "jobId",
      (array_agg(setup_id order by delivered.day desc))[1] as "setupId", cheaper_way as way, count(*)::int as times,
      sum(cheaper_saves)::float8 as saves, min(cheaper_text)::float8 as "smallestTextPt"
    from (select * from ${spent} where ${within(which)} and cheaper_way is not null) as delivered
    left join jobs on jobs.id = delivered.job_id
    group by title, cheaper_way order by saves desc, title limit ${MOST_LINES}`);
  return rows;
}

async function firstDay(db: Database): Promise<string | null> {
  const { rows } = await db.execute<{ since: string | null }>(sql`select min(day)::text as since from ${spent}`);
  return rows[0]?.since ?? null;
}

/** Of printers and set-ups, by id. */
async function namesNow(db: Database): Promise<ReadonlyMap<string, string>> {
  const [those, these] = await Promise.all([
    db.select({ id: printers.id, name: printers.name }).from(printers),
    db.select({ id: setups.id, name: setups.name }).from(setups),
  ]);
  return new Map([...those, ...these].map(({ id, name }) => [id, name]));
}

/** Each delivery, in order of time. */
export const listSpent = (db: Database, which: Which) =>
  db.select().from(spent).where(within(which)).orderBy(spent.day, spent.title, spent.id);
