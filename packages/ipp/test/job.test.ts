import { plan, type Plan, type Ticket } from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { collections, firstNumber, firstString, jobAttributes, readProfile } from '../src';
import { boolean, collection, integer, keyword, octets, text, type Attributes } from '../src';

const PRINTER = readPrinter({
  name: 'Upper office',
  trays: ['tray-1', 'tray-2', 'tray-3'].map((id) => ({ id, size: 'iso_a4_210x297mm' })),
  jobs: { overrides: ['media-col', 'sides'], documents: false },
});

const A4 = { width: 595.276, height: 841.89 };

function planned(settings: object): { ticket: Ticket; plan: Plan } {
  const ticket = readTicket({ version: 1, documents: [{ file: 'contract.pdf' }], tray: 'tray-1', ...settings });
  const documents = [{ name: 'contract.pdf', pages: Array.from({ length: 14 }, () => A4) }];
  return { ticket, plan: plan(ticket, documents, PRINTER) };
}

const CONTRACT = {
  copies: 2,
  sides: 'two-sided',
  routes: [
    { pages: '1, 6', tray: 'tray-2', sides: 'one-sided' },
    { pages: '9', tray: 'tray-3', sides: 'one-sided' },
  ],
};

const sourceOf = (attributes: Attributes): string | null =>
  firstString(collections(attributes, 'media-col')[0] ?? {}, 'media-source');

describe('a plan as job attributes', () => {
  const { plan: contract, ticket } = planned(CONTRACT);
  const attributes = jobAttributes(contract, ticket, PRINTER);

  test('what most sheets have in common is the job’s own (RFC 8011, 5.2)', () => {
    expect(firstNumber(attributes, 'copies')).toBe(2);
    expect(firstString(attributes, 'sheet-collate')).toBe('collated');
    expect(firstString(attributes, 'sides')).toBe('two-sided-long-edge');
    expect(sourceOf(attributes)).toBe('tray-1');
  });

  test('media-size is in hundredths of a millimetre (PWG 5100.3, media-col)', () => {
    const size = collections(collections(attributes, 'media-col')[0]!, 'media-size')[0]!;
    expect([firstNumber(size, 'x-dimension'), firstNumber(size, 'y-dimension')]).toEqual([21000, 29700]);
  });

  test('routed pages are overrides by pages of the file that is sent (PWG 5100.6, overrides)', () => {
    // Sent pages: 1 | 2-5 | 6 | 7-8 | 9 | 10-14 and a blank one, 15: one-sided sheets have no blank back there.
    const overrides = collections(attributes, 'overrides');
    expect(overrides.map((one) => [one['pages'], sourceOf(one), firstString(one, 'sides')])).toEqual([
      [
        [
          { tag: 'rangeOfInteger', value: { lower: 1, upper: 1 } },
          { tag: 'rangeOfInteger', value: { lower: 6, upper: 6 } },
        ],
        'tray-2',
        'one-sided',
      ],
      [[{ tag: 'rangeOfInteger', value: { lower: 9, upper: 9 } }], 'tray-3', 'one-sided'],
    ]);
  });

  test('a uniform job has none', () => {
    const uniform = planned({ sides: 'one-sided', collate: false, copies: 3, color: 'monochrome', quality: 'high' });
    const plain = jobAttributes(uniform.plan, uniform.ticket, PRINTER);
    expect(plain['overrides']).toBeUndefined();
    expect(firstString(plain, 'sheet-collate')).toBe('uncollated');
    expect(firstString(plain, 'print-color-mode')).toBe('monochrome');
    expect(firstNumber(plain, 'print-quality')).toBe(5);
  });

  test('one page in colour makes it a job in colour: the file itself holds the greys', () => {
    const mixed = planned({ color: 'monochrome', routes: [{ pages: '1', color: 'auto' }] });
    expect(firstString(jobAttributes(mixed.plan, mixed.ticket, PRINTER), 'print-color-mode')).toBe('auto');
  });
});

