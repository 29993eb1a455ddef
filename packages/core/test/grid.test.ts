import { mmToPoints, type TicketInput } from '../src';
import { FLOWS } from './any-job';
import { A3, A4, documentOf, LETTER, OFFICE, outline, planOf, turned, type Settings } from './jobs';

type Grid = Partial<Extract<NonNullable<TicketInput['layout']>, { kind: 'grid' }>>;

const onA4 = { paper: { size: 'iso_a4_210x297mm' }, tray: 'tray-1' };
/** 4:3, as presentations have it. */
const SLIDE = { width: 720, height: 540 };

const front = (layout: Grid, pages: number, size = A4, more: Settings = {}, margin = 0) =>
  planOf({ ...onA4, ...more, layout: { kind: 'grid', ...layout } }, [documentOf(pages, size)], { ...OFFICE, margin })
    .sheets[0]!.front;

describe('facts of practice (common practice)', () => {
  test('two pages a side come out landscape, four portrait pages portrait, four slides landscape', () => {
    expect(front({ pagesPerSide: 2 }, 2).orientation).toBe('landscape');
    expect(front({ pagesPerSide: 4 }, 4).orientation).toBe('portrait');
    expect(front({ pagesPerSide: 4 }, 4, SLIDE).orientation).toBe('landscape');
  });

  test('two A4 pages on a side of A4 are A5 each: 71 %', () => {
    const [left, right] = front({ pagesPerSide: 2 }, 2, A4, { scale: { mode: 'fit' } }).cells;
    expect(left!.scale).toBeCloseTo(Math.SQRT1_2, 2);
    expect(left!.x).toBeLessThan(right!.x);
  });

  test('eight pages at four a side are two one-sided sheets; six pages less two at two a side are two', () => {
    const eight = planOf({ ...onA4, layout: { kind: 'grid', pagesPerSide: 4 } }, [documentOf(8)]);
    expect(outline(eight)).toEqual(['tray-1: 1 2 3 4', 'tray-1: 5 6 7 8']);
    const six = planOf({ ...onA4, pages: 'all but 2, 5', layout: { kind: 'grid', pagesPerSide: 2 } }, [documentOf(6)]);
    expect(outline(six)).toEqual(['tray-1: 1 3', 'tray-1: 4 6']);
  });
});

/**
 * presentation-direction-number-up (PWG 5100.3): each row of a side of two columns and three rows, from the top, as the
 * standard's drawings show it for six pages; the drawings are from memory.
 */
const DIRECTIONS: Record<(typeof FLOWS)[number], [string, string, string]> = {
  'toright-tobottom': ['12', '34', '56'],
  'toright-totop': ['56', '34', '12'],
  'toleft-tobottom': ['21', '43', '65'],
  'toleft-totop': ['65', '43', '21'],
  'tobottom-toright': ['14', '25', '36'],
  'tobottom-toleft': ['41', '52', '63'],
  'totop-toright': ['36', '25', '14'],
  'totop-toleft': ['63', '52', '41'],
};

test.each(FLOWS)('pages flow %s', (flow) => {
  const { cells } = front({ columns: 2, rows: 3, flow }, 6);
  const rows = [...new Set(cells.map(({ y }) => y))].sort((a, b) => b - a);
  const drawn = rows.map((row) =>
    cells
      .filter(({ y }) => y === row)
      .sort((a, b) => a.x - b.x)
      .map(({ page }) => page)
      .join(''),
  );
  expect(drawn).toEqual(DIRECTIONS[flow]);
});

