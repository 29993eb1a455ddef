import { TicketError } from '../src';
import { readPlan } from '../src/validate';
import { A3, A4, CONTRACT, documentOf, LETTER, OFFICE, outline, planOf, turned } from './jobs';

describe('the season contract', () => {
  const plan = planOf(CONTRACT, [documentOf(14)]);

  test('comes to nine sheets a set, each from its tray', () => {
    expect(outline(plan)).toEqual([
      'tray-2: 1',
      'tray-1: 2 | 3',
      'tray-1: 4 | 5',
      'tray-2: 6',
      'tray-1: 7 | 8',
      'tray-3: 9',
      'tray-1: 10 | 11',
      'tray-1: 12 | 13',
      'tray-1: 14 | -',
    ]);
  });

  test('is tallied over both sets', () => {
    expect(plan.tally).toMatchObject({
      sheetsPerSet: 9,
      sheets: 18,
      sides: 28,
      blankSides: 2,
      byTray: { 'tray-1': 12, 'tray-2': 4, 'tray-3': 2 },
      byPaper: { iso_a4_210x297mm: 18 },
    });
  });

  test('has the shape of the plan schema', () => {
    expect(readPlan(plan)).toEqual(plan);
  });
});

describe('routes', () => {
  test('the first route that names a page rules it', () => {
    const routes = [
      { pages: '1-2', tray: 'tray-2' },
      { pages: '2-3', tray: 'tray-3' },
    ];
    expect(outline(planOf({ routes, tray: 'tray-1' }, [documentOf(4)]))).toEqual([
      'tray-2: 1',
      'tray-2: 2',
      'tray-3: 3',
      'tray-1: 4',
    ]);
  });

  test('a route without a document matches in each; one with a document in that alone', () => {
    const documents = [documentOf(2), documentOf(1)];
    const everywhere = planOf({ routes: [{ pages: '2', tray: 'tray-2' }], tray: 'tray-1' }, documents);
    expect(outline(everywhere)).toEqual(['tray-1: 1', 'tray-2: 2', 'tray-1: 1']);
    const second = planOf({ routes: [{ document: 2, pages: '1', tray: 'tray-2' }], tray: 'tray-1' }, documents);
    expect(outline(second)).toEqual(['tray-1: 1', 'tray-1: 2', 'tray-2: 1']);
  });

  test('with a document, a page that is not there is an error with its place', () => {
    const routes = [{ document: 1, pages: '1, 9', tray: 'tray-2' }];
    expect(() => planOf({ routes }, [documentOf(4)])).toThrow(
      /^routes\[0\].pages, character 4: page 9 is not in manual.pdf, whose last page is 4/,
    );
  });

  test('a syntax error is always an error; a document that is not there is one too', () => {
    expect(() => planOf({ routes: [{ pages: '1,', tray: 'tray-2' }] }, [documentOf(4)])).toThrow(TicketError);
    expect(() => planOf({ routes: [{ document: 2, pages: '1', tray: 'tray-2' }] }, [documentOf(4)])).toThrow(
      /document 2 is not in the ticket, which has 1/,
    );
  });

  test('two routes that come to the same settings do not break a run', () => {
    const routes = [
      { pages: '1', tray: 'tray-1' },
      { pages: '2', tray: 'tray-1' },
    ];
    expect(outline(planOf({ routes, tray: 'tray-1', sides: 'two-sided' }, [documentOf(4)]))).toEqual([
      'tray-1: 1 | 2',
      'tray-1: 3 | 4',
    ]);
  });

  test('own sheet: every page of the route, and the page after it, begins a sheet', () => {
    const routes = [{ pages: '2, 3', ownSheet: true }];
    expect(outline(planOf({ routes, tray: 'tray-1', sides: 'two-sided' }, [documentOf(5)]))).toEqual([
      'tray-1: 1 | -',
      'tray-1: 2 | -',
      'tray-1: 3 | -',
      'tray-1: 4 | 5',
    ]);
  });

  test('scale, margin, rotation and colour never break a run', () => {
    const routes = [
      { pages: '2', scale: { mode: 'fit' as const }, margin: 10, rotate: 180 as const, color: 'monochrome' as const },
    ];
    expect(planOf({ routes, tray: 'tray-1', sides: 'two-sided' }, [documentOf(4)]).sheets).toHaveLength(2);
  });
});

