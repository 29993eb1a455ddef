import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { setTimeout as wait } from 'node:timers/promises';
import { ROOT, test, type World } from '../tests/e2e/world';
import { report } from './figures';

/** For how long a server's own thread is held: nobody is answered meanwhile. */
const HELD = join(ROOT, '.foglio/bench/event-loop.json');

/** From here on servers that are started tell of it; to be called once in a file of benchmarks. */
export function holding(): void {
  const before = process.env['NODE_OPTIONS'];
  test.beforeAll(() => {
    mkdirSync(dirname(HELD), { recursive: true });
    process.env['FOGLIO_EVENT_LOOP'] = HELD;
    process.env['NODE_OPTIONS'] = `--import ${pathToFileURL(join(ROOT, 'bench/event-loop.mjs')).href}`;
  });
  test.afterAll(() => {
    if (before === undefined) delete process.env['NODE_OPTIONS'];
    else process.env['NODE_OPTIONS'] = before;
  });
}

interface Held {
  readonly p99: number;
  readonly max: number;
}

/** What the server's thread was held since the last look, in milliseconds. */
async function look(world: World): Promise<Held> {
  rmSync(HELD, { force: true });
  process.kill(world.serverPid, 'SIGUSR2');
  while (!existsSync(HELD)) await wait(5);
  return JSON.parse(readFileSync(HELD, 'utf8')) as Held;
}

/** @returns what the work gave, after its figures are told */
export async function measured<T>(world: World, what: string, wanted: string, work: () => Promise<T>): Promise<T> {
  await look(world);
  const start = performance.now();
  const given = await work();
  const took = performance.now() - start;
  const { p99, max } = await look(world);
  report(`${what}, which takes`, took, 'ms');
  report('  the server’s thread was held for at most', max, 'ms', wanted);
  report('  99 of 100 times for less than', p99, 'ms');
  return given;
}