describe('the grid (model, Geometry)', () => {
  test('columns and rows given are kept as read, in the orientation that gives the larger scale', () => {
    const wide = front({ columns: 4, rows: 1 }, 4);
    expect(wide.orientation).toBe('landscape');
    expect(new Set(wide.cells.map(({ y }) => y)).size).toBe(1);
    expect(front({ columns: 1, rows: 2 }, 2).orientation).toBe('portrait');
    // Given columns and rows rule over pagesPerSide.
    expect(front({ pagesPerSide: 16, columns: 2, rows: 1 }, 4).cells).toHaveLength(2);
  });

  test('a fixed orientation is kept, and the pages make the best of it', () => {
    const paper = { size: 'iso_a4_210x297mm', orientation: 'portrait' as const };
    const side = front({ pagesPerSide: 2 }, 2, A4, { paper });
    expect(side.orientation).toBe('portrait');
    expect(side.cells[0]!.x).toBeCloseTo(side.cells[1]!.x, 6);
    expect(side.cells[0]!.scale).toBeCloseTo(0.5, 3);
  });

  test('the commonest page decides, portrait and landscape counted apart; of as many the first met', () => {
    const mixed = (sizes: (typeof A4)[]) =>
      planOf({ ...onA4, layout: { kind: 'grid', pagesPerSide: 2 } }, [{ name: 'm.pdf', pages: sizes }]).sheets[0]!;
    expect(mixed([A4, turned(A4), A4]).front.orientation).toBe('landscape');
    expect(mixed([A4, turned(A4), turned(A4)]).front.orientation).toBe('portrait');
    expect(mixed([turned(A4), A4]).front.orientation).toBe('portrait');
  });

  test('equal scales: portrait before landscape, then fewer columns', () => {
    // A square page on square paper: every division is as good turned either way.
    const square = { width: 300, height: 300 };
    const four = planOf({ layout: { kind: 'grid', pagesPerSide: 2 } }, [documentOf(2, square)]).sheets[0]!.front;
    expect(four.orientation).toBe('portrait');
    expect(four.cells[0]!.x).toBe(four.cells[1]!.x);
  });

  test('turn best turns pages a quarter anticlockwise where they come out larger so', () => {
    const upright = front({ columns: 1, rows: 2, turn: 'upright' }, 2, A4, {
      paper: { size: 'iso_a4_210x297mm', orientation: 'portrait' },
    });
    const best = front({ columns: 1, rows: 2, turn: 'best' }, 2, A4, {
      paper: { size: 'iso_a4_210x297mm', orientation: 'portrait' },
    });
    expect(upright.cells[0]!.turn).toBe(0);
    expect(best.cells[0]!).toMatchObject({ turn: 270 });
    expect(best.cells[0]!.scale).toBeCloseTo(Math.SQRT1_2, 2);
    expect(best.cells[0]!.width).toBeGreaterThan(best.cells[0]!.height);
    // Each page of a run is turned for itself.
    const both = planOf({ ...onA4, layout: { kind: 'grid', columns: 1, rows: 2, turn: 'best' } }, [
      { name: 'm.pdf', pages: [A4, turned(A4)] },
    ]).sheets[0]!.front.cells.map(({ turn }) => turn);
    expect(new Set(both)).toEqual(new Set([0, 270]));
  });

  test('a gutter keeps cells apart, a margin keeps them inside; the run’s first page sets the margin', () => {
    const { cells, orientation } = front({ pagesPerSide: 2, gutter: 10 }, 2, A4, {
      margin: 20,
      scale: { mode: 'fill' },
    });
    expect(orientation).toBe('landscape');
    const [left, right] = cells.map(({ clip }) => clip!);
    expect(left![0]).toBeCloseTo(mmToPoints(20), 6);
    expect(right![0] - (left![0] + left![2])).toBeCloseTo(mmToPoints(10), 6);
    expect(right![0] + right![2]).toBeCloseTo(mmToPoints(297 - 20), 6);
    const routes = [{ pages: '2', margin: 40 }];
    const second = front({ pagesPerSide: 2 }, 2, A4, { routes, scale: { mode: 'fill' } }).cells[1]!;
    expect(second.clip![1]).toBeCloseTo(0, 6);
  });

  test('the printer’s margin counts on a grid', () => {
    const { cells } = front({ pagesPerSide: 4 }, 4, A4, { scale: { mode: 'fill' } }, 5);
    expect(Math.min(...cells.map(({ clip }) => clip![0]))).toBeCloseTo(mmToPoints(5), 6);
  });

  test('auto-fit leaves small pages at their size in the middle of their cells', () => {
    const card = { width: 200, height: 100 };
    const [cell] = front({ columns: 2, rows: 4 }, 1, card).cells;
    expect(cell).toMatchObject({ scale: 1, width: 200, height: 100, clip: null });
    const cellWidth = (cell!.x + cell!.width / 2) * 2;
    expect([A4.width / 2, A4.height / 2].some((half) => Math.abs(half - cellWidth) < 0.01)).toBe(true);
  });

  test('a gutter that leaves nothing for the pages is an error with its place', () => {
    const wide = { kind: 'grid' as const, columns: 8, rows: 1, gutter: 60 };
    expect(() => planOf({ ...onA4, layout: wide }, [documentOf(8)])).toThrow(
      'layout.gutter: a gutter of 60 mm leaves nothing of A4; write a narrower gutter or fewer pages a side',
    );
    const routes = [{ pages: '1', layout: wide }];
    expect(() => planOf({ ...onA4, routes }, [documentOf(8)])).toThrow('routes[0].layout.gutter: ');
    // One cell has no gutter.
    expect(front({ gutter: 100 }, 1).cells[0]!.scale).toBe(1);
  });

  test('columns without rows are an error, in the ticket and in a route', () => {
    expect(() => planOf({ ...onA4, layout: { kind: 'grid', columns: 2 } }, [documentOf(1)])).toThrow(
      'layout.rows: columns are given without rows; give both or neither',
    );
    const routes = [{ pages: '1', layout: { kind: 'grid' as const, rows: 2 } }];
    expect(() => planOf({ ...onA4, routes }, [documentOf(1)])).toThrow('routes[0].layout.columns: rows are given');
  });

  test('a route’s pagesPerSide given alone takes back the ticket’s columns and rows', () => {
    const layout = { kind: 'grid' as const, columns: 2, rows: 1, gutter: 3 };
    const routes = [{ pages: '1-4', layout: { kind: 'grid' as const, pagesPerSide: 4 as const } }];
    const plan = planOf({ ...onA4, layout, routes }, [documentOf(6)]);
    expect(outline(plan)).toEqual(['tray-1: 1 2 3 4', 'tray-1: 5 6']);
    const [one, two] = plan.sheets[0]!.front.cells;
    expect(two!.x - one!.x).toBeGreaterThan(A4.width / 2);
  });

  test('pages of other sizes share a side of named paper', () => {
    const pages = [A4, A3, LETTER];
    const plan = planOf({ ...onA4, layout: { kind: 'grid', pagesPerSide: 4 } }, [{ name: 'm.pdf', pages }]);
    expect(outline(plan)).toEqual(['tray-1: 1 2 3']);
    const [, a3] = plan.sheets[0]!.front.cells;
    expect(a3!.scale).toBeCloseTo(0.354, 2);
  });
});

