import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { plan, type Plan, type Ticket } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import {
  askJob,
  askProfile,
  cancelJob,
  decodeMessage,
  encodeMessage,
  IppError,
  OPERATIONS,
  sendShipment,
  shipmentOf,
  type SendInput,
  STATUS,
  type Message,
} from '@foglio/ipp';
import { impose, readFacts } from '@foglio/pdf';
import fc from 'fast-check';
import { parse } from 'ipp';
import type { DeliveredSheet } from '../src/archive';
import { PROFILE, switchOn, type Running } from './running-printer';

let folder: string;
let printer: Running;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'foglio-printer-'));
  printer = await switchOn(folder);
});

afterEach(async () => {
  await printer.stop();
  rmSync(folder, { recursive: true, force: true });
});

interface Prepared {
  readonly ticket: Ticket;
  readonly plan: Plan;
  /** As it is sent, with all that sending needs. */
  readonly sending: SendInput;
}

async function prepared(settings: object, changed: (plan: Plan) => Plan = (made) => made): Promise<Prepared> {
  const bytes = new Uint8Array(readFileSync(join(__dirname, '../../../.foglio/demo/seasonContract.pdf')));
  const documents = [{ name: 'contract.pdf', bytes, ...(await readFacts(bytes)) }];
  const ticket = readTicket({ version: 1, title: 'Contract', documents: [{ file: 'contract.pdf' }], ...settings });
  const profile = await askProfile(printer.uri);
  const made = changed(plan(ticket, documents, profile));
  const sending: SendInput = {
    address: printer.uri,
    printer: profile,
    shipment: shipmentOf(made, ticket, profile),
    documentOf: ({ sheets }) => impose({ plan: { ...made, sheets: [...sheets] }, ticket, documents, blanks: 'none' }),
    jobName: 'Contract',
    mark: '#test',
    userName: 'test',
  };
  return { ticket, plan: made, sending };
}

const fromTray = (made: Plan, tray: string): Plan => ({
  ...made,
  sheets: made.sheets.map((sheet) => ({ ...sheet, tray })),
});

async function send(settings: object): Promise<number> {
  const [status] = await sendShipment((await prepared(settings)).sending);
  return status!.id;
}

async function until(job: number, state: string): Promise<void> {
  for (let round = 0; round < 400; round += 1) {
    if ((await askJob(printer.uri, job)).state === state) return;
    await wait(10);
  }
  throw new Error(`job ${job} is ${(await askJob(printer.uri, job)).state}, not ${state}`);
}

const CONTRACT = {
  copies: 2,
  sides: 'two-sided',
  tray: 'tray-1',
  routes: [{ pages: '1, 6', tray: 'tray-2', sides: 'one-sided' }],
};

const sheetsOf = (job: number): DeliveredSheet[] => printer.machine.jobs.get(job)?.delivered ?? [];

test('tells of itself what the profile says', async () => {
  expect(await askProfile(printer.uri)).toMatchObject({
    name: 'Test office',
    duplex: true,
    margin: 4.2,
    sidesPerMinute: 30,
    trays: PROFILE.trays.map(({ id, name, size, loaded, capacity }) => ({ id, name, size, loaded, capacity })),
  });
});

test('delivers every sheet of the plan in order, from its tray, in sets', async () => {
  const { plan: made } = await prepared(CONTRACT);
  const job = await send(CONTRACT);
  await until(job, 'completed');
  let page = 0;
  const oneSet = made.sheets.map(({ tray, sides, back }) => {
    const front = (page += 1);
    return { tray, sides, front, back: back ? (page += 1) : null };
  });
  expect(sheetsOf(job).map(({ tray, sides, front, back }) => ({ tray, sides, front, back }))).toEqual([
    ...oneSet,
    ...oneSet,
  ]);
  expect(sheetsOf(job).map(({ set }) => set)).toEqual([...oneSet.map(() => 1), ...oneSet.map(() => 2)]);
  expect(printer.machine.loaded.get('tray-2')).toBe(0);
});

