import type { PrinterInput } from '../src';
import { A3, A4, documentOf, documentWith, OFFICE, planOf, turned, type Settings } from './jobs';
import { codes, settle, traysOf } from './settle';

test('a plan with nothing to say has no checks', () => {
  expect(planOf({ tray: 'tray-1' }, [documentOf(4)]).checks).toEqual([]);
});

describe('route-unused', () => {
  test('a route that catches no printed page, or whose pages an earlier one takes; it can be removed', () => {
    const routes = [
      { name: 'Letterhead', pages: '1-3', tray: 'tray-2' },
      { pages: '2', tray: 'tray-3' },
      { pages: '9', tray: 'tray-3' },
    ];
    const plan = planOf({ tray: 'tray-1', pages: '1-5', routes }, [documentOf(9)]);
    expect(plan.checks.map(({ message, level }) => `${level}: ${message}`)).toEqual([
      'note: The route for 2 changes nothing: route “Letterhead” takes all its pages first.',
      'note: The route for 9 changes nothing: none of its pages is printed.',
    ]);
    const { after } = settle('route-unused', {
      settings: { pages: '1-3', routes: routes.slice(0, 2) },
      documents: [documentOf(3)],
    });
    expect(traysOf(after)).toEqual(['tray-2', 'tray-2', 'tray-2']);
    const long = [{ pages: `9${',9'.repeat(40)}`, tray: 'tray-2' }];
    expect(planOf({ pages: '1', routes: long }, [documentOf(9)]).checks[0]!.message.length).toBeLessThan(120);
  });
});

describe('booklet-split', () => {
  const layout = { kind: 'booklet' as const };

  test('a tray or paper that changes inside a booklet makes several of it; it can be made one again', () => {
    const routes = [{ pages: '5', tray: 'tray-2' }];
    const trays = settle('booklet-split', { settings: { layout, tray: 'tray-1', routes }, documents: [documentOf(8)] });
    expect(trays.check).toMatchObject({ level: 'caution', sheets: [2, 3], pages: [{ page: 5 }, { page: 6 }] });
    expect(trays.check.message).toBe('Tray or paper changes inside a booklet, so that it comes out as 3 booklets.');
    expect(trays.after!.sheets).toHaveLength(2);
    const mixed = [{ name: 'm.pdf', pages: [A4, A4, A3, A4] }];
    expect(settle('booklet-split', { settings: { layout }, documents: mixed }).after!.sheets).toHaveLength(1);
  });

  test('booklets that are several on purpose are not split', () => {
    const two = [documentOf(4), documentOf(4, A3)];
    expect(codes(planOf({ layout }, two))).toEqual([]);
  });
});

describe('text-too-small', () => {
  const text = (points: number, count = 8) => [
    documentWith(Array.from({ length: count }, () => ({ smallestText: points }))),
  ];
  const grid = (pagesPerSide: 2 | 4 | 16, more: Settings = {}): Settings => ({
    ...more,
    tray: 'tray-1',
    layout: { kind: 'grid', pagesPerSide },
  });

  test('under 6 pt on paper; as many pages a side as can be read are offered', () => {
    const { check, after } = settle('text-too-small', { settings: grid(16), documents: text(10) });
    expect(check).toMatchObject({ level: 'caution', sheets: [1] });
    expect(check.message).toBe('Text on 8 pages prints as small as 2.5 pt; under 6 pt is hard to read.');
    expect(check.repair!.label).toBe('Print 2 pages a side');
    expect(after!.sheets[0]!.front.cells).toHaveLength(2);
    expect(codes(planOf(grid(4), text(12.001)))).toEqual([]);
    expect(codes(planOf(grid(4), text(11.9)))).toEqual(['text-too-small']);
    expect(planOf(grid(4), text(11.9, 2)).checks[0]!.message).toContain('Text on pages 1 and 2 prints');
  });

  test('in a route, and in a booklet', () => {
    const routes = [{ pages: '1-4', layout: { kind: 'grid' as const, columns: 4, rows: 2 } }];
    expect(
      settle('text-too-small', { settings: { tray: 'tray-1', routes }, documents: text(9) }).check.repair!.label,
    ).toBe('Print 2 pages a side');
    const booklet = settle('text-too-small', { settings: { layout: { kind: 'booklet' } }, documents: text(8) });
    expect(booklet.check.repair!.label).toBe('Print one page a side');
    const inRoute = [{ pages: '1-8', layout: { kind: 'booklet' as const } }];
    expect(settle('text-too-small', { settings: { routes: inRoute }, documents: text(8) }).after!.sheets).toHaveLength(
      8,
    );
  });

  test('text that is small on the page itself cannot be helped', () => {
    expect(settle('text-too-small', { settings: grid(2), documents: text(5) }).after).toBeNull();
  });
});

