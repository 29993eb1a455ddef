import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { partOf, plan } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { askProfile, hearEvents, sendShipment, shipmentOf, STATUS, subscribe, tellsEvents } from '@foglio/ipp';
import { impose, readFacts } from '@foglio/pdf';
import { isOver } from '../src/archive';
import { numberedPdf } from '../../../packages/pdf/test/make-pdf';
import { switchOn, type Running } from './running-printer';

let folder: string;
let printer: Running;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'foglio-events-'));
  printer = await switchOn(folder);
});
afterEach(async () => {
  await printer.stop();
  rmSync(folder, { recursive: true, force: true });
});

async function print(): Promise<number> {
  const bytes = numberedPdf(3);
  const documents = [{ name: 'a.pdf', bytes, ...(await readFacts(bytes)) }];
  const ticket = readTicket({ version: 1, documents: [{ file: 'a.pdf' }], tray: 'tray-1' });
  const profile = await askProfile(printer.uri);
  const made = plan(ticket, documents, profile);
  const [status] = await sendShipment({
    address: printer.uri,
    printer: profile,
    shipment: shipmentOf(made, ticket, profile),
    documentOf: ({ sheets }) => impose({ plan: partOf(made, sheets), ticket, documents, blanks: 'none' }),
    jobName: 'Three',
    mark: '#test',
    userName: 'test',
  });
  return status!.id;
}

test('what happens to its jobs is told once to who asks for it (RFC 3995, RFC 3996), and nothing where nothing happens', async () => {
  expect(tellsEvents(await askProfile(printer.uri))).toBe(true);
  const subscription = (await subscribe(printer.uri, 'test'))!;
  expect(await hearEvents(printer.uri, subscription, 1, 'test')).toEqual({ hasNews: false, next: 1 });
  const job = await print();
  const heard = await hearEvents(printer.uri, subscription, 1, 'test');
  expect(heard.hasNews).toBe(true);
  let { next } = heard;
  for (let round = 0; !isOver(printer.machine.jobs.get(job)!) && round < 3_000; round += 1)
    ({ next } = await hearEvents(printer.uri, subscription, next, 'test'));
  ({ next } = await hearEvents(printer.uri, subscription, next, 'test'));
  expect(await hearEvents(printer.uri, subscription, next, 'test')).toEqual({ hasNews: false, next });
  // An answer that got lost is given again.
  expect(await hearEvents(printer.uri, subscription, next - 1, 'test')).toEqual({ hasNews: true, next });
});

test('a subscription that the printer no longer holds is said to be gone', async () => {
  const gone = { id: 77 };
  await expect(hearEvents(printer.uri, gone, 1, 'test')).rejects.toMatchObject({ status: STATUS.notFound });
});

test('why a printer stands still is news of the jobs that wait for it', async () => {
  const subscription = (await subscribe(printer.uri, 'test'))!;
  printer.machine.breakDown('media-jam');
  const job = await print();
  for (let round = 0; printer.machine.jobs.get(job)!.state !== 'processing-stopped' && round < 3_000; round += 1)
    await hearEvents(printer.uri, subscription, 1, 'test');
  const { next } = await hearEvents(printer.uri, subscription, 1, 'test');
  printer.machine.breakDown('door-open');
  expect((await hearEvents(printer.uri, subscription, next, 'test')).hasNews).toBe(true);
});
