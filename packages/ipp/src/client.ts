import { Agent as HttpAgent, request as httpRequest, type ClientRequest, type IncomingMessage } from 'node:http';
import { request as httpsRequest } from 'node:https';
import { accessOf, uriOf, type Access, type PrinterAddress } from './access';
import { CertificateUnknown, TrustingAgent } from './certificate';
import { decodeMessage } from './decode';
import type { DocumentData } from './document-data';
import { encodeMessage } from './encode';
import { httpAddress } from './address';
import { IppError } from './ipp-error';
import { authorization, readChallenge, type Challenge } from './login';
import { lookupReachable } from './reachable';
import { groupOf, OPERATIONS, STATUS, firstString, type Attributes, type Group, type Message } from './message';
import { sayTrouble, Trouble } from './trouble';

export interface IppRequest {
  readonly operation: number;
  /** Operation attributes beyond charset, language and the target. */
  readonly operationAttributes?: Attributes;
  readonly groups?: readonly Group[];
  readonly document?: DocumentData;
  /**
   * Asked each time that a printer has taken nothing more of the document, or not answered it, for as long as
   * `standsStillMs`: whether it is waited for further. A printer that waits for paper takes nothing meanwhile.
   */
  readonly goesOn?: () => Promise<boolean>;
  readonly limits?: Partial<Limits>;
  readonly signal?: AbortSignal;
}

/** How long what is waited for, in milliseconds. */
export interface Limits {
  /** Until there is a connection. */
  readonly connectMs: number;
  /** From the end of the question to the end of its answer, however slowly that comes. */
  readonly answerMs: number;
  /** Without a further byte of a document taken, or with all of it taken and no answer. */
  readonly standsStillMs: number;
  /** Of standing still in one piece, whatever the printer says meanwhile. */
  readonly mostStillMs: number;
}

const LIMITS: Limits = { connectMs: 5_000, answerMs: 10_000, standsStillMs: 30_000, mostStillMs: 30 * 60_000 };

/** No answer of a printer comes near this; what is longer is not read. */
const LONGEST_ANSWER = 1024 * 1024;

/** Bytes written at once, so that a slow printer's pace is felt and a sending can be stopped between two. */
const CHUNK = 64 * 1024;

/** What changes nothing, and may therefore be asked twice. */
const QUESTIONS: readonly number[] = [
  OPERATIONS.getPrinterAttributes,
  OPERATIONS.getJobAttributes,
  OPERATIONS.getJobs,
  OPERATIONS.validateJob,
  OPERATIONS.getNotifications,
];

/** Connections are kept for a while, two to a printer at most while nothing is asked: some take no more than a few. */
const KEEPING = { keepAlive: true, maxFreeSockets: 2, timeout: 60_000 };
const KEPT = new HttpAgent(KEEPING);
/** By the fingerprint that is trusted: a connection that one person trusts is none that another does. */
const KEPT_PROTECTED = new Map<string | null, TrustingAgent>();

function agentFor(url: URL, { fingerprint }: Access, onKept: boolean): HttpAgent | TrustingAgent | false {
  if (url.protocol === 'http:') return onKept ? KEPT : false;
  if (!onKept) return new TrustingAgent(fingerprint, { keepAlive: false });
  const kept = KEPT_PROTECTED.get(fingerprint) ?? new TrustingAgent(fingerprint, KEEPING);
  KEPT_PROTECTED.set(fingerprint, kept);
  return kept;
}

/** How printers want to be told who asks, as they last said, and how many requests were made so. */
const challenges = new Map<string, { readonly challenge: Challenge; count: number }>();

/** They come and go with addresses that are tried. */
const MOST_CHALLENGES = 1_000;

/** Asks a printer one thing. @throws IppError where it is away, refuses, or answers something else than IPP */
export async function askPrinter(printer: PrinterAddress, ask: IppRequest): Promise<Message> {
  const printerUri = uriOf(printer);
  const message: Message = {
    version: [2, 0],
    code: ask.operation,
    requestId: 1,
    groups: [
      {
        tag: 'operation',
        attributes: {
          'attributes-charset': [{ tag: 'charset', value: 'utf-8' }],
          'attributes-natural-language': [{ tag: 'naturalLanguage', value: 'en' }],
          'printer-uri': [{ tag: 'uri', value: printerUri }],
          ...ask.operationAttributes,
        },
      },
      ...(ask.groups ?? []),
    ],
  };
  const body = await post(httpAddress(printerUri), encodeMessage(message), ask, accessOf(printer));
  let answer: Message;
  try {
    answer = decodeMessage(body).message;
  } catch (error) {
    throw new IppError(`the answer from ${printerUri} is not IPP (${(error as Error).message})`, null);
  }
  if (answer.code >= STATUS.badRequest) {
    const reason = firstString(groupOf(answer, 'operation'), 'status-message');
    const code = `0x${answer.code.toString(16).padStart(4, '0')}`;
    const unsupported = Object.keys(groupOf(answer, 'unsupported'));
    throw new IppError(`the printer refuses: ${reason ?? 'no reason given'} (status ${code})`, answer.code, {
      unsupported,
    });
  }
  return answer;
}