describe('size-changed: pages that would be there at their own size but for the printer’s edge', () => {
  const A6 = { width: 297.638, height: 419.528 };
  const four = { layout: { kind: 'grid' as const, pagesPerSide: 4 as const }, paper: { size: 'iso_a4_210x297mm' } };
  const printer = { ...OFFICE, margin: 4.2 };

  test('four A6 on A4 (ISO 216) print at 96 %, which is told, and at 100 % by its repair', () => {
    const { check, after } = settle('size-changed', { settings: four, documents: [documentOf(4, A6)], printer });
    expect(check).toMatchObject({
      level: 'note',
      sheets: [1],
      message: expect.stringContaining('print at 96 %') as string,
    });
    expect(after!.sheets[0]!.front.cells.map(({ scale }) => scale)).toEqual([1, 1, 1, 1]);
  });

  test('at a printer that prints to the edge they are at 100 %', () => {
    const plan = planOf(four, [documentOf(4, A6)], { ...OFFICE, margin: 0 });
    expect(plan.sheets[0]!.front.cells.map(({ scale }) => scale)).toEqual([1, 1, 1, 1]);
    expect(codes(plan)).not.toContain('size-changed');
  });

  test('nothing is said of pages that are made smaller anyway, alone on a side, or as large as is wanted', () => {
    expect(codes(planOf(four, [documentOf(4)], printer))).not.toContain('size-changed');
    expect(codes(planOf({}, [documentOf(1)], printer))).not.toContain('size-changed');
    const fit = { ...four, scale: { mode: 'fit' as const } };
    expect(codes(planOf(fit, [documentOf(4, A6)], printer))).not.toContain('size-changed');
  });
});

describe('outside-printable', () => {
  const printer = { ...OFFICE, margin: 5 };
  const content = (x: number, y: number, right: number, top: number, size = A4) =>
    documentWith([{ ...size, content: [x, y, right - x, top - y] }]);

  test('visible content in the printer’s margin, with its edges; fitting is offered', () => {
    const document = content(5, 100, 500, 840);
    const { check, after } = settle('outside-printable', {
      settings: { tray: 'tray-1' },
      documents: [document],
      printer,
    });
    expect(check).toMatchObject({ level: 'caution', sheets: [1], pages: [{ document: 1, page: 1 }] });
    expect(check.message).toBe('Content of page 1 is cut off at the left and top edges.');
    expect(after!.sheets[0]!.front.cells[0]!.scale).toBeLessThan(1);
    expect(codes(planOf({ tray: 'tray-1' }, [content(20, 20, 575, 820)], printer))).toEqual([]);
    expect(codes(planOf({ tray: 'tray-1' }, [documentWith([{ content: null }, {}])], printer))).toEqual([]);
  });

  test.each([
    [0, 'left'],
    [90, 'top'],
    [180, 'right'],
    [270, 'bottom'],
  ] as const)('turned %i degrees, what was at the left is at the %s', (rotate, edge) => {
    const routes = [{ pages: '1', rotate }];
    const plan = planOf({ tray: 'tray-1', routes }, [content(2, 100, 400, 700)], printer);
    expect(plan.checks[0]!.message).toBe(`Content of page 1 is cut off at the ${edge} edge.`);
  });

  test('off the paper, and cut by its cell', () => {
    const off = planOf({ paper: { size: 'iso_a4_210x297mm' }, scale: { mode: 'none' } }, [
      content(10, 10, 830, 1100, A3),
    ]);
    expect(off.checks[0]!.message).toContain('at the left, right, top and bottom edges');
    const wide = documentWith(
      [turned(A4), turned(A4)].map((size) => ({ ...size, content: [1, 1, 840, 593] as const })),
    );
    const filled = planOf({ layout: { kind: 'grid', columns: 2, rows: 1 }, scale: { mode: 'fill' }, tray: 'tray-1' }, [
      wide,
    ]);
    expect(filled.checks[0]!.message).toBe('Content of pages 1 and 2 is cut off at the left and right edges.');
  });

  test('only the pages concerned are changed; what fitting cannot help is not offered', () => {
    const document = documentWith([{ content: [1, 1, 590, 800] }, { content: [30, 30, 500, 700] }]);
    const routes = [{ pages: '2', tray: 'tray-2' }];
    const { after } = settle('outside-printable', {
      settings: { tray: 'tray-1', routes },
      documents: [document],
      printer,
    });
    expect(after!.sheets.map(({ front }) => front.cells[0]!.scale < 1)).toEqual([true, false]);
    const crept = { kind: 'booklet' as const, creep: 5 };
    const pages = documentWith(Array.from({ length: 8 }, () => ({ content: [0, 0, A4.width, A4.height] as const })));
    expect(settle('outside-printable', { settings: { layout: crept }, documents: [pages] }).after).toBeNull();
  });
});

