import type { Attributes, Value } from '@foglio/ipp';

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
  'which-jobs': keyword('RFC 8011, 4.2.6.1', ['completed', 'not-completed']),
  'my-jobs': other('boolean', 'RFC 8011, 4.2.6.1'),
  'document-format': other('mimeMediaType', 'RFC 8011, 4.2.1.1', 255),
  'last-document': other('boolean', 'RFC 8011, 4.3.1.1'),

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
  'x-dimension': whole('PWG 5100.3, 3.13.8.1', 0),
  'y-dimension': whole('PWG 5100.3, 3.13.8.2', 0),
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
  'job-media-sheets': whole('RFC 8011, 5.3.17.3', 0),
  'job-media-sheets-completed': whole('RFC 8011, 5.3.18.3', 0),

  'printer-uri-supported': other('uri', 'RFC 8011, 5.4.1', 1023),
  'uri-authentication-supported': keyword('RFC 8011, 5.4.2'),
  'uri-security-supported': keyword('RFC 8011, 5.4.3', ['none', 'tls']),
  'printer-name': other('name', 'RFC 8011, 5.4.4', 127),
  'printer-info': other('text', 'RFC 8011, 5.4.6', 127),
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
  'print-scaling-supported': keyword('PWG 5100.13, 6.2.5'),
  'printer-input-tray': other('octetString', 'PWG 5100.13, 6.6.17', 1023),
  'printer-output-tray': other('octetString', 'PWG 5100.13, 6.6.18', 1023),
};

/** What of some attributes is not as the standards declare it, one by one; empty where all is. */
export const againstStandards = (attributes: Attributes): string[] =>
  Object.entries(attributes).flatMap(([name, values]) => values.flatMap((value) => breaches(name, value)));

function breaches(name: string, value: Value): string[] {
  const syntax = SYNTAXES[name];
  if (!syntax) return [`${name} is declared by no standard in the table`];
  // What is not known or not supported is said by a tag of its own, whatever the attribute (RFC 8010, 3.5.2).
  if (value.tag === 'unsupported' || value.tag === 'unknown' || value.tag === 'no-value') return [];
  if (value.tag !== syntax.tag) return [`${name} is ${value.tag}, not ${syntax.tag} (${syntax.declared})`];
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
