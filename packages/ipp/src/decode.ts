import type { Attributes, Group, GroupTag, Message, Value } from './message';
import {
  END_COLLECTION,
  END_OF_ATTRIBUTES,
  FIRST_VALUE_TAG,
  GROUP_TAGS,
  MEMBER_NAME,
  VALUE_TAGS,
  type KnownTag,
} from './tags';

/** Bytes that are no IPP message, with the offset where that shows. */
export class IppDecodeError extends Error {
  override readonly name = 'IppDecodeError';

  constructor(
    problem: string,
    readonly offset: number,
  ) {
    super(`byte ${offset}: ${problem}`);
  }
}

const GROUPS = new Map(Object.entries(GROUP_TAGS).map(([tag, number]) => [number, tag as GroupTag]));
const VALUES = new Map(Object.entries(VALUE_TAGS).map(([tag, number]) => [number, tag as KnownTag]));

/** Deeper nesting is in no standard attribute; it would only exhaust the stack. */
const MAX_DEPTH = 16;

/** No printer tells of itself in more values than this; what has more keeps whoever reads it from all else. */
const MOST_VALUES = 50_000;

/** A message, and where the document data behind it begins. */
export interface Decoded {
  readonly message: Message;
  readonly dataOffset: number;
}

/**
 * Reads a message from bytes (RFC 8010, section 3). What is well framed is read whatever it holds: values of tags that
 * nobody here knows, or that are not of their tag's syntax, are kept as they came ("other"), and groups nobody knows are
 * passed over, since whoever wrote them may be newer than this (RFC 8010, section 3.5).
 *
 * @throws IppDecodeError where its framing is broken, or it holds more than any printer has to say
 */
export function decodeMessage(bytes: Uint8Array): Decoded {
  const reader = new Reader(bytes);
  const version = [reader.byte(), reader.byte()] as const;
  const code = reader.short();
  const requestId = reader.int();
  const groups: Group[] = [];
  let attributes: Record<string, Value[]> | null = null;
  let last: Value[] | null = null;
  for (;;) {
    const at = reader.offset;
    const tag = reader.byte();
    if (tag === END_OF_ATTRIBUTES) return { message: { version, code, requestId, groups }, dataOffset: reader.offset };
    if (tag < FIRST_VALUE_TAG) {
      const group = GROUPS.get(tag);
      attributes = emptyAttributes();
      last = null;
      if (group) groups.push({ tag: group, attributes });
      continue;
    }
    if (!attributes) throw new IppDecodeError('an attribute stands before any group', at);
    const name = reader.text();
    const value = readValue(reader, tag, at, 0);
    if (name !== '') attributes[name] = last = [value];
    else if (last) last.push(value);
    else throw new IppDecodeError('a further value without an attribute', at);
  }
}

/** Without a prototype, so that an attribute named like a built-in property is only an attribute. */
const emptyAttributes = (): Record<string, Value[]> => Object.create(null) as Record<string, Value[]>;

function readValue(reader: Reader, number: number, at: number, depth: number): Value {
  reader.count(at);
  const tag = VALUES.get(number);
  const bytes = reader.field();
  if (tag === 'collection') return { tag, value: readMembers(reader, depth + 1) };
  if (!tag || !isOfSyntax(tag, bytes)) return { tag: 'other', number, value: bytes };
  const inside = new Reader(bytes);
  switch (tag) {
    case 'unsupported':
    case 'unknown':
    case 'no-value':
      return { tag };
    case 'integer':
    case 'enum':
      return { tag, value: inside.int() };
    case 'boolean':
      return { tag, value: inside.byte() !== 0 };
    case 'octetString':
    case 'dateTime':
      return { tag, value: bytes };
    case 'resolution':
      return { tag, value: { cross: inside.int(), feed: inside.int(), unit: inside.byte() } };
    case 'rangeOfInteger':
      return { tag, value: { lower: inside.int(), upper: inside.int() } };
    case 'textWithLanguage':
    case 'nameWithLanguage':
      return { tag, value: { language: inside.text(), text: inside.text() } };
    default:
      return { tag, value: textOf(bytes) };
  }
}

function readMembers(reader: Reader, depth: number): Attributes {
  if (depth > MAX_DEPTH) throw new IppDecodeError('collections nested too deep', reader.offset);
  const members = emptyAttributes();
  let last: Value[] | null = null;
  for (;;) {
    const at = reader.offset;
    const tag = reader.byte();
    if (tag < FIRST_VALUE_TAG) throw new IppDecodeError('a collection is not closed', at);
    reader.field();
    if (tag === END_COLLECTION) {
      reader.field();
      return members;
    }
    if (tag === MEMBER_NAME) {
      members[reader.text()] = last = [];
      continue;
    }
    if (!last) throw new IppDecodeError('a member value without its name', at);
    last.push(readValue(reader, tag, at, depth));
  }
}

/** Bytes of a value of each syntax that has a length of its own (RFC 8010, section 3.9). */
const LENGTHS: Partial<Record<KnownTag, number>> = {
  integer: 4,
  enum: 4,
  boolean: 1,
  resolution: 9,
  rangeOfInteger: 8,
};

function isOfSyntax(tag: KnownTag, bytes: Uint8Array): boolean {
  if (tag !== 'textWithLanguage' && tag !== 'nameWithLanguage') return bytes.length === (LENGTHS[tag] ?? bytes.length);
  if (bytes.length < 4) return false;
  const language = bytes[0]! * 256 + bytes[1]!;
  if (bytes.length < 4 + language) return false;
  return bytes.length === 4 + language + bytes[2 + language]! * 256 + bytes[3 + language]!;
}

const decoder = new TextDecoder('utf-8', { ignoreBOM: true });
const textOf = (bytes: Uint8Array): string => decoder.decode(bytes);

class Reader {
  private next = 0;
  private values = 0;
  private readonly view: DataView;

  constructor(private readonly bytes: Uint8Array) {
    this.view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  }

  get offset(): number {
    return this.next;
  }

  /** One more value. @throws IppDecodeError */
  count(at: number): void {
    this.values += 1;
    if (this.values > MOST_VALUES) throw new IppDecodeError(`it has more than ${MOST_VALUES} values`, at);
  }

  byte(): number {
    return this.view.getUint8(this.advance(1));
  }

  short(): number {
    return this.view.getUint16(this.advance(2));
  }

  int(): number {
    return this.view.getInt32(this.advance(4));
  }

  /** A length and that many bytes. */
  field(): Uint8Array {
    const length = this.short();
    const start = this.advance(length);
    return this.bytes.subarray(start, start + length);
  }

  text(): string {
    return textOf(this.field());
  }

  private advance(by: number): number {
    const start = this.next;
    if (start + by > this.bytes.length) throw new IppDecodeError('the message ends too early', this.bytes.length);
    this.next += by;
    return start;
  }
}
