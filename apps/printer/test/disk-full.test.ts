import { mkdtempSync, readFileSync, rmSync, symlinkSync, unlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { readPrinter } from '@foglio/core/validate';
import { numberedPdf } from '../../../packages/pdf/test/make-pdf';
import { Archive, type DeliveredSheet, type PrintJob } from '../src/archive';
import { Machine } from '../src/machine';

/** A printer whose disk is full stands still, forgets nothing, and goes on when there is room; /dev/full is always full (full(4)). */

const profile = readPrinter({ name: 'Office', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm', loaded: 50 }] });

let folder: string;
let machine: Machine;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'foglio-full-'));
  machine = new Machine({ profile, archive: new Archive(folder), sheetMs: 0 });
  await machine.start();
});
afterEach(async () => {
  await machine.shutDown();
  rmSync(folder, { recursive: true, force: true });
});

const fill = (file: string): void => symlinkSync('/dev/full', join(folder, file));
const makeRoom = (file: string): void => unlinkSync(join(folder, file));
const pages = (count: number): Uint8Array => numberedPdf(count);

async function until(comeAbout: () => boolean): Promise<void> {
  for (let turn = 0; turn < 1_000 && !comeAbout(); turn += 1) await wait(10);
  expect(comeAbout()).toBe(true);
}

const written = ({ id }: PrintJob): number[] =>
  readFileSync(join(folder, `job-${id}.sheets`), 'utf8')
    .trim()
    .split('\n')
    .map((line) => (JSON.parse(line) as DeliveredSheet).index);

test('in the middle of a job: it says so, and prints the rest once there is room, each sheet once', async () => {
  const job = await machine.createJob('Season', 'anna', {});
  fill(`job-${job.id}.sheets`);
  await machine.receiveDocument(job, {}, pages(3), true);
  await until(() => machine.stop?.reason === 'spool-area-full');
  expect(job.delivered).toEqual([]);
  makeRoom(`job-${job.id}.sheets`);
  await until(() => job.state === 'completed');
  expect(machine.stop).toBeNull();
  expect(written(job)).toEqual([1, 2, 3]);
});

test('a document that finds no room is refused with its job, and the next one is printed', async () => {
  const refused = await machine.createJob('Too large', 'anna', {});
  fill(`job-${refused.id}-1.pdf`);
  await expect(machine.receiveDocument(refused, {}, pages(1), true)).rejects.toMatchObject({ code: 'ENOSPC' });
  expect(refused).toMatchObject({ state: 'aborted', message: 'the printer’s disk is full' });
  const job = await machine.createJob('Season', 'anna', {});
  await machine.receiveDocument(job, {}, pages(1), true);
  await until(() => job.state === 'completed');
});

test('switched off while there is no room, it goes on after that from the sheet that was not written down', async () => {
  const job = await machine.createJob('Season', 'anna', {});
  await machine.receiveDocument(job, {}, pages(2), false);
  fill(`job-${job.id}.sheets`);
  await machine.closeJob(job);
  await until(() => machine.stop?.reason === 'spool-area-full');
  await machine.shutDown();
  makeRoom(`job-${job.id}.sheets`);
  machine = new Machine({ profile, archive: new Archive(folder), sheetMs: 0 });
  await machine.start();
  await until(() => machine.jobs.get(job.id)?.state === 'completed');
  expect(written(job)).toEqual([1, 2]);
});
