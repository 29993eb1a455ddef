import { symlink, writeFile } from 'node:fs/promises';
import type { ProblemRecord } from '@foglio/api';
import { inScratchFolder, PdfError } from '@foglio/pdf';
import { sql } from 'drizzle-orm';
import express from 'express';
import supertest from 'supertest';
import { receive } from '../src/files/receive';
import { requireRoom } from '../src/files/room';
import { usable } from '../src/files/content-store';
import { log } from '../src/log';
import { problemHandler } from '../src/http/problem';
import { startServer, type RunningServer } from './running-server';

/** A disk that is full is told as such (507, RFC 4918, 11.5), with what is full; /dev/full is one that always is (full(4)). */

let server: RunningServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

/** What a client is told where work fails so. */
async function told(work: () => Promise<unknown>): Promise<ProblemRecord> {
  const app = express();
  app.post('/', async (_request, response) => void response.json(await work()));
  app.use(problemHandler);
  return (await supertest(app).post('/')).body as ProblemRecord;
}

test('while a file comes', async () => {
  async function* bytes() {
    yield Buffer.alloc(100_000);
    await Promise.resolve();
  }
  const body = await told(() => receive(bytes(), '/dev/full', 1e9, () => new Error('too large')));
  expect(body).toMatchObject({ status: 507, code: 'disk-full' });
  expect(body.detail).toMatch(/^There is no room left in \S+, where Foglio works on files\. Make room/);
});

test('in a worker that lays a file out', async () => {
  const body = await told(() =>
    inScratchFolder(async (path) => {
      await writeFile(path('in'), Array.from({ length: 50 }, (_, at) => `${at},row`).join('\n'));
      await symlink('/dev/full', path('out'));
      const how = { name: 'rows.csv', form: {}, password: null, first: false };
      return usable(() => server.workers.takeIn(path('in'), path('out'), how));
    }),
  );
  expect(body).toMatchObject({ status: 507, code: 'disk-full' });
});

test('in the database', async () => {
  const work = (): Promise<unknown> =>
    server.db.execute(sql`do $$ begin raise exception 'could not extend file' using errcode = '53100'; end $$`);
  const body = await told(work);
  expect(body).toMatchObject({ status: 507, code: 'disk-full' });
  expect(body.detail).toContain('where Foglio’s database lies');
});

test('before anything comes, where it is known that it cannot be kept', async () => {
  await expect(requireRoom(2 ** 60)).rejects.toMatchObject({ code: 'disk-full' });
  await expect(requireRoom(1_000)).resolves.toBeUndefined();
});

test('what fails for another reason is not told so', async () => {
  const quiet = jest.spyOn(log, 'error').mockImplementation();
  expect((await told(() => Promise.reject(new PdfError('damaged', 'x')))).status).toBe(500);
  quiet.mockRestore();
});
