import { request as httpRequest } from 'node:http';
import { request as httpsRequest } from 'node:https';
import { decodeMessage } from './decode';
import { encodeMessage } from './encode';
import { httpAddress } from './address';
import { IppError } from './ipp-error';
import { lookupReachable } from './reachable';
import { groupOf, STATUS, firstString, type Attributes, type Group, type Message } from './message';

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
