import { deepStrictEqual, strictEqual } from 'node:assert';
import fc from 'fast-check';
import {
  chooseWay,
  everySheet,
  finishedSide,
  FINISHINGS,
  informationSheetOf,
  inParts,
  onMedium,
  partsOfSet,
  pointsToMm,
  portionPlan,
  type Finishing,
  type PrinterInput,
} from '../src';
import { readPrinter } from '../src/validate';
import { job, planned, RUNS } from './any-job';
import { A3, A4, documentOf, documentWith, OFFICE, planOf, turned, type Settings } from './jobs';

const NAMES = Object.keys(FINISHINGS) as Finishing[];
const FINISHER: PrinterInput = {
  ...OFFICE,
  maxStapled: 10,
  finishings: [
    'staple-top-left',
    'staple-bottom-left',
    'staple-dual-left',
    'saddle-stitch',
    'punch-dual-left',
    'fold-half',
  ],
};

const stapled = (settings: Settings, pages = 4, printer = FINISHER, size = A4) =>
  planOf({ finishings: ['staple-top-left'], ...settings }, [documentOf(pages, size)], printer);

const found = (plan: ReturnType<typeof planOf>, code: string) => plan.checks.find((check) => check.code === code);

/** The plan once the repair of a check was taken. */
function mended(settings: Settings, code: string, pages = 4, printer = FINISHER, size = A4) {
  const plan = planOf(settings, [documentOf(pages, size)], printer);
  const { repair, level } = found(plan, code)!;
  const after = planOf({ ...settings, ...repair!.patch }, [documentOf(pages, size)], printer);
  expect(found(after, code)).toBeUndefined();
  return [level, repair!.label, after.finishing?.finishings ?? []];
}

// RFC 8011, 5.2.6: "to position a staple in the upper left hand corner of a landscape document when held for reading, the Client
// supplies the 'staple-bottom-left' value"; the other edges and corners follow from that quarter.
test.each<[Finishing, Finishing]>([
  ['staple-top-left', 'staple-bottom-left'],
  ['staple-bottom-left', 'staple-bottom-right'],
  ['staple-bottom-right', 'staple-top-right'],
  ['staple-top-right', 'staple-top-left'],
  ['staple-dual-left', 'staple-dual-bottom'],
  ['punch-dual-top', 'punch-dual-left'],
  ['saddle-stitch', 'saddle-stitch'],
])('%s of a landscape set is %s to a printer', (held, told) => {
  expect(onMedium(held, 'landscape')).toBe(told);
  expect(onMedium(held, 'portrait')).toBe(held);
});

test('four quarters are a whole turn', () => {
  for (const name of NAMES) {
    let turnedName = name;
    for (let quarter = 0; quarter < 4; quarter += 1) turnedName = onMedium(turnedName, 'landscape');
    expect(turnedName).toBe(name);
  }
});

// RFC 8011, 5.2.6, and PWG 5100.1-2022, table 1, from memory.
test.each<[Finishing, number]>([
  ['staple', 4],
  ['punch', 5],
  ['saddle-stitch', 8],
  ['fold', 10],
  ['jog-offset', 14],
  ['staple-top-left', 20],
  ['staple-bottom-right', 23],
  ['edge-stitch-bottom', 27],
  ['staple-dual-left', 28],
  ['staple-triple-bottom', 35],
  ['punch-dual-left', 74],
  ['punch-triple-left', 78],
  ['punch-quad-bottom', 85],
  ['fold-half', 93],
  ['fold-letter', 96],
  ['fold-z', 100],
])('%s is number %i, and no other is', (name, number) => {
  expect(NAMES.filter((one) => FINISHINGS[one].number === number)).toEqual([name]);
});

test('a plan tells what is done to the sets, and how they are held for it; most have nothing of the kind', () => {
  expect(stapled({}).finishing).toEqual({ finishings: ['staple-top-left'], held: 'portrait', starts: [1] });
  expect(stapled({}, 4, FINISHER, turned(A4)).finishing?.held).toBe('landscape');
  expect('finishing' in stapled({ finishings: [] })).toBe(false);
});

