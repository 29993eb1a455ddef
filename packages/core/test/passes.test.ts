import { asSent, deliver, inTwoPasses, leaf, passPlan, type Plan, type PrinterInput, type TicketInput } from '../src';
import { readPrinter } from '../src/validate';
import { A3, A4, documentOf, OFFICE, outline, planOf, turned, type Settings } from './jobs';

const simplex = (more: Partial<PrinterInput> = {}): PrinterInput => ({ ...OFFICE, duplex: false, ...more });
const ticket: Omit<TicketInput, 'version' | 'documents'> = { tray: 'tray-1', sides: 'two-sided' };

/**
 * The four kinds of printer (model, Two passes): fronts in this order, then the stack as it lies or turned over, then
 * backs in that order; worked out by hand with three numbered sheets of paper.
 */
const KINDS = [
  ['upper', 'face-down', [1, 2, 3], 'as-it-lies', [3, 2, 1]],
  ['upper', 'face-up', [1, 2, 3], 'turn-over', [1, 2, 3]],
  ['lower', 'face-down', [3, 2, 1], 'turn-over', [3, 2, 1]],
  ['lower', 'face-up', [3, 2, 1], 'as-it-lies', [1, 2, 3]],
] as const;

test.each(KINDS)('printing on the %s face, delivered %s', (printsOn, delivers, fronts, handling, backs) => {
  const { passes } = planOf(ticket, [documentOf(6)], simplex({ printsOn, delivers }));
  expect(passes).toEqual([
    { side: 'front', order: fronts },
    { side: 'back', order: backs, handling, turned: [] },
  ]);
});

test('a printer with a duplex unit, or a job without backs, needs none', () => {
  expect(planOf(ticket, [documentOf(6)]).passes).toBeNull();
  expect(planOf({ tray: 'tray-1' }, [documentOf(6)], simplex()).passes).toBeNull();
});

test('backs of sheets that turn on the short edge are sent upside down', () => {
  const plan = planOf({ ...ticket, bind: 'top' }, [documentOf(3)], simplex());
  expect(plan.sheets[0]!.sides).toBe('two-sided-short-edge');
  expect(inTwoPasses(plan)![1].turned).toEqual([1, 2]);
});

test('every sheet passes twice, also where a back is blank or the sheet is one-sided', () => {
  const routes = [{ pages: '1', sides: 'one-sided' as const, tray: 'tray-2' }];
  const plan = planOf({ ...ticket, routes }, [documentOf(4)], simplex());
  expect(outline(plan)).toEqual(['tray-2: 1', 'tray-1: 2 | 3', 'tray-1: 4 | -']);
  expect(plan.passes!.map(({ order }) => order)).toEqual([
    [3, 2, 1],
    [3, 2, 1],
  ]);
  // Six sides at 30 a minute.
  expect(plan.tally.seconds).toBe(12);
});

