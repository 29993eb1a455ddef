import type { Attributes, Value } from '../src';

/**
 * Names, syntaxes and ranges of the attributes that may pass between Foglio and a printer, by the standards that declare
 * them. The section numbers are from memory.
 */
interface Syntax {
  readonly tag: Value['tag'];
  /** Of integers and enums; of each bound of a range. */
  readonly from?: number;
  readonly to?: number;
  /** Of keywords: all that are allowed. */
  readonly words?: readonly string[];
  /** Of strings: octets. */
  readonly longest?: number;
  readonly declared: string;
  readonly mayBeRange?: true;
}

/** MAX (RFC 8011, 5.1.1). */
const MAX = 2 ** 31 - 1;
const SIDES = ['one-sided', 'two-sided-long-edge', 'two-sided-short-edge'];

const keyword = (declared: string, words?: readonly string[]): Syntax => ({
  tag: 'keyword',
  longest: 255,
  declared,
  ...(words ? { words } : {}),
});
const whole = (declared: string, from: number, to = MAX): Syntax => ({ tag: 'integer', from, to, declared });
const number = (declared: string, from: number, to: number): Syntax => ({ tag: 'enum', from, to, declared });
const other = (tag: Value['tag'], declared: string, longest = MAX): Syntax => ({ tag, longest, declared });

