import { KNOWN, TOLD, type KnownField, type Printer } from '@foglio/core';
import {
  boolean,
  enumeration,
  integer,
  keyword,
  nameValue,
  octets,
  rangeOf,
  text,
  uri,
  type Attributes,
  type Value,
} from '../message';
import { mediaAttributes } from './media-attributes';
import { dateTime, secondsOf } from './moments';
import { withinOctets } from './octets';
import type { ServedPrinter } from './served-printer';

/** What is told of a served printer beside what follows from its profile. */
export interface Described extends Pick<ServedPrinter, 'operations' | 'formats' | 'compressions' | 'takesSeveral'> {
  readonly profile: Printer;
  /** What a person reads of it where a name is not enough. */
  readonly info: string;
  /** RFC 4122, without "urn:uuid:". */
  readonly uuid: string;
  /** Job template attributes that it takes. */
  readonly template: readonly string[];
  readonly mostCopies: number;
  /** Sizes that it takes beside those that lie in its trays. */
  readonly otherSizes: readonly string[];
  /** Whether it takes any other too. */
  readonly isAnySize: boolean;
  /** Pixels an inch at which it takes PWG Raster; none: it does not. */
  readonly rasterDpi: readonly number[];
  /** Pages for a person, and icons, by URI. */
  readonly moreInfo: string;
  readonly icons: readonly string[];
  readonly standing: {
    readonly state: 'idle' | 'processing' | 'stopped';
    /** printer-state-reasons (RFC 8011, 5.4.12). */
    readonly reasons: readonly string[];
    readonly message: string;
    readonly queued: number;
    readonly changedAt: Date;
  };
}

/** Of printer-state (RFC 8011, 5.4.11). */
const STATES = { idle: 3, processing: 4, stopped: 5 } as const;

/** All that Get-Printer-Attributes tells (RFC 8011, section 5.4; what IPP Everywhere asks for beside: PWG 5100.14). */
export const printerAttributes = (described: Described, address: string): Attributes => ({
  ...whatItIs(described, address),
  ...howItStands(described),
  ...whatItCan(described),
  ...mediaAttributes(described.profile, described.otherSizes, described.isAnySize),
});

/** What the profile tells of the settings that a printer is asked for. */
export const answersOf = (profile: Printer): Attributes =>
  Object.fromEntries(
    KNOWN.map(({ field, asked, syntax, answer }) => {
      const values = answer(profile[field as KnownField] as never);
      return [asked, values.map(ANSWERING[syntax])];
    }),
  );

const ANSWERING: Readonly<Record<(typeof KNOWN)[number]['syntax'], (value: string) => Value>> = {
  keyword,
  boolean: (value) => boolean(value === 'true'),
  enum: (value) => enumeration(Number(value)),
};

/** Octets of printer-name and printer-info (RFC 8011, 5.4.4 and 5.4.6). */
const LONGEST_NAME = 127;

const charset: Value = { tag: 'charset', value: 'utf-8' };
const language: Value = { tag: 'naturalLanguage', value: 'en' };
const formatOf = (value: string): Value => ({ tag: 'mimeMediaType', value });

function whatItIs(described: Described, address: string): Attributes {
  const { profile, info, uuid, moreInfo, icons, formats } = described;
  return {
    'charset-configured': [charset],
    'charset-supported': [charset],
    'natural-language-configured': [language],
    'generated-natural-language-supported': [language],
    'ipp-versions-supported': ['1.1', '2.0'].map(keyword),
    // Which asks for PWG Raster among others (PWG 5100.14, 4.1).
    'ipp-features-supported': [keyword(described.rasterDpi.length > 0 ? 'ipp-everywhere' : 'none')],
    'operations-supported': described.operations.map(enumeration),
    'document-format-supported': formats.map(formatOf),
    'document-format-default': [formatOf(formats[0] ?? 'application/octet-stream')],
    'compression-supported': described.compressions.map(keyword),
    'printer-uri-supported': [uri(address)],
    'uri-security-supported': [keyword('none')],
    'uri-authentication-supported': [keyword('none')],
    'printer-uuid': [uri(`urn:uuid:${uuid}`)],
    'printer-name': [nameValue(withinOctets(profile.name, LONGEST_NAME))],
    'printer-info': [text(withinOctets(info, LONGEST_NAME))],
    'printer-location': [text('')],
    'printer-geo-location': [{ tag: 'unknown' }],
    'printer-organization': [text('')],
    'printer-organizational-unit': [text('')],
    'printer-make-and-model': [text('Foglio')],
    // IEEE 1284-2000, 7.6: manufacturer, model, and the languages it takes.
    'printer-device-id': [text('MFG:Foglio;MDL:Foglio;CMD:PDF;')],
    'printer-more-info': [uri(moreInfo)],
    'printer-icons': icons.map(uri),
    'printer-supply-info-uri': [uri(moreInfo)],
    'which-jobs-supported': ['completed', 'not-completed', 'all'].map(keyword),
    'job-ids-supported': [boolean(true)],
    'identify-actions-supported': [keyword('display')],
    'identify-actions-default': [keyword('display')],
    'printer-get-attributes-supported': [keyword('document-format')],
    'preferred-attributes-supported': [boolean(false)],
    // Whether what the job says goes before what its document says.
    'pdl-override-supported': [keyword('attempted')],
  };
}

