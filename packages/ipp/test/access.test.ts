import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import type { RequestListener } from 'node:http';
import { createServer as createHttpServer, type Server } from 'node:http';
import { createServer } from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { askStatus, dataOf, OPERATIONS, type Access } from '../src';
import { askPrinter } from '../src/client';
import { authorization, readChallenge } from '../src/login';
import { answerOf, bytesOf, certificate, close, isFrom, listening } from './small-printer';

let server: Server | null = null;
let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'foglio-access-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));
afterEach(() => {
  close(server);
  server = null;
});

const ANSWER = bytesOf(answerOf());

const begin = (made: Server, scheme: 'ipp' | 'ipps'): Promise<string> => listening((server = made), scheme);

const trusting = (fingerprint: string | null, login: Access['login'] = null): Access => ({ fingerprint, login });

describe('a protected connection', () => {
  test('to a certificate that nobody vouches for is made once a person trusts it, and to no other', async () => {
    const [own, other] = [certificate(folder, 'Upper office'), certificate(folder, 'Somebody else')];
    let asked = 0;
    const answer: RequestListener = (_request, response) => {
      asked += 1;
      response.end(ANSWER);
    };
    const uri = await begin(createServer(own, answer), 'ipps');
    const first: unknown = await askStatus(uri).catch((error: unknown) => error);
    expect(first).toMatchObject({
      name: 'IppError',
      reached: false,
      certificate: { fingerprint: own.fingerprint, subject: 'Upper office' },
      why: 'nobody vouches for its certificate; look at its fingerprint before it is trusted',
    });
    expect(asked).toBe(0);
    const { profile } = await askStatus({ uri, access: trusting(own.fingerprint) });
    expect(profile.trays).toHaveLength(2);
    // Over a connection that is kept, too.
    await askStatus({ uri, access: trusting(own.fingerprint) });
    await expect(askStatus({ uri, access: trusting(other.fingerprint) })).rejects.toMatchObject({
      why: 'its certificate is another than the one that was trusted',
      certificate: { fingerprint: own.fingerprint },
    });
    expect(asked).toBe(2);
  });

  test('nothing is sent before the certificate was looked at, no password least of all', async () => {
    let came = 0;
    const made = createServer(certificate(folder, 'Stranger'), () => undefined);
    made.on('secureConnection', (socket) => socket.on('data', () => (came += 1)));
    const uri = await begin(made, 'ipps');
    const access = trusting('00:11', { name: 'anna', password: 'secret' });
    const creating = askPrinter({ uri, access }, { operation: OPERATIONS.createJob });
    await expect(creating).rejects.toMatchObject({ certificate: { subject: 'Stranger' } });
    expect(came).toBe(0);
  });

  test('to what speaks no TLS is told in words', async () => {
    const uri = await begin(
      createHttpServer((_request, response) => response.end(ANSWER)),
      'ipps',
    );
    await expect(askStatus(uri)).rejects.toThrow(
      /^127\.0\.0\.1:\d+ cannot be reached: it does not speak over a protected connection/,
    );
  });
});

describe('a digest, against the example of RFC 7616, 3.9.1', () => {
  const shared = {
    kind: 'digest',
    realm: 'http-auth@example.org',
    nonce: '7ypf/xlj9XXwfDPEoM4URrv/xwf94BcCAzFZH4GiTo0v',
    opaque: 'FQhe/qaU925kfnzjCev0ciny7QMkPqMAFRtzCUYo5tdS',
    isCounted: true,
  } as const;
  const login = { name: 'Mufasa', password: 'Circle of Life' };
  const ownNonce = 'f2/wE4q74E6zIJEtWaHKaf5wv/H5QzzpXusqGemxURZJ';
  const requested = { method: 'GET', path: '/dir/index.html', count: 1, ownNonce };

  test.each([
    ['MD5', '8ca523f5e9506fed4657c9700eebdbec'],
    ['SHA-256', '753927fa0e85d155564e2e272a28d1802ca10daf4496794697cf8db5856cb6c1'],
  ] as const)('by %s', (algorithm, response) => {
    const told = authorization({ ...shared, algorithm }, login, requested);
    expect(told).toContain(`response="${response}"`);
    expect(told).toContain(
      `algorithm=${algorithm}, opaque="${shared.opaque}", qop=auth, nc=00000001, cnonce="${ownNonce}"`,
    );
  });

  test('without a count, as of old (RFC 2069)', () => {
    const sum = (text: string): string => createHash('md5').update(text).digest('hex');
    const own = sum('Mufasa:r:Circle of Life');
    const told = authorization(
      { kind: 'digest', realm: 'r', nonce: 'n', opaque: null, algorithm: null, isCounted: false },
      login,
      requested,
    );
    expect(told).toContain(`response="${sum(`${own}:n:${sum('GET:/dir/index.html')}`)}"`);
    expect(told).not.toContain('cnonce');
  });
});