test('each document, or section, begins a sheet, and is a part by itself; slips between are in none', () => {
  const documents = [
    documentWith(
      [{}, {}, {}],
      [
        { title: 'One', level: 1, page: 1, top: 0 },
        { title: 'Two', level: 1, page: 3, top: 0 },
      ],
    ),
    documentOf(3),
  ];
  const settings = { sides: 'two-sided', newSheet: { documents: false }, finishings: ['staple-top-left'] } as Settings;
  const startsOf = (more: Settings) => planOf({ ...settings, ...more }, documents, FINISHER).finishing?.starts;
  expect(startsOf({})).toEqual([1]);
  expect(startsOf({ finishEach: 'document' })).toEqual([1, 3]);
  expect(startsOf({ finishEach: 'section' })).toEqual([1, 2, 3]);
  const withSlips = planOf(
    { ...settings, finishEach: 'document', slips: { between: 'documents' } },
    documents,
    FINISHER,
  );
  expect(partsOfSet(withSlips).map((part) => part.map(({ slip }) => slip))).toEqual([
    [false, false],
    [false, false],
  ]);
});

test.each<[object, string]>([
  [{ inTurn: true, finishEach: 'document', finishings: ['staple'] }, 'finishEach: the documents take turns'],
  [
    { collate: false, copies: 2, finishings: ['staple-top-left'] },
    'finishings[0]: "staple-top-left" needs complete sets',
  ],
  [{ finishings: ['staple', 'staple-dual-left'] }, 'finishings[1]: "staple-dual-left" and "staple" are of one kind'],
])('%j cannot be planned: %s', (settings, said) => {
  expect(() => planOf(settings, [documentOf(2), documentOf(2)], FINISHER)).toThrow(said);
});