describe('a printer’s attributes as a profile', () => {
  const media = (source: string, x: number, y: number): Attributes => ({
    'media-size': [collection({ 'x-dimension': [integer(x)], 'y-dimension': [integer(y)] })],
    'media-source': [keyword(source)],
    'media-type': [keyword('stationery')],
    'media-weight-metric': [integer(80)],
    'media-top-margin': [integer(420)],
  });
  const attributes: Attributes = {
    'printer-info': [text('Upper office')],
    'sides-supported': ['one-sided', 'two-sided-long-edge'].map(keyword),
    'color-supported': [{ tag: 'boolean', value: true }],
    'media-col-ready': [collection(media('tray-1', 21000, 29700)), collection(media('tray-2', 21590, 27940))],
    'printer-input-tray': [
      octets('type=sheetFeedAutoRemovableTray;maxcapacity=500;level=140;status=0;name=Tray 1;'),
      octets('type=sheetFeedAutoRemovableTray;maxcapacity=-2;level=-3;status=0;name=Tray 2;'),
    ],
    'printer-output-tray': [octets('type=unRemovableBin;stackingorder=lastToFirst;pagedelivery=faceUp;')],
    'pages-per-minute': [integer(30)],
    'overrides-supported': ['media-col', 'sides', 'pages'].map(keyword),
  };

  test('trays, sizes, amounts, margin, speed', () => {
    expect(readProfile(attributes)).toMatchObject({
      name: 'Upper office',
      duplex: true,
      color: true,
      margin: 4.2,
      delivers: 'face-up',
      sidesPerMinute: 30,
      jobs: { overrides: ['media-col', 'sides', 'pages'] },
      trays: [
        {
          id: 'tray-1',
          name: 'Tray 1',
          size: 'iso_a4_210x297mm',
          type: 'stationery',
          weight: 80,
          capacity: 500,
          loaded: 140,
        },
        // Level -3 means "at least one sheet" (RFC 3805), which is no amount.
        { id: 'tray-2', name: 'Tray 2', size: 'na_letter_8.5x11in', capacity: null, loaded: null },
      ],
    });
  });

  test('which way sheets come out is taken from the output, otherwise from the ways of delivery', () => {
    const { 'printer-output-tray': _output, ...rest } = attributes;
    const by = (...ways: string[]) => readProfile({ ...rest, 'page-delivery-supported': ways.map(keyword) }).delivers;
    expect(readProfile(rest).delivers).toBe('face-down');
    expect(by('same-order-face-up', 'system-specified')).toBe('face-up');
    expect(by('same-order-face-up', 'reverse-order-face-down')).toBe('face-down');
    expect(readProfile({ ...attributes, 'page-delivery-supported': [keyword('same-order-face-down')] }).delivers).toBe(
      'face-up',
    );
  });

  test('several documents count only where each may have paper and sides of its own (PWG 5100.5)', () => {
    const several = { ...attributes, 'multiple-document-jobs-supported': [boolean(true)] };
    const takes = (...own: string[]) =>
      readProfile({ ...several, 'document-creation-attributes-supported': own.map(keyword) }).jobs.documents;
    expect(readProfile(several).jobs.documents).toBe(false);
    expect(takes('sides')).toBe(false);
    expect(takes('media-col', 'sides', 'copies')).toBe(true);
  });

  test('trays that the ready papers do not name are those of media-source-supported, in its order', () => {
    const nameless = collections(attributes, 'media-col-ready').map(({ 'media-source': _source, ...media }) => media);
    const named = (...sources: string[]) => ({
      ...attributes,
      'media-col-ready': nameless.map(collection),
      'media-source-supported': sources.map(keyword),
    });
    expect(readProfile(named('auto', 'main', 'large')).trays.map(({ id }) => id)).toEqual(['main', 'large']);
    expect(() => readProfile(named('auto', 'main'))).toThrow('names no tray with paper');
  });

  test('is a profile by the schema', () => {
    const profile = readProfile(attributes);
    expect(readPrinter(profile)).toEqual(profile);
  });

  test('a printer without paper is an error in words', () => {
    expect(() => readProfile({ 'printer-info': [text('Empty')] })).toThrow('names no tray with paper');
  });
});