const SYNTAXES: Readonly<Record<string, Syntax>> = {
  'attributes-charset': other('charset', 'RFC 8011, 4.1.4', 63),
  'attributes-natural-language': other('naturalLanguage', 'RFC 8011, 4.1.4', 63),
  'printer-uri': other('uri', 'RFC 8011, 4.1.5', 1023),
  'requesting-user-name': other('name', 'RFC 8011, 4.2.1.1', 255),
  'requested-attributes': keyword('RFC 8011, 4.2.5.1'),
  'status-message': other('text', 'RFC 8011, 4.1.6.2', 255),
  'which-jobs': keyword('RFC 8011, 4.2.6.1; PWG 5100.11, 3', ['completed', 'not-completed', 'all']),
  limit: whole('RFC 8011, 4.2.6.1', 1),
  'job-ids': whole('PWG 5100.11, 3', 1),
  'ipp-attribute-fidelity': other('boolean', 'RFC 8011, 4.2.1.1'),
  compression: keyword('RFC 8011, 4.2.1.1'),
  'document-uri': other('uri', 'RFC 8011, 4.2.2', 1023),
  'document-name': other('name', 'RFC 8011, 4.2.1.1', 255),
  'my-jobs': other('boolean', 'RFC 8011, 4.2.6.1'),
  'document-format': other('mimeMediaType', 'RFC 8011, 4.2.1.1', 255),
  'last-document': other('boolean', 'RFC 8011, 4.3.1.1'),

  'notify-pull-method': keyword('RFC 3995, 5.3.2'),
  'notify-events': keyword('RFC 3995, 5.3.3'),
  'notify-lease-duration': whole('RFC 3995, 5.3.8', 0, 67_108_863),
  'notify-subscription-id': whole('RFC 3995, 5.4.1', 1),
  'notify-subscription-ids': whole('RFC 3996, 5.1.1', 1),
  'notify-sequence-numbers': whole('RFC 3996, 5.1.2', 1),
  'notify-sequence-number': whole('RFC 3995, 5.4.2', 0),
  'notify-get-interval': whole('RFC 3996, 5.2.1', 0),
  'notify-subscribed-event': keyword('RFC 3995, 9.1'),
  'notify-job-id': whole('RFC 3995, 5.4.6', 1),

  'multiple-document-handling': keyword('RFC 8011, 5.2.4', [
    'single-document',
    'separate-documents-uncollated-copies',
    'separate-documents-collated-copies',
    'single-document-new-sheet',
  ]),
  copies: whole('RFC 8011, 5.2.5', 1),
  sides: keyword('RFC 8011, 5.2.8', SIDES),
  'output-bin': keyword('PWG 5100.2, 2.1'),
  'print-quality': number('RFC 8011, 5.2.13', 3, 5),
  'sheet-collate': keyword('RFC 3381, 3.1', ['collated', 'uncollated']),
  'media-col': other('collection', 'PWG 5100.3, 3.13'),
  'media-size': other('collection', 'PWG 5100.3, 3.13.8'),
  // Of what is supported also the bounds (PWG 5100.7, 6.3).
  'x-dimension': { ...whole('PWG 5100.3, 3.13.8.1', 0), mayBeRange: true },
  'y-dimension': { ...whole('PWG 5100.3, 3.13.8.2', 0), mayBeRange: true },
  'media-source': keyword('PWG 5100.7, 6.3'),
  'media-type': keyword('PWG 5101.1, 4'),
  'print-color-mode': keyword('PWG 5100.13, 6.2.3', ['auto', 'color', 'monochrome']),
  'print-scaling': keyword('PWG 5100.13, 6.2.5', ['auto', 'auto-fit', 'fill', 'fit', 'none']),
  overrides: other('collection', 'PWG 5100.6, 4.1'),
  pages: { tag: 'rangeOfInteger', from: 1, to: MAX, declared: 'PWG 5100.6, 4.1' },

  'job-uri': other('uri', 'RFC 8011, 5.3.2', 1023),
  'job-id': whole('RFC 8011, 5.3.2', 1),
  'job-name': other('name', 'RFC 8011, 5.3.5', 255),
  'job-originating-user-name': other('name', 'RFC 8011, 5.3.6', 255),
  'job-state': number('RFC 8011, 5.3.7', 3, 9),
  'job-state-reasons': keyword('RFC 8011, 5.3.8'),
  'job-state-message': other('text', 'RFC 8011, 5.3.9', 1023),
  'job-printer-uri': other('uri', 'RFC 8011, 5.3.3', 1023),
  'job-impressions': whole('RFC 8011, 5.3.17.2', 0),
  'job-impressions-completed': whole('RFC 8011, 5.3.18.2', 0),
  'number-of-documents': whole('RFC 8011, 5.3.12', 0),
  'job-printer-up-time': whole('RFC 8011, 5.3.14.1', 1),
  'time-at-creation': whole('RFC 8011, 5.3.14.1', -MAX),
  'time-at-processing': whole('RFC 8011, 5.3.14.2', -MAX),
  'time-at-completed': whole('RFC 8011, 5.3.14.3', -MAX),
  'date-time-at-creation': other('dateTime', 'RFC 8011, 5.3.14.5'),
  'date-time-at-processing': other('dateTime', 'RFC 8011, 5.3.14.6'),
  'date-time-at-completed': other('dateTime', 'RFC 8011, 5.3.14.7'),
  'job-media-sheets': whole('RFC 8011, 5.3.17.3', 0),
  'job-media-sheets-completed': whole('RFC 8011, 5.3.18.3', 0),

  'printer-uri-supported': other('uri', 'RFC 8011, 5.4.1', 1023),
  'uri-authentication-supported': keyword('RFC 8011, 5.4.2'),
  'uri-security-supported': keyword('RFC 8011, 5.4.3', ['none', 'tls']),
  'printer-name': other('name', 'RFC 8011, 5.4.4', 127),
  'printer-info': other('text', 'RFC 8011, 5.4.6', 127),
  'printer-location': other('text', 'RFC 8011, 5.4.5', 127),
  'printer-more-info': other('uri', 'RFC 8011, 5.4.7', 1023),
  'printer-make-and-model': other('text', 'RFC 8011, 5.4.9', 127),
  'printer-state-message': other('text', 'RFC 8011, 5.4.13', 1023),
  'printer-current-time': other('dateTime', 'RFC 8011, 5.4.30'),
  'multiple-operation-time-out': whole('RFC 8011, 5.4.31', 1),
  'printer-uuid': other('uri', 'PWG 5100.13, 5.6.18', 45),
  'printer-icons': other('uri', 'PWG 5100.13, 5.6.9', 1023),
  'printer-geo-location': other('uri', 'PWG 5100.13, 5.6.7', 1023),
  'printer-organization': other('text', 'PWG 5100.13, 5.6.12', 127),
  'printer-organizational-unit': other('text', 'PWG 5100.13, 5.6.13', 127),
  'printer-device-id': other('text', 'PWG 5107.2, 3', 1023),
  'printer-supply': other('octetString', 'PWG 5100.13, 5.6.15', 1023),
  'printer-supply-description': other('text', 'PWG 5100.13, 5.6.16', 1023),
  'printer-supply-info-uri': other('uri', 'PWG 5100.13, 5.6.17', 1023),
  'printer-alert': other('octetString', 'PWG 5100.9, 5.2.1', 1023),
  'printer-alert-description': other('text', 'PWG 5100.9, 5.2.2', 255),
  'printer-state-change-time': whole('RFC 3995, 6.1', 0),
  'printer-state-change-date-time': other('dateTime', 'RFC 3995, 6.2'),
  'printer-config-change-time': whole('PWG 5100.13, 5.6.3', 0),
  'printer-config-change-date-time': other('dateTime', 'PWG 5100.13, 5.6.2'),
  'printer-get-attributes-supported': keyword('PWG 5100.13, 5.5.9'),
  'preferred-attributes-supported': other('boolean', 'PWG 5100.13, 5.5.7'),
  'identify-actions-supported': keyword('PWG 5100.13, 5.5.4', ['display', 'flash', 'sound', 'speak']),
  'identify-actions-default': keyword('PWG 5100.13, 5.5.3', ['display', 'flash', 'sound', 'speak']),
  'ipp-features-supported': keyword('PWG 5100.13, 5.5.6'),
  'which-jobs-supported': keyword('PWG 5100.11, 7', ['completed', 'not-completed', 'all']),
  'job-ids-supported': other('boolean', 'PWG 5100.11, 7'),
  'multiple-operation-time-out-action': keyword('PWG 5100.13, 5.5.8', ['abort-job', 'hold-job', 'process-job']),
  'printer-resolution-supported': other('resolution', 'RFC 8011, 5.2.12'),
  'printer-resolution-default': other('resolution', 'RFC 8011, 5.2.12'),
  'pwg-raster-document-resolution-supported': other('resolution', 'PWG 5102.4, 5.1'),
  'pwg-raster-document-sheet-back': keyword('PWG 5102.4, 5.2', ['flipped', 'manual-tumble', 'normal', 'rotated']),
  'pwg-raster-document-type-supported': keyword('PWG 5102.4, 5.3'),
  'copies-default': whole('RFC 8011, 5.2.5', 1),
  'sides-default': keyword('RFC 8011, 5.2.8', SIDES),
  'orientation-requested': number('RFC 8011, 5.2.10', 3, 7),
  'orientation-requested-supported': number('RFC 8011, 5.2.10', 3, 7),
  'orientation-requested-default': number('RFC 8011, 5.2.10', 3, 7),
  'job-sheets': keyword('RFC 8011, 5.2.3'),
  finishings: number('RFC 8011, 5.2.6', 3, MAX),
  'finishings-supported': number('RFC 8011, 5.2.6', 3, MAX),
  'finishings-default': number('RFC 8011, 5.2.6', 3, MAX),
  'print-quality-default': number('RFC 8011, 5.2.13', 3, 5),
  'print-content-optimize-supported': keyword('PWG 5100.7, 6.9'),
  'print-content-optimize-default': keyword('PWG 5100.7, 6.9'),
  'print-rendering-intent-supported': keyword('PWG 5100.13, 5.2.4'),
  'print-rendering-intent-default': keyword('PWG 5100.13, 5.2.4'),
  'print-color-mode-default': keyword('PWG 5100.13, 6.2.3', ['auto', 'color', 'monochrome']),
  'output-bin-default': keyword('PWG 5100.2, 2.1'),
  'page-ranges': { tag: 'rangeOfInteger', from: 1, to: MAX, declared: 'RFC 8011, 5.2.7' },
  'page-ranges-supported': other('boolean', 'RFC 8011, 5.2.7'),
  'number-up': whole('RFC 8011, 5.2.9', 1),
  'number-up-supported': whole('RFC 8011, 5.2.9', 1),
  'number-up-default': whole('RFC 8011, 5.2.9', 1),
  'presentation-direction-number-up': keyword('PWG 5100.3, 3.17'),
  'presentation-direction-number-up-supported': keyword('PWG 5100.3, 3.17'),
  'presentation-direction-number-up-default': keyword('PWG 5100.3, 3.17'),
  'multiple-document-handling-default': keyword('RFC 8011, 5.2.4'),
  media: keyword('RFC 8011, 5.2.11'),
  'media-supported': keyword('RFC 8011, 5.2.11'),
  'media-default': keyword('RFC 8011, 5.2.11'),
  'media-ready': keyword('RFC 8011, 5.2.11'),
  'media-col-default': other('collection', 'PWG 5100.3, 3.13'),
  'media-col-database': other('collection', 'PWG 5100.7, 6.3'),
  'media-size-supported': other('collection', 'PWG 5100.7, 6.3'),
  'media-type-supported': keyword('PWG 5100.7, 6.3'),
  'media-top-margin-supported': whole('PWG 5100.7, 6.3', 0),
  'media-bottom-margin-supported': whole('PWG 5100.7, 6.3', 0),
  'media-left-margin-supported': whole('PWG 5100.7, 6.3', 0),
  'media-right-margin-supported': whole('PWG 5100.7, 6.3', 0),
  'printer-state': number('RFC 8011, 5.4.11', 3, 5),
  'printer-state-reasons': keyword('RFC 8011, 5.4.12'),
  'ipp-versions-supported': keyword('RFC 8011, 5.4.14'),
  'operations-supported': number('RFC 8011, 5.4.15', 1, 0x7fff),
  'multiple-document-jobs-supported': other('boolean', 'RFC 8011, 5.4.16'),
  'charset-configured': other('charset', 'RFC 8011, 5.4.17', 63),
  'charset-supported': other('charset', 'RFC 8011, 5.4.18', 63),
  'natural-language-configured': other('naturalLanguage', 'RFC 8011, 5.4.19', 63),
  'generated-natural-language-supported': other('naturalLanguage', 'RFC 8011, 5.4.20', 63),
  'document-format-default': other('mimeMediaType', 'RFC 8011, 5.4.21', 255),
  'document-format-supported': other('mimeMediaType', 'RFC 8011, 5.4.22', 255),
  'printer-is-accepting-jobs': other('boolean', 'RFC 8011, 5.4.23'),
  'queued-job-count': whole('RFC 8011, 5.4.24', 0),
  'color-supported': other('boolean', 'RFC 8011, 5.4.26'),
  'pdl-override-supported': keyword('RFC 8011, 5.4.28', ['attempted', 'guaranteed', 'not-attempted']),
  'printer-up-time': whole('RFC 8011, 5.4.29', 1),
  'compression-supported': keyword('RFC 8011, 5.4.32'),
  'pages-per-minute': whole('RFC 8011, 5.4.36', 0),
  'copies-supported': { tag: 'rangeOfInteger', from: 1, to: MAX, declared: 'RFC 8011, 5.2.5' },
  'sides-supported': keyword('RFC 8011, 5.2.8', SIDES),
  'output-bin-supported': keyword('PWG 5100.2, 2.1'),
  'print-quality-supported': number('RFC 8011, 5.2.13', 3, 5),
  'multiple-document-handling-supported': keyword('RFC 8011, 5.2.4'),
  'sheet-collate-supported': keyword('RFC 3381, 3.1', ['collated', 'uncollated']),
  'media-col-supported': keyword('PWG 5100.3, 3.13'),
  'media-col-ready': other('collection', 'PWG 5100.7, 6.7'),
  'media-source-supported': keyword('PWG 5100.7, 6.3'),
  'media-top-margin': whole('PWG 5100.7, 6.3', 0),
  'media-bottom-margin': whole('PWG 5100.7, 6.3', 0),
  'media-left-margin': whole('PWG 5100.7, 6.3', 0),
  'media-right-margin': whole('PWG 5100.7, 6.3', 0),
  'media-weight-metric': whole('PWG 5100.3, 3.13.9', 0),
  'job-creation-attributes-supported': keyword('PWG 5100.7, 6.9'),
  'document-creation-attributes-supported': keyword('PWG 5100.5, 7'),
  'page-delivery-supported': keyword('PWG 5100.3, 3.15'),
  'overrides-supported': keyword('PWG 5100.6, 5.1'),
  'print-color-mode-supported': keyword('PWG 5100.13, 6.2.3'),
  'print-scaling-default': keyword('PWG 5100.13, 6.2.5'),
  'print-scaling-supported': keyword('PWG 5100.13, 6.2.5'),
  'printer-input-tray': other('octetString', 'PWG 5100.13, 6.6.17', 1023),
  'printer-output-tray': other('octetString', 'PWG 5100.13, 6.6.18', 1023),
};

