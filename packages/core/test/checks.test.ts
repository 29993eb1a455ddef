import {
  plan as makePlan,
  type Check,
  type DocumentFacts,
  type Plan,
  type PrinterInput,
  type TicketInput,
} from '../src';
import { readPlan, readPrinter, readTicket } from '../src/validate';
import { A3, A4, documentOf, documentWith, LETTER, OFFICE, planOf, turned } from './jobs';

type Settings = Omit<TicketInput, 'version' | 'documents'> & { pages?: string };

const codes = (plan: Plan): string[] => plan.checks.map(({ code }) => code);

interface Situation {
  readonly settings: Settings;
  readonly documents: readonly DocumentFacts[];
  readonly printer?: PrinterInput;
}

/** The one check of that code, and the plan after its repair, which must be a ticket that can be read again. */
function settle(code: Check['code'], { settings, documents, printer = OFFICE }: Situation) {
  const { pages, ...rest } = settings;
  const entries = documents.map(({ name }) => ({ file: name, ...(pages === undefined ? {} : { pages }) }));
  const ticket = readTicket({ version: 1, documents: entries, ...rest });
  const before = makePlan(ticket, documents, readPrinter(printer));
  const check = before.checks.find((one) => one.code === code);
  if (!check) throw new Error(`no ${code} among ${codes(before).join(', ')}`);
  expect(readPlan(before)).toEqual(before);
  if (!check.repair) return { check, before, after: null };
  const repaired = readTicket({ ...ticket, ...check.repair.patch });
  const after = makePlan(repaired, documents, readPrinter(printer));
  expect(codes(after)).not.toContain(code);
  return { check, before, after };
}

const traysOf = (plan: Plan | null): (string | null)[] => plan!.sheets.map(({ tray }) => tray);

test('a plan with nothing to say has no checks', () => {
  expect(planOf({ tray: 'tray-1' }, [documentOf(4)]).checks).toEqual([]);
});

describe('tray-unknown: a named tray is not in the printer', () => {
  test('for pages, and the repair takes any tray that holds the paper', () => {
    const { check, before, after } = settle('tray-unknown', {
      settings: { tray: 'tray-9' },
      documents: [documentOf(2)],
    });
    expect(check).toMatchObject({
      level: 'stop',
      message: 'Upper office has no tray "tray-9". It has tray-1, tray-2, tray-3, tray-4.',
      sheets: [1, 2],
      pages: [
        { document: 1, page: 1 },
        { document: 1, page: 2 },
      ],
    });
    expect(before.sheets[0]!.tray).toBe('tray-9');
    expect(traysOf(after)).toEqual(['tray-1', 'tray-1']);
  });

  test('in a route, for a cover, and for slips between sets', () => {
    const routes = [{ pages: '2', tray: 'tray-9' }];
    expect(traysOf(settle('tray-unknown', { settings: { routes }, documents: [documentOf(2)] }).after)).toEqual([
      'tray-1',
      'tray-1',
    ]);
    const layout = { kind: 'booklet' as const, cover: 'tray-9' };
    expect(settle('tray-unknown', { settings: { layout }, documents: [documentOf(8)] }).check.sheets).toEqual([1]);
    const inRoute = { settings: { routes: [{ pages: '1-8', layout }] }, documents: [documentOf(8)] };
    expect(traysOf(settle('tray-unknown', inRoute).after)).toEqual(['tray-1', 'tray-1']);
    const slips = { between: 'sets' as const, tray: 'tray-9' };
    const sets = settle('tray-unknown', { settings: { slips, copies: 2 }, documents: [documentOf(1)] });
    expect(sets.check.sheets).toEqual([]);
    expect(sets.after!.slipBetweenSets!.tray).toBe('tray-1');
  });
});

describe('tray-wrong-paper: a named tray holds another size', () => {
  test('the tray that holds the size is offered', () => {
    const { check, after } = settle('tray-wrong-paper', {
      settings: { tray: 'tray-1' },
      documents: [documentOf(1, A3)],
    });
    expect(check).toMatchObject({ level: 'stop', sheets: [1] });
    expect(check.message).toBe('Tray 1 holds A4, but these pages need A3.');
    expect(check.repair!.label).toBe('Take A3 from Tray 4');
    expect(traysOf(after)).toEqual(['tray-4']);
  });

  test('where no tray holds it, scaling to what is loaded', () => {
    const documents = [{ name: 'm.pdf', pages: [A4, LETTER] }];
    const { check, after } = settle('tray-wrong-paper', {
      settings: { tray: 'tray-1', scale: { mode: 'none' } },
      documents,
    });
    expect(check.repair!.label).toBe('Fit these pages to the A4 in Tray 1');
    expect(after!.sheets.map(({ paper }) => paper.size)).toEqual(['iso_a4_210x297mm', 'iso_a4_210x297mm']);
    expect(after!.sheets[1]!.front.cells[0]!.scale).toBeLessThan(1);
    expect(after!.sheets[0]!.front.cells[0]!.scale).toBe(1);
  });

  test('a cover gets the tray that holds its size, or the paper of its booklet', () => {
    const layout = { kind: 'booklet' as const, cover: 'tray-4' };
    const cover = settle('tray-wrong-paper', { settings: { layout, tray: 'tray-2' }, documents: [documentOf(8)] });
    expect(cover.check.sheets).toEqual([1]);
    expect(traysOf(cover.after)).toEqual(['tray-1', 'tray-2']);
    const trays = [...OFFICE.trays, { id: 'tray-5', size: 'na_letter_8.5x11in' }];
    const letters = settle('tray-wrong-paper', {
      settings: { layout: { ...layout, cover: 'tray-5' }, paper: { size: 'iso_a5_148x210mm' }, tray: 'tray-6' },
      documents: [documentOf(8)],
      printer: { ...OFFICE, trays: [...trays, { id: 'tray-6', size: 'iso_a5_148x210mm' }] },
    });
    expect(traysOf(letters.after)).toEqual(['tray-6', 'tray-6']);
  });
});