describe('blank-back: only where another run follows', () => {
  const twoSided = { tray: 'tray-1', sides: 'two-sided' as const };

  test('names its sheets, or counts them', () => {
    const [check, ...others] = planOf({ ...twoSided, routes: [{ pages: '2', tray: 'tray-2' }] }, [
      documentOf(3),
    ]).checks;
    expect(check).toMatchObject({ code: 'blank-back', level: 'note', sheets: [1, 2] });
    expect(check!.message).toBe('The backs of sheets 1 and 2 stay blank: the pages after them have other settings.');
    expect(check!.repair).toBeUndefined();
    expect(others).toEqual([]);
    const many = ['2', '4', '6'].map((pages) => ({ pages, tray: 'tray-2' }));
    const [several] = planOf({ ...twoSided, routes: many }, [documentOf(7)]).checks;
    expect(several!.message).toContain('The backs of 6 sheets a set stay blank');
    expect(codes(planOf(twoSided, [documentOf(3)]))).toEqual([]);
  });

  test('the next page may share, where it was kept apart on purpose', () => {
    const two = [documentOf(1), documentOf(2)];
    expect(settle('blank-back', { settings: twoSided, documents: two }).after!.sheets).toHaveLength(2);
    const sections = [1, 2].map((page) => ({ title: `${page}`, level: 1, page, top: 0 }));
    const sectioned = documentWith([{}, {}], sections);
    const newSheet = { sections: true };
    expect(
      settle('blank-back', { settings: { ...twoSided, newSheet }, documents: [sectioned] }).after!.sheets,
    ).toHaveLength(1);
    const routes = [{ pages: '1', ownSheet: true }];
    expect(
      settle('blank-back', { settings: { ...twoSided, routes }, documents: [documentOf(2)] }).after!.sheets,
    ).toHaveLength(1);
  });

  test('one page printed otherwise can be printed on the back', () => {
    const routes = [{ pages: '2', tray: 'tray-2' }];
    const { check, after } = settle('blank-back', { settings: { ...twoSided, routes }, documents: [documentOf(2)] });
    expect(check.repair!.label).toBe('Print page 2 on the back');
    expect(after!.sheets).toHaveLength(1);
    const larger = planOf({ sides: 'two-sided' }, [{ name: 'm.pdf', pages: [A4, A3] }]);
    expect(larger.checks[0]!.repair).toBeUndefined();
    const layout = { kind: 'grid' as const, pagesPerSide: 2 as const };
    const other = planOf({ ...twoSided, routes: [{ pages: '2-3', layout }] }, [documentOf(3)]);
    expect(other.checks[0]!.repair).toBeUndefined();
  });

  test('slips keep documents apart for good; booklets tell of their blanks themselves', () => {
    const slips = { between: 'documents' as const };
    const [check] = planOf({ ...twoSided, slips }, [documentOf(1), documentOf(1)]).checks;
    expect([check!.code, check!.repair]).toEqual(['blank-back', undefined]);
    const booklets = planOf({ layout: { kind: 'booklet' } }, [documentOf(1), documentOf(4)]);
    expect(codes(booklets)).toEqual(['booklet-padded']);
  });
});