describe('checks', () => {
  test('what the printer has not stops the job; another of the kind is offered where it has one', () => {
    const settings: Settings = { finishings: ['staple-top-right'] };
    expect(found(stapled(settings), 'finishing-unknown')?.message).toBe(
      'Upper office has not a staple at the top right corner.',
    );
    expect(mended(settings, 'finishing-unknown')).toEqual([
      'stop',
      'Take a staple at the top left corner',
      ['staple-top-left'],
    ]);
    expect(mended(settings, 'finishing-unknown', 4, OFFICE)).toEqual(['stop', 'Do not staple', []]);
    expect(mended({ finishings: ['fold-z', 'staple-top-left'] }, 'finishing-unknown')).toEqual([
      'stop',
      'Take a fold in the middle',
      ['fold-half', 'staple-top-left'],
    ]);
  });

  test('of a landscape set the corner counts as the printer has it', () => {
    const only = { ...FINISHER, finishings: ['staple-bottom-left'] } as PrinterInput;
    expect(found(stapled({}, 4, only, turned(A4)), 'finishing-unknown')).toBeUndefined();
    expect(found(stapled({}, 4, only), 'finishing-unknown')).toMatchObject({ level: 'stop' });
  });

  test('nothing that goes through the printer twice can be stapled in it', () => {
    const byHand = { ...FINISHER, duplex: false };
    const settings: Settings = { finishings: ['staple-top-left'], sides: 'two-sided' };
    expect(mended(settings, 'finishing-unknown', 4, byHand)).toEqual(['stop', 'Print one-sided', ['staple-top-left']]);
  });

  test('nor what reaches it as several jobs', () => {
    const settings: Settings = {
      finishings: ['staple-top-left'],
      routes: [{ pages: '2', tray: 'tray-2' }],
      tray: 'tray-1',
    };
    const plain = { ...FINISHER, jobs: { overrides: [] } };
    expect(mended(settings, 'finishing-unknown', 4, plain)).toEqual(['stop', 'Do not staple', []]);
    // Documents of one job can be told to be one.
    const documents = { ...FINISHER, jobs: { overrides: [], documents: true } };
    expect(found(planOf(settings, [documentOf(4)], documents), 'finishing-unknown')).toBeUndefined();
  });

  test.each<[number, string, Settings, string, readonly string[]]>([
    [11, 'set', {}, 'Print two-sided', ['staple-top-left']],
    [30, 'set', {}, 'Do not staple', []],
    [30, 'set', { finishings: ['staple-top-left', 'punch-dual-left'] }, 'Do not staple', ['punch-dual-left']],
  ])('%i sheets are too many to staple in a %s', (pages, part, settings, label, after) => {
    const given = { finishings: ['staple-top-left'], ...settings } as Settings;
    expect(found(stapled(settings, pages), 'too-many-to-staple')?.message).toBe(
      `Upper office staples up to 10 sheets together; a ${part} here has ${pages}.`,
    );
    expect(mended(given, 'too-many-to-staple', pages)).toEqual(['stop', label, after]);
    expect(found(stapled({ finishings: ['punch-dual-left'] }, pages), 'too-many-to-staple')).toBeUndefined();
  });

  test('each part is counted by itself', () => {
    const plan = planOf(
      { finishings: ['staple-top-left'], finishEach: 'document' },
      [documentOf(8), documentOf(8)],
      FINISHER,
    );
    expect(found(plan, 'too-many-to-staple')).toBeUndefined();
  });

  test('sheets of two sizes in one stapled part', () => {
    const documents = [documentWith([{}, {}, A3, {}])];
    const settings: Settings = { finishings: ['staple-top-left'] };
    const plan = planOf(settings, documents, FINISHER);
    const check = found(plan, 'mixed-sizes-stapled')!;
    expect(check).toMatchObject({ level: 'caution', sheets: [3], pages: [{ document: 1, page: 3 }] });
    expect(check.repair!.label).toBe('Print all on A4');
    const after = planOf({ ...settings, ...check.repair!.patch }, documents, FINISHER);
    expect(after.tally.byPaper).toEqual({ iso_a4_210x297mm: 4 });
    expect(found(after, 'mixed-sizes-stapled')).toBeUndefined();
  });

  test.each<[Settings, string | null]>([
    [{ finishings: ['staple-top-left'] }, null],
    [{ finishings: ['staple-top-left'], bind: 'top', sides: 'two-sided' }, null],
    [{ finishings: ['staple-dual-left'], bind: 'top', sides: 'two-sided' }, 'Take a staple at the top left corner'],
    [{ finishings: ['saddle-stitch'] }, 'Take two staples at the left edge'],
    [{ finishings: ['staple-top-left'], layout: { kind: 'booklet' } }, 'Take staples in the fold'],
    [{ finishings: ['saddle-stitch'], layout: { kind: 'booklet' } }, null],
  ])('%j: the staple is where the set is held, or %s', (settings, repair) => {
    const plan = planOf(settings, [documentOf(4)], FINISHER);
    expect(found(plan, 'staple-off-binding')?.repair?.label ?? null).toBe(repair);
  });

  test('sheets that lie face up come out in reverse, unless that is asked for', () => {
    const up = { ...OFFICE, delivers: 'face-up' } as const;
    expect(mended({}, 'comes-out-last-first', 4, up)).toEqual(['note', 'Print the last sheet first', []]);
    for (const [pages, printer] of [
      [4, OFFICE],
      [1, up],
    ] as const)
      expect(found(planOf({}, [documentOf(pages)], printer), 'comes-out-last-first')).toBeUndefined();
  });
});

test('parts go as documents of one job, or as jobs of their own; copies of one part are left to the printer', () => {
  const documents = [documentOf(2), documentOf(2)];
  const wayOf = (settings: Settings, change: Partial<PrinterInput> = {}) => {
    const printer = { ...FINISHER, ...change };
    return chooseWay(
      planOf({ finishings: ['staple-top-left'], ...settings }, documents, printer),
      readPrinter(printer),
    );
  };
  expect(wayOf({ copies: 3 })).toBe('plain');
  expect(wayOf({ copies: 3, finishEach: 'document' })).toBe('part-jobs');
  expect(wayOf({ copies: 3, finishEach: 'document' }, { jobs: { documents: true } })).toBe('part-documents');
  expect(wayOf({ copies: 3, slips: { between: 'sets' } })).toBe('part-jobs');
  expect(wayOf({ finishings: ['punch-dual-left'], copies: 3, slips: { between: 'sets' } })).toBe('plain');
});

