import fc from 'fast-check';
import { plan, portionPlan, spentOf, type DocumentFacts, type Portion, type PrinterInput, type Spent } from '../src';
import { readPrinter, readTicket } from '../src/validate';
import { job as anyJob, planned, RUNS } from './any-job';
import { CONTRACT, documentOf, documentWith, OFFICE, type Settings } from './jobs';

/** What a delivery of a ticket came to. */
function spent(
  settings: Settings,
  document: DocumentFacts,
  printed: { readonly printer?: PrinterInput; readonly portion?: Portion } = {},
): Spent {
  const { pages, ...rest } = settings;
  const documents = [document];
  const entry = { file: document.name, ...(pages === undefined ? {} : { pages }) };
  const ticket = readTicket({ version: 1, documents: [entry], ...rest });
  const printer = readPrinter(printed.printer ?? { ...OFFICE, color: true });
  const { portion = null } = printed;
  const whole = plan(ticket, documents, printer);
  const made = portion ? portionPlan(whole, portion, { ticket, documents, printer }) : whole;
  return spentOf(made, { ticket, documents, printer, portion });
}

const grey = (count: number, smallestText = 10) =>
  documentWith(Array.from({ length: count }, () => ({ color: false, smallestText })));

test('paper by its tray’s price, sides by the click, coloured ones apart: reckoned by hand', () => {
  const document = documentWith([
    { color: true, looksGray: false },
    { color: true, looksGray: true },
    { color: false },
  ]);
  // Two sets of two sheets at 0.01; of three sides two at 0.05 and one at 0.01, of which one looks grey.
  expect(spent({ tray: 'tray-1', sides: 'two-sided', copies: 2 }, document)).toMatchObject({
    kind: 'two-sided',
    sheets: 4,
    twoSidedSheets: 2,
    sides: 6,
    colorSides: 4,
    graySides: 2,
    paper: 0.04,
    printing: 2 * 0.11,
    gray: 2 * 0.04,
    papers: [{ size: 'iso_a4_210x297mm', type: 'stationery', sheets: 4, cost: 0.04 }],
    // On one side it would be three sheets a set.
    saved: { sheets: 2, cost: 0.02 },
  });
});

test('a side with a coloured page and a grey one is no grey side; a page printed in grey colours none', () => {
  const pages = [
    { color: true, looksGray: false },
    { color: true, looksGray: true },
  ];
  const two = { tray: 'tray-1', layout: { kind: 'grid' as const, pagesPerSide: 2 as const } };
  expect(spent(two, documentWith(pages))).toMatchObject({ sides: 1, colorSides: 1, graySides: 0 });
  const routes = [{ pages: '1', color: 'monochrome' as const, tray: 'tray-1' }];
  expect(spent({ ...two, routes }, documentWith(pages))).toMatchObject({ colorSides: 1, graySides: 1 });
  // What is not known yet may be coloured.
  expect(spent({ tray: 'tray-1' }, documentOf(1))).toMatchObject({ colorSides: 1, graySides: 0, gray: 0 });
});

test.each([
  ['one-sided', { sides: 'one-sided' }],
  ['two-sided', { sides: 'two-sided' }],
  ['several-a-side', { layout: { kind: 'grid', pagesPerSide: 4 } }],
  ['several-a-side', { sides: 'two-sided', layout: { kind: 'grid', columns: 2, rows: 2 } }],
  ['booklet', { sides: 'two-sided', layout: { kind: 'booklet' } }],
  ['tiles', { layout: { kind: 'tiles' } }],
] as const)('the kind %s', (kind, settings) => {
  expect(spent({ tray: 'tray-1', ...settings }, grey(4)).kind).toBe(kind);
});

test('four pages a side on both sides save seven sheets of eight, whatever routes say of sides', () => {
  const settings: Settings = {
    tray: 'tray-1',
    sides: 'two-sided',
    layout: { kind: 'grid', pagesPerSide: 4 },
    routes: [{ pages: '9-16', sides: 'one-sided' }],
  };
  const { sheets, saved } = spent(settings, grey(16));
  expect(sheets + saved.sheets).toBe(16);
  expect(saved.cost).toBeCloseTo(16 * 0.02 - (sheets * 0.01 + 4 * 0.01), 4);
});

