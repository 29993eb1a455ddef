import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { newsRecord, type NewsRecord } from '@foglio/api';
import { readTicket } from '@foglio/core/validate';
import { Ajv } from 'ajv';
import addFormats from 'ajv-formats';
import { isNull } from 'drizzle-orm';
import type { Client } from 'pg';
import supertest from 'supertest';
import { WebSocket } from 'ws';
import { contents, sendings, files, jobs, printers } from '../src/database/schema';
import { changeSending } from '../src/sendings/sending-store';
import { enterPrinters } from '../src/printers/printer-store';
import { PROFILE, startServer, store, type RunningServer } from './running-server';
import { asAdmin } from './test-database';

let server: RunningServer;
let file: string;

beforeAll(async () => {
  server = await startServer();
  const bytes = new Uint8Array(readFileSync(join(__dirname, '../../../.foglio/demo/seasonContract.pdf')));
  const content = await store(server, bytes);
  const [entered] = await server.db.insert(files).values({ contentId: content.id, name: 'contract.pdf' }).returning();
  file = entered!.id;
  // The outline is read while all else goes on, and told of too.
  while ((await server.db.$count(contents, isNull(contents.outline))) > 0) await wait(20);
});
afterAll(() => server.stop());

const ticketOf = () => readTicket({ version: 1, title: 'Contract', documents: [{ file }] });

async function enterSending(): Promise<string> {
  const values = {
    printerId: 'test-office',
    ticket: ticketOf(),
    profile: PROFILE,
    sheets: 14,
    state: 'sending' as const,
    server: server.presence.server,
  };
  const [sending] = await server.db.insert(sendings).values(values).returning();
  return sending!.id;
}

/** Somebody who listens: what was told, each held against the API's description. */
class Listener {
  static readonly fits = addFormats(new Ajv({ strict: false })).compile(newsRecord);
  readonly heard: NewsRecord[] = [];
  private readonly socket: WebSocket;

  constructor(headers: Record<string, string> = {}, path = '/api/news') {
    this.socket = new WebSocket(`ws://127.0.0.1:${server.port}${path}`, { headers });
    this.socket.on('message', (data: Buffer) => {
      const news = JSON.parse(data.toString()) as NewsRecord;
      expect([news, Listener.fits(news), Listener.fits.errors]).toEqual([news, true, null]);
      this.heard.push(news);
    });
  }

  opened(): Promise<void> {
    return new Promise((resolve, reject) => this.socket.once('open', resolve).once('error', reject));
  }

  /** The code it was closed with. */
  closed(): Promise<number> {
    return new Promise((resolve) => this.socket.once('close', resolve));
  }

  leave(): void {
    this.socket.terminate();
  }

  /** Of that topic, in the order it was told. */
  of<T extends NewsRecord['topic']>(topic: T) {
    return this.heard.filter((news): news is Extract<NewsRecord, { topic: T }> => news.topic === topic);
  }
}

/** Waits for something to come about, however slow the machine is today. */
async function until(comeAbout: () => boolean): Promise<void> {
  for (let turn = 0; turn < 500 && !comeAbout(); turn += 1) await wait(20);
  expect(comeAbout()).toBe(true);
}

async function listener(): Promise<Listener> {
  const one = new Listener();
  await one.opened();
  return one;
}

test('every change of a sending reaches all who listen, and nobody after they have gone', async () => {
  const id = await enterSending();
  const [first, second] = [await listener(), await listener()];
  await changeSending(server.db, id, ['sending'], { printerJobs: [7] });
  await until(() => first.of('sending').length === 1 && second.of('sending').length === 1);
  const gone = second.closed();
  second.leave();
  await gone;
  await changeSending(server.db, id, ['sending'], { state: 'failed', message: 'Nothing was printed.' });
  await until(() => first.of('sending').length === 2);
  first.leave();
  expect(first.of('sending').map(({ sending }) => [sending.id, sending.state])).toEqual([
    [id, 'sending'],
    [id, 'failed'],
  ]);
  expect(second.of('sending')).toHaveLength(1);
  const { sending } = first.of('sending')[1]!;
  expect(sending).toMatchObject({ title: 'Contract', sheets: 14, message: 'Nothing was printed.' });
  // Only what a client may know is told: not the ticket, nor the printer's profile.
  expect(Object.keys(sending)).not.toContain('profile');
});

