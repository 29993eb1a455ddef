import { mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import type { PrinterRecord, ProblemRecord } from '@foglio/api';
import { printers } from '../src/database/schema';
import { Vault } from '../src/printers/vault';
import { answerOf, bytesOf, certificate, close, isFrom, listening } from '../../../packages/ipp/test/small-printer';
import { startServer, type RunningServer } from './running-server';

const PASSWORD = 'Seven doors';

let folder: string;
let server: RunningServer;
let printer: Server;
let uri: string;
let fingerprint: string;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'foglio-access-'));
  server = await startServer();
  const own = certificate(folder, 'Foyer');
  ({ fingerprint } = own);
  printer = createServer(own, (request, response) => {
    request.resume();
    if (isFrom('anna', PASSWORD, request.headers.authorization)) return void response.end(bytesOf(answerOf()));
    response.writeHead(401, { 'WWW-Authenticate': 'Basic realm="printer"' }).end();
  });
  uri = await listening(printer, 'ipps');
});
afterAll(async () => {
  await server.stop();
  close(printer);
  rmSync(folder, { recursive: true, force: true });
});

async function ask<T>(method: string, path: string, body: object): Promise<[number, T]> {
  const headers = { 'Content-Type': 'application/json' };
  const answer = await fetch(server.base + path, { method, headers, body: JSON.stringify(body) });
  return [answer.status, (await answer.json()) as T];
}

test('a printer says step by step what it wants; its password is kept encrypted and told to nobody', async () => {
  const login = { name: 'anna', password: PASSWORD };
  const [, untrusted] = await ask<ProblemRecord>('POST', '/api/printers', { uri });
  expect(untrusted).toMatchObject({ code: 'certificate-unknown', certificate: { fingerprint, subject: 'Foyer' } });
  const [, unnamed] = await ask<ProblemRecord>('POST', '/api/printers', { uri, fingerprint });
  expect(unnamed).toMatchObject({ code: 'login-wanted', detail: 'It asks for a name and a password.' });
  const wrong = { name: 'anna', password: 'wrong' };
  const [, refused] = await ask<ProblemRecord>('POST', '/api/printers', { uri, fingerprint, login: wrong });
  expect(refused).toMatchObject({ code: 'login-wanted', detail: 'It does not take this name and password.' });
  const [status, added] = await ask<PrinterRecord>('POST', '/api/printers', { uri, fingerprint, login });
  expect([status, added.answers, added.login, added.wants]).toEqual([201, true, 'anna', null]);
  const [kept] = await server.db.select().from(printers).where(eq(printers.id, added.id));
  expect(JSON.stringify([kept, added])).not.toContain(PASSWORD);

  // Another password is wanted some day; what was said of the certificate stays.
  const path = `/api/printers/${added.id}/access`;
  const [, locked] = await ask<PrinterRecord>('PUT', path, { login: wrong });
  expect(locked).toMatchObject({
    answers: false,
    wants: 'login',
    faults: ['It does not take the name and password it was given: say them here.'],
  });
  const [, again] = await ask<PrinterRecord>('PUT', path, { login });
  expect(again).toMatchObject({ answers: true, wants: null, certificate: null });
  // Made new at every run, a fingerprint may begin with any byte: the other one differs from it in all of them.
  const other = fingerprint.replaceAll(/[0-9A-F]/g, '0');
  const [, strange] = await ask<PrinterRecord>('PUT', path, { fingerprint: other });
  expect(strange).toMatchObject({ answers: false, certificate: { fingerprint } });
  expect(strange.faults[0]).toContain('its certificate is another than the one that was trusted');
});

describe('the vault', () => {
  test('opens what it sealed, with its own key alone, which nobody else may read', () => {
    const file = join(folder, 'deep/secret');
    const sealed = new Vault(file).seal('Seven doors');
    expect(new Vault(file).open(sealed)).toBe('Seven doors');
    expect(new Vault(join(folder, 'other')).open(sealed)).toBeNull();
    expect(new Vault(file).open('nothing')).toBeNull();
    expect(statSync(file).mode & 0o777).toBe(0o600);
    expect(new Vault(file).seal('Seven doors')).not.toBe(sealed);
  });

  test('a file that is no key is said to be none', () => {
    const file = join(folder, 'short');
    writeFileSync(file, 'short');
    expect(() => new Vault(file).seal('x')).toThrow('is no key of 32 bytes');
  });
});
