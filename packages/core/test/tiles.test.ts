import { ok as holds } from 'node:assert/strict';
import fc from 'fast-check';
import { mmToPoints, visibleBox, type Cell, type Plan } from '../src';
import type { TilesLayout } from '../src/ticket/ticket';
import { facts, planned, RUNS } from './any-job';
import { A3, A4, documentOf, OFFICE, planOf, turned, type Settings } from './jobs';

const tiles = (layout: Partial<TilesLayout> = {}): Settings['layout'] => ({ kind: 'tiles', ...layout });
const cells = ({ sheets }: Plan): Cell[] => sheets.map(({ front }) => front.cells[0]!);
const A2 = { width: 1190.551, height: 1683.78 };

const tiled = (layout: Partial<TilesLayout>, settings: Settings = {}, size = A4, margin = 0) =>
  planOf(
    { tray: 'tray-1', paper: { size: 'iso_a4_210x297mm' }, layout: tiles(layout), ...settings },
    [documentOf(1, size)],
    {
      ...OFFICE,
      margin,
    },
  );

describe('one page over several sheets (model, Pages and pieces, Tiles)', () => {
  test('columns and rows: as large as fits what they make together, in its middle, row by row', () => {
    // ISO 216: A2 is four A4, so without overlap and margin two by two make it at exactly 200 % of A4.
    const made = tiled({ columns: 2, rows: 2, overlap: 0 });
    expect(cells(made).map(({ scale }) => scale)).toEqual(Array(4).fill(expect.closeTo(2, 5)));
    expect(cells(made).map(({ x, y }) => [Math.round(x), Math.round(y)])).toEqual([
      [0, -842],
      [-595, -842],
      [0, 0],
      [-595, 0],
    ]);
    expect(cells(made)[0]!.clip).toEqual([0, 0, A4.width, A4.height].map((one) => expect.closeTo(one, 2) as number));
    expect(made.sheets.every(({ sides, front }) => sides === 'one-sided' && front.cells.length === 1)).toBe(true);
  });

  test('an A2 at its own size on A4 needs four sheets, and with an overlap six', () => {
    expect(tiled({ overlap: 0 }, {}, A2).sheets).toHaveLength(4);
    // Portrait, three across by three down; landscape, 297 + 287 mm hold 420, and 210 + 200 + 200 hold 594.
    expect(tiled({ overlap: 10 }, {}, A2).sheets).toHaveLength(6);
  });

  test('the printer’s margin counts, whatever the scale', () => {
    const [cell] = cells(tiled({ columns: 2, rows: 1, overlap: 10 }, { scale: { mode: 'none' } }, A4, 5));
    expect(cell!.clip![0]).toBeCloseTo(mmToPoints(5), 3);
  });

  test('as wide as one sheet: one column, as many rows as are needed', () => {
    const long = { width: 400, height: 2400 };
    const made = tiled({ overlap: 0 }, { scale: { mode: 'fit-width' } }, long);
    expect(new Set(cells(made).map(({ x }) => x))).toEqual(new Set([0]));
    expect(made.sheets).toHaveLength(5);
  });

  test('auto takes the orientation with the larger scale, or with fewer sides; a tie is portrait', () => {
    const orientation = (made: Plan): string => made.sheets[0]!.front.orientation;
    expect(orientation(tiled({ columns: 2, rows: 1, overlap: 0 }, {}, turned(A3)))).toBe('portrait');
    expect(orientation(tiled({ columns: 1, rows: 1, overlap: 0 }, {}, turned(A4)))).toBe('landscape');
    expect(orientation(tiled({ overlap: 0 }, {}, turned(A4)))).toBe('landscape');
    expect(orientation(tiled({ overlap: 0 }, {}, { width: 500, height: 500 }))).toBe('portrait');
    expect(orientation(tiled({ overlap: 0 }, { paper: { size: 'iso_a4_210x297mm', orientation: 'landscape' } }))).toBe(
      'landscape',
    );
  });

  test('within a point, no row of sides is added for nothing', () => {
    expect(tiled({ overlap: 0 }, {}, { width: A4.width + 0.9, height: A4.height }).sheets).toHaveLength(1);
    expect(tiled({ overlap: 0 }, {}, { width: A4.width + 1.1, height: A4.height }).sheets).toHaveLength(2);
  });

  test('sides that the page does not reach are left out', () => {
    const strip = { width: 100, height: 800 };
    expect(tiled({ columns: 3, rows: 1, overlap: 0 }, {}, strip).sheets).toHaveLength(1);
  });

  test('marks where the next side begins', () => {
    const made = tiled({ columns: 2, rows: 2, overlap: 10, marks: 'join' });
    const [first, second, , last] = made.sheets.map(({ front }) => front.marks ?? []);
    const [across, five] = [A4.width - mmToPoints(10), mmToPoints(5)];
    expect(first!.map((mark) => mark.map((one) => Math.round(one)))).toEqual([
      [across, 0, across, five].map(Math.round),
      [across, A4.height - five, across, A4.height].map(Math.round),
      [0, mmToPoints(10), five, mmToPoints(10)].map(Math.round),
      [A4.width - five, mmToPoints(10), A4.width, mmToPoints(10)].map(Math.round),
    ]);
    expect([second!.length, last!.length]).toEqual([2, 0]);
  });

  test('what cannot be is refused with its place', () => {
    expect(() => tiled({ overlap: 100 }, { margin: 20 })).toThrow(/^layout\.overlap: an overlap of 100 mm is half/);
    expect(() => tiled({}, { scale: { mode: 'fit' } })).toThrow(/^scale\.mode: a page that goes over several sheets/);
    expect(() => tiled({ columns: 2, rows: 2 }, { scale: { mode: 'fill' } })).not.toThrow();
    const routes = [{ pages: '1', layout: { kind: 'tiles' as const }, scale: { mode: 'fill' as const } }];
    expect(() => planOf({ tray: 'tray-1', routes }, [documentOf(1)])).toThrow(/^routes\[0\]\.scale\.mode: /);
    expect(() => tiled({ columns: 2 })).toThrow(/^layout\.rows: columns are given without rows/);
  });

  test('nothing is cut off: the sides together hold the page', () => {
    const whole = { name: 'a.pdf', pages: [{ ...A2, content: [0, 0, A2.width, A2.height] as const }] };
    const made = planOf({ paper: { size: 'iso_a4_210x297mm' }, layout: tiles() }, [whole], { ...OFFICE, margin: 4 });
    expect(made.checks.map(({ code }) => code)).toEqual([]);
  });
});

