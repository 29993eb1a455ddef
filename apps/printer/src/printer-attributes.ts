import { KNOWN, pointsToMm, readSizeName, TOLD, type KnownField, type Printer } from '@foglio/core';
import {
  boolean,
  collection,
  enumeration,
  integer,
  keyword,
  nameValue,
  octets,
  OPERATIONS,
  rangeOf,
  text,
  uri,
  type Attributes,
  type Value,
} from '@foglio/ipp';
import { isOver, type Machine } from './machine';

/** Job template attributes this printer takes; any other in a job is refused by name, not ignored. */
export const JOB_TEMPLATE = [...TOLD.map(({ attribute }) => attribute), 'multiple-document-handling', 'overrides'];

/** What may be said of a document alone. */
const OF_DOCUMENT = TOLD.filter(({ of }) => of === 'sheet').map(({ attribute }) => attribute);

export const MAX_COPIES = 9999;

/** All that Get-Printer-Attributes tells (RFC 8011, section 5.4, unless another is named). */
export const printerAttributesOf = (machine: Machine, address: string): Attributes => ({
  ...whatItIs(machine.profile, address),
  ...howItStands(machine),
  ...whatItCan(machine.profile),
  ...mediaIn(machine),
});

/** What the profile tells of the settings that a printer is asked for. */
export const answersOf = (profile: Printer): Attributes =>
  Object.fromEntries(
    KNOWN.map(({ field, asked, syntax, answer }) => {
      const values = answer(profile[field as KnownField] as never);
      return [asked, values.map(syntax === 'keyword' ? keyword : (value) => boolean(value === 'true'))];
    }),
  );

const whatItIs = (profile: Printer, address: string): Attributes => ({
  'charset-configured': [{ tag: 'charset', value: 'utf-8' }],
  'charset-supported': [{ tag: 'charset', value: 'utf-8' }],
  'natural-language-configured': [{ tag: 'naturalLanguage', value: 'en' }],
  'generated-natural-language-supported': [{ tag: 'naturalLanguage', value: 'en' }],
  'ipp-versions-supported': ['1.1', '2.0'].map(keyword),
  'operations-supported': Object.values(OPERATIONS).map(enumeration),
  'document-format-supported': [{ tag: 'mimeMediaType', value: 'application/pdf' }],
  'document-format-default': [{ tag: 'mimeMediaType', value: 'application/pdf' }],
  'printer-uri-supported': [uri(address)],
  'uri-security-supported': [keyword('none')],
  'uri-authentication-supported': [keyword('none')],
  'printer-name': [nameValue(profile.name)],
  'printer-info': [text(profile.name)],
  'compression-supported': [keyword('none')],
  // Whether what the job says goes before what its document says.
  'pdl-override-supported': [keyword('attempted')],
});

function howItStands(machine: Machine): Attributes {
  const jobs = [...machine.jobs.values()];
  const busy = jobs.some((job) => job.state === 'processing');
  return {
    'printer-is-accepting-jobs': [boolean(true)],
    'queued-job-count': [integer(jobs.filter((job) => !isOver(job)).length)],
    'printer-up-time': [integer(Math.max(1, Math.floor(process.uptime())))],
    // 3 idle, 4 processing, 5 stopped (section 5.4.11).
    'printer-state': [enumeration(machine.stop ? 5 : busy ? 4 : 3)],
    'printer-state-reasons': stateReasons(machine).map(keyword),
  };
}

const whatItCan = (profile: Printer): Attributes => ({
  'pages-per-minute': [integer(Math.round(profile.sidesPerMinute ?? 0))],
  ...answersOf(profile),
  ...wordsOfSettings(),
  'copies-supported': [rangeOf(1, MAX_COPIES)],
  'job-creation-attributes-supported': JOB_TEMPLATE.map(keyword),
  ...(profile.jobs.documents ? { 'document-creation-attributes-supported': OF_DOCUMENT.map(keyword) } : {}),
  'page-delivery-supported': [keyword(`same-order-${profile.delivers}`)],
  'overrides-supported': [...profile.jobs.overrides, 'pages'].map(keyword),
  'multiple-document-jobs-supported': [boolean(profile.jobs.documents)],
  'multiple-document-handling-supported': [
    'separate-documents-collated-copies',
    'separate-documents-uncollated-copies',
  ].map(keyword),
  'print-color-mode-supported': (profile.color ? ['auto', 'monochrome'] : ['monochrome']).map(keyword),
  'print-scaling-supported': [keyword('none')],
});

/** Of settings whose values are other words in IPP: all of these. */
const wordsOfSettings = (): Attributes =>
  Object.fromEntries(
    TOLD.flatMap(({ attribute, syntax, values }) => {
      const words = Object.values(values ?? {}).map((word) =>
        syntax === 'enum' ? enumeration(word as number) : keyword(word as string),
      );
      return words.length > 0 ? [[`${attribute}-supported`, words]] : [];
    }),
  );

/** Its trays, what lies in them, and its output (PWG 5100.3, media-col; PWG 5100.13, printer-input-tray). */
function mediaIn({ profile, loaded }: Machine): Attributes {
  const hundredths = (mm: number): Value => integer(Math.round(mm * 100));
  const ready = profile.trays.map((tray) => {
    const size = readSizeName(tray.size) ?? { width: 0, height: 0 };
    const measure = {
      'x-dimension': [hundredths(pointsToMm(size.width))],
      'y-dimension': [hundredths(pointsToMm(size.height))],
    };
    const margin = [hundredths(profile.margin)];
    return collection({
      'media-size': [collection(measure)],
      'media-top-margin': margin,
      'media-bottom-margin': margin,
      'media-left-margin': margin,
      'media-right-margin': margin,
      'media-source': [keyword(tray.id)],
      ...(tray.type ? { 'media-type': [keyword(tray.type)] } : {}),
      ...(tray.weight ? { 'media-weight-metric': [integer(tray.weight)] } : {}),
    });
  });
  const inputs = profile.trays.map((tray) =>
    octets(
      `type=sheetFeedAutoRemovableTray;maxcapacity=${tray.capacity ?? -1};level=${loaded.get(tray.id) ?? 0};` +
        `status=0;name=${tray.name ?? tray.id};source=${tray.id};`,
    ),
  );
  const delivery = profile.delivers === 'face-up' ? 'faceUp' : 'faceDown';
  const output =
    'type=unRemovableBin;maxcapacity=500;remaining=500;status=0;name=Output;' +
    `stackingorder=firstToLast;pagedelivery=${delivery};`;
  return {
    'media-col-supported': ['media-size', 'media-source', 'media-type'].map(keyword),
    'media-source-supported': ['auto', ...profile.trays.map((tray) => tray.id)].map(keyword),
    'media-col-ready': ready,
    'printer-input-tray': inputs,
    'printer-output-tray': [octets(output)],
  };
}

/** A tray with no more than this part of what it can hold is nearly empty. */
const LOW = 0.1;

/** printer-state-reasons (RFC 8011, 5.4.12): why it stands still, and which paper is running out. */
function stateReasons({ profile, stop, loaded, pulled }: Machine): string[] {
  const isLow = profile.trays.some(({ id, capacity }) => {
    const left = loaded.get(id) ?? 0;
    return left > 0 && left <= (capacity ?? 0) * LOW;
  });
  const reasons = [
    ...(stop ? [stop.reason] : []),
    ...(pulled.size > 0 && stop?.reason !== 'input-tray-missing' ? ['input-tray-missing-warning'] : []),
    ...(isLow ? ['media-low-warning'] : []),
  ];
  return reasons.length > 0 ? reasons : ['none'];
}
