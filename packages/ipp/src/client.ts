import { request as httpRequest } from 'node:http';
import { request as httpsRequest } from 'node:https';
import { decodeMessage } from './decode';
import { encodeMessage } from './encode';
import { isForbiddenHost, lookupReachable } from './reachable';
import { groupOf, STATUS, firstString, type Attributes, type Group, type Message } from './message';

/** A printer that could not be reached, or that refused. */
export class IppError extends Error {
  override readonly name = 'IppError';

  /**
   * @param status the standard's status code, or null where the printer did not answer in IPP
   * @param jobCreated whether the printer had already made a job of it, which it may or may not have got whole
   */
  constructor(
    message: string,
    readonly status: number | null,
    readonly jobCreated = false,
  ) {
    super(message);
  }
}

export interface IppRequest {
  readonly operation: number;
  /** Operation attributes beyond charset, language and the target. */
  readonly operationAttributes?: Attributes;
  readonly groups?: readonly Group[];
  readonly document?: Uint8Array;
  readonly signal?: AbortSignal;
}

const ANSWER_WITHIN_MS = 10_000;

/** No answer of a printer comes near this; what is longer is not read. */
const LONGEST_ANSWER = 16 * 1024 * 1024;

/** Bytes written at once, so that a slow printer's pace is felt and a sending can be stopped between two. */
const CHUNK = 64 * 1024;

/** The address by which HTTP reaches an IPP printer (RFC 8010, section 4). @throws IppError for any other scheme */
export function httpAddress(printerUri: string): URL {
  const match = /^(ipps?):\/\/(.+)$/i.exec(printerUri);
  if (!match || !URL.canParse(`http://${match[2]}`)) {
    throw new IppError(`"${printerUri}" is not a printer's address; write one like ipp://host:631/ipp/print`, null);
  }
  const secure = match[1]?.toLowerCase() === 'ipps';
  const url = new URL(`${secure ? 'https' : 'http'}://${match[2]}`);
  if (isForbiddenHost(url.hostname)) throw new IppError(`${url.hostname} is no address of a printer`, null);
  // Without a port an address means 631, not HTTP's own (RFC 8010, section 4.2). ":80" must be given as it is.
  if (!/^[^/]*:\d+(\/|$)/.test(match[2] as string)) url.port = '631';
  return url;
}

/** Asks a printer one thing. @throws IppError where it is away, refuses, or answers something else than IPP */
export async function askPrinter(printerUri: string, ask: IppRequest): Promise<Message> {
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
  const body = await post(httpAddress(printerUri), encodeMessage(message), ask.document, ask.signal);
  let answer: Message;
  try {
    answer = decodeMessage(body).message;
  } catch (error) {
    throw new IppError(`the answer from ${printerUri} is not IPP (${(error as Error).message})`, null);
  }
  if (answer.code >= STATUS.badRequest) {
    const reason = firstString(groupOf(answer, 'operation'), 'status-message');
    const code = `0x${answer.code.toString(16).padStart(4, '0')}`;
    throw new IppError(`the printer refuses: ${reason ?? 'no reason given'} (status ${code})`, answer.code);
  }
  return answer;
}

function post(url: URL, head: Uint8Array, document: Uint8Array | undefined, signal?: AbortSignal): Promise<Uint8Array> {
  const send = url.protocol === 'https:' ? httpsRequest : httpRequest;
  const length = head.length + (document?.length ?? 0);
  return new Promise((resolve, reject) => {
    const away = (error: Error): void => reject(new IppError(`${url.host} cannot be reached: ${error.message}`, null));
    const outgoing = send(url, {
      method: 'POST',
      lookup: lookupReachable,
      // A connection of its own: one kept from before may be closed by the printer in the very moment it is used again.
      agent: false,
      headers: { 'Content-Type': 'application/ipp', 'Content-Length': length },
      ...(signal ? { signal } : {}),
    });
    outgoing.setTimeout(ANSWER_WITHIN_MS, () => outgoing.destroy(new Error('no answer in time')));
    outgoing.on('error', away);
    outgoing.on('response', (incoming) => {
      const parts: Buffer[] = [];
      let size = 0;
      incoming.on('data', (part: Buffer) => {
        size += part.length;
        if (size > LONGEST_ANSWER) incoming.destroy(new Error('the answer is too long'));
        else parts.push(part);
      });
      incoming.on('error', away);
      incoming.on('end', () => {
        if (incoming.statusCode === 200) resolve(new Uint8Array(Buffer.concat(parts)));
        else reject(new IppError(`${url.host} answers with HTTP status ${incoming.statusCode}, not IPP`, null));
      });
    });
    void writeAll(outgoing, head, document).catch(away);
  });
}

async function writeAll(
  outgoing: ReturnType<typeof httpRequest>,
  head: Uint8Array,
  document: Uint8Array | undefined,
): Promise<void> {
  outgoing.write(head);
  for (let at = 0; document && at < document.length; at += CHUNK) {
    const room = outgoing.write(document.subarray(at, at + CHUNK));
    if (!room && !outgoing.destroyed) {
      await new Promise<void>((resolve) => {
        const goOn = (): void => {
          outgoing.off('drain', goOn);
          outgoing.off('close', goOn);
          resolve();
        };
        outgoing.on('drain', goOn);
        outgoing.on('close', goOn);
      });
    }
    if (outgoing.destroyed) return;
  }
  outgoing.end();
}
