import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { databaseAt, databaseServer, query, TEMPLATE } from './databases';
import { ended, launch, ROOT } from './programs';

/** Documents of the demo, drawn by the set-up of the tests. */
export const DRAWN = join(ROOT, '.foglio/demo');

/** A manual that Debian ships and this project did not write. */
export const MANUAL = join(ROOT, '.foglio/manual/maint-guide.en.pdf');

const documents = (): string[] => [...readdirSync(DRAWN).map((name) => join(DRAWN, name)), MANUAL];

/**
 * Before all tests: has a server make its tables in a fresh database and take in the demo's documents and the manual, and
 * waits until their pages are read. Worlds begin with a clone of it, so that no journey waits for what another has read
 * already, nor depends on how far the reading is.
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
  const env = {
    DATABASE_URL: databaseAt(server, TEMPLATE),
    PORT: '0',
    FOGLIO_PRINTERS: '[]',
    FOGLIO_LOG_LEVEL: 'error',
  };
  const [program, base] = await launch('apps/server', [], env, /http:\S+/);
  try {
    for (const path of documents()) {
      const body = new Uint8Array(readFileSync(path));
      const answer = await fetch(`${base}/api/files?name=${basename(path)}`, { method: 'POST', body });
      const { id } = (await answer.json()) as { id: string };
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
  const server = join(ROOT, 'apps/server/dist');
  const program = readdirSync(server).map((name) => join(server, name));
  for (const path of [...documents(), ...program].sort()) hash.update(basename(path)).update(readFileSync(path));
  return hash.digest('hex');
}