describe('runs', () => {
  test('a new document begins a sheet, unless documents may share', () => {
    const documents = [documentOf(1), documentOf(1)];
    expect(outline(planOf({ sides: 'two-sided', tray: 'tray-1' }, documents))).toEqual([
      'tray-1: 1 | -',
      'tray-1: 1 | -',
    ]);
    const shared = planOf({ sides: 'two-sided', tray: 'tray-1', newSheet: { documents: false } }, documents);
    expect(outline(shared)).toEqual(['tray-1: 1 | 1']);
  });

  test('each page on paper of its own size, whichever way it is turned', () => {
    const facts = { name: 'mixed.pdf', pages: [A4, turned(A3), turned(A4), LETTER] };
    const plan = planOf({}, [facts]);
    expect(plan.sheets.map(({ tray, paper, front }) => [tray, paper.size, front.orientation])).toEqual([
      ['tray-1', 'iso_a4_210x297mm', 'portrait'],
      ['tray-4', 'iso_a3_297x420mm', 'landscape'],
      ['tray-1', 'iso_a4_210x297mm', 'landscape'],
      [null, 'na_letter_8.5x11in', 'portrait'],
    ]);
  });

  test('auto looks for the type of paper too, where one is asked for', () => {
    const plan = planOf({ paper: { type: 'stationery-letterhead' } }, [documentOf(1)]);
    expect(outline(plan)).toEqual(['tray-2: 1']);
  });

  test('a wanted size that is no size name is an error', () => {
    expect(() => planOf({ paper: { size: 'A4' } }, [documentOf(1)])).toThrow(/"A4" is not a PWG 5101.1 size name/);
  });
});

describe('turning over (RFC 8011, 5.2.8, sides)', () => {
  const sidesOf = (pages: (typeof A4)[], bind: 'left' | 'right' | 'top'): string[] =>
    planOf({ sides: 'two-sided', bind, tray: 'tray-1' }, [{ name: 'x.pdf', pages }]).sheets.map(({ sides }) => sides);

  test.each([
    ['portrait', 'left', A4, 'two-sided-long-edge'],
    ['portrait', 'right', A4, 'two-sided-long-edge'],
    ['portrait', 'top', A4, 'two-sided-short-edge'],
    ['landscape', 'left', turned(A4), 'two-sided-short-edge'],
    ['landscape', 'top', turned(A4), 'two-sided-long-edge'],
  ] as const)('held %s and bound %s', (_held, bind, size, sides) => {
    expect(sidesOf([size, size], bind)).toEqual([sides]);
  });

  test('held as most of the sides are read; a tie is portrait', () => {
    expect(sidesOf([A4, turned(A4), turned(A4), turned(A4)], 'left')[0]).toBe('two-sided-short-edge');
    expect(sidesOf([A4, turned(A4)], 'left')[0]).toBe('two-sided-long-edge');
  });
});

describe('tally', () => {
  test('ten sheets of A4 at 80 g/m2 weigh 50 g and lie 1 mm high (ISO 216: 16 sheets of A4 are a square metre)', () => {
    const { weightGrams, heightMm } = planOf({ tray: 'tray-1' }, [documentOf(10)]).tally;
    expect(weightGrams).toBeCloseTo(50, 0);
    expect(heightMm).toBeCloseTo(1, 6);
  });

  test('cost: paper by tray, and a click a printed side, in colour or mono', () => {
    expect(planOf({ tray: 'tray-1', copies: 3 }, [documentOf(10)]).tally.cost).toBeCloseTo(3 * 10 * (0.01 + 0.05), 6);
    const grey = planOf({ tray: 'tray-1', color: 'monochrome' }, [documentOf(10)]);
    expect(grey.tally.cost).toBeCloseTo(10 * (0.01 + 0.01), 6);
  });

  test('time: sides a minute, two-sided sheets at their part of the speed; unknown without a speed', () => {
    expect(planOf({ tray: 'tray-1' }, [documentOf(30)]).tally.seconds).toBe(60);
    expect(planOf({ tray: 'tray-1', sides: 'two-sided' }, [documentOf(30)]).tally.seconds).toBe(120);
    const { sidesPerMinute: _, ...slow } = OFFICE;
    expect(planOf({ tray: 'tray-1' }, [documentOf(1)], slow).tally.seconds).toBeNull();
  });

  test('copies change nothing but totals', () => {
    const one = planOf({ ...CONTRACT, copies: 1 }, [documentOf(14)]);
    const many = planOf({ ...CONTRACT, copies: 7 }, [documentOf(14)]);
    expect(many.sheets).toEqual(one.sheets);
    expect(many.tally.sheets).toBe(7 * one.tally.sheets);
  });
});
