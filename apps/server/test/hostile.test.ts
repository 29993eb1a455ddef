import { writeFile } from 'node:fs/promises';
import { profileForTicket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { inScratchFolder } from '@foglio/pdf';
import { setTimeout as wait } from 'node:timers/promises';
import supertest from 'supertest';
import {
  contentBomb,
  cyclicForm,
  cyclicOutline,
  cyclicTree,
  manyObjects,
  objectBomb,
} from '../../../packages/pdf/test/hostile-pdf';
import { pdfWorkers, startServer, type RunningServer } from './running-server';

const HOW = { name: 'in.pdf', form: {}, password: null, first: false };

/** Less than any of these files asks for, so that the test need not wait for the real limits. */
const LITTLE_MEMORY = { ms: 60_000, memoryMb: 280 };
const LITTLE_TIME = { ms: 100, memoryMb: 3_000 };

let server: RunningServer;

beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

const workers = pdfWorkers();
afterAll(() => workers.close());

const withFile = <T>(bytes: Uint8Array, work: (file: string) => Promise<T>): Promise<T> =>
  inScratchFolder(async (path) => {
    await writeFile(path('x.pdf'), bytes);
    return work(path('x.pdf'));
  });

const api = () => supertest(server.base);
const upload = (bytes: Uint8Array) => api().post('/api/files').query({ name: 'x.pdf' }).send(Buffer.from(bytes));

test.each<[string, () => Uint8Array, { ms: number; memoryMb: number }, RegExp]>([
  ['objects that inflate to 320 MB', () => objectBomb(320), LITTLE_MEMORY, /^This file takes too much memory/],
  ['a hundred thousand objects', () => manyObjects(100_000), LITTLE_TIME, /^This file takes too much time/],
])('taking in %s ends in a clear error', async (_what, make, limits, message) => {
  const taking = withFile(make(), (file) => workers.takeIn(file, `${file}.open`, HOW, limits));
  await expect(taking).rejects.toMatchObject({ trouble: 'too-much', message });
});

test('imposing content that inflates beyond its limit ends in a clear error', async () => {
  const bytes = contentBomb(160);
  const facts = [{ name: 'x.pdf', pages: [{ width: 595.276, height: 841.89 }] }];
  const ticket = readTicket({ version: 1, documents: [{ file: 'x.pdf' }] });
  const planning = {
    ticket,
    printer: profileForTicket(ticket, facts),
    moment: '2026-09-01T14:05',
    pass: null,
    portion: null,
  };
  const how = { planning, parts: null, raster: null, blanks: 'none' } as const;
  const imposing = withFile(bytes, (file) => {
    const documents = facts.map((one) => ({ ...one, file }));
    return workers.impose(how, documents, [`${file}.imposed`], LITTLE_MEMORY);
  });
  await expect(imposing).rejects.toMatchObject({ trouble: 'too-much' });
});

test('looking through a page that draws itself for ever ends in a clear error', async () => {
  await expect(
    withFile(cyclicForm(), (file) => workers.readDetails(file, [1], () => undefined, { limits: LITTLE_MEMORY })),
  ).rejects.toMatchObject({
    trouble: 'too-much',
  });
});

test('a tree in a circle is refused, an outline in a circle is read to its end', async () => {
  expect((await upload(cyclicTree())).body).toMatchObject({ status: 422, trouble: 'damaged' });
  const answer = await upload(cyclicOutline());
  expect(answer.status).toBe(201);
  const { id } = answer.body as { id: string };
  for (;;) {
    const { outline } = (await api().get(`/api/files/${id}/facts`).query({ from: 0 })).body as { outline?: object[] };
    if (outline) {
      expect(outline.length).toBeGreaterThan(0);
      break;
    }
    await wait(20);
  }
});

test('while one is being taken in, others are answered', async () => {
  const answered: string[] = [];
  const slow = upload(objectBomb(100)).then(({ status }) => answered.push(`upload ${status}`));
  for (let asked = 0; asked < 3; asked += 1) {
    expect((await api().get('/api/printers')).status).toBe(200);
    answered.push('printers');
  }
  await slow;
  expect(answered).toEqual(['printers', 'printers', 'printers', 'upload 201']);
});
