import { mkdtempSync, rmSync } from 'node:fs';
import { connect, type Server, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { serialize } from 'node:v8';
import { tooMuch } from '@foglio/pdf';
import { BrowserGone, layThrough, serveLaying, type OpenBrowser } from '../src';

/** What crosses between a browser's process and those that have it lay out, whatever either of them does meanwhile. */

const folder = mkdtempSync(join(tmpdir(), 'foglio-socket-'));
const servers: Server[] = [];
afterAll(() => {
  for (const server of servers) server.close();
  rmSync(folder, { recursive: true, force: true });
});

const work = {
  kind: 'page',
  document: { html: '<p>x', width: 100, beside: new Map([['a', { bytes: Buffer.from('b'), type: 't' }]]) },
} as const;

let count = 0;

async function served(lay: OpenBrowser['lay']): Promise<{ path: string; server: Server }> {
  const path = join(folder, String((count += 1)));
  const browser = { lay, ended: new Promise<void>(() => undefined), close: () => Promise.resolve() };
  const server = await serveLaying(path, browser);
  servers.push(server);
  return { path, server };
}

test('a document goes there with what stands beside it, and what came of it comes back', async () => {
  const asked: unknown[] = [];
  const { path } = await served((one) => {
    asked.push(one);
    return Promise.resolve({ bytes: Buffer.from('made'), refused: ['https://x.example/'], fitted: 2 });
  });
  const printed = await layThrough(path)(work);
  expect([Buffer.from(printed.bytes).toString(), printed.refused, printed.fitted]).toEqual([
    'made',
    ['https://x.example/'],
    2,
  ]);
  expect(JSON.stringify([...(asked[0] as typeof work).document.beside.keys()])).toBe('["a"]');
});

test('what is the matter with a document is told in the same words', async () => {
  const { path } = await served(() => Promise.reject(tooMuch('time')));
  await expect(layThrough(path)(work)).rejects.toMatchObject({ trouble: 'too-much', message: tooMuch('time').message });
});

test('where nobody is there, that is told apart from a browser that ends in the middle', async () => {
  await expect(layThrough(join(folder, 'nobody'))(work)).rejects.toThrow(BrowserGone);
  const ending = await served(() => new Promise(() => undefined));
  const sockets: { destroy: () => void }[] = [];
  ending.server.on('connection', (socket) => sockets.push(socket));
  const asked = layThrough(ending.path)(work);
  ending.server.once('connection', () => setImmediate(() => sockets.forEach((socket) => socket.destroy())));
  await expect(asked).rejects.toMatchObject({ trouble: 'too-much' });
});

test('work that nobody waits for any more is given up', async () => {
  let socket: Socket | undefined;
  const path = join(folder, 'given up');
  await new Promise<void>((givenUp, failed) => {
    const lay: OpenBrowser['lay'] = (_, signal) => {
      signal!.addEventListener('abort', () => givenUp());
      socket!.destroy();
      return new Promise(() => undefined);
    };
    serveLaying(path, { lay, ended: new Promise(() => undefined), close: () => Promise.resolve() }).then((server) => {
      servers.push(server);
      socket = connect(path);
      const asked = serialize(work);
      const length = Buffer.alloc(8);
      length.writeBigUInt64LE(BigInt(asked.length));
      // In parts that fall where they like.
      socket.write(length.subarray(0, 3));
      setImmediate(() => socket!.write(Buffer.concat([length.subarray(3), asked])));
    }, failed);
  });
});
