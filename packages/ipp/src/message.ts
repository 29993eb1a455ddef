/** IPP messages as plain data (RFC 8010, section 3; RFC 8011, section 5.1 for the syntaxes). */

export interface Range {
  readonly lower: number;
  readonly upper: number;
}

export interface Resolution {
  readonly cross: number;
  readonly feed: number;
  /** 3: dots an inch, 4: dots a centimetre. */
  readonly unit: number;
}

export interface Localized {
  readonly language: string;
  readonly text: string;
}

/** Attributes by name, each with one value or more. */
export type Attributes = Readonly<Record<string, readonly Value[]>>;

export type Value =
  | { readonly tag: 'unsupported' | 'unknown' | 'no-value' }
  | { readonly tag: 'integer' | 'enum'; readonly value: number }
  | { readonly tag: 'boolean'; readonly value: boolean }
  | { readonly tag: 'octetString' | 'dateTime'; readonly value: Uint8Array }
  | { readonly tag: 'resolution'; readonly value: Resolution }
  | { readonly tag: 'rangeOfInteger'; readonly value: Range }
  | { readonly tag: 'collection'; readonly value: Attributes }
  | { readonly tag: 'textWithLanguage' | 'nameWithLanguage'; readonly value: Localized }
  /** A tag nobody here has words for, or a value that is not of its tag's syntax: its bytes as they came. */
  | { readonly tag: 'other'; readonly number: number; readonly value: Uint8Array }
  | {
      readonly tag: 'text' | 'name' | 'keyword' | 'uri' | 'uriScheme' | 'charset' | 'naturalLanguage' | 'mimeMediaType';
      readonly value: string;
    };

export type GroupTag =
  | 'operation'
  | 'job'
  | 'printer'
  | 'unsupported'
  | 'subscription'
  | 'event-notification'
  | 'resource'
  | 'document'
  | 'system';

export interface Group {
  readonly tag: GroupTag;
  readonly attributes: Attributes;
}

export interface Message {
  /** Major and minor: [2, 0]. */
  readonly version: readonly [number, number];
  /** Operation id of a request, status code of an answer. */
  readonly code: number;
  readonly requestId: number;
  readonly groups: readonly Group[];
}

/** Operation ids (RFC 8011, section 5.4.15, table 19; subscriptions: RFC 3995, 11; Get-Notifications: RFC 3996, 5; Close-Job: PWG 5100.7; Cancel-My-Jobs: PWG 5100.11; Identify-Printer: PWG 5100.13). */
export const OPERATIONS = {
  printJob: 0x0002,
  validateJob: 0x0004,
  createJob: 0x0005,
  sendDocument: 0x0006,
  cancelJob: 0x0008,
  getJobAttributes: 0x0009,
  getJobs: 0x000a,
  getPrinterAttributes: 0x000b,
  holdJob: 0x000c,
  releaseJob: 0x000d,
  restartJob: 0x000e,
  pausePrinter: 0x0010,
  resumePrinter: 0x0011,
  createPrinterSubscriptions: 0x0016,
  getNotifications: 0x001c,
  cancelMyJobs: 0x0039,
  closeJob: 0x003b,
  identifyPrinter: 0x003c,
} as const;

/** Status codes (RFC 8011, appendix B). */
export const STATUS = {
  ok: 0x0000,
  okIgnoredOrSubstituted: 0x0001,
  badRequest: 0x0400,
  notPossible: 0x0404,
  notFound: 0x0406,
  requestEntityTooLarge: 0x0408,
  documentFormatNotSupported: 0x040a,
  attributesOrValuesNotSupported: 0x040b,
  charsetNotSupported: 0x040d,
  compressionNotSupported: 0x040f,
  compressionError: 0x0410,
  documentFormatError: 0x0411,
  internalError: 0x0500,
  operationNotSupported: 0x0501,
  serviceUnavailable: 0x0502,
  versionNotSupported: 0x0503,
  temporaryError: 0x0505,
  notAcceptingJobs: 0x0506,
  busy: 0x0507,
  multipleDocumentJobsNotSupported: 0x0509,
} as const;

/** Values of job-state (RFC 8011, section 5.3.7). */
export const JOB_STATES = {
  pending: 3,
  'pending-held': 4,
  processing: 5,
  'processing-stopped': 6,
  canceled: 7,
  aborted: 8,
  completed: 9,
} as const;

export type JobState = keyof typeof JOB_STATES;

/** The keyword for a job-state number, or null where the standard knows none. */
export function jobStateOf(number: number): JobState | null {
  const found = Object.entries(JOB_STATES).find(([, value]) => value === number);
  return found ? (found[0] as JobState) : null;
}

export const integer = (value: number): Value => ({ tag: 'integer', value });
export const enumeration = (value: number): Value => ({ tag: 'enum', value });
export const boolean = (value: boolean): Value => ({ tag: 'boolean', value });
export const keyword = (value: string): Value => ({ tag: 'keyword', value });
export const text = (value: string): Value => ({ tag: 'text', value });
export const nameValue = (value: string): Value => ({ tag: 'name', value });
export const uri = (value: string): Value => ({ tag: 'uri', value });
export const rangeOf = (lower: number, upper: number): Value => ({ tag: 'rangeOfInteger', value: { lower, upper } });
export const collection = (value: Attributes): Value => ({ tag: 'collection', value });
export const octets = (value: string): Value => ({ tag: 'octetString', value: new TextEncoder().encode(value) });

/** The first number of an attribute, or null. */
export function firstNumber(attributes: Attributes, name: string): number | null {
  const value = attributes[name]?.[0];
  return value && (value.tag === 'integer' || value.tag === 'enum') ? value.value : null;
}

/** The first text, name, keyword or URI of an attribute, or null. */
export const firstString = (attributes: Attributes, name: string): string | null =>
  allStrings(attributes, name)[0] ?? null;

/** Every text, name, keyword or URI of an attribute. */
export function allStrings(attributes: Attributes, name: string): string[] {
  return (attributes[name] ?? []).flatMap((value) => {
    if (value.tag === 'textWithLanguage' || value.tag === 'nameWithLanguage') return [value.value.text];
    return 'value' in value && typeof value.value === 'string' ? [value.value] : [];
  });
}

/** The first boolean of an attribute, or null. */
export function firstBoolean(attributes: Attributes, name: string): boolean | null {
  const value = attributes[name]?.[0];
  return value?.tag === 'boolean' ? value.value : null;
}

/** Every collection of an attribute. */
export const collections = (attributes: Attributes, name: string): Attributes[] =>
  (attributes[name] ?? []).flatMap((value) => (value.tag === 'collection' ? [value.value] : []));

/** The attributes of the first group of that kind; empty where there is none. */
export const groupOf = (message: Message, tag: GroupTag): Attributes =>
  message.groups.find((group) => group.tag === tag)?.attributes ?? {};