test('every face of the output is drawn, and a back that is not printed is none', async () => {
  const job = await send({ ...CONTRACT, copies: 1 });
  await until(job, 'completed');
  const face = (sheet: number, which: string) => fetch(`${printer.panel}/jobs/${job}/sheets/${sheet}/${which}.png`);
  // Face down: the front lies below.
  const drawn = await face(1, 'lower');
  const png = Buffer.from(await drawn.arrayBuffer());
  expect([drawn.status, drawn.headers.get('content-type')]).toEqual([200, 'image/png']);
  // A4 at 100 dots an inch (PNG, 11.2.2, IHDR), with something on it: white paper packs into a few thousand bytes.
  expect([png.readUInt32BE(16), png.readUInt32BE(20)]).toEqual([827, 1169]);
  expect(png.length).toBeGreaterThan(20_000);
  expect((await face(1, 'upper')).status).toBe(404);
  expect((await face(2, 'upper')).status).toBe(200);
  expect((await face(99, 'upper')).status).toBe(404);
});

test('stops where a tray is empty, and goes on when paper is loaded', async () => {
  const job = await send({ ...CONTRACT, copies: 3 });
  await until(job, 'processing-stopped');
  expect(printer.machine.stop).toEqual({ reason: 'media-empty', tray: 'tray-2' });
  const before = sheetsOf(job).length;
  const answer = await fetch(`${printer.panel}/trays/tray-2`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: '{"loaded":10}',
  });
  expect(answer.status).toBe(204);
  await until(job, 'completed');
  expect(before).toBeLessThan(sheetsOf(job).length);
  expect(printer.machine.loaded.get('tray-2')).toBe(8);
});

test('stops where a tray holds another paper than the page needs; a person cancels', async () => {
  const { sending } = await prepared({ tray: 'tray-1' }, (made) => fromTray(made, 'tray-4'));
  const id = (await sendShipment(sending))[0]!.id;
  await until(id, 'processing-stopped');
  expect(printer.machine.stop?.reason).toBe('media-needed');
  await cancelJob(printer.uri, id, 'test');
  await until(id, 'canceled');
  await expect(cancelJob(printer.uri, id, 'test')).rejects.toMatchObject({ status: STATUS.notPossible });
  const next = await send({ tray: 'tray-1' });
  await until(next, 'completed');
});

test('switched off in the middle of a job it goes on where it was, and nothing comes out twice', async () => {
  await printer.machine.load('tray-1', 4);
  const job = await send(CONTRACT);
  await until(job, 'processing-stopped');
  // It waits for paper meanwhile, and ends all the same.
  await printer.stop();
  expect(sheetsOf(job).length).toBeLessThan(16);
  printer = await switchOn(folder);
  await printer.machine.load('tray-1', 100);
  await until(job, 'completed');
  expect(sheetsOf(job).map(({ index }) => index)).toEqual(Array.from({ length: 16 }, (_, index) => index + 1));
});

