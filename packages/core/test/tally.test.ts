import { compare, fewestSheets, legibility, type PrinterInput } from '../src';
import { readPrinter, readTicket } from '../src/validate';
import { A3, documentOf, documentWith, OFFICE, planOf } from './jobs';

describe('what a job costs, weighs and takes', () => {
  test('ten sheets of A4 at 80 g/m² weigh 50 g (ISO 216: sixteen A4 are a square metre) and stand 1 mm high', () => {
    const { tally } = planOf({ tray: 'tray-1' }, [documentOf(10)]);
    expect(tally.weightGrams).toBeCloseTo(50, 0);
    expect(tally.weightGrams).toBeCloseTo(10 * 0.21 * 0.297 * 80, 2);
    expect(tally.heightMm).toBe(1);
  });

  test('sheets by their tray’s price, sides by the click', () => {
    const mono: PrinterInput = { ...OFFICE, color: false };
    expect(planOf({ tray: 'tray-1', sides: 'two-sided', copies: 2 }, [documentOf(3)], mono).tally).toMatchObject({
      cost: 2 * (2 * 0.01 + 3 * 0.01),
      // Two-sided at half the speed of 30 sides a minute: two sheets are four passes.
      seconds: 2 * 4 * 4,
    });
    expect(planOf({ tray: 'tray-1' }, [documentOf(3)], mono).tally.seconds).toBe(6);
    const { sidesPerMinute: _, ...unknown } = mono;
    expect(planOf({ tray: 'tray-1' }, [documentOf(3)], unknown).tally.seconds).toBeNull();
  });

  test('colour is paid for on sides that hold any, unless it is left out', () => {
    const document = documentWith([{ color: true }, { color: false }, { color: false }, {}]);
    const cost = (settings: object): number => planOf({ tray: 'tray-2', ...settings }, [document]).tally.cost;
    // What is not known of the fourth page counts as colour: the most it can cost.
    expect(cost({})).toBeCloseTo(0.05 + 0.01 + 0.01 + 0.05, 6);
    expect(cost({ color: 'monochrome' })).toBeCloseTo(0.04, 6);
    expect(cost({ routes: [{ pages: '1', color: 'monochrome' }] })).toBeCloseTo(0.08, 6);
    expect(cost({ color: 'monochrome', routes: [{ pages: '1', color: 'auto' }] })).toBeCloseTo(0.08, 6);
    expect(cost({ layout: { kind: 'grid', pagesPerSide: 2 } })).toBeCloseTo(0.1, 6);
  });

  test('slips between sets cost their paper and their time', () => {
    const slips = { between: 'sets' as const, tray: 'tray-3' };
    const { tally } = planOf({ tray: 'tray-1', copies: 3, slips }, [documentOf(1)], { ...OFFICE, color: false });
    expect(tally.weightGrams).toBeCloseTo(0.21 * 0.297 * (3 * 80 + 2 * 120), 2);
    expect(tally.seconds).toBe(5 * 2);
  });
});

describe('legibility', () => {
  test('the smallest text on paper is that on the page times the scale', () => {
    const document = documentWith([{ smallestText: 10 }, { smallestText: null }, { smallestText: 8 }]);
    const sheets = (count: number) =>
      planOf({ tray: 'tray-1', layout: { kind: 'grid', pagesPerSide: count as 2 } }, [document]).sheets;
    expect(legibility(sheets(1), [document])).toEqual({ smallestTextPt: 8, known: true });
    expect(legibility(sheets(4), [document]).smallestTextPt).toBeCloseTo(4, 2);
    expect(legibility(sheets(1), [documentWith([{ smallestText: 9 }, {}])])).toMatchObject({ known: false });
    expect(legibility(sheets(1), [documentWith([{}, {}, {}].map(() => ({ smallestText: null })))])).toEqual({
      smallestTextPt: null,
      known: true,
    });
  });
});

const text = (points: number, count = 16) =>
  documentWith(Array.from({ length: count }, () => ({ smallestText: points })));
const ticketFor = (settings: object = {}) =>
  readTicket({
    version: 1,
    documents: [{ file: 'manual.pdf' }],
    paper: { size: 'iso_a4_210x297mm' },
    tray: 'tray-1',
    ...settings,
  });
const printer = readPrinter(OFFICE);