async function post(url: URL, head: Uint8Array, ask: IppRequest, access: Access): Promise<Uint8Array> {
  const key = `${url.href} ${access.login?.name ?? ''}`;
  let onKept = QUESTIONS.includes(ask.operation);
  let isRefused = false;
  for (;;) {
    try {
      return await exchange(url, head, ask, { access, onKept, login: loginFor(url, key, access) });
    } catch (error) {
      // The printer had closed the connection that was kept, in the very moment it was used again.
      if (error instanceof Stale && onKept) {
        onKept = false;
        continue;
      }
      // What was refused has not been done: it is asked again as the printer wants it, once.
      if (error instanceof LoginWanted && access.login && error.challenge && !isRefused) {
        isRefused = true;
        if (challenges.size >= MOST_CHALLENGES) challenges.clear();
        challenges.set(key, { challenge: error.challenge, count: 0 });
        continue;
      }
      throw toIppError(url, error, access);
    }
  }
}

/** The header that tells who asks, where the printer has said how it wants that. */
function loginFor(url: URL, key: string, { login }: Access): string | null {
  const known = login && challenges.get(key);
  if (!known) return null;
  known.count += 1;
  return authorization(known.challenge, login, { method: 'POST', path: url.pathname, count: known.count });
}

function toIppError({ host }: URL, error: unknown, { login }: Access): IppError {
  if (error instanceof IppError) return error;
  if (error instanceof LoginWanted) {
    const said = login ? 'does not take this name and password' : 'asks for a name and a password';
    return new IppError(`${host} ${said}`, null, { login: login ? 'refused' : 'wanted' });
  }
  if (error instanceof CertificateUnknown) {
    const { certificate, isChanged } = error;
    const why = isChanged
      ? 'its certificate is another than the one that was trusted'
      : 'nobody vouches for its certificate; look at its fingerprint before it is trusted';
    return new IppError(`${host} cannot be reached: ${why}`, null, { reached: false, why, certificate });
  }
  const why = sayTrouble(error);
  const { reached = true } = error as Partial<Reached>;
  return new IppError(`${host} cannot be reached: ${why}`, null, { reached, why });
}

/** What is noted of whatever breaks a request. */
interface Reached {
  reached: boolean;
}

/** A connection that was kept broke before any answer came. */
class Stale extends Error {
  override readonly name = 'Stale';
}

/** It wants to be told who asks. */
class LoginWanted extends Error {
  override readonly name = 'LoginWanted';

  /** @param challenge how; null: in no way that is known here */
  constructor(readonly challenge: Challenge | null) {
    super('it asks for a name and a password');
  }
}

interface Exchanging {
  readonly access: Access;
  /** Whether over a connection that may have been kept from before. */
  readonly onKept: boolean;
  /** The header that tells who asks. */
  readonly login: string | null;
}

/** One request and its answer. */
function exchange(
  url: URL,
  head: Uint8Array,
  ask: IppRequest,
  { access, onKept, login }: Exchanging,
): Promise<Uint8Array> {
  const { document, signal } = ask;
  const limits = { ...LIMITS, ...ask.limits };
  const send = url.protocol === 'https:' ? httpsRequest : httpRequest;
  return new Promise((resolve, reject) => {
    const outgoing = send(url, {
      method: 'POST',
      lookup: lookupReachable,
      agent: agentFor(url, access, onKept),
      headers: {
        'Content-Type': 'application/ipp',
        'Content-Length': head.length + (document?.length ?? 0),
        ...(login === null ? {} : { Authorization: login }),
      },
      ...(signal ? { signal } : {}),
    });
    const watch = new Watch(outgoing, limits, document ? ask.goesOn : undefined);
    const fail = (error: unknown): void => {
      watch.end();
      outgoing.destroy();
      if (outgoing.reusedSocket && isBroken(error)) return reject(new Stale());
      reject(Object.assign(error as Error, { reached: watch.reached }));
    };
    outgoing.on('error', fail);
    outgoing.on('response', (incoming) => {
      if (!document) watch.answering();
      readAnswer(url, incoming).then((answer) => {
        watch.end();
        // It has said all there is to say before it had all of the document.
        if (!outgoing.writableFinished) outgoing.destroy();
        resolve(answer);
      }, fail);
    });
    writeAll(outgoing, head, document, watch).then(() => watch.sent(), fail);
  });
}

