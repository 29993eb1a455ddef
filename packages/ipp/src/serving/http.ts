import type { IncomingMessage, ServerResponse } from 'node:http';
import { decodeMessage, IppDecodeError, type Decoded } from '../decode';
import { encodeMessage } from '../encode';
import { STATUS, text, type Message } from '../message';
import { answerRequest } from './answer';
import { withinOctets } from './octets';
import type { Answer, ServedPrinter } from './served-printer';

/** What one request may take. */
export interface ServingLimits {
  /** Bytes of document data. */
  readonly dataBytes: number;
}

/** Octets of a status message (RFC 8011, 4.1.6.2). */
const LONGEST_MESSAGE = 255;

/** Bytes of a message before its data; the longest that are lawful in an office are a few thousand. */
const MOST_MESSAGE = 256 * 1024;

/** Longer is not waited for the rest of a request that is answered already, so that the sender hears the answer. */
const MOST_LEFT_OVER = 64 * 1024 * 1024;

/** The request did not come whole, or is more than may come: what was made of it is undone by whoever read it. */
export class BrokenOff extends Error {
  override readonly name = 'BrokenOff';
}

/**
 * Serves IPP over HTTP (RFC 8010, section 4): reads a message, hands on what is behind it as it comes, and answers. The
 * data of a document is never held here.
 *
 * @param find the printer at a path of the address; null: none is there
 */
export async function serveIpp(
  request: IncomingMessage,
  response: ServerResponse,
  find: (path: string) => ServedPrinter | null | Promise<ServedPrinter | null>,
  { dataBytes }: ServingLimits,
): Promise<void> {
  if (request.method !== 'POST') return end(response, 405, { Allow: 'POST' });
  if (request.headers['content-type']?.split(';')[0]!.trim() !== 'application/ipp') return end(response, 415);
  const whole = (request.url ?? '/').replace(/\?.*$/, '');
  // A job lies below its printer; a printer may itself be called by a number.
  const paths = [whole, whole.replace(/\/\d+$/, '')];
  let printer: ServedPrinter | null = null;
  let path = whole;
  for (path of paths) if ((printer = await find(path))) break;
  if (!printer) return end(response, 404);
  const address = `ipp://${request.headers.host ?? 'localhost'}${path}`;
  const body = new Body(request, dataBytes);
  let message: Message | null = null;
  let answer: Answer;
  try {
    const head = await body.message();
    message = head.message;
    answer = await answerRequest({ message, data: body.data(head.dataOffset), address }, printer);
  } catch (error) {
    if (error instanceof BrokenOff && body.isGone) return void response.destroy();
    answer = toAnswer(error);
  }
  await body.drain();
  const bytes = encodeReply(message, answer);
  response.writeHead(200, { 'Content-Type': 'application/ipp', 'Content-Length': bytes.length }).end(bytes);
}

function toAnswer(error: unknown): Answer {
  if (error instanceof IppDecodeError) return { status: STATUS.badRequest, message: error.message };
  if (error instanceof BrokenOff) return { status: STATUS.requestEntityTooLarge, message: error.message };
  console.error('serving IPP:', error);
  // What went wrong inside is nobody's business on the net.
  return { status: STATUS.internalError, message: 'something went wrong here; try again' };
}

function end(response: ServerResponse, status: number, headers: Record<string, string> = {}): void {
  response.writeHead(status, { ...headers, 'Content-Length': 0 }).end();
}

/** A request's body: first a message, then data. */
class Body {
  private readonly parts: AsyncIterator<Buffer>;
  private head = Buffer.alloc(0);
  private read = 0;
  private isAtEnd = false;
  /** Whether nobody is there any more to be answered. */
  isGone = false;

  constructor(
    private readonly request: IncomingMessage,
    private readonly most: number,
  ) {
    this.parts = (request as AsyncIterable<Buffer>)[Symbol.asyncIterator]();
  }

  private async next(): Promise<Buffer | null> {
    if (this.isAtEnd) return null;
    try {
      const part = await this.parts.next();
      if (!part.done) return part.value;
    } catch {
      this.isGone = true;
      throw new BrokenOff('the request was broken off');
    }
    this.isAtEnd = true;
    if (this.request.complete) return null;
    this.isGone = true;
    throw new BrokenOff('the request was broken off');
  }

  /** Tried as soon as something is there, and then each time there is twice as much, so that drops cost no more than a flood. */
  async message(): Promise<Decoded> {
    for (let tried = 0; ;) {
      const part = await this.next();
      if (part) this.head = Buffer.concat([this.head, part]);
      if (part && this.head.length < 2 * tried) continue;
      try {
        return decodeMessage(this.head);
      } catch (error) {
        const isShort = error instanceof IppDecodeError && error.offset >= this.head.length;
        if (!part || !isShort || this.head.length > MOST_MESSAGE) throw error;
      }
      tried = this.head.length;
    }
  }

  /** What is behind the message. @throws BrokenOff where it does not come whole, or is more than may come */
  async *data(offset: number): AsyncGenerator<Uint8Array> {
    const rest = this.head.subarray(offset);
    this.head = Buffer.alloc(0);
    for (let part: Buffer | null = rest; part; part = await this.next()) {
      this.read += part.length;
      if (this.read > this.most)
        throw new BrokenOff(`documents of up to ${Math.round(this.most / 2 ** 20)} MB are taken`);
      if (part.length > 0) yield part;
    }
  }

  /** Takes what nobody wanted, so that the answer is heard; not more than is worth it. */
  async drain(): Promise<void> {
    let left = 0;
    try {
      for (let part = await this.next(); part; part = await this.next()) {
        left += part.length;
        if (left > MOST_LEFT_OVER) return;
      }
    } catch (error) {
      if (!(error instanceof BrokenOff)) throw error;
    }
  }
}

function encodeReply(request: Message | null, { status, message, operation = {}, groups = [] }: Answer): Uint8Array {
  const version = request && request.version[0] === 1 ? ([1, 1] as const) : ([2, 0] as const);
  return encodeMessage({
    version,
    code: status,
    requestId: Math.max(0, request?.requestId ?? 0),
    groups: [
      {
        tag: 'operation',
        attributes: {
          'attributes-charset': [{ tag: 'charset', value: 'utf-8' }],
          'attributes-natural-language': [{ tag: 'naturalLanguage', value: 'en' }],
          ...(message ? { 'status-message': [text(withinOctets(message, LONGEST_MESSAGE))] } : {}),
          ...operation,
        },
      },
      ...groups,
    ],
  });
}