describe('no-tray-for-paper: auto finds no tray with the size', () => {
  test('the paper nearest in size is offered', () => {
    const { check, after } = settle('no-tray-for-paper', { settings: {}, documents: [documentOf(1, LETTER)] });
    expect(check).toMatchObject({ level: 'stop', message: 'No tray of Upper office holds US Letter.' });
    expect(check.repair!.label).toBe('Fit these pages to the A4 in Tray 1');
    expect(after!.sheets[0]!.paper.size).toBe('iso_a4_210x297mm');
  });

  test('a type that no tray holds is given up', () => {
    const settings = { paper: { type: 'transparency' } };
    const { check, after } = settle('no-tray-for-paper', { settings, documents: [documentOf(1)] });
    expect(check.message).toBe('No tray of Upper office holds A4 of the type transparency.');
    expect(traysOf(after)).toEqual(['tray-1']);
    const letter = settle('no-tray-for-paper', { settings, documents: [documentOf(1, LETTER)] });
    expect(traysOf(letter.after)).toEqual(['tray-1']);
  });

  test('slips without a tray get the nearest one', () => {
    const trays = [{ id: 'tray-1', size: 'iso_a4_210x297mm' }];
    const settings = {
      paper: { size: 'iso_a3_297x420mm' },
      tray: 'tray-1',
      slips: { between: 'sets' as const },
      copies: 2,
    };
    const { check } = settle('no-tray-for-paper', {
      settings,
      documents: [documentOf(1)],
      printer: { ...OFFICE, trays },
    });
    expect(check.repair!.label).toBe('Take slips from tray-1');
  });
});

describe('tray-short', () => {
  test('in sets: says at which sheet of which set it runs out, and offers as many sets as there is paper for', () => {
    // Six sheets a set from tray 3, which holds 40: set 7 begins with sheet 37 and lacks its fifth.
    const { check, after } = settle('tray-short', {
      settings: { tray: 'tray-3', copies: 7 },
      documents: [documentOf(6)],
    });
    expect(check).toMatchObject({ level: 'caution', sheets: [5], set: 7 });
    expect(check.message).toBe('Tray 3 holds 40 of the 42 sheets needed; it runs out at sheet 5 of set 7.');
    expect(check.repair).toEqual({ label: 'Print 6 sets', patch: { copies: 6 } });
    expect(after!.tally.byTray['tray-3']).toBe(36);
  });

  test('sheet by sheet: the copies of one sheet come together', () => {
    const plan = planOf({ tray: 'tray-3', copies: 7, collate: false }, [documentOf(6)]);
    expect(plan.checks.find(({ code }) => code === 'tray-short')).toMatchObject({ sheets: [6], set: 6 });
  });

  test('last sheet first, the first sheets are the ones that lack', () => {
    const plan = planOf({ tray: 'tray-3', copies: 7, delivery: 'last-to-first' }, [documentOf(6)]);
    expect(plan.checks.find(({ code }) => code === 'tray-short')).toMatchObject({ sheets: [2], set: 7 });
  });

  test('slips between sets use paper too', () => {
    const slips = { between: 'sets' as const, tray: 'tray-3' };
    const within = planOf({ tray: 'tray-3', copies: 14, slips }, [documentOf(2)]);
    expect(within.checks.find(({ code }) => code === 'tray-short')).toMatchObject({ sheets: [2], set: 14 });
    const alone = settle('tray-short', { settings: { tray: 'tray-1', copies: 50, slips }, documents: [documentOf(1)] });
    expect(alone.check.message).toBe('Tray 3 holds 40 of the 49 sheets needed; it runs out at the slip after set 41.');
    expect(alone.after!.sets).toBe(41);
  });

  test('another tray with enough of the same paper is offered first', () => {
    const trays = [...OFFICE.trays, { id: 'tray-5', name: 'Tray 5', size: 'iso_a4_210x297mm', loaded: 900 }];
    const printer = { ...OFFICE, trays };
    const settings = { tray: 'tray-3', copies: 7, routes: [{ pages: '1', tray: 'tray-2' }] };
    const { check, after } = settle('tray-short', {
      settings: { ...settings, copies: 9 },
      documents: [documentOf(6)],
      printer,
    });
    expect(check.repair!.label).toBe('Take them from Tray 5');
    expect(new Set(traysOf(after))).toEqual(new Set(['tray-2', 'tray-5']));
    const auto = settle('tray-short', {
      settings: { copies: 100 },
      documents: [documentOf(6)],
      printer: { ...printer, trays: trays.map((tray) => (tray.id === 'tray-1' ? { ...tray, type: null } : tray)) },
    });
    expect(new Set(traysOf(auto.after))).toEqual(new Set(['tray-5']));
  });

  test('where not one set can be printed, nothing is offered', () => {
    const { check } = settle('tray-short', { settings: { tray: 'tray-3' }, documents: [documentOf(41)] });
    expect(check.repair).toBeUndefined();
  });

  test('exactly enough is enough, and an unknown amount is not guessed', () => {
    expect(codes(planOf({ tray: 'tray-3', copies: 8 }, [documentOf(5)]))).toEqual([]);
    const trays = OFFICE.trays.map(({ loaded: _, ...tray }) => tray);
    expect(codes(planOf({ tray: 'tray-3', copies: 30 }, [documentOf(5)], { ...OFFICE, trays }))).toEqual([]);
  });
});

