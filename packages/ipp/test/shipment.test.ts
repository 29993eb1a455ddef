import { plan, type Plan, type Ticket } from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { asSeen, firstString, pagesSent, sayFaults, shipmentOf, type SheetAsSeen } from '../src';

const PRINTER = readPrinter({
  name: 'Upper office',
  trays: [
    { id: 'tray-1', name: 'Tray 1', size: 'iso_a4_210x297mm', capacity: 500, loaded: 500 },
    { id: 'tray-2', name: 'Tray 2', size: 'iso_a4_210x297mm', capacity: 250, loaded: 0 },
    { id: 'tray-3', name: 'Tray 3', size: 'na_letter_8.5x11in', capacity: 250, loaded: 20 },
  ],
});

const A4 = { width: 595.276, height: 841.89 };
const LETTER = { width: 612, height: 792 };

function planned(settings: object, pages = Array.from({ length: 6 }, () => A4)): { ticket: Ticket; plan: Plan } {
  const ticket = readTicket({ version: 1, documents: [{ file: 'a.pdf' }], sides: 'two-sided', ...settings });
  return { ticket, plan: plan(ticket, [{ name: 'a.pdf', pages }], PRINTER) };
}

const able = (overrides: string[], documents = false) => ({
  ...PRINTER,
  jobs: { ...PRINTER.jobs, overrides, documents },
});
const MIXED = { routes: [{ pages: '3', tray: 'tray-2', sides: 'one-sided' }] };

const brief = ({ job, document, sheet, source, sides, because }: SheetAsSeen): string =>
  `${job}.${document} sheet ${sheet}: ${source ?? 'by size'}, ${sides.replace('two-sided-', '')}, ${because}`;

test('what the printer is told of each sheet is what the plan says, whatever the way', () => {
  const { plan: made, ticket } = planned(MIXED);
  for (const printer of [able(['media-col', 'sides']), able([], true), able([])]) {
    const seen = asSeen(shipmentOf(made, ticket, printer));
    expect(seen.map(({ sheet, source, sides }) => [sheet, source, sides])).toEqual(
      made.sheets.map(({ index, tray, sides }) => [index, tray, sides]),
    );
  }
});

test('each page of the files that are sent is called by what the plan has there, whatever the way', () => {
  const grid = { layout: { kind: 'grid', pagesPerSide: 2 } };
  for (const settings of [MIXED, { ...MIXED, ...grid }, { ...MIXED, copies: 3, slips: { between: 'sets' } }]) {
    const { plan: made, ticket } = planned(settings);
    for (const printer of [able(['media-col', 'sides']), able([], true), able([])]) {
      const shipment = shipmentOf(made, ticket, printer);
      const called = new Map(pagesSent(shipment).map((one) => [`${one.job} ${one.document} ${one.page}`, one.cells]));
      const seen = asSeen(shipment);
      // The second opinion: the pages that a printer is told of, sheet by sheet.
      expect(called.size).toBe(seen.reduce((sum, { pages }) => sum + pages.length, 0));
      for (const { job, document, sheet, kind, pages } of seen) {
        const { front, back } = made.sheets[sheet - 1] ?? { front: null, back: null };
        const sides = kind === 'slip' ? pages.map(() => []) : [front!.cells, ...(back ? [back.cells] : [])];
        expect(pages.map((page) => called.get(`${job} ${document} ${page}`))).toEqual(
          sides.map((cells) => cells.map((cell) => ({ document: cell.document, page: cell.page }))),
        );
      }
    }
  }
});

test('an output is said page by page only where it differs; of sheets left to the printer nothing is said', () => {
  const all = planned({ ...MIXED, outputBin: 'top' });
  // What a document may say for itself is its paper and its sides (profile, jobs.documents).
  const [job] = shipmentOf(all.plan, all.ticket, able([], true)).jobs;
  expect(job!.attributes['output-bin']).toEqual([{ tag: 'keyword', value: 'top' }]);
  expect(job!.documents.map(({ attributes }) => Object.keys(attributes).sort())).toEqual([
    ['media-col', 'sides'],
    ['media-col', 'sides'],
    ['media-col', 'sides'],
  ]);
  const some = planned({ outputBin: 'top', routes: [{ pages: '5-6', outputBin: 'auto' }] });
  const { way, jobs } = shipmentOf(some.plan, some.ticket, able(['output-bin']));
  expect([way, jobs.length, jobs[0]!.attributes['output-bin']]).toEqual(['overrides', 1, undefined]);
  const overrides = jobs[0]!.attributes['overrides']!.map((one) => (one.tag === 'collection' ? one.value : {}));
  expect(overrides.map((one) => [one['pages'], firstString(one, 'output-bin')])).toEqual([
    [[{ tag: 'rangeOfInteger', value: { lower: 1, upper: 4 } }], 'top'],
    [[{ tag: 'rangeOfInteger', value: { lower: 5, upper: 6 } }], null],
  ]);
  expect(shipmentOf(some.plan, some.ticket, able([], true)).way).toBe('separate');
});