describe('colour', () => {
  const document = documentWith([{ color: true }, { color: false }, { color: true, looksGray: true }, {}]);

  test('color-on-mono: pages with colour on a printer without it', () => {
    const { check } = settle('color-on-mono', {
      settings: { tray: 'tray-1', routes: [{ pages: '1', color: 'auto' }] },
      documents: [document],
      printer: { ...OFFICE, color: false },
    });
    expect(check).toMatchObject({ level: 'note', pages: [{ document: 1, page: 1 }] });
    expect(check.message).toBe('1 page holds colour; Upper office prints in grey.');
    expect(codes(planOf({ tray: 'tray-1', color: 'monochrome' }, [document], { ...OFFICE, color: false }))).toEqual([]);
  });

  test('gray-coded-as-color: looks grey, is billed as colour; only these pages are printed in grey', () => {
    const { check, before, after } = settle('gray-coded-as-color', {
      settings: { tray: 'tray-2' },
      documents: [document],
    });
    expect(check).toMatchObject({ level: 'note', pages: [{ document: 1, page: 3 }] });
    expect(check.message).toBe('1 page looks grey but is coded in colour, and billed as colour.');
    expect(before.tally.cost - after!.tally.cost).toBeCloseTo(0.04, 6);
    const every = documentWith([
      { color: true, looksGray: true },
      { color: true, looksGray: true },
    ]);
    const both = settle('gray-coded-as-color', { settings: { pages: '1, 2, 1' }, documents: [every] });
    expect(both.check.message).toContain('2 pages look grey but are coded');
    expect(codes(planOf({ tray: 'tray-1' }, [document], { ...OFFICE, color: false }))).toEqual(['color-on-mono']);
  });

  test('gray-coded-as-color: black of red, green and blue, where the printer says that it bills it as colour', () => {
    const black = documentWith([{ color: false, blackOfColors: true }, { color: false }]);
    expect(codes(planOf({ tray: 'tray-2' }, [black]))).toEqual([]);
    const prices = { mono: 0.01, color: 0.05, blackOfColors: 'color' } as const;
    const { check, before, after } = settle('gray-coded-as-color', {
      settings: { tray: 'tray-2' },
      documents: [black],
      printer: { ...OFFICE, prices },
    });
    expect(check.pages).toEqual([{ document: 1, page: 1 }]);
    expect(before.tally.cost - after!.tally.cost).toBeCloseTo(prices.color - prices.mono, 6);
  });
});

test('uncollated: more than one copy of more than one sheet, not in sets', () => {
  const { check } = settle('uncollated', {
    settings: { copies: 3, collate: false, tray: 'tray-1' },
    documents: [documentOf(2)],
  });
  expect(check).toMatchObject({ level: 'caution', repair: { label: 'Print complete sets', patch: { collate: true } } });
  expect(check.message).toBe('The copies do not come in sets: 3 times sheet 1, then 3 times sheet 2, and so on.');
  for (const settings of [
    { copies: 1, collate: false },
    { copies: 3, collate: true },
  ]) {
    expect(codes(planOf({ ...settings, tray: 'tray-1' }, [documentOf(2)]))).toEqual([]);
  }
  expect(codes(planOf({ copies: 3, collate: false, tray: 'tray-1' }, [documentOf(1)]))).toEqual([]);
});

test('large-run: above 200 sheets', () => {
  expect(codes(planOf({ tray: 'tray-1', copies: 20 }, [documentOf(10)]))).toEqual([]);
  const { check, after } = settle('large-run', {
    settings: { tray: 'tray-1', copies: 21 },
    documents: [documentOf(10)],
  });
  expect(check).toMatchObject({ level: 'caution', message: 'This prints 210 sheets: 21 sets of 10 sheets.' });
  expect(after!.sets).toBe(20);
  const one = planOf({ tray: 'tray-1' }, [documentOf(201)]);
  expect(one.checks).toEqual([
    { code: 'large-run', level: 'caution', message: 'This prints 201 sheets.', sheets: [], pages: [] },
  ]);
  const slips = { between: 'sets' as const, tray: 'tray-4' };
  const slipped = settle('large-run', { settings: { tray: 'tray-1', copies: 150, slips }, documents: [documentOf(1)] });
  expect(slipped.after!.tally.sheets).toBe(199);
});

test('too-many-written-out: sets that no printer makes by itself, of more than 100,000 sheets', () => {
  const slips = { between: 'sets' as const };
  const { check, after } = settle('too-many-written-out', {
    settings: { tray: 'tray-1', copies: 100_000, slips },
    documents: [documentOf(50)],
  });
  expect(check).toMatchObject({
    level: 'stop',
    message:
      '100000 sets would be written out sheet by sheet, since sheets lie before or between the sets: ' +
      '5099999 sheets at once, which is more than 100000.',
    repair: { label: 'Print 1960 sets' },
  });
  expect(after!.tally.sheets).toBe(1_960 * 51 - 1);
  // Without anything between them they are the printer’s.
  expect(codes(planOf({ tray: 'tray-1', copies: 100_000 }, [documentOf(50)]))).not.toContain('too-many-written-out');
  // One set is what it is.
  expect(codes(planOf({ tray: 'tray-1', slips }, [documentOf(100_000)]))).not.toContain('too-many-written-out');
});

