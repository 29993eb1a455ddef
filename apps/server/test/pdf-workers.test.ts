import { writeFile } from 'node:fs/promises';
import { inScratchFolder } from '@foglio/pdf';
import { PdfWorkers, WorkersClosed } from '../src/pdf/pdf-workers';

const HOW = { name: 'in.pdf', form: {}, password: null, first: false };

/** A worker's program that tells these reports when it is asked for something, and ends. */
const program = (reports: readonly object[], status: number): string => `
  process.once('message', async () => {
    for (const report of ${JSON.stringify(reports)}) await new Promise((told) => process.send(report, told));
    process.exit(${status});
  });`;

/** Takes a file in with workers of such a program. */
const takenBy = <T>(
  reports: readonly object[],
  status: number,
  look: (workers: PdfWorkers) => Promise<T>,
): Promise<T> =>
  inScratchFolder(async (path) => {
    await writeFile(path('worker.cjs'), program(reports, status));
    const workers = new PdfWorkers(path('worker.cjs'), path('no-browser.cjs'));
    try {
      return await look(workers);
    } finally {
      workers.close();
    }
  });

test.each([
  ['ends without a word', [], 0, /the worker ended without a result/],
  ['breaks off', [], 3, /the worker ended with 3/],
  ['gives the file up', [{ kind: 'failed', trouble: 'damaged', message: 'It is damaged.' }], 0, /It is damaged/],
])('a worker that %s is an error', async (_what, reports, status, message) => {
  await takenBy(reports, status, (workers) =>
    expect(workers.takeIn('in.pdf', 'out.pdf', HOW)).rejects.toThrow(message),
  );
});

test('work that is under way when the server ends is given up as such, and so is what comes after', async () => {
  await inScratchFolder(async (path) => {
    // It tells of one page, and then of no other for ever.
    const report = { kind: 'details', page: 1, details: {} };
    const busy = `process.once('message', () => process.send(${JSON.stringify(report)})); setInterval(() => {}, 1000);`;
    await writeFile(path('worker.cjs'), busy);
    const workers = new PdfWorkers(path('worker.cjs'), path('no-browser.cjs'));
    const told: number[] = [];
    const page = (number: number): void => {
      told.push(number);
      workers.close();
    };
    await expect(workers.readDetails('in.pdf', [1, 2], page)).rejects.toThrow(WorkersClosed);
    expect(told).toEqual([1]);
    await expect(workers.takeIn('in.pdf', 'out.pdf', HOW)).rejects.toThrow(WorkersClosed);
  });
});