test('jobs, documents, series and printers are told of, also when they go', async () => {
  const one = await listener();
  const api = supertest(server.base);
  const idIn = ({ body }: { body: unknown }): string => (body as { id: string }).id;
  const job = idIn(await api.post('/api/jobs').send({ ticket: ticketOf() }));
  await api
    .put(`/api/jobs/${job}`)
    .send({ ticket: { ...ticketOf(), copies: 3 }, revision: 1 })
    .expect(200);
  await api.delete(`/api/jobs/${job}`).expect(204);
  await until(() => one.of('job').length === 3);
  // As each stands when it is told, which is no earlier than it was changed.
  expect(one.of('job').map(({ id }) => id)).toEqual([job, job, job]);
  expect(one.of('job').at(-1)!.revision).toBe(0);

  const [content] = await server.db.update(contents).set({ detailsRead: 1 }).returning();
  await until(() => one.of('file').length === 1);
  expect(one.of('file')[0]!.id).toBe(content!.sha256);

  const many = { title: 'Many', setup: ticketOf(), printerId: 'test-office' };
  const series = idIn(await api.post('/api/series').send(many));
  await api.post(`/api/series/${series}/rows`).send({ files: [{ file, name: 'contract.pdf' }] });
  await until(() => one.of('series').filter(({ id }) => id === series).length >= 2);

  const known = { id: 'other', uri: 'ipp://127.0.0.1:9/ipp/other', panel: null, profile: PROFILE };
  await enterPrinters(server.db, [known]);
  await until(() => one.of('printer').some(({ printer }) => printer.id === 'other' && !printer.answers));
  await api.delete('/api/printers/other').expect(204);
  await until(() => one.of('no printer').some(({ id }) => id === 'other'));
  one.leave();
});

test('what changed many times in one transaction is told once', async () => {
  const one = await listener();
  const [job] = await server.db.insert(jobs).values({ ticket: ticketOf(), printerId: 'test-office' }).returning();
  await server.db.transaction(async (tx) => {
    for (let revision = 2; revision <= 20; revision += 1) await tx.update(jobs).set({ revision });
  });
  await until(() => one.of('job').some(({ revision }) => revision === 20));
  expect(one.of('job').filter(({ id }) => id === job!.id).length).toBeLessThanOrEqual(2);
  one.leave();
});

test('a listener of another site, at another name or at another address is turned away', async () => {
  const refused = async (headers: Record<string, string>, path?: string): Promise<string> => {
    const one = new Listener(headers, path);
    return one.opened().then(
      () => 'let in',
      (error: Error) => error.message,
    );
  };
  expect(await refused({ origin: 'http://elsewhere.example' })).toBe('Unexpected server response: 403');
  expect(await refused({ host: 'elsewhere.example' })).toBe('Unexpected server response: 403');
  expect(await refused({}, '/api/olds')).toBe('Unexpected server response: 404');
  expect(await refused({ origin: server.base })).toBe('let in');
  // Asked without the upgrade, it says what it wants (RFC 9110, 15.5.22).
  const { text } = await supertest(server.base).get('/api/news').expect(426);
  expect(text).toContain('WebSocket');
});

test('after news may have been missed, whoever listens is sent off to come again and ask for all', async () => {
  const one = await listener();
  const closed = one.closed();
  server.presence.emit('reopened');
  expect(await closed).toBe(1012);
});

test('who listens is told that the database is away, also who comes meanwhile', async () => {
  const before = await listener();
  const isBack = jest.spyOn(server.presence, 'open').mockRejectedValue(new Error('the database is away'));
  const { client } = server.presence as unknown as { client: Client };
  const { rows } = await client.query<{ pid: number }>('select pg_backend_pid() as pid');
  await asAdmin(`select pg_terminate_backend(${rows[0]!.pid})`);
  await until(() => before.of('database away').length === 1);
  const meanwhile = await listener();
  await until(() => meanwhile.of('database away').length === 1);
  const closed = [before.closed(), meanwhile.closed()];
  isBack.mockRestore();
  expect(await Promise.all(closed)).toEqual([1012, 1012]);
});

test('a printer that goes on saying the same is not entered each time', async () => {
  const [before] = await server.db.select().from(printers);
  await supertest(server.base).get(`/api/printers/${before!.id}`).expect(200);
  const [after] = await server.db.select().from(printers);
  expect(after).toEqual(before);
});
