import { deepStrictEqual as same, ok as holds } from 'node:assert/strict';
import fc from 'fast-check';
import {
  countMarked,
  deliver,
  firstMissing,
  isMarked,
  marksOfSheets,
  portionPlan,
  sheetsAtFirst,
  type DeliveredSheet,
  type Marks,
  type Plan,
  type Portion,
  type Printer,
  type PrinterInput,
  type Ticket,
} from '../src';
import { readPlan, readPrinter, readTicket } from '../src/validate';
import { job as anyJob, planned, RUNS, type Job } from './any-job';
import { CONTRACT, documentOf, OFFICE, outline, planOf, type Settings } from './jobs';

/** A printer with a duplex unit, or one of the four kinds without (model, Two passes). */
const printer = fc.constantFrom<Partial<Printer>[]>(
  { duplex: true },
  { duplex: true, delivers: 'face-up' },
  ...(['upper', 'lower'] as const).flatMap((printsOn) =>
    (['face-up', 'face-down'] as const).map((delivers) => ({ duplex: false, printsOn, delivers })),
  ),
);

/** What reaches paper of a sheet, and how: its faces as they lie on it, and where the paper comes from. */
const onPaper = ({ sheet: { tray, paper, slip, run }, upper, lower }: DeliveredSheet): string => {
  const faces = [upper, lower]
    .flatMap((face) => (face && face.side.cells.length + (face.side.texts?.length ?? 0) > 0 ? [face] : []))
    .map(({ which, side, turned }) => [which, turned, side]);
  return JSON.stringify([tray, paper, slip || run, faces.sort((one, other) => (one[0]! < other[0]! ? -1 : 1))]);
};

const delivered = (plan: Plan, at: Printer): DeliveredSheet[] => [...deliver(plan, at)];

interface Tried {
  readonly job: Job;
  readonly plan: Plan;
  readonly at: Printer;
  readonly ticket: Ticket;
}

function tried(job: Job, change: Partial<Printer>): Tried {
  const { plan, printer: at, ticket } = planned(job, change);
  return { job, plan, at, ticket };
}

const portionOf = ({ job: { documents }, plan, at, ticket }: Tried, portion: Portion): Plan =>
  portionPlan(plan, portion, { ticket, documents, printer: at });

/** Some of the sheets of a plan, by numbers between 0 and 1. */
const someOf = ({ plan: { sets, sheets } }: Tried, picks: readonly number[]): Marks =>
  marksOfSheets(
    picks.map((pick) => {
      const at = Math.floor(pick * sets * sheets.length);
      return { set: Math.floor(at / sheets.length) + 1, sheet: (at % sheets.length) + 1 };
    }),
  );

const picks = fc.array(fc.double({ min: 0, max: 0.999, noNaN: true }), { minLength: 1, maxLength: 20 });

test('law: sheets printed again are the same sheets: faces, turning and trays, in one pass and in two', () => {
  fc.assert(
    fc.property(anyJob, printer, picks, (any, change, picked) => {
      const whole = tried(any, change);
      const marks = someOf(whole, picked);
      const again = portionOf(whole, marks);
      readPlan(JSON.parse(JSON.stringify(again)));
      const wanted = delivered(whole.plan, whole.at).filter(
        ({ set, sheet }) => !sheet.slip && sheet.index > 0 && isMarked(marks, { set, sheet: sheet.index }),
      );
      const got = delivered(again, whole.at);
      same(got.map(onPaper).sort(), wanted.map(onPaper).sort());
      same(again.tally.sheets, wanted.length);
    }),
    RUNS,
  );
});

test('law: sheets of one set printed again lie in the order of that set', () => {
  fc.assert(
    fc.property(anyJob, printer, picks, (any, change, picked) => {
      const whole = tried({ ...any, copies: 1 }, change);
      const marks = someOf(whole, picked);
      const isBlank = ({ sheet }: DeliveredSheet): boolean =>
        sheet.slip || !isMarked(marks, { set: 1, sheet: sheet.index });
      const wanted = delivered(whole.plan, whole.at).filter((one) => !isBlank(one));
      const got = delivered(portionOf(whole, marks), whole.at).map(onPaper);
      // Without any back a hand-fed stack passes once, and may come out the other way round.
      const isOnce = whole.plan.passes !== null && portionOf(whole, marks).passes === null;
      if (isOnce) got.sort();
      same(got, isOnce ? wanted.map(onPaper).sort() : wanted.map(onPaper));
    }),
    RUNS,
  );
});

test('law: the first set and the others are the whole, once', () => {
  fc.assert(
    fc.property(anyJob, printer, fc.integer({ min: 2, max: 5 }), (any, change, copies) => {
      const whole = tried({ ...any, copies }, change);
      const [first, others] = (['first-set', 'other-sets'] as const).map((which) => portionOf(whole, which));
      const got = [first!, others!].flatMap((plan) => delivered(plan, whole.at));
      same(got.map(onPaper).sort(), delivered(whole.plan, whole.at).map(onPaper).sort());
      for (const what of ['sheets', 'sides', 'blankSides'] as const) {
        same(first!.tally[what] + others!.tally[what], whole.plan.tally[what]);
      }
      holds(Math.abs(first!.tally.cost + others!.tally.cost - whole.plan.tally.cost) < 1e-3);
      for (const plan of [first, others]) readPlan(JSON.parse(JSON.stringify(plan)));
    }),
    RUNS,
  );
});

