import assert from 'node:assert/strict';
import fc from 'fast-check';
import type { Plan } from '../src';
import { job, RUNS } from './any-job';
import { A3, A4, documentOf, OFFICE, planOf, turned, type Settings } from './jobs';

const mm = (value: number): number => (value * 72) / 25.4;
const EXACT = { ...OFFICE, margin: 0 };
const FIT = { mode: 'fit' as const };

type Sheet = Plan['sheets'][number];

const placed = (settings: Settings, size = A4, count = 2, printer = EXACT) =>
  planOf({ tray: 'tray-1', scale: FIT, ...settings }, [documentOf(count, size)], printer).sheets.map(
    ({ front, back }) => ({
      front: front.cells[0]!,
      back: back?.cells[0] ?? null,
    }),
  );

describe('binding margin (model, Pages and pieces)', () => {
  test.each<[Settings['bind'], 'x' | 'y', number, number]>([
    ['left', 'x', mm(20), 0],
    ['right', 'x', 0, mm(20)],
    // y counts from the bottom: bound at the top, a front keeps its upper edge free, a back its lower.
    ['top', 'y', 0, mm(20)],
  ])('bound %s: along that edge of fronts, along the opposite one of backs', (bind, along, front, back) => {
    // A page of the area's shape fills it.
    const size =
      bind === 'top'
        ? { width: A4.width, height: A4.height - mm(20) }
        : { width: A4.width - mm(20), height: A4.height };
    const [sheet] = placed({ bind, sides: 'two-sided', bindingMargin: 20, paper: { size: 'iso_a4_210x297mm' } }, size);
    expect(sheet!.front[along]).toBeCloseTo(front, 2);
    expect(sheet!.back![along]).toBeCloseTo(back, 2);
    expect(sheet!.front.scale).toBeCloseTo(1, 4);
  });

  test('a side that is read the other way is bound at its top on fronts, at its bottom on backs', () => {
    const settings = { sides: 'two-sided' as const, bindingMargin: 20, routes: [{ pages: '3-4', ownSheet: false }] };
    const facts = { name: 'a.pdf', pages: [A4, A4, turned(A4), turned(A4), A4] };
    const { sheets } = planOf({ tray: 'tray-1', scale: FIT, ...settings, routes: [] }, [facts], EXACT);
    const [, landscape] = sheets;
    expect([landscape!.front.orientation, landscape!.sides]).toEqual(['landscape', 'two-sided-long-edge']);
    const top = ({ y, height }: { y: number; height: number }): number => A4.width - y - height;
    // The page is made smaller to fit below its bound edge, and lies in the middle of what is left.
    expect(top(landscape!.front.cells[0]!) - mm(20)).toBeCloseTo(landscape!.front.cells[0]!.y, 2);
    expect(landscape!.back!.cells[0]!.y - mm(20)).toBeCloseTo(top(landscape!.back!.cells[0]!), 2);
  });

  test('it adds to the margin; of both and the printer’s margin the larger counts', () => {
    const x = (settings: Settings, margin: number): number =>
      placed({ paper: { size: 'iso_a4_210x297mm' }, scale: { mode: 'fit-width' }, ...settings }, A3, 1, {
        ...EXACT,
        margin,
      })[0]!.front.x;
    expect(x({ bindingMargin: 10, margin: 5 }, 4)).toBeCloseTo(mm(15), 2);
    expect(x({ bindingMargin: 10 }, 4)).toBeCloseTo(mm(10), 2);
    expect(x({ bindingMargin: 10 }, 12)).toBeCloseTo(mm(12), 2);
  });

  test('auto-fit leaves a page at its size where that fits beside the bound edge, and makes it smaller otherwise', () => {
    const scale = (size: typeof A4): number =>
      placed({ scale: { mode: 'auto-fit' }, bindingMargin: 20, paper: { size: 'iso_a4_210x297mm' } }, size, 1)[0]!.front
        .scale;
    expect(scale({ width: A4.width - mm(20), height: 700 })).toBe(1);
    expect(scale({ width: A4.width - mm(18), height: 700 })).toBeLessThan(1);
  });

  test('a page at its own scale moves inward, and is cut off only where the paper ends', () => {
    const [sheet] = placed({ scale: { mode: 'none' }, sides: 'two-sided', bindingMargin: 20 });
    expect(sheet!.front).toMatchObject({
      scale: 1,
      clip: [0, 0, expect.closeTo(A4.width, 2), expect.closeTo(A4.height, 2)],
    });
    expect([sheet!.front.x, sheet!.back!.x]).toEqual([expect.closeTo(mm(20), 2), expect.closeTo(-mm(20), 2)]);
    const [small] = placed({ scale: { mode: 'percent', percent: 50 }, bindingMargin: 20 }, A4, 1);
    expect(small!.front).toMatchObject({ x: expect.closeTo(A4.width / 4 + mm(20), 2) as number, clip: null });
  });

  test('each half of a booklet ends that much short of the fold', () => {
    const { sheets } = planOf(
      { tray: 'tray-1', layout: { kind: 'booklet' }, scale: { mode: 'fill' }, bindingMargin: 10 },
      [documentOf(4)],
      EXACT,
    );
    const [left, right] = sheets[0]!.front.cells.map(({ clip }) => clip!);
    expect(left![0] + left![2]).toBeCloseTo(A4.height / 2 - mm(10), 2);
    expect(right![0]).toBeCloseTo(A4.height / 2 + mm(10), 2);
  });

  test('one that leaves nothing of the paper is an error that names the repair', () => {
    const settings: Settings = { bindingMargin: 100, margin: 60 };
    expect(() => placed(settings)).toThrow('a binding margin of 100 mm leaves nothing of A4');
    expect(() => placed({ bindingMargin: 100, margin: 50, layout: { kind: 'booklet' } })).toThrow('bindingMargin');
  });

  test('lines at head and foot stay out of it', () => {
    const settings: Settings = {
      bindingMargin: 20,
      sides: 'two-sided',
      lines: [{ at: 'bottom-left', text: '{page}' }],
    };
    const { sheets } = planOf({ tray: 'tray-1', ...settings }, [documentOf(2)], EXACT);
    expect(sheets[0]!.front.texts![0]!.x).toBeCloseTo(mm(20), 2);
    expect(sheets[0]!.back!.texts![0]!.x).toBeCloseTo(0, 2);
  });
});

