import { readyTimes, type Waiting } from '@foglio/core';
import type { PrinterRecord, SendingRecord } from '@foglio/api';
import { test, type World } from '../tests/e2e/world';
import { report } from './figures';
import { manyPages } from './many-pages';

/** How near the time that is told comes to the time at which a job is ready. */

const SHEET_MS = 300;

test.use({ printerOptions: { sheetMs: SHEET_MS } });

async function send(world: World, file: string, pages: number): Promise<SendingRecord> {
  const ticket = { version: 1, title: `${pages} pages`, documents: [{ file, pages: `1-${pages}` }], tray: 'tray-1' };
  const { id: jobId } = await world.api<{ id: string }>('/jobs', { ticket });
  return world.api<SendingRecord>('/sendings', { jobId, revision: 1, sheets: pages, confirmed: ['outside-printable'] });
}

async function ended(world: World, id: string): Promise<number> {
  for (;;) {
    const { state } = await world.api<SendingRecord>(`/sendings/${id}`);
    if (state === 'completed') return Date.now();
    if (!['queued', 'sending', 'printing'].includes(state)) throw new Error(`It is ${state}.`);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

test('three jobs before it at a printer that takes a known time for a sheet', async ({ world }) => {
  const file = await world.upload(await manyPages(60), 'pages.pdf');
  // By what it printed before its pace is known.
  for (const pages of [20, 30]) await ended(world, (await send(world, file, pages)).id);
  const sent: SendingRecord[] = [];
  for (const pages of [30, 20, 40, 30]) sent.push(await send(world, file, pages));
  const [{ pace }] = (await world.api<PrinterRecord[]>('/printers')) as [PrinterRecord];
  const now = Date.now();
  const waiting = sent.map(({ id, printerId, seconds }): Waiting => ({
    ...{ id, printerId, since: now, done: 0 },
    seconds: seconds === null ? null : seconds * pace,
  }));
  const last = sent.at(-1)!.id;
  const told = readyTimes(waiting, now).get(last)!.at!;
  const at = await ended(world, last);
  report('told', (told - now) / 1000, 's', `${(120 * SHEET_MS) / 1000} s by the printer alone`);
  report('ready after', (at - now) / 1000, 's', 'what was told');
  report('  off by', (100 * Math.abs(at - told)) / (at - now), '%', 'under 15 %');
});