const isBroken = (error: unknown): boolean =>
  ['ECONNRESET', 'EPIPE'].includes((error as NodeJS.ErrnoException).code ?? '');

/** @throws IppError, and whatever breaks the connection */
async function readAnswer(url: URL, incoming: IncomingMessage): Promise<Uint8Array> {
  const { statusCode = 0, headers } = incoming;
  if (statusCode !== 200) {
    const wanted = incoming.headersDistinct['www-authenticate'] ?? [];
    incoming.destroy();
    if (statusCode === 401) throw new LoginWanted(readChallenge(wanted));
    throw new IppError(sayStatus(url, statusCode, headers.location), null);
  }
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of incoming as AsyncIterable<Buffer>) {
    size += part.length;
    if (size > LONGEST_ANSWER) throw new Trouble('its answer is longer than 1 MB, which no printer’s is');
    parts.push(part);
  }
  return new Uint8Array(Buffer.concat(parts));
}

function sayStatus({ host }: URL, status: number, location: string | undefined): string {
  if (status === 426) return `${host} wants to be asked over a protected connection: write its address with ipps:`;
  // Not followed: whoever answers there was chosen by no person.
  const onward = status >= 300 && status < 400 && location ? `, and sends on to ${location.slice(0, 200)}` : '';
  return `${host} answers with HTTP status ${status}, not IPP${onward}`;
}

/** Ends a request that takes longer than it may: each of its parts has a time of its own. */
class Watch {
  private timer: NodeJS.Timeout;
  private still = 0;
  private over = false;
  /** Whether there has been a connection. */
  reached = false;

  constructor(
    private readonly outgoing: ClientRequest,
    private readonly limits: Limits,
    private readonly goesOn: (() => Promise<boolean>) | undefined,
  ) {
    this.timer = setTimeout(() => this.stop('it does not answer'), limits.connectMs);
    outgoing.once('socket', (socket) => {
      if (!socket.connecting) return this.moves();
      socket.once('connect', () => this.moves());
    });
  }

  /** Something more was taken. */
  moves(): void {
    this.reached = true;
    this.still = 0;
    this.wait(this.limits.standsStillMs, () => void this.ask());
  }

  /** All was taken. */
  sent(): void {
    if (this.goesOn) this.moves();
    else this.answering();
  }

  /** From here on the whole answer has its time. */
  answering(): void {
    this.wait(this.limits.answerMs, () => this.stop('it takes too long to answer'));
  }

  end(): void {
    this.over = true;
    clearTimeout(this.timer);
  }

  private wait(ms: number, then: () => void): void {
    clearTimeout(this.timer);
    if (!this.over) this.timer = setTimeout(then, ms);
  }

  private async ask(): Promise<void> {
    const { standsStillMs, mostStillMs } = this.limits;
    this.still += standsStillMs;
    const goesOn = this.still < mostStillMs && ((await this.goesOn?.()) ?? false);
    if (goesOn) this.wait(standsStillMs, () => void this.ask());
    else this.stop('it takes no more of the document');
  }

  private stop(why: string): void {
    if (!this.over) this.outgoing.destroy(new Trouble(why));
  }
}

/** Resolves when all of it has been handed to the network. */
async function writeAll(
  outgoing: ClientRequest,
  head: Uint8Array,
  document: DocumentData | undefined,
  watch: Watch,
): Promise<void> {
  outgoing.write(head);
  if (document) {
    for await (const part of document.parts()) {
      for (let at = 0; at < part.length; at += CHUNK) {
        if (!outgoing.write(part.subarray(at, at + CHUNK))) await drained(outgoing);
        if (outgoing.destroyed) return;
        watch.moves();
      }
    }
  }
  await new Promise<void>((resolve) => {
    outgoing.once('finish', resolve).once('close', resolve);
    outgoing.end();
  });
}

function drained(outgoing: ClientRequest): Promise<void> {
  if (outgoing.destroyed) return Promise.resolve();
  return new Promise((resolve) => {
    const goOn = (): void => {
      outgoing.off('drain', goOn);
      outgoing.off('close', goOn);
      resolve();
    };
    outgoing.on('drain', goOn);
    outgoing.on('close', goOn);
  });
}