function howItStands({ standing: { state, reasons, message, queued, changedAt } }: Described): Attributes {
  return {
    'printer-is-accepting-jobs': [boolean(true)],
    'queued-job-count': [integer(queued)],
    'printer-up-time': [integer(secondsOf(new Date()))],
    'printer-current-time': [dateTime(new Date())],
    'printer-state': [enumeration(STATES[state])],
    'printer-state-reasons': reasons.map(keyword),
    'printer-state-message': [text(message)],
    'printer-state-change-time': [integer(secondsOf(changedAt))],
    'printer-state-change-date-time': [dateTime(changedAt)],
    'printer-config-change-time': [integer(secondsOf(changedAt))],
    'printer-config-change-date-time': [dateTime(changedAt)],
    'printer-alert': [octets('')],
    'printer-alert-description': [text('')],
    // What is printed with is the business of the printer behind (PWG 5100.13, 5.6.5).
    'printer-supply': [octets('type=other;maxcapacity=-2;level=-2;colorantname=unknown;')],
    'printer-supply-description': [text('Ink or toner of the printer that prints it')],
  };
}

function whatItCan(described: Described): Attributes {
  const { profile, template, mostCopies, rasterDpi, takesSeveral } = described;
  return {
    'pages-per-minute': [integer(Math.round(profile.sidesPerMinute ?? 0))],
    ...wordsOfSettings(),
    ...answersOf(profile),
    'color-supported': [boolean(profile.color)],
    'copies-supported': [rangeOf(1, mostCopies)],
    'copies-default': [integer(1)],
    'sides-default': [keyword('one-sided')],
    'orientation-requested-supported': [3, 4, 5, 6].map(enumeration),
    'orientation-requested-default': [{ tag: 'no-value' }],
    'finishings-default': [enumeration(3)],
    'print-quality-default': [enumeration(4)],
    'print-content-optimize-supported': [keyword('auto')],
    'print-content-optimize-default': [keyword('auto')],
    'print-rendering-intent-supported': [keyword('auto')],
    'print-rendering-intent-default': [keyword('auto')],
    'print-color-mode-supported': (profile.color ? ['auto', 'monochrome'] : ['monochrome']).map(keyword),
    'print-color-mode-default': [keyword(profile.color ? 'auto' : 'monochrome')],
    'output-bin-default': [keyword(profile.outputBins[0] ?? `${profile.delivers}`)],
    'printer-resolution-supported': [resolutionOf(rasterDpi[0] ?? 600)],
    'printer-resolution-default': [resolutionOf(rasterDpi[0] ?? 600)],
    'page-ranges-supported': [boolean(template.includes('page-ranges'))],
    'job-creation-attributes-supported': template.map(keyword),
    'page-delivery-supported': [keyword(`same-order-${profile.delivers}`)],
    'overrides-supported': [...profile.jobs.overrides, 'pages'].map(keyword),
    'multiple-document-jobs-supported': [boolean(takesSeveral)],
    ...(profile.jobs.documents ? { 'document-creation-attributes-supported': OF_DOCUMENT.map(keyword) } : {}),
    'multiple-document-handling-supported': [
      ...(profile.jobs.documents ? ['single-document-new-sheet'] : []),
      'separate-documents-collated-copies',
      'separate-documents-uncollated-copies',
    ].map(keyword),
    'multiple-document-handling-default': [keyword('separate-documents-collated-copies')],
    'multiple-operation-time-out': [integer(MULTIPLE_OPERATION_SECONDS)],
    'multiple-operation-time-out-action': [keyword('abort-job')],
    ...(rasterDpi.length > 0 ? rasterOf(rasterDpi) : {}),
  };
}

/** For so long the next document of a job is waited for (RFC 8011, 5.4.31). */
export const MULTIPLE_OPERATION_SECONDS = 300;

/** What may be said of a document alone. */
const OF_DOCUMENT = TOLD.filter(({ of }) => of === 'sheet').map(({ attribute }) => attribute);

const resolutionOf = (dpi: number): Value => ({ tag: 'resolution', value: { cross: dpi, feed: dpi, unit: 3 } });

/** PWG 5102.4, section 5. */
const rasterOf = (dpi: readonly number[]): Attributes => ({
  'pwg-raster-document-resolution-supported': dpi.map(resolutionOf),
  'pwg-raster-document-type-supported': ['black_1', 'sgray_8', 'srgb_8'].map(keyword),
  'pwg-raster-document-sheet-back': [keyword('normal')],
});

/** Of settings whose values are other words in IPP: all of these. */
const wordsOfSettings = (): Attributes =>
  Object.fromEntries(
    TOLD.flatMap(({ attribute, syntax, values }) => {
      const words = Object.values(values ?? {}).map((word) =>
        syntax === 'enum' || syntax === 'enums' ? enumeration(word as number) : keyword(word as string),
      );
      return words.length > 0 ? [[`${attribute}-supported`, words]] : [];
    }),
  );
