import type { Attributes, Message, Value } from './message';
import { END_COLLECTION, END_OF_ATTRIBUTES, GROUP_TAGS, MEMBER_NAME, VALUE_TAGS } from './tags';

/** Text in names and values is at most this long, as its length stands in a signed 16-bit field (RFC 8010, 3.4). */
const MAX_LENGTH = 0x7fff;

/**
 * A message as bytes, up to and with the end-of-attributes tag; document data follows it (RFC 8010, section 3.1).
 *
 * @throws RangeError where a name or value is too long for its length field
 */
export function encodeMessage({ version, code, requestId, groups }: Message): Uint8Array {
  const out = new ByteList();
  out.byte(version[0]);
  out.byte(version[1]);
  out.short(code);
  out.int(requestId);
  for (const group of groups) {
    out.byte(GROUP_TAGS[group.tag]);
    writeAttributes(out, group.attributes);
  }
  out.byte(END_OF_ATTRIBUTES);
  return out.toBytes();
}

/** An attribute's further values repeat the tag with an empty name (RFC 8010, section 3.1.5). */
function writeAttributes(out: ByteList, attributes: Attributes): void {
  for (const [name, values] of Object.entries(attributes)) {
    values.forEach((value, index) => writeValue(out, index === 0 ? name : '', value));
  }
}

function writeValue(out: ByteList, name: string, value: Value): void {
  out.byte(value.tag === 'other' ? value.number : VALUE_TAGS[value.tag]);
  out.field(utf8(name));
  switch (value.tag) {
    case 'other':
      out.field(value.value);
      return;
    case 'unsupported':
    case 'unknown':
    case 'no-value':
      out.short(0);
      return;
    case 'integer':
    case 'enum':
      out.short(4);
      out.int(value.value);
      return;
    case 'boolean':
      out.short(1);
      out.byte(value.value ? 1 : 0);
      return;
    case 'octetString':
    case 'dateTime':
      out.field(value.value);
      return;
    case 'resolution':
      out.short(9);
      out.int(value.value.cross);
      out.int(value.value.feed);
      out.byte(value.value.unit);
      return;
    case 'rangeOfInteger':
      out.short(8);
      out.int(value.value.lower);
      out.int(value.value.upper);
      return;
    case 'textWithLanguage':
    case 'nameWithLanguage': {
      const inner = new ByteList();
      inner.field(utf8(value.value.language));
      inner.field(utf8(value.value.text));
      out.field(inner.toBytes());
      return;
    }
    case 'collection':
      out.short(0);
      writeMembers(out, value.value);
      return;
    default:
      out.field(utf8(value.value));
  }
}

/** Members name themselves in a value of their own; the end has neither name nor value (RFC 8010, section 3.1.6). */
function writeMembers(out: ByteList, members: Attributes): void {
  for (const [name, values] of Object.entries(members)) {
    out.byte(MEMBER_NAME);
    out.short(0);
    out.field(utf8(name));
    for (const value of values) writeValue(out, '', value);
  }
  out.byte(END_COLLECTION);
  out.short(0);
  out.short(0);
}

const utf8 = (value: string): Uint8Array => new TextEncoder().encode(value);

class ByteList {
  private readonly bytes: number[] = [];

  byte(value: number): void {
    this.bytes.push(value & 0xff);
  }

  short(value: number): void {
    this.bytes.push((value >> 8) & 0xff, value & 0xff);
  }

  int(value: number): void {
    this.bytes.push((value >> 24) & 0xff, (value >> 16) & 0xff, (value >> 8) & 0xff, value & 0xff);
  }

  /** A length and then that many bytes. */
  field(value: Uint8Array): void {
    if (value.length > MAX_LENGTH) throw new RangeError(`an IPP field of ${value.length} bytes; ${MAX_LENGTH} at most`);
    this.short(value.length);
    for (const byte of value) this.bytes.push(byte);
  }

  toBytes(): Uint8Array {
    return Uint8Array.from(this.bytes);
  }
}
