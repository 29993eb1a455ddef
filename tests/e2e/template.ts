import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { databaseAt, databaseServer, query, TEMPLATE } from './databases';
import { ended, launch, ROOT } from './programs';

/** Documents of the demo, drawn by the set-up of the tests. */
export const DRAWN = join(ROOT, '.foglio/demo');

/**
 * Before all tests: has a server make its tables in a fresh database and take in the demo's documents, and waits until their
 * pages are read. Worlds begin with a clone of it, so that no journey waits for what another has read already.
 */
export default async function makeTemplate(): Promise<void> {
  const server = databaseServer();
  const made = madeOf();
  const known = await query<{ note: string | null }>(
    server,
    `select shobj_description(oid, 'pg_database') as note from pg_database where datname = '${TEMPLATE}'`,
  );
  if (known.rows[0]?.note === made) return;
  await query(server, `drop database if exists ${TEMPLATE} with (force)`);
  await query(server, `create database ${TEMPLATE}`);
  const env = { DATABASE_URL: databaseAt(server, TEMPLATE), PORT: '0', FOGLIO_PRINTERS: '[]' };
  const [program, base] = await launch('apps/server', [], env, /http:\S+/);
  try {
    for (const name of readdirSync(DRAWN)) {
      const body = new Uint8Array(readFileSync(join(DRAWN, name)));
      const { id } = (await (await fetch(`${base}/api/files?name=${name}`, { method: 'POST', body })).json()) as {
        id: string;
      };
      for (;;) {
        const file = (await (await fetch(`${base}/api/files/${id}`)).json()) as { read: number; pages: object[] };
        if (file.read === file.pages.length) break;
        await wait(20);
      }
    }
  } finally {
    await ended(program, 'SIGTERM');
  }
  await query(databaseAt(server, TEMPLATE), 'delete from files');
  await query(server, `comment on database ${TEMPLATE} is '${made}'`);
}

/** A hash of all that the template depends on: the built server and the documents it reads. */
function madeOf(): string {
  const hash = createHash('sha256');
  for (const folder of [DRAWN, join(ROOT, 'apps/server/dist')]) {
    for (const name of readdirSync(folder).sort()) hash.update(name).update(readFileSync(join(folder, name)));
  }
  return hash.digest('hex');
}
