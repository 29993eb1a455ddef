import { appendFileSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { collection, integer, keyword } from '@foglio/ipp';
import { Archive, type DeliveredSheet, type PrintJob } from '../src/archive';

let folder: string;

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'foglio-archive-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const job = (id: number): PrintJob => ({
  id,
  name: 'Contract',
  user: 'test',
  attributes: { copies: [integer(2)], 'media-col': [collection({ 'media-source': [keyword('tray-1')] })] },
  state: 'processing',
  reasons: ['job-printing'],
  message: null,
  documents: [{ attributes: { sides: [keyword('one-sided')] }, pages: [{ x: 21000, y: 29700 }] }],
  whole: true,
  sheets: 4,
  delivered: [],
  deliveredCount: 0,
  endedAt: null,
});

const sheet = (id: number, index: number): DeliveredSheet => ({
  job: id,
  document: 1,
  index,
  set: 1,
  tray: 'tray-1',
  sides: 'one-sided',
  front: index,
  back: null,
  upper: null,
  lower: { job: id, document: 1, page: index },
  spoilt: false,
  at: '2026-11-25T10:00:00.000Z',
});

test('what was kept is there for the next printer of that folder, jobs in order, sheets as they came out', async () => {
  const before = new Archive(folder);
  expect(await before.open()).toEqual([]);
  for (const id of [10, 9]) await before.saveJob(job(id));
  await before.addSheet(sheet(9, 1));
  await before.addSheet(sheet(9, 2));
  await before.saveTrays({ 'tray-1': 7 });
  await before.saveDocument(9, 1, new Uint8Array([1, 2, 3]));

  const after = new Archive(folder);
  const jobs = await after.open();
  expect(jobs.map(({ id }) => id)).toEqual([9, 10]);
  expect(jobs[0]).toEqual({ ...job(9), delivered: [sheet(9, 1), sheet(9, 2)], deliveredCount: 2 });
  expect(await after.readTrays()).toEqual({ 'tray-1': 7 });
  expect([...(await after.readDocument(9, 1))]).toEqual([1, 2, 3]);
});

test('a sheet whose line was cut short by a crash did not come out', async () => {
  const archive = new Archive(folder);
  await archive.open();
  await archive.saveJob(job(1));
  await archive.addSheet(sheet(1, 1));
  appendFileSync(join(folder, 'job-1.sheets'), '{"job":1,"index":2,"se');
  expect((await archive.open())[0]?.delivered).toEqual([sheet(1, 1)]);
});

test('a new printer knows of no tray yet', async () => {
  expect(await new Archive(folder).readTrays()).toEqual({});
});

test('what is kept by several at once is kept whole, and the last word counts', async () => {
  const archive = new Archive(folder);
  await archive.open();
  await Promise.all(Array.from({ length: 30 }, (_, sheets) => archive.saveTrays({ 'tray-1': sheets })));
  expect(await new Archive(folder).readTrays()).toEqual({ 'tray-1': 29 });
});

test('of very many sheets the latest are kept, and how many there were', async () => {
  const archive = new Archive(folder);
  await archive.open();
  await archive.saveJob(job(1));
  for (const index of [1, 2, 3]) await archive.addSheet(sheet(1, index));
  await archive.keepSheets(1, [sheet(1, 3)]);
  await archive.addSheet(sheet(1, 4));
  const [kept] = await archive.open();
  expect([kept?.deliveredCount, kept?.delivered]).toEqual([4, [sheet(1, 3), sheet(1, 4)]]);
});

test('of a job that is forgotten nothing is left, and of no other anything is lost', async () => {
  const archive = new Archive(folder);
  await archive.open();
  for (const id of [1, 11]) {
    await archive.saveJob(job(id));
    await archive.saveDocument(id, 1, new Uint8Array([id]));
    await archive.addSheet(sheet(id, 1));
  }
  await archive.forgetJob(1);
  expect(readdirSync(folder).sort()).toEqual(['job-11-1.pdf', 'job-11.json', 'job-11.sheets']);
});