/** What lies on a side in the frame of the paper, as its front is seen upright: how near it comes to each edge. */
function nearness(sheet: Sheet, isBack: boolean): Record<'left' | 'right' | 'top' | 'bottom', number> {
  const side = isBack ? sheet.back! : sheet.front;
  const { width, height } = sheet.paper;
  const near = { left: Infinity, right: Infinity, top: Infinity, bottom: Infinity };
  for (const { x, y, width: across, height: up } of side.cells) {
    // Landscape lies on the paper a quarter turned anticlockwise (RFC 8011, 5.2.10): its top is the paper's left.
    const [left, bottom, wide, high] =
      side.orientation === 'portrait' ? [x, y, across, up] : [width - y - up, x, up, across];
    const right = width - left - wide;
    const top = height - bottom - high;
    // Seen through the paper: turned on the long edge left and right change places, on the short edge top and bottom.
    const long = sheet.sides === 'two-sided-long-edge';
    const seen = !isBack
      ? { left, right, top, bottom }
      : long
        ? { left: right, right: left, top, bottom }
        : { left, right, top: bottom, bottom: top };
    for (const edge of ['left', 'right', 'top', 'bottom'] as const) near[edge] = Math.min(near[edge], seen[edge]);
  }
  return near;
}

test('law: of all sheets of a job one and the same edge stays free, on both sides', () => {
  fc.assert(
    fc.property(
      job,
      fc.integer({ min: 10, max: 30 }),
      ({ documents, pages, routes, layout, copies: _, ...rest }, bindingMargin) => {
        // Booklets are bound in their fold.
        fc.pre(layout.kind === 'grid' && routes.every((one) => one.layout?.kind !== 'booklet'));
        const entries = documents.map((one, index) => ({ ...one, name: `${index}.pdf` }));
        const settings = { ...rest, layout, routes, bindingMargin, margin: 0, scale: FIT } as unknown as Settings;
        const { sheets } = planOf({ ...settings, pages: pages[0]!.join(',') }, entries.slice(0, 1), EXACT);
        const free = new Set<string>(['left', 'right', 'top', 'bottom']);
        for (const sheet of sheets) {
          for (const isBack of sheet.back ? [false, true] : [false]) {
            const near = nearness(sheet, isBack);
            for (const edge of ['left', 'right', 'top', 'bottom'] as const) {
              if (near[edge] < mm(bindingMargin) - 0.01) free.delete(edge);
            }
          }
        }
        assert.ok(free.size > 0, 'no edge stays free on all sides');
      },
    ),
    RUNS,
  );
});
