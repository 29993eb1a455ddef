import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import express from 'express';
import { Pool } from 'pg';
import { drizzle } from 'drizzle-orm/node-postgres';
import supertest from 'supertest';
import { numberedPdf } from '../../../packages/pdf/test/make-pdf';
import { files, jobs, pastSendings } from '../src/database/schema';
import { healthHandlers } from '../src/health/routes';
import { bind } from '../src/http/bind';
import { problemHandler } from '../src/http/problem';
import { sweep } from '../src/retention/sweep';
import { startServer, type RunningServer } from './running-server';

let server: RunningServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

const get = (path: string) => supertest(server.base).get(path);
interface Health {
  readonly holds: Readonly<Record<string, number>>;
  readonly past: object[];
  readonly memory: number;
}
const health = async (): Promise<Health> => (await get('/api/health')).body as Health;

test('what is held is told, and is what it was once the jobs are removed and the sweep has run', async () => {
  const before = (await health()).holds;
  const upload = await supertest(server.base)
    .post('/api/files')
    .query({ name: 'a.pdf' })
    .send(Buffer.from(numberedPdf(2)));
  const { id: file, bytes } = upload.body as { id: string; bytes: number };
  await supertest(server.base)
    .post('/api/jobs')
    .send({ ticket: { version: 1, documents: [{ file }] } });
  const { holds, memory } = await health();
  expect(holds).toMatchObject({ jobs: 1, files: 1, documents: 1, documentBytes: bytes, sources: 0, sendings: 0 });
  expect(memory).toBeGreaterThan(10_000_000);
  await server.db.delete(jobs);
  await sweep(server.db, server.pool, { keepDays: 0, graceHours: 0 });
  const { databaseBytes: _, tasks: __, ...after } = (await health()).holds;
  expect(before).toMatchObject(after);
  expect((await get(`/api/files/${file}`)).status).toBe(404);
  expect(await server.db.select().from(files).where(eq(files.id, file))).toEqual([]);
});

test('what was printed by sendings whose records went is told by month', async () => {
  await server.db
    .insert(pastSendings)
    .values({ printerId: 'test-office', month: '2026-07-01', sendings: 3, sheets: 13 });
  expect((await health()).past).toEqual([{ printerId: 'test-office', month: '2026-07-01', sendings: 3, sheets: 13 }]);
});

test('without its database a server lives, and is not ready', async () => {
  expect([(await get('/api/health/live')).status, (await get('/api/health/ready')).status]).toEqual([204, 204]);
  const pool = new Pool({ connectionString: 'postgres://127.0.0.1:9/none' });
  const app = express();
  bind(app, healthHandlers(drizzle(pool) as never));
  app.use(problemHandler);
  const alive = await supertest(app).get('/api/health/live');
  const ready = await supertest(app).get('/api/health/ready');
  expect([alive.status, ready.status, (ready.body as { code: string }).code]).toEqual([204, 503, 'database-away']);
  await pool.end();
});

test('every answer of the API has an id, under which the log tells of it; names are not in it, nor what failed within', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'foglio-log-'));
  const before = { ...process.env };
  Object.assign(process.env, { FOGLIO_LOG: join(folder, 'server.log'), FOGLIO_LOG_LEVEL: 'info' });
  const app = express();
  await jest.isolateModulesAsync(async () => {
    const { logRequests } = await import('../src/http/request-log');
    const problem = await import('../src/http/problem');
    app.use(logRequests);
    app.get('/api/fails', () => {
      throw new Error('in the middle of something');
    });
    app.get('/{*path}', (_, response) => void response.json({}));
    app.use(problem.problemHandler);
  });
  Object.assign(process.env, before);
  delete process.env['FOGLIO_LOG'];
  const answer = await supertest(app).get('/api/files?name=Kündigung.pdf');
  const failed = await supertest(app).get('/api/fails?name=Kündigung.pdf');
  await supertest(app).get('/styles.css');
  const text = readFileSync(join(folder, 'server.log'), 'utf8');
  const lines = text
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as Record<string, unknown>);
  rmSync(folder, { recursive: true });
  const ids = [answer, failed].map(({ headers }) => headers['x-request-id'] as string);
  expect(new Set(ids).size).toBe(2);
  expect(lines).toMatchObject([
    { level: 'info', req: { id: ids[0], method: 'GET', path: '/api/files' }, res: { status: 200 } },
    { level: 'error', request: ids[1], path: '/api/fails', err: { message: 'in the middle of something' } },
    { level: 'warn', req: { id: ids[1] }, res: { status: 500 } },
  ]);
  expect(text).not.toContain('ndigung');
});