describe('deliver', () => {
  const faces = (plan: Plan, printer: PrinterInput): string[] =>
    [...deliver(plan, readPrinter(printer))].map(({ sheet, up, upper, lower }) => {
      const say = (face: typeof upper): string => (face ? `${face.which} ${face.sheet.index}` : 'nothing');
      return `${sheet.index} ${up} up: ${say(upper)} over ${say(lower)}`;
    });

  test('face-down, the front lies below; face-up, above', () => {
    const plan = planOf(ticket, [documentOf(3)]);
    expect(faces(plan, OFFICE)).toEqual(['1 back up: back 1 over front 1', '2 back up: back 2 over front 2']);
    expect(faces(plan, { ...OFFICE, delivers: 'face-up' })[0]).toBe('1 front up: front 1 over back 1');
    expect(faces(planOf({ tray: 'tray-1' }, [documentOf(1)]), OFFICE)).toEqual(['1 back up: nothing over front 1']);
  });

  test('in two passes every back meets its own front', () => {
    for (const [printsOn, delivers] of KINDS) {
      const printer = simplex({ printsOn, delivers });
      for (const one of deliver(planOf(ticket, [documentOf(6)], printer), readPrinter(printer))) {
        expect(one.upper!.sheet.index).toBe(one.lower!.sheet.index);
        expect(new Set([one.upper!.which, one.lower!.which])).toEqual(new Set(['front', 'back']));
      }
    }
  });

  test('a wrong order or a stack put in the wrong way would show', () => {
    const printer = simplex();
    const plan = planOf(ticket, [documentOf(6)], printer);
    const [fronts, backs] = inTwoPasses(plan)!;
    const wrongOrder: Plan = { ...plan, passes: [fronts, { ...backs, order: [1, 2, 3] }] };
    const first = [...deliver(wrongOrder, readPrinter(printer))][0]!;
    expect(first.upper!.sheet.index).not.toBe(first.lower!.sheet.index);
    const wrongWay: Plan = { ...plan, passes: [fronts, { ...backs, handling: 'as-it-lies' }] };
    expect([...deliver(wrongWay, readPrinter(printer))].some(({ upper, lower }) => !upper || !lower)).toBe(true);
  });

  test('is lazy: the first sheets of ten thousand sets cost nothing', () => {
    const plan = planOf({ ...ticket, copies: 10_000 }, [documentOf(40)]);
    const [first] = deliver(plan, readPrinter(OFFICE));
    expect(first).toMatchObject({ set: 1, sheet: { index: 1 } });
  });

  test('slips between sets fall between them', () => {
    const plan = planOf({ tray: 'tray-1', copies: 2, slips: { between: 'sets', tray: 'tray-3' } }, [documentOf(1)]);
    const delivered = [...deliver(plan, readPrinter(OFFICE))];
    expect(delivered.map(({ set, sheet }) => `${set} ${sheet.tray}`)).toEqual(['1 tray-1', '1 tray-3', '2 tray-1']);
  });
});

/**
 * RFC 8011, 5.2.8 (sides): long-edge as for binding on the long edge of the medium, short-edge on the short edge; 5.2.10
 * (orientation-requested): landscape is portrait turned 90 degrees anticlockwise.
 */
describe('the turning edge, leafed through (RFC 8011, 5.2.8 and 5.2.10)', () => {
  const read = (pages: (typeof A4)[], bind: 'left' | 'right' | 'top') => {
    const plan = planOf({ ...ticket, bind }, [{ name: 'm.pdf', pages }]);
    const turns = [...leaf(deliver(plan, readPrinter(OFFICE)), bind)].map(({ turn }) => turn);
    return { sides: plan.sheets[0]!.sides, turns };
  };
  const landscape = turned(A4);

  test.each([
    ['portrait', 'left', 'two-sided-long-edge'],
    ['portrait', 'right', 'two-sided-long-edge'],
    ['portrait', 'top', 'two-sided-short-edge'],
    ['landscape', 'left', 'two-sided-short-edge'],
    ['landscape', 'right', 'two-sided-short-edge'],
    ['landscape', 'top', 'two-sided-long-edge'],
  ] as const)('a %s set held %s turns %s, and every page reads upright', (orientation, bind, sides) => {
    const page = orientation === 'portrait' ? A4 : landscape;
    expect(read([page, page], bind)).toEqual({ sides, turns: [0, 0] });
  });

  test('a portrait first page and landscape pages after it, bound left, all turn rightly', () => {
    // Held as most sides are read: landscape. The portrait page is read by turning the set, like no other.
    expect(read([A4, landscape, landscape, landscape], 'left')).toEqual({
      sides: 'two-sided-short-edge',
      turns: [270, 0, 0, 0],
    });
    // Landscape pages in a portrait set: one and the same quarter turn on front and back.
    expect(read([A4, A4, A4, landscape, landscape], 'left').turns).toEqual([0, 0, 0, 90, 90, 90]);
  });

  test('the wrong edge would leave backs upside down', () => {
    const plan = planOf(ticket, [documentOf(2)]);
    const wrong: Plan = { ...plan, sheets: plan.sheets.map((sheet) => ({ ...sheet, sides: 'two-sided-short-edge' })) };
    expect([...leaf(deliver(wrong, readPrinter(OFFICE)), 'left')].map(({ turn }) => turn)).toEqual([0, 180]);
  });
});

test('sheets of two sizes cannot go back into one tray', () => {
  const plan = planOf({ sides: 'two-sided' }, [{ name: 'm.pdf', pages: [A4, A4, A3] }], simplex());
  expect(plan.checks.find(({ code }) => code === 'two-passes-mixed')).toMatchObject({
    level: 'stop',
    message: 'A stack of A4 and A3 cannot go back into one tray for its backs.',
    sheets: [2],
  });
  expect(plan.passes).not.toBeNull();
});

