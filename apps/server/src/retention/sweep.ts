import { sql } from 'drizzle-orm';
import type { Pool } from 'pg';
import type { Database } from '../database/connection';
import {
  contents,
  files,
  incoming,
  jobs,
  pastSendings,
  sendings,
  series,
  seriesRows,
  sources,
} from '../database/schema';
import { spent } from '../database/spent-schema';

/** What a sweep removed. */
export interface Swept {
  readonly files: number;
  readonly documents: number;
  readonly sendings: number;
}

export interface SweepLimits {
  /** Days after which records of what was printed go. */
  readonly keepDays: number;
  /** Hours after which a document goes that nothing refers to: a window may still bring it back by undoing. */
  readonly graceHours: number;
}

/** Tells this lock from others in the database: of several servers one sweeps at a time. */
const SWEEPING = 0x5377;

/** States in which a sending, or what came from a program, is over. */
const OVER = sql`('completed', 'canceled', 'aborted', 'failed', 'interrupted', 'uncertain')`;
const CAME_AND_WENT = sql`('sent', 'canceled', 'aborted')`;

type Within = Parameters<Parameters<Database['transaction']>[0]>[0];

/** Removes what nobody refers to and what is kept for a time that is over. Done twice it removes no more. */
export async function sweep(db: Database, pool: Pool, { keepDays, graceHours }: SweepLimits): Promise<Swept> {
  const nothing: Swept = { files: 0, documents: 0, sendings: 0 };
  const swept = await db.transaction(async (tx): Promise<Swept> => {
    const { rows } = await tx.execute<{ mine: boolean }>(sql`select pg_try_advisory_xact_lock(${SWEEPING}) as mine`);
    if (!rows[0]?.mine) return nothing;
    const sent = await sweepSendings(tx, sql`now() - make_interval(days => ${keepDays})`);
    const left = await sweepFiles(tx, sql`now() - make_interval(hours => ${graceHours})`);
    return { ...left, sendings: sent };
  });
  // The room of what went is given back to the disk, as far as it lies at the end of its tables.
  if (swept.documents > 0) await pool.query('vacuum contents, content_chunks, sources, source_chunks, files');
  return swept;
}

/** Records of what was printed, and of what came from programs; how much it was is added up. */
async function sweepSendings(tx: Within, limit: ReturnType<typeof sql>): Promise<number> {
  const isOld = sql`${sendings.updatedAt} < ${limit} and ${sendings.state} in ${OVER}`;
  const isCounted = sql`(${sendings.sheetsDone} = 0 or exists (select from ${spent} where ${spent.id} = ${sendings.id}))`;
  await tx.execute(sql`
    with gone as (
      select ${series.id} as id from ${series} where ${series.state} <> 'draft' and ${series.startedAt} < ${limit}
      and not exists (select from ${sendings} where ${sendings.seriesId} = ${series.id} and not (${isOld}))
    ), emptied as (delete from ${jobs} where ${jobs.id} in (
      select ${seriesRows.jobId} from ${seriesRows} where ${seriesRows.seriesId} in (select id from gone)
    ))
    delete from ${series} where ${series.id} in (select id from gone)`);
  await tx.execute(sql`
    delete from ${incoming} where ${incoming.updatedAt} < ${limit} and ${incoming.state} in ${CAME_AND_WENT}
    and not exists (select from ${sendings} where ${sendings.id} = ${incoming.sendingId} and not (${isOld}))`);
  // What belongs to a series stays as long as that: its report tells of it.
  const { rows } = await tx.execute<{ count: number }>(sql`
    with gone as (
      delete from ${sendings} where ${isOld} and ${sendings.seriesId} is null and ${isCounted}
      and not exists (select from ${incoming} where ${incoming.sendingId} = ${sendings.id})
      returning printer_id, created_at, sheets_done
    ), counted as (
      insert into ${pastSendings} (printer_id, month, sendings, sheets)
      select printer_id, date_trunc('month', created_at)::date, count(*), sum(sheets_done) from gone group by 1, 2
      on conflict (printer_id, month) do update
      set sendings = past_sendings.sendings + excluded.sendings, sheets = past_sendings.sheets + excluded.sheets
    ) select count(*)::int as count from gone`);
  return rows[0]?.count ?? 0;
}

/** Documents that nothing has referred to for some time. */
async function sweepFiles(tx: Within, limit: ReturnType<typeof sql>): Promise<Pick<Swept, 'files' | 'documents'>> {
  const documents = (ticket: typeof jobs.ticket | typeof sendings.ticket) =>
    sql`jsonb_array_elements(${ticket} -> 'documents') as document`;
  await tx.execute(sql`
    create temporary table referred on commit drop as select id from (
      select lower(document ->> 'file') as id from ${jobs}, ${documents(jobs.ticket)}
      union select lower(document ->> 'file') from ${sendings}, ${documents(sendings.ticket)}
      union select file from ${incoming}, jsonb_array_elements_text(${incoming.files}) as file
      where ${incoming.state} not in ${CAME_AND_WENT}
    ) as those where id is not null`);
  const isReferred = sql`${files.id}::text in (select id from referred)`;
  await tx.execute(sql`
    update ${files} set left_since = case when ${isReferred} then null else now() end
    where (${files.leftSince} is null) <> (${isReferred})`);
  const gone = await tx.execute(sql`
    delete from ${files} where not (${isReferred}) and greatest(${files.leftSince}, ${files.createdAt}) <= ${limit}`);
  const contentsGone = await tx.execute(sql`
    delete from ${contents} where ${contents.createdAt} <= ${limit}
    and not exists (select from ${files} where ${files.contentId} = ${contents.id})`);
  await tx.execute(sql`
    delete from ${sources} where ${sources.createdAt} <= ${limit}
    and not exists (select from ${files} where ${files.sourceId} = ${sources.id})`);
  return { files: gone.rowCount ?? 0, documents: contentsGone.rowCount ?? 0 };
}