describe('too-heavy-for-duplex', () => {
  const printer = { ...OFFICE, maxDuplexWeight: 110 };

  test('two-sided on paper above the limit; one-sided is offered', () => {
    const { check, after } = settle('too-heavy-for-duplex', {
      settings: { tray: 'tray-3', sides: 'two-sided' },
      documents: [documentOf(3)],
      printer,
    });
    expect(check).toMatchObject({ level: 'stop', sheets: [1, 2] });
    expect(check.message).toBe('The paper in Tray 3, 120 g/m², is too heavy to be turned over; 110 g/m² is the most.');
    expect(after!.sheets).toHaveLength(3);
    expect(codes(planOf({ tray: 'tray-3' }, [documentOf(3)], printer))).toEqual([]);
    expect(codes(planOf({ tray: 'tray-2', sides: 'two-sided' }, [documentOf(3)], printer))).toEqual([]);
  });

  test('a booklet or its cover gets lighter paper', () => {
    const layout = { kind: 'booklet' as const };
    const whole = { settings: { layout, tray: 'tray-3' }, documents: [documentOf(8)], printer };
    expect(traysOf(settle('too-heavy-for-duplex', whole).after)).toEqual(['tray-1', 'tray-1']);
    const cover = { ...whole, settings: { layout: { ...layout, cover: 'tray-3' }, tray: 'tray-2' } };
    expect(traysOf(settle('too-heavy-for-duplex', cover).after)).toEqual(['tray-1', 'tray-2']);
    const none = { ...printer, trays: OFFICE.trays.filter(({ id }) => id === 'tray-3') };
    expect(settle('too-heavy-for-duplex', { ...whole, printer: none }).after).toBeNull();
  });
});

describe('two-passes and two-passes-mixed', () => {
  const printer = { ...OFFICE, duplex: false, refeedTray: 'tray-1' };

  test('two-sided on a printer without a duplex unit: said how, and one-sided offered', () => {
    const routes = [{ pages: '1', sides: 'two-sided' as const }];
    const { check, after } = settle('two-passes', {
      settings: { sides: 'two-sided', routes },
      documents: [documentOf(4)],
      printer,
    });
    expect(check).toMatchObject({ level: 'caution' });
    expect(check.message).toBe(
      'Upper office prints one side at a time: after the fronts the stack is turned over as a whole and goes back into Tray 1.',
    );
    expect(after!.passes).toBeNull();
    const upper = planOf({ sides: 'two-sided' }, [documentOf(2)], { ...OFFICE, duplex: false, printsOn: 'upper' });
    expect(upper.checks[0]!.message).toContain('the stack goes back as it lies into the tray');
  });

  test('a booklet cannot be one-sided; sheets of two sizes get one', () => {
    const layout = { kind: 'booklet' as const };
    expect(settle('two-passes', { settings: { layout }, documents: [documentOf(4)], printer }).after).toBeNull();
    const documents = [documentOf(8), documentOf(4, A3)];
    const mixed = settle('two-passes-mixed', { settings: { layout }, documents, printer });
    expect(mixed.check).toMatchObject({ level: 'stop', sheets: [3] });
    expect(new Set(mixed.after!.sheets.map(({ paper }) => paper.size)).size).toBe(1);
    const slips = { between: 'sets' as const, tray: 'tray-4' };
    const sets = settle('two-passes-mixed', {
      settings: { layout, slips, copies: 2 },
      documents: [documentOf(4)],
      printer,
    });
    expect(sets.after!.slipBetweenSets!.paper.size).toBe('iso_a4_210x297mm');
    expect(
      settle('two-passes-mixed', { settings: { sides: 'two-sided' }, documents, printer }).after!.passes,
    ).toBeNull();
  });
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
    expect(check!.message).toBe(
      'The backs of sheets 1 and 2 stay blank: the pages after them are printed in another way.',
    );
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