test('law: joined, the sides hold every point of the page, each where the one before has it', () => {
  const layouts = fc.record({
    columns: fc.constantFrom(null, 1, 2, 3),
    overlap: fc.integer({ min: 0, max: 30 }),
    marks: fc.constantFrom('none' as const, 'join' as const),
  });
  const percents = fc.integer({ min: 20, max: 500 });
  fc.assert(
    fc.property(
      facts,
      layouts,
      percents,
      fc.integer({ min: 0, max: 15 }),
      (document, { columns, ...rest }, percent, margin) => {
        const layout = { kind: 'tiles' as const, columns, rows: columns, ...rest };
        const any = {
          documents: [document],
          pages: [document.pages.map((_, index) => index + 1)],
          routes: [],
          tray: 'tray-1',
          paper: { size: 'iso_a4_210x297mm' },
          scale: { mode: 'percent' as const, percent },
          layout,
        };
        const { plan } = planned(any as never, { margin });
        for (const { page } of cells(plan)) holds(page >= 1 && page <= document.pages.length);
        for (const page of document.pages.keys()) {
          const sides = cells(plan).filter((cell) => cell.page === page + 1);
          holds(sides.length > 0);
          // Each side on the page itself: what of it is seen there, in points of the page as printed.
          const seen = sides.map((cell) => {
            const { x, y, width, height } = visibleBox(cell);
            return { left: x - cell.x, bottom: y - cell.y, right: x - cell.x + width, top: y - cell.y + height };
          });
          const { width, height } = sides[0]!;
          const edges = (from: 'left' | 'bottom', to: 'right' | 'top', end: number): number[] =>
            [
              ...new Set([
                0.01,
                end - 0.01,
                ...seen.flatMap((one) => [one[from] + 0.01, one[to] - 0.01, one[to] + 0.01]),
              ]),
            ].filter((one) => one > 0.6 && one < end - 0.6);
          for (const x of edges('left', 'right', width)) {
            for (const y of edges('bottom', 'top', height)) {
              const isHeld = seen.some(
                ({ left, right, bottom, top }) => x > left && x < right && y > bottom && y < top,
              );
              holds(isHeld, `nothing holds ${x}, ${y} of ${width} x ${height}`);
            }
          }
        }
      },
    ),
    RUNS,
  );
});