describe('fronts or backs alone (model, Pages and pieces)', () => {
  const alone = (faces: 'fronts' | 'backs', settings: Settings = {}, printer: PrinterInput = OFFICE) =>
    planOf({ ...ticket, faces, ...settings }, [documentOf(5)], printer);

  test('that face of every sheet, one-sided, with a blank where it is missing', () => {
    expect(outline(alone('fronts'))).toEqual(['tray-1: 1', 'tray-1: 3', 'tray-1: 5']);
    expect(outline(alone('backs'))).toEqual(['tray-1: 2', 'tray-1: 4', 'tray-1: -']);
    expect(alone('backs').sheets.map(({ sides, back }) => [sides, back])).toEqual(Array(3).fill(['one-sided', null]));
  });

  test.each(KINDS)(
    'printing on the %s face and delivering %s: in the order and the way of two passes',
    (on, delivers) => {
      const printer = simplex({ printsOn: on, delivers });
      const [front, back] = inTwoPasses(planOf({ ...ticket, bind: 'top' }, [documentOf(5)], printer))!;
      // Any printer, whether it turns paper over or not.
      for (const duplex of [true, false]) {
        expect(alone('fronts', { bind: 'top' }, { ...printer, duplex }).passes).toEqual([front]);
        expect(alone('backs', { bind: 'top' }, { ...printer, duplex }).passes).toEqual([back]);
      }
    },
  );

  test('as sent: in the order of the pass, backs of short-edge sheets upside down', () => {
    const printer = simplex({ printsOn: 'lower' });
    const whole = planOf({ ...ticket, bind: 'top' }, [documentOf(5)], printer);
    for (const [faces, which] of [
      ['fronts', 'front'],
      ['backs', 'back'],
    ] as const) {
      const sent = asSent({ ...alone(faces, { bind: 'top' }, printer), sets: 2 }, readPrinter(printer));
      const expected = passPlan(whole, which, readPrinter(printer).refeedTray);
      expect(sent.sheets.map(({ front, tray }) => [front, tray])).toEqual(
        expected.sheets.map(({ front, tray }) => [front, tray]),
      );
    }
  });

  test('the tally is that of the pass: a pass a sheet, no blank backs', () => {
    expect(alone('fronts').tally).toMatchObject({ sheets: 3, sides: 3, blankSides: 0, seconds: 6 });
    expect(alone('backs').tally).toMatchObject({ sheets: 3, sides: 2, blankSides: 0, seconds: 6 });
  });

  test('backs go in where a stack is put in again, whatever lies there now', () => {
    const printer: PrinterInput = { ...OFFICE, refeedTray: 'tray-4' };
    const plan = alone('backs', { slips: { between: 'sets', tray: null }, copies: 2 }, printer);
    expect(plan.sheets.map(({ tray }) => tray)).toEqual(['tray-4', 'tray-4', 'tray-4']);
    expect(plan.slipBetweenSets?.tray).toBe('tray-4');
    expect(plan.checks.map(({ code }) => code)).toEqual([]);
  });

  test('nothing is said of turning over; stacks of two sizes are stopped for backs alone', () => {
    const heavy = { ...OFFICE, maxDuplexWeight: 60 };
    expect(alone('fronts', {}, heavy).checks).toEqual([]);
    const sizes = [documentOf(2), documentOf(2, A3, 'b.pdf')];
    const codes = (faces: 'fronts' | 'backs'): string[] =>
      planOf({ sides: 'two-sided', faces }, sizes).checks.map(({ code }) => code);
    expect(codes('fronts')).toEqual([]);
    expect(codes('backs')).toEqual(['two-passes-mixed']);
  });

  test('an information sheet goes through with its face', () => {
    const informationSheet = { print: true };
    const fronts = alone('fronts', { informationSheet }).informationSheet!;
    const backs = alone('backs', { informationSheet }).informationSheet!;
    expect([fronts.sides, fronts.back, fronts.front.texts?.length === 0]).toEqual(['one-sided', null, false]);
    expect([backs.sides, backs.back, backs.front]).toEqual(['one-sided', null, { orientation: 'portrait', cells: [] }]);
  });
});