describe('what is seen on a side', () => {
  /** Millimetres from the left and lower edge of a side as it is read, of the middle of each mark. */
  const seen = (settings: Settings, which: 'front' | 'back', size = A4) => {
    const plan = stapled({ sides: 'two-sided', ...settings }, 4, FINISHER, size);
    return finishedSide(plan, plan.sheets[0]!, which).map(({ kind, from, to }) => [
      kind,
      Math.round(pointsToMm((from[0] + to[0]) / 2) - 0.1),
      Math.round(pointsToMm((from[1] + to[1]) / 2) - 0.1),
    ]);
  };

  test('a corner is where the set is held, on both sides of a leaf, whichever way the set is read and turned', () => {
    expect(seen({}, 'front')).toEqual([['staple', 10, 287]]);
    expect(seen({}, 'back')).toEqual([['staple', 200, 287]]);
    expect(seen({ bind: 'top' }, 'back')).toEqual([['staple', 10, 10]]);
    expect(seen({}, 'front', turned(A4))).toEqual([['staple', 10, 200]]);
    expect(seen({}, 'back', turned(A4))).toEqual([['staple', 287, 200]]);
    expect(seen({ bind: 'top' }, 'back', turned(A4))).toEqual([['staple', 10, 10]]);
  });

  test('holes are those of ISO 838: 12 mm from the edge, 80 mm apart', () => {
    const holes: Settings = { finishings: ['punch-dual-left'] };
    expect(seen(holes, 'front')).toEqual([
      ['hole', 12, 108],
      ['hole', 12, 188],
    ]);
    expect(seen(holes, 'back').map(([, x]) => x)).toEqual([198, 198]);
    expect(seen(holes, 'front', turned(A4)).map(([, x, y]) => [x, y])).toEqual([
      [12, 145],
      [12, 65],
    ]);
  });

  test('a booklet is stitched and folded in its middle', () => {
    const booklet: Settings = { layout: { kind: 'booklet' }, finishings: ['saddle-stitch', 'fold-half'] };
    const A4_MIDDLE = 148;
    for (const which of ['front', 'back'] as const)
      expect(seen(booklet, which).map(([, x]) => Math.abs((x as number) - A4_MIDDLE) <= 1)).toEqual([true, true, true]);
  });

  test('on what passes the finisher by nothing is seen', () => {
    const plan = stapled({ informationSheet: { print: true } });
    expect(finishedSide(plan, informationSheetOf(plan)!, 'front')).toEqual([]);
  });
});

test('law: parts have every sheet of the job once, in order; those printed again are loose', () => {
  const each = fc.constantFrom('set' as const, 'document' as const, 'section' as const);
  fc.assert(
    fc.property(job, each, fc.boolean(), (given, finishEach, isOthers) => {
      const own = { ...given, copies: 3, collate: true, finishings: ['staple-top-left'], finishEach };
      const { plan: whole, ticket, printer } = planned(own);
      const at = { ticket, documents: given.documents, printer };
      const some = isOthers ? portionPlan(whole, 'other-sets', at) : whole;
      const parts = inParts(some);
      deepStrictEqual(
        parts.flatMap(({ sheets }) => sheets.map(({ index }) => index)),
        [...everySheet(some)].map(({ sheet }) => sheet.index),
      );
      strictEqual(parts.filter(({ isLoose, sheets }) => isLoose && !sheets[0]!.slip).length, 0);
      const starts = whole.finishing!.starts.length;
      strictEqual(parts.filter(({ isLoose }) => !isLoose).length, starts * (isOthers ? 2 : 3));
      strictEqual(portionPlan(whole, [{ sets: [1, 1], sheets: [[1, 1]] }], at).finishing, undefined);
    }),
    RUNS,
  );
});
