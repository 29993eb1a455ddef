import type { SpendFigures, SpendPaper, SpendRecord } from '@foglio/api';
import { sql, type SQL } from 'drizzle-orm';
import type { Database } from '../database/connection';
import { jobs, printers, setups } from '../database/schema';
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

/** The first day of the period that a day lies in; without a time zone, which would cost more than all that is added up. */
const PERIODS: Readonly<Record<SpendRecord['step'], SQL>> = {
  day: sql`day`,
  // The fifth of January of 1970 was a Monday.
  week: sql`day - (day - date '1970-01-05') % 7`,
  month: sql`date_trunc('month', day::timestamp)::date`,
};

/** Of deliveries, and of their papers. */
const within = ({ from, to, printer }: Which): SQL =>
  sql`day between ${from} and ${to}${printer === undefined ? sql`` : sql` and printer_id = ${printer}`}`;

/** What is added up, by its name in a record, and of what. */
const SUMS = {
  deliveries: '1',
  sheets: 'sheets',
  twoSidedSheets: 'two_sided_sheets',
  sides: 'sides',
  colorSides: 'color_sides',
  graySides: 'gray_sides',
  paper: 'paper',
  printing: 'printing',
  gray: 'gray',
  savedSheets: 'saved_sheets',
  saved: 'saved',
  againSheets: 'case when again is null then 0 else sheets end',
  again: 'case when again is null then 0 else paper + printing end',
} as const satisfies Record<keyof SpendFigures, string>;

/** The sums of what the table has, and the sums of such sums; by names that do not hide the table's. */
const summed = Object.entries(SUMS).map(([name, of]) => sql.raw(`sum(${of}) as "sum ${name}"`));
const NAMES = Object.keys(SUMS) as (keyof SpendFigures)[];
const summedUp = NAMES.map((name) => sql.raw(`coalesce(sum("sum ${name}"), 0)::float8 as "${name}"`));

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

/** Only what is added up. */
const figuresOf = (row: Summed): SpendFigures =>
  Object.fromEntries(NAMES.map((name) => [name, row[name]])) as Record<keyof SpendFigures, number>;

async function sums(db: Database, which: Which, step: SpendRecord['step']): Promise<Summed[]> {
  // Added up by all of these first, there is little left to be added up by each.
  const { rows } = await db.execute<Summed>(sql`
    with fine as (
      select ${PERIODS[step]} as period, printer_id, kind, setup_id, max(printer_name collate "C") as printer_name,
        max(setup_name collate "C") as setup_name, ${sql.join(summed, sql`, `)}
      from ${spent} where ${within(which)} group by 1, 2, 3, 4
    )
    select period::text, printer_id as "printerId", max(printer_name) as "printerName", kind, setup_id as "setupId",
      max(setup_name) as "setupName", ${sql.join(summedUp, sql`, `)}, grouping(period, printer_id, kind, setup_id) as "by"
    from fine group by grouping sets ((), (period), (printer_id), (kind), (setup_id))`);
  return rows;
}

async function sumsOfPapers(db: Database, which: Which, step: SpendRecord['step']): Promise<PaperSum[]> {
  const { rows } = await db.execute<PaperSum>(sql`
    with fine as (
      select ${PERIODS[step]} as period, size, type, sum(sheets) as sheets, sum(cost) as cost
      from ${spentPapers} where ${within(which)} group by 1, 2, 3
    )
    select period::text, size, type, sum(sheets)::float8 as sheets, sum(cost)::float8 as cost
    from fine group by grouping sets ((size, type), (period, size, type))
    order by sum(cost) desc, sum(sheets) desc, size, type`);
  return rows;
}

async function printedAgain(db: Database, which: Which): Promise<SpendRecord['again']> {
  type Line = SpendRecord['again'][number];
  const { rows } = await db.execute<Line & Record<string, unknown>>(sql`
    with lines as (
      select title, again, again_said, count(*)::int as times, sum(sheets)::float8 as sheets,
        sum(paper + printing)::float8 as cost
      from ${spent} where ${within(which)} and again is not null
      group by title, again, again_said order by cost desc, title limit ${MOST_LINES}
    )
    select title, ${latestJob(which)} as "jobId", again as why, again_said as said, times, sheets, cost from lines`);
  return rows;
}

async function wouldCostLess(db: Database, which: Which): Promise<SpendRecord['cheaper']> {
  type Line = SpendRecord['cheaper'][number];
  const { rows } = await db.execute<Line & Record<string, unknown>>(sql`
    with lines as (
      select title, cheaper_way as way, count(*)::int as times, sum(cheaper_saves)::float8 as saves,
        min(cheaper_text)::float8 as "smallestTextPt"
      from ${spent} where ${within(which)} and cheaper_way is not null
      group by title, cheaper_way order by saves desc, title limit ${MOST_LINES}
    )
    select title, ${latestJob(which)} as "jobId", way, times, saves, "smallestTextPt", (
      select setup_id from ${spent} where ${within(which)} and title = lines.title and cheaper_way = lines.way
      order by day desc limit 1
    ) as "setupId" from lines`);
  return rows;
}

/** The job of that title that was delivered last, of those that are still here. */
const latestJob = (which: Which): SQL => sql`(
  select job_id from ${spent}
  where ${within(which)} and title = lines.title and job_id in (select ${jobs.id} from ${jobs}) order by day desc limit 1
)`;

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