describe('what would have cost less', () => {
  const plain: Settings = { tray: 'tray-1' };
  const cheaper = (settings: Settings, document: DocumentFacts, printer: PrinterInput = { ...OFFICE, color: true }) =>
    spent(settings, document, { printer }).cheaper;

  test('in grey, those pages on which nothing seen is coloured', () => {
    const coded = documentWith([1, 2].map(() => ({ color: true, looksGray: true, smallestText: 6 })));
    expect(cheaper(plain, coded)).toEqual({ way: 'in-grey', saves: 0.08, smallestTextPt: null });
    const one = documentWith([true, false].map((looksGray) => ({ color: true, looksGray, smallestText: 6 })));
    expect(cheaper({ ...plain, copies: 3 }, one)).toEqual({ way: 'in-grey', saves: 0.12, smallestTextPt: null });
    const seen = documentWith([1, 2].map(() => ({ color: true, looksGray: false, smallestText: 6 })));
    expect(cheaper(plain, seen)?.way).toBe('two-sided');
  });

  test('more pages a side, as far as the text stays easy to read', () => {
    // Large text: four a side, half as high, takes the fewest sides.
    expect(cheaper(plain, grey(16, 20))).toMatchObject({ way: '4-a-side' });
    // 12 pt is 8.5 pt two a side, and 6 pt four a side.
    expect(cheaper(plain, grey(16, 12))).toMatchObject({ way: '2-a-side' });
    expect(cheaper(plain, grey(16, 9))).toMatchObject({ way: 'two-sided', saves: 0.08, smallestTextPt: 9 });
    // It is not known how small it would get.
    expect(cheaper(plain, documentWith([{ color: false }, { color: false }]))?.way).toBe('two-sided');
  });

  test('nothing, where all is done, where the printer cannot, where it is a booklet, and for sheets printed again', () => {
    expect(cheaper({ ...plain, sides: 'two-sided' }, grey(16, 9))).toBeNull();
    expect(cheaper(plain, grey(16, 9), { ...OFFICE, color: true, duplex: false })).toBeNull();
    expect(cheaper({ ...plain, sides: 'two-sided', layout: { kind: 'booklet' } }, grey(16, 40))).toBeNull();
    const portion: Portion = [{ sets: [1, 1], sheets: [[2, 3]] }];
    expect(spent(plain, grey(16, 9), { portion })).toMatchObject({
      sheets: 2,
      saved: { sheets: 0, cost: 0 },
      cheaper: null,
    });
  });
});

test('the first set and the others come to as much as all of it, to a hundredth of a cent', () => {
  const settings: Settings = { ...CONTRACT, sides: 'two-sided', copies: 5, slips: { between: 'sets', tray: 'tray-3' } };
  const [whole, first, others] = [null, 'first-set' as const, 'other-sets' as const].map((portion) =>
    spent(settings, grey(14), portion ? { portion } : {}),
  ) as [Spent, Spent, Spent];
  for (const figure of ['sheets', 'twoSidedSheets', 'sides', 'colorSides', 'paper', 'printing'] as const) {
    expect(first[figure] + others[figure]).toBeCloseTo(whole[figure], 4);
  }
});

test('law: paper and printing are the tally’s cost, papers its sheets, and of sides each kind is part of the one before', () => {
  fc.assert(
    fc.property(anyJob, fc.boolean(), (any, color) => {
      const { plan: made, printer, ticket } = planned(any, { color });
      const { documents } = any;
      const it = spentOf(made, { ticket, documents, printer, portion: null });
      expect(it.paper + it.printing).toBeCloseTo(made.tally.cost, 4);
      expect(it.papers.reduce((sum, { sheets }) => sum + sheets, 0)).toBe(made.tally.sheets);
      expect(it.papers.reduce((sum, { cost }) => sum + cost, 0)).toBeCloseTo(it.paper, 3);
      expect(it.sides).toBe(made.tally.sides);
      expect(it.graySides <= it.colorSides && it.colorSides <= it.sides).toBe(true);
      expect(it.cheaper === null || it.cheaper.saves < made.tally.cost).toBe(true);
    }),
    { numRuns: RUNS.numRuns / 5 },
  );
});
