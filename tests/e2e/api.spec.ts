import { once } from 'node:events';
import { Validator } from '@seriousme/openapi-schema-validator';
import { parse } from 'csv-parse/sync';
import { WebSocket } from 'ws';
import { DescribedApi } from '../../apps/server/test/described';
import { query } from './databases';
import { JobPrinter } from './job-printer';
import { expect, test } from './world';

interface Answer {
  readonly status: number;
  readonly type: string;
  readonly body: Buffer;
}

test.use({ printerOptions: { also: ['box-office'] } });

test('every operation of the API answers as the OpenAPI description says, which is one', async ({ world }) => {
  const api = new DescribedApi();
  const ask = async (method: string, path: string, body?: object | Buffer): Promise<Answer> => {
    const bytes = body instanceof Buffer;
    const type = bytes ? 'application/octet-stream' : 'application/json';
    const init = body
      ? { headers: { 'Content-Type': type }, body: bytes ? new Uint8Array(body) : JSON.stringify(body) }
      : {};
    const answer = await fetch(world.base + path, { method, ...init });
    const read: Answer = {
      status: answer.status,
      type: answer.headers.get('content-type') ?? '',
      body: Buffer.from(await answer.arrayBuffer()),
    };
    api.hold(method, path, read.status, read.type, read.body);
    return read;
  };
  const json = async <T>(...asked: Parameters<typeof ask>): Promise<T> => {
    const { body } = await ask(...asked);
    return JSON.parse(body.toString()) as T;
  };

  // Another package's opinion: the description keeps to OpenAPI 3.1, and it is the one that is served.
  const served = await json<Record<string, unknown>>('GET', '/api/openapi.json');
  expect(await new Validator().validate(structuredClone(served))).toMatchObject({ valid: true });
  expect(served).toEqual(JSON.parse(JSON.stringify(api.document)));

  const contract = world.source('contract');
  const { id: file } = await json<{ id: string }>('POST', '/api/files?name=contract.pdf', contract);
  expect(await json('GET', '/api/files?name=contract.pdf')).toEqual([
    { id: file, name: 'contract.pdf', bytes: contract.length, pages: 14 },
  ]);
  await ask('GET', `/api/files/${file}`);
  await ask('GET', `/api/files/${file}/facts?from=2`);
  await ask('GET', `/api/files/${file}/content`);
  const { id: table } = await json<{ id: string }>(
    'POST',
    '/api/files?name=players.csv&form={}',
    Buffer.from('name,fee\nReed,3\n'),
  );
  await ask('POST', `/api/files/${table}/forms`, { form: { gridLines: false } });
  await ask('DELETE', `/api/files/${table}/forms`);

  const news = new WebSocket(`${world.base.replace('http', 'ws')}/api/news`);
  news.on('message', (told: Buffer) => api.hold('GET', '/api/news', 101, 'application/json', told));
  await once(news, 'open');

  await ask('GET', '/api/health');
  await ask('GET', '/api/health/live');
  await ask('GET', '/api/health/ready');

  const ticket = { version: 1, title: 'Contract', documents: [{ file }], sides: 'two-sided' };
  const { id: job } = await json<{ id: string }>('POST', '/api/jobs', { ticket });
  await ask('GET', '/api/jobs?search=contr&from=0&most=10');
  await ask('GET', `/api/jobs/${job}`);
  await ask('PUT', `/api/jobs/${job}`, { ticket: { ...ticket, title: 'Agreed' }, revision: 1 });
  await ask('GET', `/api/jobs/${job}/imposed.pdf?name=Mine`);
  const list = await ask('GET', `/api/jobs/${job}/sheets.csv?name=Mine`);
  const rows: string[][] = parse(list.body, { bom: true });
  expect([rows.length, rows[0]?.[0], rows[7]]).toEqual([
    8,
    'Sheet',
    ['7', 'Tray 1', 'A4', 'stationery', 'portrait', 'two-sided, turned along the long edge', '13', '14', '100'],
  ]);
  const { id: spare } = await json<{ id: string }>('POST', '/api/jobs', { ticket });
  await ask('DELETE', `/api/jobs/${spare}`);

  await ask('GET', '/api/printers');
  await ask('GET', '/api/nearby-printers');
  const added = await json<{ id: string }>('POST', '/api/printers', {
    uri: world.printerUri.replace('127.0.0.1', 'localhost'),
  });
  await ask('DELETE', `/api/printers/${added.id}`);
  const upper = '/api/printers/upper-office';
  await ask('GET', upper);
  await ask('PUT', `${upper}/access`, { login: null });
  for (const held of [true, false]) await ask('PUT', `${upper}/held-back`, { held });
  await ask('PUT', `${upper}/trays/tray-1`, { weight: 75, price: 0.01 });
  await ask('PUT', `${upper}/panel/trays/tray-1`, { loaded: 100 });
  await ask('PUT', `${upper}/panel/trays/tray-1/pulled`, { pulled: false });
  await ask('PUT', `${upper}/panel/fault`, { fault: null });
  await ask('PUT', `${upper}/panel/paused`, { paused: true });

  type Sent = { id: string; state: string };
  const sending = { jobId: job, revision: 2, sheets: 7 };
  // The printer begins with the first and stands still, so that the second can be held.
  const { id: before } = await json<Sent>('POST', '/api/sendings', sending);
  const { id: sent } = await json<Sent>('POST', '/api/sendings', sending);
  const stateOf = async (id: string): Promise<string> => (await json<Sent>('GET', `/api/sendings/${id}`)).state;
  await expect.poll(() => stateOf(sent)).toBe('printing');
  await ask('POST', `/api/sendings/${sent}/hold`);
  await expect.poll(() => stateOf(sent)).toBe('held');
  await ask('POST', `/api/sendings/${sent}/release`);
  await ask('PUT', `${upper}/panel/paused`, { paused: false });
  await expect.poll(() => stateOf(sent)).toBe('completed');
  // Asked of one after the other: of two that end at once either may be heard of first.
  await expect.poll(() => stateOf(before)).toBe('completed');
  await ask('GET', '/api/sendings');
  await ask('GET', `/api/sendings/${sent}/seen`);
  const { delivered } = await json<{ delivered: object[] }>('GET', `/api/sendings/${sent}/stack`);
  expect(delivered).toHaveLength(7);
  // What lies in the output is what came out, until someone takes it away.
  const output = await json<{ sheets: number; delivered: object[] }>('GET', `${upper}/panel/output`);
  expect(output.sheets).toBe(14);
  expect(output.delivered.slice(7)).toEqual(delivered.map((sheet, index) => ({ ...sheet, index: index + 8 })));
  await ask('GET', `${upper}/panel/jobs/2/documents/1`);
  await ask('GET', `/api/sendings/${sent}/jobs/2/documents/1`);
  await ask('PUT', `${upper}/panel/output`, { taken: true });
  expect(await json('GET', `${upper}/panel/output`)).toEqual({ sheets: 0, delivered: [] });
  const { id: again } = await json<Sent>('POST', `/api/sendings/${sent}/again`);
  await ask('POST', `/api/sendings/${again}/cancel`);
  // What its printer forgot, as nobody can tell whether it came out.
  await query(world.database, `update sendings set state = 'uncertain' where id = '${again}'`);
  await ask('POST', `/api/sendings/${again}/came-out`);

  // What waits is put before another.
  await ask('PUT', '/api/printers/upper-office/held-back', { held: true });
  const waiting = [
    await json<Sent>('POST', `/api/sendings/${sent}/again`),
    await json<Sent>('POST', `/api/sendings/${sent}/again`),
  ];
  await ask('PUT', `/api/sendings/${waiting[1]!.id}/place`, { before: waiting[0]!.id });
  for (const { id } of waiting) await ask('POST', `/api/sendings/${id}/cancel`);
  await ask('PUT', '/api/printers/upper-office/held-back', { held: false });

  // Set-ups.
  const setup = { version: 1, documents: [{ file: '*' }], sides: 'two-sided' };
  await ask('GET', '/api/setups');
  const saved = await json<{ id: string }>('POST', '/api/setups', { name: 'Contracts', ticket: setup });
  await ask('PUT', `/api/setups/${saved.id}`, { name: 'Agreements', printerId: 'upper-office', starts: 'printer' });
  await ask('PUT', `/api/setups/${saved.id}`, { offered: true });
  const [desk, agreements] = await json<{ address: string }[]>('GET', '/api/queues');
  expect([desk?.address, agreements?.address]).toEqual([world.queueUri('desk'), world.queueUri('agreements')]);
  await new JobPrinter(world.queueUri('agreements')).print({ name: 'Letter', user: 'anna' }, contract);
  await ask('GET', '/api/incoming');
  await ask('GET', '/api/jobs');
  await ask('DELETE', `/api/setups/${saved.id}`);

  // A series.
  type Series = { id: string; state: string; rows: { id: string }[] };
  const begun = await json<Series>('POST', '/api/series', { title: 'Season', setup, printerId: 'upper-office' });
  const series = `/api/series/${begun.id}`;
  const files = [
    { name: 'contract.pdf', file },
    { name: 'bad.pdf', trouble: 'It is damaged.' },
  ];
  const { rows: both } = await json<Series>('POST', `${series}/rows`, { files });
  await ask('PUT', `${series}/rows`, { rows: both.map(({ id }) => id).reverse() });
  await ask('PUT', `${series}/rows/${both[1]!.id}`, { skipped: true });
  await ask('PUT', series, { title: 'This season' });
  await ask('GET', `${series}/documents`);
  await ask('GET', '/api/series');
  await ask('PUT', `${upper}/panel/paused`, { paused: true });
  await ask('POST', `${series}/start`, { sheets: 7 });
  await ask('POST', `${series}/pause`);
  await ask('POST', `${series}/resume`, { again: false });
  await ask('PUT', `${upper}/panel/paused`, { paused: false });
  await expect.poll(async () => (await json<Series>('GET', series)).state).toBe('done');
  const told: string[][] = parse((await ask('GET', `${series}/report.csv`)).body, { bom: true });
  expect(told.map((row) => row.slice(1, 6))).toEqual([
    ['File', 'Pages', 'Sheets', 'Delivered', 'Outcome'],
    ['bad.pdf', '', '', '0', 'left out'],
    ['contract.pdf', '14', '7', '7', 'delivered'],
  ]);
  await ask('GET', `${series}/report.pdf`);
  await ask('DELETE', series);

  // One set first, the others after it, and sheets again.
  const first = { version: 1, documents: [{ file, pages: '1-2' }], tray: 'tray-1', copies: 3, proof: true };
  const proof = await json<{ id: string }>('POST', '/api/jobs', { ticket: first });
  const sendProof = () => json<Sent>('POST', '/api/sendings', { jobId: proof.id, revision: 1, sheets: 6 });
  const { id: looked } = await sendProof();
  await expect.poll(() => stateOf(looked)).toBe('proofed');
  await ask('POST', `/api/sendings/${looked}/first-alone`);
  const { id: released } = await sendProof();
  await expect.poll(() => stateOf(released)).toBe('proofed');
  const others = await json<Sent>('POST', `/api/sendings/${released}/other-sets`);
  await expect.poll(() => stateOf(others.id)).toBe('completed');
  await ask('GET', `/api/sendings/${others.id}/sheets`);
  const marks = [{ sets: [2, 3], sheets: [[2, 2]] }];
  const part = await json<Sent>('POST', `/api/sendings/${others.id}/again`, { marks });
  await expect.poll(() => stateOf(part.id)).toBe('completed');

  // In two passes.
  await ask('PUT', `/api/jobs/${job}/printer`, { printerId: 'box-office', revision: 2 });
  const confirmed = ['two-passes', 'outside-printable'];
  const passes = await json<Sent>('POST', '/api/sendings', { jobId: job, revision: 3, sheets: 7, confirmed });
  await expect.poll(() => stateOf(passes.id)).toBe('turning');
  await ask('POST', `/api/sendings/${passes.id}/first-pass`);
  await expect.poll(() => stateOf(passes.id)).toBe('turning');
  await ask('PUT', '/api/printers/box-office/panel/refeed', { turned: true });
  await ask('POST', `/api/sendings/${passes.id}/second-pass`);
  await expect.poll(() => stateOf(passes.id)).toBe('completed');

  // What all of it came to.
  const days = '?from=2026-01-01&to=2099-12-31';
  await expect
    .poll(async () => (await json<{ total: { deliveries: number } }>('GET', `/api/spend${days}`)).total.deliveries)
    .toBeGreaterThan(6);
  await ask('GET', `/api/spend.csv${days}&printer=box-office`);

  expect(api.complaints).toEqual([]);
  expect([...api.met].sort()).toEqual(api.operations.sort());
});