test('sets of several documents are left to a printer that is told to go through all of them, and else written out', () => {
  const { plan: made, ticket } = planned({ ...MIXED, copies: 2 });
  const shipped = (takes: Record<string, string[]> | null) => {
    const printer = { ...PRINTER, jobs: { ...PRINTER.jobs, overrides: [], documents: true, takes } };
    const [job] = shipmentOf(made, ticket, printer).jobs;
    return [
      job!.attributes['copies'],
      job!.documents.length,
      job!.attributes['multiple-document-handling'] !== undefined,
    ];
  };
  const all = { copies: [], 'media-col': [], sides: [], 'sheet-collate': ['collated'] };
  expect(shipped(null)).toEqual([[{ tag: 'integer', value: 2 }], 3, true]);
  expect(shipped(all)).toEqual([[{ tag: 'integer', value: 1 }], 5, false]);
});

test('and which attribute brings it about', () => {
  const { plan: made, ticket } = planned(MIXED);
  expect(asSeen(shipmentOf(made, ticket, able(['media-col', 'sides']))).map(brief)).toEqual([
    '1.1 sheet 1: tray-1, long-edge, the job’s own attributes',
    '1.1 sheet 2: tray-2, one-sided, the settings for page 3',
    '1.1 sheet 3: tray-1, long-edge, the job’s own attributes',
    '1.1 sheet 4: tray-1, long-edge, the job’s own attributes',
  ]);
  expect(asSeen(shipmentOf(made, ticket, able([], true))).map(brief)).toEqual([
    '1.1 sheet 1: tray-1, long-edge, the document’s own attributes',
    '1.2 sheet 2: tray-2, one-sided, the document’s own attributes',
    '1.3 sheet 3: tray-1, long-edge, the document’s own attributes',
    '1.3 sheet 4: tray-1, long-edge, the document’s own attributes',
  ]);
  const bySize = planned({ sides: 'one-sided' }, [A4, LETTER]);
  expect(asSeen(shipmentOf(bySize.plan, bySize.ticket, able([]))).map(brief)).toEqual([
    '1.1 sheet 1: by size, one-sided, the job’s own attributes',
    '1.1 sheet 2: by size, one-sided, the job’s own attributes',
  ]);
});

test('complete sets of several documents are the printer’s work (RFC 8011, 5.2.4); copies sheet by sheet are written out', () => {
  const sets = planned({ ...MIXED, copies: 3 });
  const [job] = shipmentOf(sets.plan, sets.ticket, able([], true)).jobs;
  expect(firstString(job!.attributes, 'multiple-document-handling')).toBe('separate-documents-collated-copies');
  expect(job!.documents.map(({ sheets }) => sheets.length)).toEqual([1, 1, 2]);
  const uncollated = planned({ ...MIXED, copies: 3, collate: false });
  const written = shipmentOf(uncollated.plan, uncollated.ticket, able([], true)).jobs[0]!;
  expect(written.documents.map(({ sheets }) => sheets.map(({ index }) => index))).toEqual([
    [1, 1, 1],
    [2, 2, 2],
    [3, 3, 3, 4, 4, 4],
  ]);
});

test('of several jobs one set follows the other; what is alike at their seam goes together', () => {
  const { plan: made, ticket } = planned({ ...MIXED, copies: 2 });
  const { jobs, way, reason } = shipmentOf(made, ticket, able([]));
  expect([way, jobs.length]).toEqual(['separate', 5]);
  expect(reason).toBe(
    'Upper office cannot change tray or sides within a job, so this goes as 5 jobs, one after the other.',
  );
  expect(jobs.map((job) => job.documents[0]!.sheets.map(({ index }) => index))).toEqual([
    [1],
    [2],
    [3, 4, 1],
    [2],
    [3, 4],
  ]);
});

test('faults in words: what to do, and where (RFC 8011, 5.4.12)', () => {
  expect(sayFaults(['none'], PRINTER)).toEqual([]);
  expect(sayFaults(['media-empty-error'], PRINTER)).toEqual(['Tray 2 is empty: load paper, and it goes on.']);
  expect(sayFaults(['media-low-warning'], PRINTER)).toEqual(['Paper is running low in Tray 3.']);
  expect(sayFaults(['media-jam', 'door-open'], PRINTER)).toHaveLength(2);
});