test('another paper is put in: it says so, takes what asks for it, and keeps it over a night', async () => {
  const put = (body: object) =>
    fetch(`${printer.panel}/trays/tray-2`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
  expect((await put({ loaded: 5, size: 'iso_a5' })).status).toBe(400);
  expect((await put({ loaded: 5, size: 'iso_a5_148x210mm' })).status).toBe(204);
  const sizeNow = async (): Promise<string | undefined> =>
    (await askProfile(printer.uri)).trays.find(({ id }) => id === 'tray-2')?.size;
  expect(await sizeNow()).toBe('iso_a5_148x210mm');
  await printer.stop();
  printer = await switchOn(folder);
  expect(await sizeNow()).toBe('iso_a5_148x210mm');
  // Renewed without another profile, it is as it came.
  await fetch(`${printer.panel}/new`, { method: 'PUT', headers: { 'Content-Type': 'application/json' }, body: '{}' });
  expect(await sizeNow()).toBe(PROFILE.trays.find(({ id }) => id === 'tray-2')?.size);
});

test('renewed, it is as it came, or another printer; what was under way there is gone', async () => {
  await printer.machine.load('tray-1', 4);
  await until(await send(CONTRACT), 'processing-stopped');
  const renew = (body: object): Promise<Response> =>
    fetch(`${printer.panel}/new`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
  expect((await renew({ profile: { name: 'No printer' } })).status).toBe(400);
  expect(printer.machine.stop?.reason).toBe('media-empty');
  const trays = PROFILE.trays.map((tray) => ({ ...tray, loaded: 7 }));
  expect((await renew({ profile: { ...PROFILE, name: 'Another', trays } })).status).toBe(204);
  expect([printer.machine.profile.name, printer.machine.loaded.get('tray-1')]).toEqual(['Another', 7]);
  expect([printer.machine.jobs.size, printer.machine.stop, printer.machine.output]).toEqual([0, null, []]);
  await until(await send({ tray: 'tray-1', documents: [{ file: 'manual.pdf', pages: '1-3' }] }), 'completed');
});

test('refuses what it does not support by name, and a document that is no PDF', async () => {
  const elsewhere = await prepared({ tray: 'tray-1' }, (made) => fromTray(made, 'tray-9'));
  await expect(sendShipment(elsewhere.sending)).rejects.toThrow('not supported: media-col');
  const { sending } = await prepared({ tray: 'tray-1' });
  const noPdf = () => Promise.resolve(new TextEncoder().encode('no pdf'));
  await expect(sendShipment({ ...sending, documentOf: noPdf })).rejects.toMatchObject({
    status: STATUS.documentFormatError,
  });
  expect([...printer.machine.jobs.values()].map(({ state }) => state)).toEqual(['aborted']);
});

test('a document that breaks off is never printed', async () => {
  const abort = new AbortController();
  const sending = sendShipment({
    ...(await prepared({ tray: 'tray-1' })).sending,
    onCreated: async () => {
      await Promise.resolve();
      abort.abort();
    },
    signal: abort.signal,
  });
  await expect(sending).rejects.toThrow(IppError);
  // What comes after it is printed, and nothing of it before or meanwhile.
  await until(await send({ tray: 'tray-1' }), 'completed');
  expect(sheetsOf(1)).toEqual([]);
  expect(printer.machine.jobs.get(1)?.state).not.toBe('completed');
});

describe('answers', () => {
  async function raw(body: Uint8Array, to = printer.uri): Promise<Buffer> {
    const answer = await fetch(to.replace('ipp:', 'http:'), {
      method: 'POST',
      headers: { 'Content-Type': 'application/ipp' },
      body,
    });
    expect(answer.status).toBe(200);
    return Buffer.from(await answer.arrayBuffer());
  }

  const request = (code: number, attributes: Message['groups'][number]['attributes'] = {}): Uint8Array =>
    encodeMessage({
      version: [2, 0],
      code,
      requestId: 42,
      groups: [
        {
          tag: 'operation',
          attributes: {
            'attributes-charset': [{ tag: 'charset', value: 'utf-8' }],
            'attributes-natural-language': [{ tag: 'naturalLanguage', value: 'en' }],
            'printer-uri': [{ tag: 'uri', value: printer.uri }],
            ...attributes,
          },
        },
      ],
    });

  test('are read by the second opinion', async () => {
    const told = parse(await raw(request(OPERATIONS.getPrinterAttributes)));
    expect(told).toMatchObject({ statusCode: 'successful-ok', id: 42 });
    expect(told['printer-attributes-tag']).toMatchObject({
      'printer-name': 'Test office',
      'sides-supported': ['one-sided', 'two-sided-long-edge', 'two-sided-short-edge'],
    });
    const job = await send({ tray: 'tray-1' });
    await until(job, 'completed');
    const about = await raw(request(OPERATIONS.getJobAttributes, { 'job-id': [{ tag: 'integer', value: job }] }));
    expect(parse(about)['job-attributes-tag']).toMatchObject({
      'job-state': 'completed',
      'job-media-sheets-completed': 14,
    });
    const listed = await raw(request(OPERATIONS.getJobs, { 'which-jobs': [{ tag: 'keyword', value: 'completed' }] }));
    expect(parse(listed)['job-attributes-tag']).toMatchObject({ 'job-id': job });
  });

  test('to what is no IPP, to unknown operations and jobs, carry the standard’s status', async () => {
    const statusOf = async (body: Uint8Array): Promise<unknown> => parse(await raw(body)).statusCode;
    expect(await statusOf(new TextEncoder().encode('hello'))).toBe('client-error-bad-request');
    expect(await statusOf(request(0x3fff))).toBe('server-error-operation-not-supported');
    const nobody = { 'job-id': [{ tag: 'integer', value: 77 } as const] };
    expect(await statusOf(request(OPERATIONS.getJobAttributes, nobody))).toBe('client-error-not-found');
    expect(await statusOf(request(OPERATIONS.getJobAttributes))).toBe('client-error-bad-request');
    expect(await statusOf(request(OPERATIONS.validateJob))).toBe('successful-ok');
    expect((await fetch(printer.uri.replace('ipp:', 'http:'), { method: 'POST', body: 'x' })).status).toBe(415);
  });

  test('no bytes whatever crash it: requests cut short, changed and made up get a status of the standard', async () => {
    const whole = request(OPERATIONS.createJob, { 'job-name': [{ tag: 'name', value: 'Fuzz' }] });
    const operations = Object.values(OPERATIONS);
    const bytes = fc.oneof(
      fc.uint8Array({ maxLength: 300 }),
      fc.nat(whole.length).map((length) => whole.slice(0, length)),
      fc
        .tuple(
          fc.constantFrom(...operations),
          fc.array(fc.tuple(fc.nat(whole.length - 1), fc.nat(255)), { maxLength: 8 }),
        )
        .map(([operation, changes]) => {
          const changed = Uint8Array.from(whole);
          changed[3] = operation;
          for (const [at, value] of changes) changed[at] = value;
          return changed;
        }),
    );
    await fc.assert(
      fc.asyncProperty(bytes, async (body) => {
        const { version, code } = decodeMessage(await raw(body, printer.direct)).message;
        expect(version).toEqual([2, 0]);
        expect(Object.values(STATUS)).toContain(code);
      }),
      { numRuns: 300 },
    );
    expect((await askProfile(printer.uri)).name).toBe('Test office');
  });

  test('of the panel name what is wrong', async () => {
    const put = (path: string, body: string) =>
      fetch(`${printer.panel}${path}`, { method: 'PUT', headers: { 'Content-Type': 'application/json' }, body });
    expect((await put('/trays/tray-9', '{"loaded":1}')).status).toBe(404);
    expect((await put('/trays/tray-1', '{"loaded":-1}')).status).toBe(400);
    expect((await fetch(`${printer.panel}/jobs/77`)).status).toBe(404);
    expect((await fetch(`${printer.panel}/jobs/77/documents/1`)).status).toBe(404);
    expect(await (await fetch(printer.panel)).json()).toMatchObject({ name: 'Test office', stop: null });
  });
});

test('one that is called off while job and document go at once is cancelled there, as soon as its number is known', async () => {
  const { sending } = await prepared({ tray: 'tray-1' });
  printer.machine.pause(true);
  const atOnce = { jobs: { ...sending.printer.jobs, operations: [OPERATIONS.printJob, OPERATIONS.validateJob] } };
  const calledOff = new Error('called off');
  const onCreated = () => Promise.reject(calledOff);
  await expect(sendShipment({ ...sending, printer: atOnce, onCreated })).rejects.toBe(calledOff);
  expect([...printer.machine.jobs.values()].map(({ state, deliveredCount }) => [state, deliveredCount])).toEqual([
    ['canceled', 0],
  ]);
});

test('all documents of a job are made before the printer is asked to make it: it may not wait for them', async () => {
  const { sending } = await prepared({ tray: 'tray-1' });
  const jobsMeanwhile: number[] = [];
  await sendShipment({
    ...sending,
    documentOf: (document, part) => {
      jobsMeanwhile.push(printer.machine.jobs.size);
      return sending.documentOf(document, part);
    },
  });
  expect([jobsMeanwhile, printer.machine.jobs.size]).toEqual([[0], 1]);
});

test('jobs of before are forgotten, but for the latest: no number is given twice', async () => {
  const PLAIN = { tray: 'tray-1', sides: 'two-sided' };
  const jobs = [await send(PLAIN), await send(PLAIN), await send(PLAIN)];
  for (const job of jobs) await until(job, 'completed');
  expect(await printer.machine.forget(new Date(0))).toBe(0);
  expect(await printer.machine.forget(new Date(Date.now() + 60_000))).toBe(2);
  expect([...printer.machine.jobs.keys()]).toEqual([jobs[2]]);
  await printer.stop();
  printer = await switchOn(folder);
  expect(await send(PLAIN)).toBe(jobs[2]! + 1);
});

test('a job that the printer ends before its document comes is told from one that it refuses: it is asked what became of it', async () => {
  const { sending } = await prepared({ tray: 'tray-1' });
  const refused = jest.fn(() => Promise.resolve());
  const broken = sendShipment({
    ...sending,
    onRefused: refused,
    // It was off and on before the document came.
    onCreated: (id) => printer.machine.abortIncoming(printer.machine.jobs.get(id)!),
  });
  await expect(broken).rejects.toMatchObject({ name: 'IppError', status: STATUS.notPossible, jobCreated: true });
  expect(refused).not.toHaveBeenCalled();
  const [job] = [...printer.machine.jobs.values()];
  expect(await askJob(printer.uri, job!.id)).toMatchObject({ state: 'aborted', sheetsCompleted: 0 });
});
