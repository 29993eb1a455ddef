import { execFileSync } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import { readFileSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import {
  collection,
  encodeMessage,
  integer,
  keyword,
  STATUS,
  text,
  type Attributes,
  type Message,
  type Value,
} from '../src';

/** The least that a printer can be: what it answers, and where. */

/** A tray with A4 in it. @param margin in hundredths of a millimetre */
export const trayWithA4 = (source: string, margin = 420): Value =>
  collection({
    'media-size': [collection({ 'x-dimension': [integer(21000)], 'y-dimension': [integer(29700)] })],
    'media-source': [keyword(source)],
    'media-top-margin': [integer(margin)],
  });

export const SMALL: Attributes = {
  'printer-info': [text('Foyer')],
  'printer-state': [{ tag: 'enum', value: 3 }],
  'media-col-ready': [trayWithA4('tray-1'), trayWithA4('tray-2')],
  'sides-supported': ['one-sided', 'two-sided-long-edge'].map(keyword),
};

/** What it answers to whoever asks what it is. */
export const answerOf = (attributes: Attributes = SMALL): Message => ({
  version: [2, 0],
  code: STATUS.ok,
  requestId: 1,
  groups: [
    { tag: 'operation', attributes: { 'status-message': [text('fine')] } },
    { tag: 'printer', attributes },
  ],
});

export const bytesOf = (message: Message): Buffer => Buffer.from(encodeMessage(message));

/** @returns the address of a server that listens from then on */
export async function listening(server: Server, scheme: 'ipp' | 'ipps' = 'ipp'): Promise<string> {
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return `${scheme}://127.0.0.1:${(server.address() as AddressInfo).port}/ipp/print`;
}

export function close(server: Server | null): void {
  server?.close();
  server?.closeAllConnections();
}

/** Whether a request says that it comes from them (RFC 7617). */
export const isFrom = (name: string, password: string, authorization = ''): boolean =>
  Buffer.from(authorization.replace('Basic ', ''), 'base64').toString() === `${name}:${password}`;

/** A certificate that nobody vouches for, as printers make them. */
export function certificate(folder: string, name: string): { key: Buffer; cert: Buffer; fingerprint: string } {
  const [key, cert] = [join(folder, `${name}.key`), join(folder, `${name}.crt`)];
  const kind = ['-x509', '-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:prime256v1', '-nodes', '-days', '30'];
  execFileSync('openssl', ['req', ...kind, '-subj', `/CN=${name}`, '-keyout', key, '-out', cert], { stdio: 'ignore' });
  const read = readFileSync(cert);
  return { key: readFileSync(key), cert: read, fingerprint: new X509Certificate(read).fingerprint256 };
}
