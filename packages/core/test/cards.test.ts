import { deepStrictEqual as same, ok as holds } from 'node:assert/strict';
import fc from 'fast-check';
import { deliver, type Cell, type Plan } from '../src';
import type { GridLayout } from '../src/ticket/ticket';
import type { Face } from '../src/hand/deliver';
import { cardJob, facts, FLOWS, nameOf, planned, RUNS, selected } from './any-job';
import { A4, documentOf, documentWith, planOf, turned, type Settings } from './jobs';

const cards = (layout: Partial<GridLayout> = {}): Settings['layout'] => ({
  kind: 'grid',
  columns: 2,
  rows: 2,
  backs: 'behind',
  ...layout,
});
const A6 = { width: 297.638, height: 419.528 };

/** Both sides of each sheet, a page or "-" in each cell as one reads: rows from the top, "/" between them, "|" the back. */
function seen({ sheets }: Plan): string[] {
  const rowsOf = (cells: readonly Cell[]): string => {
    const at = (of: 'x' | 'y'): number[] => [...new Set(sheets.flatMap(allCells).map((cell) => Math.round(cell[of])))];
    const [columns, rows] = [at('x').sort((a, b) => a - b), at('y').sort((a, b) => b - a)];
    const one = (x: number, y: number): string => {
      const cell = cells.find((other) => Math.round(other.x) === x && Math.round(other.y) === y);
      return cell ? nameOf(cell).replace(/^1\//, '') : '-';
    };
    return rows.map((y) => columns.map((x) => one(x, y)).join(' ')).join(' / ');
  };
  return sheets.map(({ front, back }) => `${rowsOf(front.cells)}${back ? ` | ${rowsOf(back.cells)}` : ''}`);
}
const allCells = ({ front, back }: Plan['sheets'][number]): Cell[] => [...front.cells, ...(back?.cells ?? [])];

describe('backs behind (model, Pages and pieces)', () => {
  test('pages are pairs; backs lie in the mirrored column where sheets turn on the long edge', () => {
    // Work-and-turn of four cards (common practice): the back is the mirror image of the front, left and right changed.
    expect(seen(planOf({ tray: 'tray-1', layout: cards() }, [documentOf(8, A6)]))).toEqual(['1 3 / 5 7 | 4 2 / 8 6']);
  });

  test('in the mirrored row where they turn on the short one', () => {
    // Work-and-tumble (common practice): above and below change places.
    const plan = planOf({ tray: 'tray-1', bind: 'top', layout: cards() }, [documentOf(8, A6)]);
    expect(plan.sheets[0]?.sides).toBe('two-sided-short-edge');
    expect(seen(plan)).toEqual(['1 3 / 5 7 | 6 8 / 2 4']);
  });

  test('a last page alone has a blank back; one-sided is no hindrance', () => {
    const plan = planOf({ tray: 'tray-1', sides: 'one-sided', layout: cards() }, [documentOf(5, A6)]);
    expect(seen(plan)).toEqual(['1 3 / 5 - | 4 2 / - -']);
    expect(plan.checks.map(({ code }) => code)).not.toContain('blank-back');
  });

  test('fronts of one file, backs of another, in turn; a file at its end leaves blanks', () => {
    const files = [documentOf(3, A6), documentOf(2, A6, 'backs.pdf')];
    const settings = { tray: 'tray-1', inTurn: true, layout: cards() };
    expect(seen(planOf(settings, files))).toEqual(['1 2 / 3 - | 2/2 2/1 / - -']);
    expect(seen(planOf(settings, [files[1]!, documentOf(3, A6)]))).toEqual(['1 2 / - - | 2/2 2/1 / - 2/3']);
  });

  test('in each document for itself: a back is never of the next one', () => {
    const plan = planOf({ tray: 'tray-1', newSheet: { documents: false }, layout: cards() }, [
      documentOf(3, A6),
      documentOf(1, A6, 'b.pdf'),
    ]);
    expect(seen(plan)).toEqual(['1 3 / 2/1 - | - 2 / - -']);
  });

  test('a back lies on its front’s sheet, whatever its own route says, and keeps its own scale', () => {
    const paper = { size: 'iso_a4_210x297mm' };
    const routes = [{ pages: '2', tray: 'tray-2', scale: { mode: 'percent' as const, percent: 50 } }];
    const plan = planOf({ tray: 'tray-1', paper, routes, layout: cards({ columns: 2, rows: 1 }) }, [documentOf(4, A6)]);
    expect(plan.sheets.map(({ tray }) => tray)).toEqual(['tray-1']);
    expect(plan.sheets[0]?.back?.cells.map(({ page, scale }) => [page, scale])).toEqual([
      [2, 0.5],
      [4, 1],
    ]);
  });

  test('a back turns with its front, so that the piece turns as its sheet did', () => {
    const sideways = documentOf(4, turned(A6));
    const layout = cards({ columns: 2, rows: 2, turn: 'best' });
    const [sheet] = planOf({ tray: 'tray-1', paper: { orientation: 'portrait' }, layout }, [sideways]).sheets;
    expect(sheet?.front.cells.map(({ turn }) => turn)).toEqual([270, 270]);
    expect(sheet?.back?.cells.map(({ turn }) => turn)).toEqual([90, 90]);
  });

  test('each side filled with one page: its back fills the side behind it', () => {
    const plan = planOf({ tray: 'tray-1', layout: cards({ repeat: 'fill-side' }) }, [documentOf(4, A6)]);
    expect(seen(plan)).toEqual(['1 1 / 1 1 | 2 2 / 2 2', '3 3 / 3 3 | 4 4 / 4 4']);
  });

  test('one page a side: as two-sided printing, but for pairs that stay together', () => {
    const plan = planOf({ layout: { kind: 'grid', backs: 'behind' }, newSheet: { documents: false } }, [
      documentOf(3),
      documentOf(1, A4, 'b.pdf'),
    ]);
    expect(plan.sheets.map(({ front, back }) => [front.cells.map(nameOf), back?.cells.map(nameOf)])).toEqual([
      [['1/1'], ['1/2']],
      [['1/3'], []],
      [['2/1'], []],
    ]);
  });

  test('lines count the pages as pieces have them', () => {
    const lines = [{ at: 'bottom-center' as const, text: '{page} of {pages}' }];
    const [sheet] = planOf({ tray: 'tray-1', lines, layout: cards() }, [documentOf(3, A6)]).sheets;
    expect(sheet?.front.texts?.map(({ text }) => text)).toEqual(['1 of 3', '3 of 3']);
    expect(sheet?.back?.texts?.map(({ text }) => text)).toEqual(['2 of 3']);
  });
});

describe('cut and stack (model, Pages and pieces)', () => {
  test('a hundred tickets, four a sheet: each pile counts on from the one above it', () => {
    // Common practice: with 25 sheets the first one holds 1, 26, 51 and 76, and the last one 25, 50, 75 and 100.
    const plan = planOf({ tray: 'tray-1', layout: cards({ backs: 'next', stack: 'cut' }) }, [documentOf(100, A6)]);
    const all = seen(plan);
    expect([all.length, all[0], all[24]]).toEqual([25, '1 26 / 51 76', '25 50 / 75 100']);
  });

  test('what is left empty is at the bottom of the last pile', () => {
    const plan = planOf({ tray: 'tray-1', layout: cards({ backs: 'next', stack: 'cut' }) }, [documentOf(7, A6)]);
    expect(seen(plan)).toEqual(['1 3 / 5 7', '2 4 / 6 -']);
  });

  test('with backs behind, pairs are piled', () => {
    const plan = planOf({ tray: 'tray-1', layout: cards({ rows: 1, stack: 'cut' }) }, [documentOf(8, A6)]);
    expect(seen(plan)).toEqual(['1 5 | 6 2', '3 7 | 8 4']);
  });

  test('sheets printed on both sides without backs behind are refused, with the place', () => {
    const layout = cards({ backs: 'next', stack: 'cut' });
    const make = (settings: Settings) => () => planOf({ sides: 'two-sided', ...settings }, [documentOf(4, A6)]);
    expect(make({ layout, tray: 'tray-1' })).toThrow(/^layout\.stack: piles that are cut from sheets printed on both/);
    expect(make({ tray: 'tray-1', routes: [{ pages: '1', layout }] })).toThrow(/^routes\[0\]\.layout\.stack: /);
    expect(make({ tray: 'tray-1', layout: cards({ backs: 'next', stack: 'cut', repeat: 'fill-side' }) })).not.toThrow();
  });
});

/** Where the middle of a cell lies on its piece of paper, seen from the front in the portrait frame. */
function middleOnPaper({ side, turned: upsideDown, which, sheet: { paper } }: Face, cell: Cell): [number, number] {
  const [across, up] = [cell.x + cell.width / 2, cell.y + cell.height / 2];
  // Landscape is portrait turned a quarter anticlockwise (RFC 8011, 5.2.10).
  const [x, y] = side.orientation === 'portrait' ? [across, up] : [paper.width - up, across];
  if (which === 'front') return [x, y];
  return upsideDown ? [x, paper.height - y] : [paper.width - x, y];
}

const printers = fc.record({
  duplex: fc.boolean(),
  printsOn: fc.constantFrom('upper' as const, 'lower' as const),
  delivers: fc.constantFrom('face-up' as const, 'face-down' as const),
});
const layouts = fc.record({
  kind: fc.constant('grid' as const),
  columns: fc.integer({ min: 1, max: 4 }),
  rows: fc.integer({ min: 1, max: 4 }),
  flow: fc.constantFrom(...FLOWS),
  turn: fc.constantFrom('upright' as const, 'best' as const),
  backs: fc.constant('behind' as const),
  stack: fc.constantFrom('sheets' as const, 'cut' as const),
  repeat: fc.constantFrom('none' as const, 'fill-side' as const),
  gutter: fc.integer({ min: 0, max: 4 }),
});

test('law: cut out by hand, each piece has its own back behind its front, on both turning edges and in two passes', () => {
  const jobs = fc.record({
    document: facts,
    layout: layouts,
    bind: fc.constantFrom('left' as const, 'right' as const, 'top' as const),
    bindingMargin: fc.constantFrom(0, 6),
    scale: fc.record({ mode: fc.constantFrom('auto-fit' as const, 'fit' as const, 'fill' as const) }),
    copies: fc.integer({ min: 1, max: 2 }),
  });
  let pieces = 0;
  fc.assert(
    fc.property(jobs, printers, ({ document, ...settings }, change) => {
      const pages = document.pages.map((_, index) => index + 1);
      const any = { documents: [document], pages: [pages], tray: 'tray-1', routes: [], ...settings };
      const { plan, printer } = planned(any as never, change);
      for (const { upper, lower } of deliver(plan, printer)) {
        const front = [upper, lower].find((face) => face?.which === 'front') as Face;
        const back = [upper, lower].find((face) => face?.which === 'back') as Face;
        same(front.side.orientation === 'portrait' || front.side.orientation === 'landscape', true);
        const backs = back.side.cells.map((cell) => ({ page: cell.page, at: middleOnPaper(back, cell) }));
        for (const cell of front.side.cells) {
          pieces += 1;
          const [x, y] = middleOnPaper(front, cell);
          const behind = backs.filter(({ at }) => Math.hypot(at[0] - x, at[1] - y) < 0.01).map(({ page }) => page);
          const own = cell.page === pages.length ? [] : [cell.page + 1];
          // One page a side is laid as large as its own side lets it.
          if (settings.layout.columns * settings.layout.rows === 1)
            same(
              backs.map(({ page }) => page),
              own,
            );
          else same(behind, own);
        }
        holds(backs.length <= front.side.cells.length);
      }
    }),
    RUNS,
  );
  holds(pieces > RUNS.numRuns);
});

test('law: after cutting, with the first pile on top, the pieces lie in the order of the pages', () => {
  const jobs = fc.record({ count: fc.integer({ min: 1, max: 40 }), layout: layouts });
  fc.assert(
    fc.property(jobs, ({ count, layout }) => {
      const { sheets } = planOf({ tray: 'tray-1', layout: { ...layout, stack: 'cut', repeat: 'none' } }, [
        documentOf(count, A6),
      ]);
      const piles = Array.from({ length: layout.columns * layout.rows }, (_, pile) =>
        sheets.flatMap(({ front }) => front.cells[pile]?.page ?? []),
      );
      same(
        piles.flat(),
        Array.from({ length: Math.ceil(count / 2) }, (_, index) => 2 * index + 1),
      );
    }),
    RUNS,
  );
});

test('law: pairs or not, piled or not, in turn or not, every selected page lands exactly as often as selected', () => {
  fc.assert(
    fc.property(cardJob, fc.boolean(), (any, inTurn) => {
      const times = ({ layout }: { layout?: object }): boolean => (layout as GridLayout)?.repeat === 'fill-side';
      fc.pre(!times(any) && !any.routes.some(times));
      const { plan } = planned({ ...any, ...{ inTurn } });
      same(plan.sheets.flatMap(allCells).map(nameOf).sort(), selected(any).sort());
    }),
    RUNS,
  );
});

test('blank sides say nothing of how the set is held', () => {
  const landscape = documentWith([turned(A4), turned(A4), turned(A4)]);
  const plan = planOf({ tray: 'tray-1', bind: 'top', layout: { kind: 'grid', backs: 'behind' } }, [landscape]);
  expect(plan.sheets.map(({ sides }) => sides)).toEqual(['two-sided-long-edge', 'two-sided-long-edge']);
});