describe('compare', () => {
  const ways = compare(ticketFor({ copies: 2 }), [text(12)], printer);
  const way = (name: string) => ways.find((one) => one.name === name)!;

  test('tells sheets, cost and smallest text of each way to print the same pages', () => {
    expect(ways.map(({ name, sheets }) => `${name} ${sheets}`)).toEqual([
      'as-set 32',
      'one-sided 32',
      'two-sided 16',
      '2-a-side 16',
      '4-a-side 8',
      'booklet 8',
      'in-grey 32',
    ]);
    expect(way('as-set').smallestTextPt).toBe(12);
    expect(way('2-a-side').smallestTextPt).toBeCloseTo(12 * Math.SQRT1_2, 1);
    expect(way('4-a-side').smallestTextPt).toBeCloseTo(6, 2);
    expect(way('in-grey').cost).toBeLessThan(way('as-set').cost);
  });

  test('what is grey is offered in colour again', () => {
    const again = compare(ticketFor({ copies: 2, color: 'monochrome' }), [text(12)], printer);
    expect(again.map(({ name }) => name)).not.toContain('in-grey');
    const inColor = again.find(({ name }) => name === 'in-color')!;
    expect(inColor.patch).toEqual({ color: 'auto' });
    expect(inColor.cost).toBe(way('as-set').cost);
  });

  test('the patch of a way makes it so', () => {
    for (const { patch, sheets } of ways) {
      const { pages: _, ...settings } = { pages: '', ...ticketFor({ copies: 2 }), ...patch };
      const { version: __, documents: ___, ...rest } = settings;
      expect(planOf(rest, [text(12)]).tally.sheets).toBe(sheets);
    }
  });

  test('from a booklet, one side and two are those of a plain job; a way that cannot be planned is left out', () => {
    const from = compare(ticketFor({ layout: { kind: 'booklet', creep: 0.1 } }), [text(12)], printer);
    expect(from.map(({ name, sheets }) => `${name} ${sheets}`).slice(0, 3)).toEqual([
      'as-set 4',
      'one-sided 16',
      'two-sided 8',
    ]);
    // A gutter as wide as the paper leaves room for one column alone.
    const small = { paper: { size: 'iso_a7_74x105mm' }, layout: { kind: 'grid', gutter: 100 } };
    const left = compare(ticketFor(small), [text(12)], printer).map(({ name }) => name);
    expect(left).toContain('2-a-side');
    expect(left).not.toContain('4-a-side');
    expect(compare(ticketFor(), [documentOf(2)], printer)[0]!.smallestTextPt).toBeNull();
  });
});

describe('fewestSheets', () => {
  const fewest = (minimumTextPt: number, points = 12, settings: object = {}, on = printer) =>
    fewestSheets(ticketFor(settings), [text(points)], on, { minimumTextPt });

  test('the set-up with the fewest sheets at which the text stays that large', () => {
    expect(fewest(12)).toMatchObject({ sheets: 8, patch: { sides: 'two-sided', layout: { pagesPerSide: 1 } } });
    expect(fewest(8)).toMatchObject({ sheets: 4, patch: { layout: { pagesPerSide: 2 } } });
    expect(fewest(5.9)).toMatchObject({ sheets: 2, patch: { layout: { pagesPerSide: 4 } } });
    // Two sides of eight are one sheet; sixteen on one side as well, with smaller text.
    expect(fewest(1)).toMatchObject({ sheets: 1, patch: { layout: { pagesPerSide: 8 } } });
  });

  test('law: no set-up tried has fewer sheets at that size', () => {
    for (const minimum of [2, 3, 4, 5, 6, 8, 10]) {
      const best = fewest(minimum)!;
      expect(best.smallestTextPt!).toBeGreaterThanOrEqual(minimum - 1e-6);
      for (const { sheets, smallestTextPt } of compare(ticketFor(), [text(12)], printer)) {
        if (smallestTextPt !== null && smallestTextPt >= minimum) expect(best.sheets).toBeLessThanOrEqual(sheets);
      }
    }
  });

  test('null where nothing keeps it so large, or the text is not known; one-sided where paper is not turned over', () => {
    expect(fewest(13)).toBeNull();
    expect(fewestSheets(ticketFor(), [documentOf(4)], printer, { minimumTextPt: 6 })).toBeNull();
    expect(fewest(12, 12, {}, { ...printer, duplex: false })).toMatchObject({ sheets: 16 });
  });

  test('pages without text may be as small as they like', () => {
    const pictures = documentWith(Array.from({ length: 32 }, () => ({ smallestText: null, ...A3 })));
    expect(fewestSheets(ticketFor(), [pictures], printer, { minimumTextPt: 20 })).toMatchObject({ sheets: 1 });
  });
});
