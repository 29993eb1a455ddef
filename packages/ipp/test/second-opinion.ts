import { createServer, request as sendOn, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import { enums, parse } from 'ipp';
import { decodeMessage, type Attributes, type Value } from '../src';
import { againstStandards } from './standard-syntaxes';

/**
 * Another package's reading of all that passes between a sender and a printer. It must find the groups, attributes and
 * values in it that our own reader finds; and these must be as the standards declare them.
 */
export interface Listener {
  /** Where to send instead of to the printer. */
  readonly uri: string;
  /** Operations that passed, by their number in the request. */
  readonly heard: Set<number>;
  readonly close: () => void;
}

/** @param printerUri where what passes goes on to; what both readers do not agree on is thrown by `close` */
export async function listen(printerUri: string): Promise<Listener> {
  const target = new URL(printerUri.replace('ipp:', 'http:'));
  const heard = new Set<number>();
  const disagreements: string[] = [];
  const compare = (what: string, bytes: Buffer): void => {
    try {
      expect(secondReading(bytes)).toEqual(ourReading(bytes));
      const { groups } = decodeMessage(bytes).message;
      // What a printer does not support it gives back as it got it, whatever that was.
      const declared = groups.filter(({ tag }) => tag !== 'unsupported');
      expect(declared.flatMap(({ attributes }) => againstStandards(attributes))).toEqual([]);
    } catch (error) {
      disagreements.push(`${what}: ${(error as Error).message}`);
    }
  };
  const server = createServer((incoming, outgoing) => {
    const fail = (): void => void outgoing.destroy();
    void whole(incoming).then((asked) => {
      // What was made up by a fuzzer is no message to agree on; the printer answers that it is none.
      const isMessage = canRead(asked);
      if (isMessage) {
        heard.add(decodeMessage(asked).message.code);
        compare('request', asked);
      }
      // It came in parts or as a whole, and goes on as a whole.
      const { 'transfer-encoding': _, ...given } = incoming.headers;
      const headers = { ...given, 'content-length': asked.length, host: target.host };
      const onward = sendOn(target, { method: incoming.method, headers, agent: false }, (answer) => {
        void whole(answer).then((answered) => {
          if (isMessage && answer.statusCode === 200) compare('answer', answered);
          outgoing.writeHead(answer.statusCode ?? 502, answer.headers).end(answered);
        }, fail);
      });
      onward.on('error', fail).end(asked);
    }, fail);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  return {
    uri: `ipp://127.0.0.1:${port}${target.pathname}`,
    heard,
    close: () => {
      server.close();
      server.closeAllConnections();
      if (disagreements.length > 0) throw new Error(disagreements.join('\n\n'));
    },
  };
}

async function whole(stream: IncomingMessage): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of stream as AsyncIterable<Buffer>) parts.push(part);
  return Buffer.concat(parts);
}

function canRead(bytes: Buffer): boolean {
  try {
    decodeMessage(bytes);
    return true;
  } catch {
    return false;
  }
}

// It only says that it has no words for values that are none.
parse.handleUnknownTag = () => undefined;

type Read = Readonly<Record<string, unknown>>;

/** The groups by name, those of one name in a list. */
function secondReading(bytes: Buffer): Read {
  const read = parse(bytes);
  const groups = Object.entries(read).filter(([name]) => name.endsWith('-attributes-tag'));
  return {
    id: read.id,
    version: read.version,
    ...Object.fromEntries(groups.map(([name, group]) => [name, [group].flat()])),
  };
}

function ourReading(bytes: Buffer): Read {
  const { message } = decodeMessage(bytes);
  const groups: Record<string, unknown[]> = {};
  for (const { tag, attributes } of message.groups) {
    (groups[`${tag}-attributes-tag`] ??= []).push(plainAttributes(attributes));
  }
  return { id: message.requestId, version: message.version.join('.'), ...groups };
}

/** As the other package gives attributes: one value by itself, several as a list. */
const plainAttributes = (attributes: Attributes): Read =>
  Object.fromEntries(
    Object.entries(attributes).map(([name, values]) => {
      const plain = values.map((value) => plainValue(name, value));
      return [name, plain.length === 1 ? plain[0] : plain];
    }),
  );

function plainValue(name: string, value: Value): unknown {
  switch (value.tag) {
    case 'enum':
      // The other package says by name what it knows.
      return enums[name]?.lookup?.[value.value] ?? value.value;
    case 'rangeOfInteger':
      return [value.value.lower, value.value.upper];
    case 'resolution':
      return [value.value.cross, value.value.feed, value.value.unit === 3 ? 'dpi' : 'dpcm'];
    case 'dateTime':
      return momentOf(value.value);
    case 'unsupported':
    case 'unknown':
    case 'no-value':
      return undefined;
    case 'octetString':
      // The other package takes these bytes for text, which those of printers are (PWG 5100.13, printer-input-tray).
      return Buffer.from(value.value).toString();
    case 'collection':
      return plainAttributes(value.value);
    default:
      return value.value;
  }
}

/** DateAndTime (RFC 2579, section 2) as the other package takes it: a month late, and tenths of a second for thousandths. */
function momentOf(bytes: Uint8Array): Date {
  const [high = 0, low = 0, month = 1, day = 1, hour = 0, minute = 0, second = 0, tenth = 0] = bytes;
  return new Date(Date.UTC(high * 256 + low, month, day, hour, minute, second, tenth));
}