test.each([
  [['Basic realm="x"'], 'basic'],
  [['Basic realm="x"', 'Digest realm="x", nonce="n", qop="auth"'], 'digest'],
  [['Digest realm="x", nonce="n", qop="auth-int"'], undefined],
  [['Digest realm="x", nonce="n", algorithm=SHA-512-256'], undefined],
  [['Negotiate'], undefined],
])('of %j the best that is known is taken', (headers, kind) => {
  expect(readChallenge(headers)?.kind).toBe(kind);
});

test('of two digests the better', () => {
  const told = readChallenge([
    'Digest realm="x", nonce="n", algorithm=MD5',
    'Digest realm="x", nonce="n", algorithm=SHA-256',
  ]);
  expect(told).toMatchObject({ algorithm: 'SHA-256' });
});

describe('a printer that asks who is asking', () => {
  const login = { name: 'anna', password: 'Key 9"\\' };

  test('by a password', async () => {
    const uri = await begin(
      createHttpServer((request, response) => {
        request.resume();
        if (isFrom(login.name, login.password, request.headers.authorization)) return void response.end(ANSWER);
        response.writeHead(401, { 'WWW-Authenticate': 'Basic realm="printer"' }).end();
      }),
      'ipp',
    );
    await expect(askStatus(uri)).rejects.toMatchObject({
      login: 'wanted',
      message: expect.stringMatching(/asks for a name and a password$/) as string,
    });
    expect((await askStatus({ uri, access: trusting(null, login) })).profile.trays).toHaveLength(2);
    const wrong = { ...login, password: 'wrong' };
    await expect(askStatus({ uri, access: trusting(null, wrong) })).rejects.toMatchObject({ login: 'refused' });
  });

  test('by a digest: each request is numbered, one that is refused as stale is made again, and its document comes whole', async () => {
    let nonce = 'first';
    const heard: string[] = [];
    let bytes = 0;
    const uri = await begin(
      createHttpServer((request, response) => {
        const told = request.headers.authorization ?? '';
        let size = 0;
        request.on('data', (part: Buffer) => (size += part.length));
        request.on('end', () => {
          heard.push(`${/nonce="(\w+)"/.exec(told)?.[1] ?? 'none'} ${/nc=(\d+)/.exec(told)?.[1] ?? ''}`);
          if (told.includes(`nonce="${nonce}"`)) {
            bytes = size;
            return void response.end(ANSWER);
          }
          const challenge = `Digest realm="printer", nonce="${nonce}", qop="auth", algorithm=SHA-256, stale=true`;
          response.writeHead(401, { 'WWW-Authenticate': challenge }).end();
        });
      }),
      'ipp',
    );
    const printer = { uri, access: trusting(null, login) };
    await askStatus(printer);
    await askStatus(printer);
    nonce = 'second';
    await askPrinter(printer, { operation: OPERATIONS.sendDocument, document: dataOf(new Uint8Array(300_000)) });
    expect(heard).toEqual(['none ', 'first 00000001', 'first 00000002', 'first 00000003', 'second 00000001']);
    expect(bytes).toBeGreaterThan(300_000);
  });
});
