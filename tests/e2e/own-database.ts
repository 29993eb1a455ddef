import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));

/**
 * Starts or stops a PostgreSQL server that one test has to itself, by the project's own scripts.
 *
 * @param name of one among several
 * @returns its address; of a stopped one, nothing
 */
export function ownDatabase(what: 'start' | 'stop', name = 'outage'): string {
  const script = `source scripts/setup.sh; source scripts/database.sh; db_${what} ${name} >&2; printf %s "$DATABASE_URL"`;
  const { DATABASE_URL: _, ...env } = process.env;
  return execFileSync('bash', ['-c', script], {
    cwd: ROOT,
    env,
    stdio: ['ignore', 'pipe', 'ignore'],
    encoding: 'utf8',
  });
}
