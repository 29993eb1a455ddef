import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { once } from 'node:events';
import { request as rawRequest, type IncomingMessage } from 'node:http';
import { connect as openSocket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import type { Heading, PageFacts } from '@foglio/core';
import { count } from 'drizzle-orm';
import supertest from 'supertest';
import { contentChunks, contents, files } from '../src/database/schema';
import { enterPrinters } from '../src/printers/printer-store';
import { binary, PROFILE, startServer, type RunningServer } from './running-server';

let server: RunningServer;
let contract: Buffer;

beforeAll(async () => {
  server = await startServer();
  contract = readFileSync(join(__dirname, '../../../.foglio/demo/seasonContract.pdf'));
});
afterAll(() => server.stop());

interface FileAnswer {
  readonly id: string;
  readonly pages: PageFacts[];
  readonly outline: Heading[];
  readonly remarks: string[];
}

const api = () => supertest(server.base);

const upload = (bytes: Buffer, name = 'contract.pdf') =>
  api().post('/api/files').query({ name }).set('Content-Type', 'application/pdf').send(bytes);

async function createJob(settings: object = {}): Promise<{ id: string; revision: number; ticket: object }> {
  const { id: file } = (await upload(contract)).body as { id: string };
  const created = await api()
    .post('/api/jobs')
    .send({ ticket: { version: 1, documents: [{ file }], ...settings } });
  expect(created.status).toBe(201);
  return created.body as { id: string; revision: number; ticket: object };
}

const rows = async (table: typeof contents | typeof files | typeof contentChunks): Promise<number> =>
  (await server.db.select({ n: count() }).from(table))[0]?.n ?? 0;

describe('files', () => {
  test('an upload answers with its pages, and its bytes come back the same', async () => {
    const answer = await upload(contract);
    expect(answer.status).toBe(201);
    const { read, ...body } = answer.body as { id: string; pages: unknown[]; read: number };
    expect(read).toBe(0);
    expect(body).toMatchObject({ name: 'contract.pdf', bytes: contract.length });
    const { id, pages } = body;
    expect(pages).toHaveLength(14);
    const content = await api().get(`/api/files/${id}/content`).buffer(true).parse(binary);
    expect(content.headers['content-type']).toBe('application/pdf');
    expect(Buffer.compare(content.body as Buffer, contract)).toBe(0);
    // By then more may be known of it.
    expect((await api().get(`/api/files/${id}`)).body).toMatchObject(body);
  });

  /** A file as soon as its labels and outline are known. */
  async function withOutline(id: string): Promise<FileAnswer> {
    for (;;) {
      const file = (await api().get(`/api/files/${id}`)).body as Partial<FileAnswer>;
      if (file.outline) return file as FileAnswer;
      await wait(20);
    }
  }

  test('labels and outline of a manual are kept with it, and given with its job', async () => {
    const manual = readFileSync(join(__dirname, '../../../.foglio/manual/maint-guide.en-20.pdf'));
    const { id } = (await upload(manual, 'manual.pdf')).body as FileAnswer;
    const { pages, outline } = await withOutline(id);
    expect(pages.slice(5, 8).map(({ label }) => label)).toEqual(['vi', '1', '2']);
    expect(outline[0]).toMatchObject({ title: 'Getting started The Right Way', level: 1, page: 7 });
    const ticket = { version: 1, documents: [{ file: id, pages: '1:, "First steps"', numbering: 'labels' }] };
    const job = (await api().post('/api/jobs').send({ ticket })).body as { documents: FileAnswer[] };
    expect(job.documents[0]).toMatchObject({ id, outline, pages: pages.map(({ label }) => ({ label })) });
  });

  test('the same bytes are stored once, also when they come at the same time', async () => {
    const other = Buffer.concat([contract, Buffer.from('\n% another\n')]);
    const [before, beforeChunks] = [await rows(contents), await rows(contentChunks)];
    const answers = await Promise.all([1, 2, 3].map((n) => upload(other, `${n}.pdf`)));
    expect(answers.map(({ status }) => status)).toEqual([201, 201, 201]);
    expect(new Set(answers.map(({ body }) => (body as { id: string }).id)).size).toBe(3);
    expect(await rows(contents)).toBe(before + 1);
    expect(await rows(contentChunks)).toBe(beforeChunks + 1);
  });

  test.each([
    ['no file Foglio knows', Buffer.from('{\\rtf1 a letter}'), 'not-known'],
    ['a damaged one', Buffer.from('%PDF-1.7\n1 0 obj'), 'damaged'],
  ])('%s is refused as a problem document and leaves nothing behind (RFC 9457)', async (_what, bytes, trouble) => {
    const before = await rows(contents);
    const answer = await upload(bytes);
    expect(answer.status).toBe(422);
    expect(answer.headers['content-type']).toContain('application/problem+json');
    expect(answer.body).toMatchObject({ type: 'urn:foglio:problem:file-unusable', status: 422, trouble });
    expect(await rows(contents)).toBe(before);
  });

  test('a locked one asks for its password, refuses a wrong one, and is stored open; the password is not', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'foglio-locked-'));
    writeFileSync(join(folder, 'a.pdf'), contract);
    execFileSync('qpdf', ['--encrypt', 'sésame', 'owner', '256', '--', join(folder, 'a.pdf'), join(folder, 'b.pdf')]);
    const lockedFile = readFileSync(join(folder, 'b.pdf'));
    rmSync(folder, { recursive: true });
    const before = await rows(contents);
    expect((await upload(lockedFile)).body).toMatchObject({ status: 422, trouble: 'locked' });
    const withPassword = (password: string) =>
      upload(lockedFile).set('Document-Password', encodeURIComponent(password));
    expect((await withPassword('guess')).body).toMatchObject({ trouble: 'wrong-password' });
    expect((await upload(lockedFile).set('Document-Password', '%')).status).toBe(400);
    expect(await rows(contents)).toBe(before);
    const answer = await withPassword('sésame');
    expect(answer.status).toBe(201);
    expect((answer.body as FileAnswer).pages).toHaveLength(14);
    const content = await api()
      .get(`/api/files/${(answer.body as FileAnswer).id}/content`)
      .buffer(true)
      .parse(binary);
    expect((content.body as Buffer).includes('/Encrypt')).toBe(false);
    // Whoever has the locked file and not the password gets nothing of what is stored.
    expect((await upload(lockedFile)).body).toMatchObject({ trouble: 'locked' });
    const dump = await server.pool.query<{ row: string }>(
      'select files::text || contents::text as row from files, contents',
    );
    expect(dump.rows.some(({ row }) => row.includes('sésame'))).toBe(false);
  });

  test('a text and a damaged file are taken, and what should be known of them is said', async () => {
    const text = (await upload(Buffer.from('ends with 日'), 'letter.txt')).body as FileAnswer;
    expect(text.pages).toHaveLength(1);
    expect(text.remarks).toEqual([expect.stringContaining('not in the font')]);
    const broken = Buffer.from(contract.toString('latin1').replace(/startxref\s+\d+/, 'startxref\n7'), 'latin1');
    const repaired = (await upload(broken)).body as FileAnswer;
    expect(repaired.remarks).toEqual([expect.stringContaining('was damaged')]);
    const ticket = { version: 1, documents: [{ file: repaired.id }] };
    const job = (await api().post('/api/jobs').send({ ticket })).body as { documents: FileAnswer[] };
    expect(job.documents[0]).toMatchObject({ remarks: repaired.remarks, about: {} });
  });

  test('more than the limit is refused, said beforehand or not', async () => {
    const large = Buffer.alloc(1024 * 1024 + 1, 0x20);
    expect((await upload(large)).status).toBe(413);
    const streamed = await new Promise<number>((resolve, reject) => {
      const outgoing = rawRequest(`${server.base}/api/files?name=large.pdf`, { method: 'POST' }, (incoming) => {
        incoming.resume();
        resolve(incoming.statusCode ?? 0);
      });
      outgoing.on('error', reject);
      outgoing.write(large);
      outgoing.end();
    });
    expect(streamed).toBe(413);
  });

  test('an upload that breaks off leaves nothing behind', async () => {
    const before = [await rows(contents), await rows(contentChunks), await rows(files)];
    const socket = openSocket(server.port, '127.0.0.1');
    const coming = once(server.http, 'request') as Promise<[IncomingMessage]>;
    socket.write(
      `POST /api/files?name=x.pdf HTTP/1.1\r\nHost: 127.0.0.1:${server.port}\r\nContent-Length: 900000\r\n\r\n`,
    );
    socket.write(contract);
    const [request] = await coming;
    socket.destroy();
    await new Promise((resolve) => request.once('close', resolve));
    expect([await rows(contents), await rows(contentChunks), await rows(files)]).toEqual(before);
  });

  test('a name is needed, and an id must be one', async () => {
    expect((await api().post('/api/files').send(contract)).status).toBe(400);
    expect((await api().get('/api/files/contract')).status).toBe(404);
    expect((await api().get('/api/files/00000000-0000-4000-8000-000000000000')).status).toBe(404);
  });
});

