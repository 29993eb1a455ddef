import { databaseAt, databaseServer, query, TEMPLATE } from './databases';

/** What was uploaded, set up and sent in a world, but for the documents of the template and what was read of them. */
export const FORGET = [
  'delete from incoming',
  'delete from sendings',
  'delete from spent',
  'delete from series_rows',
  'delete from series',
  'delete from setups',
  'delete from jobs',
  'delete from files',
  'delete from printers',
  'delete from graphile_worker._private_jobs',
];

/** What a world has before anything is done in it: the documents' hashes as a list of PostgreSQL, the set-ups as JSON. */
export async function pristine(): Promise<{ documents: string; setups: string }> {
  const { rows } = await query<{ documents: string; setups: string }>(
    databaseAt(databaseServer(), TEMPLATE),
    `select (select array_agg(sha256)::text from contents) as documents, (select json_agg(setups)::text from setups) as setups`,
  );
  return rows[0]!;
}

/** How much there is that would go on into the next test: tasks, what is being sent, and what is delivered and not counted yet. */
export const UNDER_WAY = `
  select (select count(*) from graphile_worker._private_jobs)
    + (select count(*) from sendings where state in ('queued', 'sending'))
    + (select count(*) from sendings left join spent using (id)
        where sendings.sheets_done > 0 and ended_at is not null and spent.id is null) as busy`;