describe('backs-read-otherwise: a sheet of which one side is read portrait and the other landscape', () => {
  const mixed = { ...documentOf(4), pages: [A4, turned(A4), turned(A4), turned(A4)] };

  test('is pointed out by its number, and only where both sides are printed', () => {
    const found = planOf({ sides: 'two-sided' }, [mixed]).checks.filter(({ code }) => code === 'backs-read-otherwise');
    expect(found).toMatchObject([
      { level: 'note', message: 'Sheet 1 is read portrait on its front and landscape on its back.', sheets: [1] },
    ]);
    expect(codes(planOf({ sides: 'one-sided' }, [mixed]))).not.toContain('backs-read-otherwise');
    expect(codes(planOf({ sides: 'two-sided', pages: '2-4' }, [mixed]))).not.toContain('backs-read-otherwise');
  });

  test('many are told by their number', () => {
    const pages = Array.from({ length: 12 }, (_, at) => (at % 2 === 0 ? A4 : turned(A4)));
    const messages = planOf({ sides: 'two-sided' }, [{ ...documentOf(12), pages }]).checks.map(
      ({ message }) => message,
    );
    expect(messages).toContain('6 sheets are read in one direction on the front and in another on the back.');
  });
});

describe('separate-jobs: the printer cannot take the plan as one job', () => {
  const plain = { ...OFFICE, jobs: {} };
  const twoTrays = { tray: 'tray-1', routes: [{ pages: '1', tray: 'tray-2' }] };
  const mixedSides = {
    tray: 'tray-1',
    sides: 'two-sided' as const,
    routes: [{ pages: '1', sides: 'one-sided' as const }],
  };
  const separate = (settings: Settings, printer: PrinterInput, documents = [documentOf(4)]): boolean =>
    codes(planOf(settings, documents, printer)).includes('separate-jobs');

  test('trays that differ need overrides, documents, or sizes that choose the tray', () => {
    expect(separate(twoTrays, plain)).toBe(true);
    expect(separate(twoTrays, { ...OFFICE, jobs: { overrides: ['media-col'] } })).toBe(false);
    expect(separate(twoTrays, { ...OFFICE, jobs: { documents: true } })).toBe(false);
    expect(separate({}, plain, [documentOf(1), documentOf(1, A3)])).toBe(false);
    expect(separate({ tray: 'tray-1' }, plain)).toBe(false);
  });

  test('sides that differ need overrides, or blank backs on paper without a face', () => {
    expect(separate(mixedSides, plain)).toBe(false);
    expect(separate({ ...mixedSides, tray: 'tray-2' }, plain)).toBe(true);
    expect(separate({ ...mixedSides, tray: 'tray-2' }, { ...OFFICE, jobs: { overrides: ['sides'] } })).toBe(false);
    // Sizes that choose the tray do not choose the sides; letterhead, first of its size, gets no blank back.
    const headed = { ...plain, trays: OFFICE.trays.slice(1) };
    expect(separate({ ...mixedSides, tray: 'auto' }, headed, [documentOf(4), documentOf(1, A3)])).toBe(true);
    const duplexless = { ...plain, duplex: false };
    // In two passes every pass is one-sided.
    expect(separate({ ...mixedSides, tray: 'tray-2' }, duplexless)).toBe(false);
  });

  test('repairs: all on the same sides, or all from one tray', () => {
    const sides = settle('separate-jobs', {
      settings: { ...mixedSides, tray: 'tray-2' },
      documents: [documentOf(4)],
      printer: plain,
    });
    expect(sides.check).toMatchObject({ level: 'caution', repair: { label: 'Print all two-sided' } });
    const trays = settle('separate-jobs', { settings: twoTrays, documents: [documentOf(4)], printer: plain });
    expect(trays.check.repair!.label).toBe('Take all paper from one tray');
    expect(traysOf(trays.after)).toEqual(['tray-1', 'tray-1', 'tray-1', 'tray-1']);
  });
});