describe('repeat, frames and cut marks', () => {
  test('fill-side: each page fills a side with itself', () => {
    const layout = { kind: 'grid' as const, pagesPerSide: 8 as const, repeat: 'fill-side' as const };
    const plan = planOf({ ...onA4, sides: 'two-sided', layout }, [documentOf(2, { width: 241, height: 156 })]);
    expect(outline(plan)).toEqual(['tray-1: 1 1 1 1 1 1 1 1 | 2 2 2 2 2 2 2 2']);
  });

  test('of a page that is cut to its cell, the frame runs round the cell', () => {
    const lines = front({ columns: 2, rows: 1, frame: true }, 2, A3, { scale: { mode: 'none' } }, 5).marks!;
    /** Left, bottom, right and top of the four lines of a frame, to the point. */
    const frameOf = (page: number): number[] => {
      const own = lines.slice(4 * page, 4 * page + 4);
      const [xs, ys] = [own.flatMap(([x1, , x2]) => [x1, x2]), own.flatMap(([, y1, , y2]) => [y1, y2])];
      return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)].map(Math.round);
    };
    const [margin, width, height] = [mmToPoints(5), A4.height, A4.width];
    expect(frameOf(0)).toEqual([margin, margin, width / 2, height - margin].map(Math.round));
    expect(frameOf(1)).toEqual([width / 2, margin, width - margin, height - margin].map(Math.round));
  });

  test('frames run round what is seen of each page, and only where a page is', () => {
    const { marks: lines, cells } = front({ pagesPerSide: 4, frame: true }, 3);
    expect(lines).toHaveLength(12);
    const [{ x, y, width }] = cells as [(typeof cells)[number]];
    expect(lines![0]).toEqual([x, y, x + width, y]);
    expect(front({ pagesPerSide: 4 }, 3)).not.toHaveProperty('marks');
    expect(front({ frame: true }, 1).marks).toHaveLength(4);
  });

  test('between neighbours each has half of the room for its marks', () => {
    const gutter = 8;
    const { marks: lines, cells } = front({ columns: 2, rows: 1, gutter, marks: 'cut', repeat: 'fill-side' }, 1);
    const middle = (cells[0]!.x + cells[0]!.width + cells[1]!.x) / 2;
    const between = lines!.filter(
      ([x1, y1, x2, y2]) =>
        y1 === y2 && Math.min(x1, x2) > cells[0]!.x && Math.max(x1, x2) < cells[1]!.x + cells[1]!.width,
    );
    expect(between).toHaveLength(4);
    for (const [x1, , x2] of between) expect((x1 - middle) * (x2 - middle)).toBeGreaterThanOrEqual(-1e-9);
  });

  test('cut marks stand in line with the edges, off the pages, and inside the paper', () => {
    const card = { width: 241, height: 156 };
    const { marks: lines, cells } = front({ columns: 2, rows: 4, repeat: 'fill-side', marks: 'cut' }, 1, card);
    expect(lines!.length).toBeGreaterThan(16);
    const xs = new Set(cells.flatMap(({ x, width }) => [x, x + width]));
    const ys = new Set(cells.flatMap(({ y, height }) => [y, y + height]));
    for (const [x1, y1, x2, y2] of lines!) {
      expect(x1 === x2 ? xs.has(x1) : ys.has(y1)).toBe(true);
      expect(Math.hypot(x2 - x1, y2 - y1)).toBeLessThanOrEqual(mmToPoints(5) + 1e-6);
      expect(Math.min(x1, y1, x2, y2)).toBeGreaterThanOrEqual(0);
      for (const { x, y, width, height } of cells) {
        const [left, right] = [Math.min(x1, x2), Math.max(x1, x2)];
        const [low, high] = [Math.min(y1, y2), Math.max(y1, y2)];
        const off = right < x || left > x + width || high < y || low > y + height;
        expect(off).toBe(true);
      }
    }
  });

  test('between close cards marks stay lines that can be seen', () => {
    const length = (gutter: number): number => {
      const { marks: lines, cells } = front({ columns: 2, rows: 1, gutter, marks: 'cut', repeat: 'fill-side' }, 1);
      const [left] = cells as [(typeof cells)[number]];
      const inner = lines!.find(([x1, y1, x2, y2]) => y1 === y2 && x1 > left.x + left.width && x2 > x1)!;
      return inner[2] - inner[0];
    };
    expect(length(3)).toBeGreaterThan(mmToPoints(1));
    expect(length(1.2)).toBeGreaterThan(mmToPoints(0.4));
    expect(length(20)).toBeCloseTo(mmToPoints(5), 3);
  });

  test('pages that touch have marks at the outer edge alone', () => {
    const paper = { size: 'iso_a3_297x420mm' };
    const { marks: lines } = front(
      { columns: 2, rows: 1, marks: 'cut' },
      2,
      { width: 300, height: 400 },
      {
        paper,
        tray: 'tray-4',
        margin: 20,
        scale: { mode: 'fill' },
      },
    );
    const side = { width: A3.height, height: A3.width };
    expect(lines!.length).toBe(12);
    for (const [x1, y1, x2, y2] of lines!) {
      const outer = (at: number, extent: number): boolean => at < mmToPoints(20) || at > extent - mmToPoints(20);
      expect(x1 === x2 ? outer(y1, side.height) && outer(y2, side.height) : outer(x1, side.width)).toBe(true);
    }
  });
});

