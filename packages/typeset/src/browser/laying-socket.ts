import { connect, createServer, type Server } from 'node:net';
import { deserialize, serialize } from 'node:v8';
import { PdfError, tooMuch, type PdfTrouble } from '@foglio/pdf';
import type { OpenBrowser } from './chromium';
import type { BrowserWork, LayInBrowser } from './laying';
import type { PrintedPage } from './print-page';

/**
 * A browser in a process of its own lays out for others, which reach it at a socket: one connection for each document, which
 * ends with its work; whoever closes it before gives the work up.
 */

type Answer = { readonly printed: PrintedPage } | { readonly trouble: PdfTrouble | null; readonly message: string };

/** More than any document is, in bytes. */
const MOST = 2 ** 30;

/** Bytes that say how long the work is: whoever closes the connection after it waits no more. */
const LENGTH = 8;

/** Lays out for whoever connects. @param path of the socket, in a folder that nobody else may open */
export function serveLaying(path: string, browser: OpenBrowser): Promise<Server> {
  const server = createServer((socket) => {
    const given = new AbortController();
    const parts: Buffer[] = [];
    let size = 0;
    let isBegun = false;
    socket.on('data', (part: Buffer) => {
      parts.push(part);
      size += part.length;
      if (size < LENGTH || isBegun) return;
      const [head] = parts[0]!.length < LENGTH ? [Buffer.concat(parts)] : parts;
      const length = Number(head!.readBigUInt64LE());
      if (length > MOST) return void socket.destroy();
      if (size < LENGTH + length) return;
      isBegun = true;
      const asked = Buffer.concat(parts).subarray(LENGTH);
      void answerTo(asked, browser, given.signal).then((answer) => socket.end(serialize(answer)));
    });
    socket.on('error', () => socket.destroy());
    socket.on('close', () => given.abort());
  });
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(path, () => resolve(server));
  });
}

async function answerTo(asked: Buffer, browser: OpenBrowser, given: AbortSignal): Promise<Answer> {
  try {
    return { printed: await browser.lay(deserialize(asked) as BrowserWork, given) };
  } catch (error) {
    const trouble = error instanceof PdfError ? error.trouble : null;
    return { trouble, message: error instanceof Error ? error.message : String(error) };
  }
}

/** The browser is not where it was said to be. */
export class BrowserGone extends Error {
  override readonly name = 'BrowserGone';
}

/** Has a browser lay out that is reached at a socket. @throws BrowserGone where nobody is there */
export const layThrough =
  (path: string): LayInBrowser =>
  async (work) => {
    const answer = await ask(path, serialize(work));
    if (!('printed' in answer)) {
      if (answer.trouble) throw new PdfError(answer.trouble, answer.message);
      throw new Error(answer.message);
    }
    const { bytes, ...printed } = answer.printed;
    return { ...printed, bytes: new Uint8Array(bytes) };
  };

function ask(path: string, work: Buffer): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const socket = connect(path);
    const parts: Buffer[] = [];
    let isThere = false;
    socket.once('connect', () => {
      isThere = true;
      const length = Buffer.alloc(LENGTH);
      length.writeBigUInt64LE(BigInt(work.length));
      socket.write(length);
      socket.write(work);
    });
    socket.on('data', (part: Buffer) => parts.push(part));
    // It is ended where a document takes more than it may.
    socket.once('error', (error) => reject(isThere ? tooMuch('memory') : new BrowserGone(error.message)));
    socket.once('end', () => {
      const told = Buffer.concat(parts);
      if (told.length === 0) reject(tooMuch('memory'));
      else resolve(deserialize(told) as Answer);
    });
  });
}
