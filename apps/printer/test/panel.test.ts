import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readPrinter } from '@foglio/core/validate';
import { createApp } from '../src/app';
import { Archive } from '../src/archive';
import { Machine } from '../src/machine';

/** The panel is for whoever stands at it. */

const folder = mkdtempSync(join(tmpdir(), 'foglio-panel-'));
const archive = new Archive(folder);
const profile = readPrinter({ name: 'Office', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm', loaded: 1 }] });
const machine = new Machine({ profile, archive, sheetMs: 0 });
const server: Server = createServer(createApp({ machine, archive }));
const port = (): number => (server.address() as AddressInfo).port;

beforeAll(async () => {
  await machine.start();
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
});
afterAll(async () => {
  server.close();
  await machine.shutDown();
  rmSync(folder, { recursive: true, force: true });
});

const put = (headers: Record<string, string>, body = '{"taken":true}'): Promise<[number, string]> =>
  new Promise((resolve, reject) => {
    const asked = request(
      {
        port: port(),
        path: '/panel/output',
        method: 'PUT',
        headers: { 'Content-Type': 'application/json', ...headers },
      },
      (answer) => {
        let text = '';
        answer.on('data', (part) => (text += String(part)));
        answer.on('end', () => resolve([answer.statusCode ?? 0, text]));
      },
    );
    asked.on('error', reject);
    asked.end(body);
  });

test('a name of somebody else’s that leads here, and a page of another site, reach nothing', async () => {
  expect((await put({ Host: `printers.example:${port()}` }))[0]).toBe(403);
  expect((await put({ Origin: 'http://printers.example' }))[0]).toBe(403);
  expect((await put({ Origin: `http://127.0.0.1:${port()}` }))[0]).toBe(204);
  expect((await put({ Host: `localhost:${port()}` }))[0]).toBe(204);
});

test.each([['{"taken":'], ['[1, 2'], ['"']])('%s is told as what cannot be read, without its inside', async (body) => {
  const [status, text] = await put({}, body);
  expect(status).toBe(400);
  expect(JSON.parse(text)).toEqual({ error: expect.stringMatching(/^it cannot be read: /) as string });
  expect(text).not.toMatch(/node_modules|\n/);
});
