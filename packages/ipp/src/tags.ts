import type { GroupTag, Value } from './message';

/** Delimiter tags (RFC 8010, section 3.5.1; 6 and 7: RFC 3995; 8: RFC 3380; 9: PWG 5100.5; 10: PWG 5100.22). */
export const GROUP_TAGS: Record<GroupTag, number> = {
  operation: 0x01,
  job: 0x02,
  printer: 0x04,
  unsupported: 0x05,
  subscription: 0x06,
  'event-notification': 0x07,
  resource: 0x08,
  document: 0x09,
  system: 0x0a,
};

export const END_OF_ATTRIBUTES = 0x03;

export type KnownTag = Exclude<Value['tag'], 'other'>;

/** Value tags (RFC 8010, section 3.5.2). */
export const VALUE_TAGS: Record<KnownTag, number> = {
  unsupported: 0x10,
  unknown: 0x12,
  'no-value': 0x13,
  integer: 0x21,
  boolean: 0x22,
  enum: 0x23,
  octetString: 0x30,
  dateTime: 0x31,
  resolution: 0x32,
  rangeOfInteger: 0x33,
  collection: 0x34,
  textWithLanguage: 0x35,
  nameWithLanguage: 0x36,
  text: 0x41,
  name: 0x42,
  keyword: 0x44,
  uri: 0x45,
  uriScheme: 0x46,
  charset: 0x47,
  naturalLanguage: 0x48,
  mimeMediaType: 0x49,
};

export const END_COLLECTION = 0x37;
export const MEMBER_NAME = 0x4a;

/** The first value tag; what is below is a delimiter (RFC 8010, section 3.5.1). */
export const FIRST_VALUE_TAG = 0x10;
