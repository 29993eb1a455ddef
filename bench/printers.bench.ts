import { readFileSync } from 'node:fs';
import { setTimeout as wait } from 'node:timers/promises';
import { numberedPdf } from '../packages/pdf/test/make-pdf';
import { panelAt, putJson } from '../tests/e2e/panel';
import { StrangePrinters } from '../tests/e2e/strange-printers';
import { expect, test, type World } from '../tests/e2e/world';
import { holding, measured } from './held';
import { median, report } from './figures';

/** What one strange printer costs those who print at others, and what a job in many parts takes. */

test.use({ ownWorld: true });
holding();

let printers: StrangePrinters;
test.beforeEach(() => {
  printers = new StrangePrinters();
});
test.afterEach(() => printers.stop());

interface Sending {
  readonly id: string;
  readonly state: string;
}

const state = async (world: World, id: string): Promise<string> => (await world.api<Sending>(`/sendings/${id}`)).state;

async function until(world: World, id: string, wanted: string): Promise<void> {
  while ((await state(world, id)) !== wanted) await wait(20);
}

const add = async (world: World, uri: string): Promise<string> =>
  (await world.api<{ id: string }>('/printers', { uri })).id;

async function send(world: World, file: string, printerId: string, settings: object, sheets: number): Promise<string> {
  const ticket = { version: 1, documents: [{ file }], tray: 'tray-1', ...settings };
  const job = await world.api<{ id: string; revision: number }>('/jobs', { ticket, printerId });
  const confirmed = ['tray-short', 'large-run', 'separate-jobs'];
  return (await world.api<Sending>('/sendings', { jobId: job.id, revision: job.revision, sheets, confirmed })).id;
}

for (const manner of ['huge', 'many-trays']) {
  test(`the server’s thread while a printer answers in the manner ${manner}`, async ({ world }) => {
    const { uri } = await printers.switchOn(manner);
    await measured(world, `asking a printer of the manner ${manner}`, 'under 200 ms', async () => {
      await expect(add(world, uri)).rejects.toThrow('printer-away');
    });
  });
}

test('twenty jobs at two healthy printers, without and with a third that answers a byte in three seconds', async ({
  world,
}) => {
  const file = await world.upload(Buffer.from(numberedPdf(4)), 'four.pdf');
  const pace = { sheetMs: 50 };
  const [one, other, slow] = [
    await printers.switchOn(null, { name: 'one', ...pace }),
    await printers.switchOn(null, { name: 'other', ...pace }),
    await printers.switchOn(null, { name: 'slow', ...pace }),
  ];
  const healthy = [await add(world, one.uri), await add(world, other.uri)];
  const slowId = await add(world, slow.uri);
  const twenty = async (): Promise<number> => {
    const start = performance.now();
    const ids = await Promise.all(Array.from({ length: 20 }, (_, at) => send(world, file, healthy[at % 2]!, {}, 4)));
    for (const id of ids) await until(world, id, 'completed');
    return performance.now() - start;
  };
  await twenty();
  const without = [await twenty(), await twenty(), await twenty()];
  await putJson(`${panelAt(slow.uri)}/fault`, { fault: 'media-jam' });
  const stuck = await send(world, file, slowId, {}, 4);
  await until(world, stuck, 'printing');
  await printers.becomes('slow', slow, 'slow');
  const beside = [await twenty(), await twenty(), await twenty()];
  report('20 jobs of 4 sheets at two printers', median(without), 'ms');
  report('  beside one that is slow', median(beside), 'ms', `within a tenth: ${(1.1 * median(without)).toFixed(0)} ms`);
});

test('10,000 pages in 20 parts', async ({ world }) => {
  const file = await world.upload(Buffer.from(numberedPdf(10_000)), 'long.pdf');
  await wait(6_000);
  const printerId = await add(world, (await printers.switchOn('no-overrides')).uri);
  // Every other five hundred pages from another tray, at a printer that cannot change it within a job.
  const pages = Array.from({ length: 10 }, (_, at) => `${at * 1_000 + 501}-${(at + 1) * 1_000}`).join(', ');
  const start = performance.now();
  const id = await send(world, file, printerId, { routes: [{ pages, tray: 'by-pass-tray' }] }, 10_000);
  let most = 0;
  while ((await state(world, id)) !== 'printing') {
    most = Math.max(most, memoryOf(world.serverPid));
    await wait(20);
  }
  report('10,000 pages in 20 parts, until the printer has them', performance.now() - start, 'ms');
  report('  memory of the server meanwhile', most, 'MB', 'under 300 MB');
  const { printerJobs } = await world.api<{ printerJobs: number[] }>(`/sendings/${id}`);
  expect(printerJobs).toHaveLength(20);
});

/** Resident, in megabytes (proc(5)). */
function memoryOf(pid: number): number {
  const [, kilobytes] = /^VmRSS:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8')) ?? [];
  return Number(kilobytes) / 1024;
}