describe('runs of one layout differ where their own settings do', () => {
  const firstCells = (routes: NonNullable<Settings['routes']>) =>
    planOf({ ...onA4, layout: { kind: 'grid', pagesPerSide: 2 }, routes }, [documentOf(4)]).sheets.map(
      ({ front }) => front,
    );

  test('in margin', () => {
    const [narrow, wide] = firstCells([{ pages: '1-2', tray: 'tray-2', margin: 30 }]);
    expect(narrow!.cells[0]!.scale).toBeLessThan(wide!.cells[0]!.scale - 0.05);
  });

  test('in orientation', () => {
    const [upright, wide] = firstCells([{ pages: '1-2', paper: { orientation: 'portrait' } }]);
    expect([upright!.orientation, wide!.orientation]).toEqual(['portrait', 'landscape']);
  });

  test('pages of one run differ in scale, one a side and several', () => {
    const routes = [{ pages: '2', scale: { mode: 'percent' as const, percent: 50 } }];
    const scales = (pagesPerSide: 1 | 2) =>
      planOf({ ...onA4, layout: { kind: 'grid', pagesPerSide }, routes }, [documentOf(4)]).sheets.flatMap(({ front }) =>
        front.cells.map(({ scale }) => Number(scale.toFixed(2))),
      );
    expect(scales(1)).toEqual([1, 0.5, 1, 1]);
    expect(scales(2)).toEqual([0.71, 0.5, 0.71, 0.71]);
  });
});
