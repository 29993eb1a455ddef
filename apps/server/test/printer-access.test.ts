import { execFileSync } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import type { PrinterRecord, ProblemRecord } from '@foglio/api';
import { collection, encodeMessage, integer, keyword, STATUS, text } from '@foglio/ipp';
import { printers } from '../src/database/schema';
import { Vault } from '../src/printers/vault';
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
  const [key, cert] = [join(folder, 'key'), join(folder, 'cert')];
  const kind = ['-x509', '-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:prime256v1', '-nodes', '-days', '30'];
  execFileSync('openssl', ['req', ...kind, '-subj', '/CN=Foyer', '-keyout', key, '-out', cert], { stdio: 'ignore' });
  fingerprint = new X509Certificate(readFileSync(cert)).fingerprint256;
  printer = createServer({ key: readFileSync(key), cert: readFileSync(cert) }, (request, response) => {
    request.resume();
    const told = Buffer.from(request.headers.authorization?.replace('Basic ', '') ?? '', 'base64').toString();
    if (told === `anna:${PASSWORD}`) return void response.end(ANSWER);
    response.writeHead(401, { 'WWW-Authenticate': 'Basic realm="printer"' }).end();
  });
  await new Promise<void>((resolve) => printer.listen(0, '127.0.0.1', resolve));
  uri = `ipps://127.0.0.1:${(printer.address() as AddressInfo).port}/ipp/print`;
});
afterAll(async () => {
  await server.stop();
  printer.close();
  printer.closeAllConnections();
  rmSync(folder, { recursive: true, force: true });
});

const media = collection({
  'media-size': [collection({ 'x-dimension': [integer(21000)], 'y-dimension': [integer(29700)] })],
  'media-source': [keyword('tray-1')],
});
const ANSWER = Buffer.from(
  encodeMessage({
    version: [2, 0],
    code: STATUS.ok,
    requestId: 1,
    groups: [
      { tag: 'operation', attributes: {} },
      { tag: 'printer', attributes: { 'printer-info': [text('Foyer')], 'media-col-ready': [media] } },
    ],
  }),
);

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
  const [, strange] = await ask<PrinterRecord>('PUT', path, { fingerprint: fingerprint.replace(/^../, '00') });
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
