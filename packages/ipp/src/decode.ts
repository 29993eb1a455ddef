import type { Attributes, Group, GroupTag, Message, Value } from './message';
import { END_COLLECTION, END_OF_ATTRIBUTES, FIRST_VALUE_TAG, GROUP_TAGS, MEMBER_NAME, VALUE_TAGS } from './tags';

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
const VALUES = new Map(Object.entries(VALUE_TAGS).map(([tag, number]) => [number, tag as Value['tag']]));

/** Deeper nesting is in no standard attribute; it would only exhaust the stack. */
const MAX_DEPTH = 16;

/** A message, and where the document data behind it begins. */
export interface Decoded {
  readonly message: Message;
  readonly dataOffset: number;
}

/**
 * Reads a message from bytes (RFC 8010, section 3).
 *
 * @throws IppDecodeError
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
      if (!group) throw new IppDecodeError(`unknown group tag ${tag}`, at);
      attributes = emptyAttributes();
      last = null;
      groups.push({ tag: group, attributes });
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
  const tag = VALUES.get(number);
  if (!tag) throw new IppDecodeError(`unknown value tag ${number}`, at);
  const bytes = reader.field();
  const inside = new Reader(bytes, reader.offset - bytes.length);
  switch (tag) {
    case 'unsupported':
    case 'unknown':
    case 'no-value':
      return { tag };
    case 'integer':
    case 'enum':
      return { tag, value: exact(inside, 4, tag).int() };
    case 'boolean':
      return { tag, value: exact(inside, 1, tag).byte() !== 0 };
    case 'octetString':
    case 'dateTime':
      return { tag, value: bytes };
    case 'resolution':
      exact(inside, 9, tag);
      return { tag, value: { cross: inside.int(), feed: inside.int(), unit: inside.byte() } };
    case 'rangeOfInteger':
      exact(inside, 8, tag);
      return { tag, value: { lower: inside.int(), upper: inside.int() } };
    case 'textWithLanguage':
    case 'nameWithLanguage':
      return { tag, value: { language: inside.text(), text: inside.text() } };
    case 'collection':
      return { tag, value: readMembers(reader, depth + 1) };
    default:
      return { tag, value: new TextDecoder().decode(bytes) };
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

function exact(reader: Reader, length: number, tag: string): Reader {
  if (reader.length !== length) throw new IppDecodeError(`${tag} of ${reader.length} bytes, not ${length}`, reader.at);
  return reader;
}

class Reader {
  private next = 0;
  private readonly view: DataView;

  constructor(
    private readonly bytes: Uint8Array,
    private readonly base = 0,
  ) {
    this.view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  }

  /** Offset in the whole message. */
  get at(): number {
    return this.base + this.next;
  }

  get offset(): number {
    return this.next;
  }

  get length(): number {
    return this.bytes.length;
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
    return new TextDecoder().decode(this.field());
  }

  private advance(by: number): number {
    const start = this.next;
    if (start + by > this.bytes.length)
      throw new IppDecodeError('the message ends too early', this.base + this.bytes.length);
    this.next += by;
    return start;
  }
}