describe('jobs', () => {
  test('a ticket is completed, kept and listed with its sheets', async () => {
    const job = await createJob({ title: 'Contract', sides: 'two-sided', copies: 2 });
    expect(job.ticket).toMatchObject({ collate: true, bind: 'left', copies: 2 });
    const listed = ((await api().get('/api/jobs')).body as { jobs: { id: string }[] }).jobs;
    expect(listed.find(({ id }) => id === job.id)).toMatchObject({
      sheets: 14,
      sheetsPerSet: 7,
      names: ['contract.pdf'],
    });
  });

  test('a change from an older revision is refused, and nothing is overwritten', async () => {
    const { id, ticket } = await createJob();
    const put = (copies: number, revision: number) =>
      api()
        .put(`/api/jobs/${id}`)
        .send({ ticket: { ...ticket, copies }, revision });
    expect((await put(2, 1)).body).toEqual({ id, revision: 2 });
    const stale = await put(99, 1);
    expect([stale.status, (stale.body as { code: string }).code]).toEqual([409, 'job-changed']);
    expect(((await api().get(`/api/jobs/${id}`)).body as { ticket: { copies: number } }).ticket.copies).toBe(2);
  });

  test.each<[string, object, string]>([
    ['an unknown field', { colour: 'auto' }, 'unknown field "colour"'],
    ['a wrong type', { copies: 'two' }, 'copies: wrong type'],
    ['a file that is not here', { documents: [{ file: '00000000-0000-4000-8000-000000000000' }] }, 'there is no file'],
    ['a file that is no id', { documents: [{ file: '../etc/passwd' }] }, 'not the id of an uploaded file'],
  ])('%s is refused by name', async (_what, settings, message) => {
    const { id: file } = (await upload(contract)).body as { id: string };
    const answer = await api()
      .post('/api/jobs')
      .send({ ticket: { version: 1, documents: [{ file }], ...settings } });
    expect(answer.status).toBe(422);
    expect((answer.body as { detail: string }).detail).toContain(message);
  });

  test('a selection that cannot be read is kept, and told of where it is needed', async () => {
    const { id: file } = (await upload(contract)).body as { id: string };
    const created = await api()
      .post('/api/jobs')
      .send({ ticket: { version: 1, documents: [{ file, pages: '1-99' }] } });
    expect(created.status).toBe(201);
    const { id } = created.body as { id: string };
    const listed = ((await api().get('/api/jobs')).body as { jobs: { id: string; trouble?: string }[] }).jobs;
    expect(listed.find((job) => job.id === id)?.trouble).toContain('page 99 is not in contract.pdf');
    expect((await api().get(`/api/jobs/${id}/imposed.pdf`)).body).toMatchObject({
      code: 'ticket-invalid',
      position: 2,
    });
  });

  test('the imposed PDF is given to be saved, under the title', async () => {
    const { id } = await createJob({ title: 'Vertrag für Frau Ängström' });
    const saved = await api().get(`/api/jobs/${id}/imposed.pdf`).buffer(true).parse(binary);
    expect(saved.headers['content-disposition']).toBe(
      "attachment; filename*=UTF-8''Vertrag%20f%C3%BCr%20Frau%20%C3%84ngstr%C3%B6m.pdf",
    );
    expect((saved.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
  });

  test('a stop keeps it from being saved', async () => {
    const { id } = await createJob({ tray: 'tray-7' });
    expect((await api().get(`/api/jobs/${id}/imposed.pdf`)).body).toMatchObject({ code: 'stop-stands' });
  });

  test('is removed on request', async () => {
    const { id } = await createJob();
    expect((await api().delete(`/api/jobs/${id}`)).status).toBe(204);
    expect((await api().get(`/api/jobs/${id}`)).status).toBe(404);
  });
});

describe('sending', () => {
  test('to a printer that is away is refused, and the printer’s last profile is still shown', async () => {
    const { id } = await createJob();
    const answer = await api().post('/api/sendings').send({ jobId: id, revision: 1, sheets: 14 });
    expect([answer.status, (answer.body as { code: string }).code]).toEqual([502, 'printer-away']);
    expect((await api().get('/api/printers')).body).toEqual([
      expect.objectContaining({
        id: 'test-office',
        answers: false,
        profile: expect.objectContaining({ name: 'Test office' }) as object,
      }),
    ]);
  });

  test('of another revision than the job’s is refused', async () => {
    const { id } = await createJob();
    const answer = await api().post('/api/sendings').send({ jobId: id, revision: 7, sheets: 14 });
    expect((answer.body as { code: string }).code).toBe('job-changed');
  });

  test.each([
    {},
    { jobId: 'x' },
    { jobId: 'x', revision: 1, sheets: 0 },
    { jobId: 'x', revision: 1, sheets: 1, more: 1 },
  ])('the body %j is refused', async (body) => {
    expect((await api().post('/api/sendings').send(body)).status).toBe(400);
  });
});

describe('printers', () => {
  test('what a person says of the paper outlives the next start, which gives the printer a new address', async () => {
    const put = await api().put('/api/printers/test-office/trays/tray-1').send({ price: 0.031 });
    expect(put.status).toBe(200);
    const uri = 'ipp://127.0.0.1:9/ipp/print';
    await enterPrinters(server.db, [{ id: 'test-office', uri, panel: null, profile: PROFILE }]);
    const answer = await api().get('/api/printers/test-office');
    const told = answer.body as { uri: string; profile: { trays: { price: number }[] } };
    expect([told.uri, told.profile.trays.map(({ price }) => price)]).toEqual([uri, [0.031, 0]]);
  });

  test('of what is said of one paper at once nothing undoes the rest', async () => {
    const said = [{ price: 0.5 }, { weight: 100 }, { type: 'labels' }];
    for (let round = 0; round < 5; round += 1) {
      await api().put('/api/printers/test-office/trays/tray-2').send({ price: 0, weight: 80, type: 'stationery' });
      await Promise.all(said.map((one) => api().put('/api/printers/test-office/trays/tray-2').send(one)));
      const told = (await api().get('/api/printers/test-office')).body as { profile: { trays: object[] } };
      expect(told.profile.trays[1]).toMatchObject({ price: 0.5, weight: 100, type: 'labels' });
    }
  });

  test.each([
    ['/trays/tray-1', { price: -1 }, 400],
    ['/trays/tray-1', { price: '1' }, 400],
    ['/trays/tray-9', { price: 1 }, 404],
    ['/panel/fault', { fault: 'fire' }, 400],
    ['/panel/fault', { fault: null }, 404],
  ])('PUT %s with %j is refused', async (path, body, status) => {
    expect((await api().put(`/api/printers/test-office${path}`).send(body)).status).toBe(status);
  });

  test('one that jobs are set up for stays in the list', async () => {
    await createJob();
    const answer = await api().delete('/api/printers/test-office');
    expect([answer.status, (answer.body as { code: string }).code]).toEqual([409, 'printer-in-use']);
  });
});

describe('who is served', () => {
  test('only the loopback names: another host name that leads here is refused', async () => {
    const answer = await api().get('/api/jobs').set('Host', 'foglio.example:80');
    expect([answer.status, (answer.body as { code: string }).code]).toEqual([403, 'host-refused']);
    expect((await api().get('/api/jobs').set('Host', `localhost:${server.port}`)).status).toBe(200);
  });

  test('only pages of this very address', async () => {
    const foreign = await api().post('/api/jobs').set('Origin', 'https://elsewhere.example').send({});
    expect([foreign.status, (foreign.body as { code: string }).code]).toEqual([403, 'origin-refused']);
    expect((await api().get('/api/jobs').set('Origin', server.base)).status).toBe(200);
    expect((await api().get('/api/jobs').set('Origin', 'null')).status).toBe(403);
  });

  test('screens get the page, missing scripts and addresses a 404', async () => {
    expect((await api().get('/jobs/anything')).text).toContain('<title>Foglio</title>');
    expect((await api().get('/chunk-ABC.js')).status).toBe(404);
    expect((await api().get('/api/nothing')).body).toMatchObject({ code: 'not-found' });
  });

  test('bodies that are no JSON, or too long, are problems too', async () => {
    const post = (body: string) => api().post('/api/jobs').set('Content-Type', 'application/json').send(body);
    expect((await post('{')).body).toMatchObject({ code: 'body-invalid' });
    expect((await post(`"${'x'.repeat(1024 * 1024)}"`)).status).toBe(413);
  });

  test('nothing but what the page brings may run', async () => {
    const policy = (await api().get('/')).headers['content-security-policy'] ?? '';
    expect(policy).toContain("script-src 'self' 'wasm-unsafe-eval'");
    expect(policy).toContain("frame-ancestors 'none'");
  });
});