/** Where an attribute is declared, "RFC 8011, 5.4.9"; null: by no standard in the table. */
export const declaredIn = (name: string): string | null => SYNTAXES[name]?.declared ?? null;

/** What of some attributes is not as the standards declare it, one by one; empty where all is. */
export const againstStandards = (attributes: Attributes): string[] =>
  Object.entries(attributes).flatMap(([name, values]) => values.flatMap((value) => breaches(name, value)));

function breaches(name: string, value: Value): string[] {
  const syntax = SYNTAXES[name];
  if (!syntax) return [`${name} is declared by no standard in the table`];
  // What is not known or not supported is said by a tag of its own, whatever the attribute (RFC 8010, 3.5.2).
  if (value.tag === 'unsupported' || value.tag === 'unknown' || value.tag === 'no-value') return [];
  if (value.tag !== syntax.tag && !(syntax.mayBeRange && value.tag === 'rangeOfInteger'))
    return [`${name} is ${value.tag}, not ${syntax.tag} (${syntax.declared})`];
  const bad = isAllowed(value, syntax) ? [] : [`${name} is ${JSON.stringify(value)} (${syntax.declared})`];
  return value.tag === 'collection' ? [...bad, ...againstStandards(value.value)] : bad;
}

function isAllowed(value: Value, { from = -MAX, to = MAX, words, longest = MAX }: Syntax): boolean {
  const within = (one: number): boolean => one >= from && one <= to;
  switch (value.tag) {
    case 'integer':
    case 'enum':
      return within(value.value);
    case 'rangeOfInteger':
      return within(value.value.lower) && within(value.value.upper) && value.value.lower <= value.value.upper;
    default: {
      if (!('value' in value) || typeof value.value !== 'string') return true;
      return Buffer.byteLength(value.value) <= longest && (!words || words.includes(value.value));
    }
  }
}