describe('of the season contract in two sets', () => {
  const documents = [documentOf(14)];
  const plan = planOf(CONTRACT, documents);
  const { pages, ...rest } = CONTRACT;
  const ticket = readTicket({ version: 1, documents: [{ file: 'manual.pdf', pages }], ...rest });
  const of = (portion: Portion): Plan =>
    portionPlan(plan, portion, { ticket, documents, printer: readPrinter(OFFICE) });

  test('the same sheets of both sets are two sets of them', () => {
    const again = of([{ sets: [1, 2], sheets: [[2, 3]] }]);
    expect([again.sets, outline(again)]).toEqual([2, outline(plan).slice(1, 3)]);
    expect(again.tally).toMatchObject({ sheets: 4, sheetsPerSet: 2 });
  });

  test('others of each set are written out, set after set', () => {
    const again = of([
      { sets: [1, 1], sheets: [[7, 8]] },
      { sets: [2, 2], sheets: [[1, 1]] },
    ]);
    expect([again.sets, outline(again)]).toEqual([1, [6, 7, 0].map((at) => outline(plan)[at])]);
    expect(again.sheets.map(({ index }) => index)).toEqual([1, 2, 3]);
  });

  test('where one set is wanted first, that is what is sent first', () => {
    const firstOf = (change: Partial<Ticket>) => sheetsAtFirst(plan, { ...ticket, ...change });
    expect([firstOf({}), firstOf({ proof: true }), firstOf({ proof: true, copies: 1 })]).toEqual([18, 9, 18]);
    const told = planOf({ ...CONTRACT, informationSheet: { print: true } }, documents);
    expect(sheetsAtFirst(told, { ...ticket, proof: true })).toBe(10);
  });

  test('what costs is what is printed', () => {
    const all = of([{ sets: [1, 2], sheets: [[1, 99]] }]);
    expect(all.tally).toEqual({ ...plan.tally, pieces: null, piecesOver: null });
    expect(of('first-set').tally.cost).toBeCloseTo(plan.tally.cost / 2, 6);
  });
});

test('slips between sets come with the others; before what is printed again there is none', () => {
  const settings = { copies: 3, tray: 'tray-1', slips: { between: 'sets', tray: 'tray-3' } } as const;
  const documents = [documentOf(2)];
  const plan = planOf(settings, documents);
  const ticket = readTicket({ version: 1, documents: [{ file: 'manual.pdf' }], ...settings });
  const whole = { ticket, documents, printer: readPrinter(OFFICE) };
  expect(outline(portionPlan(plan, 'other-sets', whole))).toEqual([
    'tray-3: -',
    'tray-1: 1',
    'tray-1: 2',
    'tray-3: -',
    'tray-1: 1',
    'tray-1: 2',
  ]);
  const marks: Marks = [{ sets: [2, 3], sheets: [[2, 2]] }];
  expect(outline(portionPlan(plan, marks, whole))).toEqual(['tray-1: 2']);
  expect(countMarked(marks)).toBe(2);
});

describe('after a jam', () => {
  const documents = [documentOf(4)];
  const missing = (settings: Settings, portion: Portion | null, done: number, at: PrinterInput = OFFICE): string => {
    const found = firstMissing(planOf(settings, documents, at), portion, done);
    return found ? `${found.set}:${found.sheet}` : 'none';
  };

  test.each<[string, Settings, Portion | null, number, string]>([
    ['nothing came out', { copies: 2 }, null, 0, '1:1'],
    ['in the second set', { copies: 2 }, null, 6, '2:3'],
    ['all came out', { copies: 2 }, null, 8, 'none'],
    ['sheet by sheet', { copies: 2, collate: false }, null, 3, '2:2'],
    ['last to first', { copies: 2, delivery: 'last-to-first' }, null, 1, '1:3'],
    ['slips between sets count', { copies: 3, slips: { between: 'sets', tray: 'tray-3' } }, null, 5, '2:1'],
    ['and stand before the other sets', { copies: 3, slips: { between: 'sets', tray: null } }, 'other-sets', 2, '2:2'],
    ['not after the first', { copies: 3, slips: { between: 'sets', tray: null } }, 'first-set', 4, 'none'],
    ['what stands before the job counts', { copies: 2, informationSheet: { print: true } }, 'first-set', 2, '1:2'],
    ['and not with the other sets', { copies: 2, informationSheet: { print: true } }, 'other-sets', 2, '2:3'],
    ['of marked sheets', { copies: 2 }, [{ sets: [1, 2], sheets: [[3, 4]] }], 3, '2:4'],
  ])('%s', (_, settings, portion, done, wanted) => {
    expect(missing({ tray: 'tray-1', ...settings }, portion, done)).toBe(wanted);
  });

  test('their number does not tell where both sides are printed by hand, or sets of other sheets come out backwards', () => {
    const settings: Settings = { tray: 'tray-1', sides: 'two-sided', copies: 2 };
    expect(missing(settings, null, 1, { ...OFFICE, duplex: false })).toBe('none');
    expect(missing({ ...settings, delivery: 'last-to-first' }, [{ sets: [2, 2], sheets: [[1, 1]] }], 0)).toBe('none');
  });
});
