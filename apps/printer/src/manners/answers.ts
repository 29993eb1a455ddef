import { collection, encodeMessage, integer, keyword, type Message } from '@foglio/ipp';
import type { Manner } from './manner';

/** A value of a tag, and a group, that no standard has. */
const STRANGE_VALUE = { tag: 'other', number: 0x7e, value: new Uint8Array([1, 2, 3]) } as const;
const SHORT_INTEGER = { tag: 'other', number: 0x21, value: new Uint8Array([1]) } as const;
const STRANGE_GROUP = [0x0e, 0x44, 0, 1, 0x78, 0, 1, 0x79];
const END = 0x03;

/** With what nobody knows in each of its groups. */
const strange = (answer: Message): Message => ({
  ...answer,
  groups: answer.groups.map((group, at) =>
    at === 0
      ? group
      : { ...group, attributes: { 'x-strange': [STRANGE_VALUE], 'x-short': [SHORT_INTEGER], ...group.attributes } },
  ),
});

const MANY_TRAYS = 5_000;
const MANY_ATTRIBUTES = 1_000_000;

/** Both are made where they are first answered with. */
let trays: Uint8Array | null = null;
let many: Uint8Array | null = null;

function manyTrays(): Uint8Array {
  const ready = Array.from({ length: MANY_TRAYS }, (_, at) =>
    collection({
      'media-size': [collection({ 'x-dimension': [integer(21000)], 'y-dimension': [integer(29700)] })],
      'media-source': [keyword(`tray-${at}`)],
    }),
  );
  const groups = [{ tag: 'printer', attributes: { 'media-col-ready': ready } } as const];
  return encodeMessage({ version: [2, 0], code: 0, requestId: 1, groups });
}

/** Attributes of one letter each as bytes, which no message in memory has room for. */
function manyAttributes(): Uint8Array {
  const one = [0x44, 0, 1, 0x61, 0, 1, 0x62];
  const head = encodeMessage({ version: [2, 0], code: 0, requestId: 1, groups: [{ tag: 'printer', attributes: {} }] });
  const all = new Uint8Array(head.length + one.length * MANY_ATTRIBUTES);
  all.set(head.subarray(0, -1));
  for (let at = head.length - 1; at < all.length - 1; at += one.length) all.set(one, at);
  all[all.length - 1] = END;
  return all;
}

/** Of how they answer at all. */
export const answers = {
  slow: { is: 'answers a byte every three seconds', dripMs: 3_000 },
  'unknown-words': {
    is: 'answers with tags, groups and values that no standard has',
    says: strange,
    sends: (bytes) => {
      const end = bytes.length - 1;
      return Uint8Array.from([...bytes.subarray(0, end), ...STRANGE_GROUP, END]);
    },
  },
  'many-trays': {
    is: `tells of ${MANY_TRAYS} trays`,
    sends: () => (trays ??= manyTrays()),
  },
  huge: { is: 'answers with a million attributes', sends: () => (many ??= manyAttributes()) },
  garbage: {
    is: 'answers with bytes that are no message',
    sends: () => new TextEncoder().encode('<html>It works!</html>'),
  },
  'wrong-length': {
    is: 'tells lengths that its values do not have',
    sends: (bytes) => {
      const spoiled = Uint8Array.from(bytes);
      // The length of the first attribute's name.
      spoiled[10] = 0x7f;
      return spoiled;
    },
  },
  redirects: {
    is: 'sends whoever asks to another address',
    answers: (_request, response) => {
      response.writeHead(302, { Location: 'http://127.0.0.1:9/elsewhere', 'Content-Length': 0 }).end();
      return true;
    },
  },
  locked: {
    is: 'asks for a name and a password',
    answers: (_request, response) => {
      response.writeHead(401, { 'WWW-Authenticate': 'Basic realm="printer"', 'Content-Length': 0 }).end();
      return true;
    },
  },
} satisfies Readonly<Record<string, Manner>>;
