import { deepStrictEqual as same, ok as holds } from 'node:assert/strict';
import fc from 'fast-check';
import { gridDefaults, type Plan } from '../src';
import type { GridLayout } from '../src/ticket/ticket';
import { FLOWS, nameOf, RUNS } from './any-job';
import { A3, documentOf, planOf, type Settings } from './jobs';

const A6 = { width: 297.638, height: 419.528 };
const four = { kind: 'grid' as const, pagesPerSide: 4 as const };

/** The pages of each side in the order of their cells. */
const sidesOf = ({ sheets }: Plan): string[] =>
  sheets.flatMap(({ front, back }) => [front, ...(back ? [back] : [])].map(({ cells }) => cells.map(nameOf).join(' ')));

const laid = (settings: Settings, documents = [documentOf(1, A6)]) =>
  planOf({ tray: 'tray-1', layout: four, ...settings }, documents);

describe('pieces (model, Pages and pieces)', () => {
  test('120 flyers of one page, four a sheet, are thirty sheets', () => {
    const plan = laid({ pieces: { count: 120 } });
    expect(plan.tally).toMatchObject({ sheets: 30, pieces: 120, piecesOver: 0 });
  });

  test('rounds follow until so many lie there, the last one cut short', () => {
    expect(sidesOf(laid({ pieces: { count: 5 } }, [documentOf(3, A6)]))).toEqual(['1/1 1/2 1/3 1/1', '1/2']);
  });

  test('fewer than the pages: the rest is left out', () => {
    expect(sidesOf(laid({ pieces: { count: 2 } }, [documentOf(3, A6)]))).toEqual(['1/1 1/2']);
  });

  test('the last sheet filled, and what is over told for all sets', () => {
    const plan = laid({ pieces: { count: 5, fill: true }, copies: 3 }, [documentOf(3, A6)]);
    expect(sidesOf(plan)).toEqual(['1/1 1/2 1/3 1/1', '1/2 1/3 1/1 1/2']);
    expect(plan.tally).toMatchObject({ pieces: 24, piecesOver: 9 });
  });

  test('two-sided: both sides of the last sheet', () => {
    const plan = laid({ pieces: { count: 1, fill: true }, sides: 'two-sided' });
    expect(sidesOf(plan)).toEqual(['1/1 1/1 1/1 1/1', '1/1 1/1 1/1 1/1']);
    expect(plan.tally).toMatchObject({ pieces: 8, piecesOver: 7 });
  });

  test('filling ends where the next piece would start a run', () => {
    const routes = [{ pages: '2', tray: 'tray-2' }];
    expect(sidesOf(laid({ pieces: { count: 1, fill: true }, routes }, [documentOf(2, A6)]))).toEqual(['1/1']);
  });

  test('two designs in turn, half of each', () => {
    const designs = [documentOf(1, A6), documentOf(1, A6, 'b.pdf')];
    const plan = laid({ pieces: { count: 6 }, inTurn: true, newSheet: { documents: true } }, designs);
    expect(sidesOf(plan)).toEqual(['1/1 2/1 1/1 2/1', '1/1 2/1']);
  });

  test('a pair is one piece', () => {
    const plan = laid({ pieces: { count: 5, fill: true }, layout: { ...four, backs: 'behind' } }, [documentOf(2, A6)]);
    expect(plan.tally).toMatchObject({ sheets: 2, pieces: 8, piecesOver: 3 });
  });

  test('filled sides: each page fills a side, and the count may end inside one', () => {
    const layout = { ...four, repeat: 'fill-side' as const };
    const plan = laid({ pieces: { count: 6 }, layout }, [documentOf(2, A6)]);
    expect(sidesOf(plan)).toEqual(['1/1 1/1 1/1 1/1', '1/2 1/2']);
    expect(plan.tally).toMatchObject({ pieces: 6, piecesOver: 0 });
  });

  test('stacked after the last one is added', () => {
    const layout = { ...four, stack: 'cut' as const };
    expect(sidesOf(laid({ pieces: { count: 5, fill: true }, layout }, [documentOf(8, A6)]))).toEqual([
      '1/1 1/3 1/5 1/7',
      '1/2 1/4 1/6 1/8',
    ]);
  });

  test('numbers in lines count on through all rounds', () => {
    const lines = [{ at: 'bottom-center' as const, text: 'No. {page}' }];
    const { sheets } = laid({ pieces: { count: 6 }, lines });
    const texts = sheets.flatMap(({ front }) => (front.texts ?? []).map(({ text }) => text));
    expect(texts).toEqual(['No. 1', 'No. 2', 'No. 3', 'No. 4', 'No. 5', 'No. 6']);
  });

  test('the commonest size counts all rounds', () => {
    const mixed = { name: 'a.pdf', pages: [A3, A6] };
    const plan = laid({ pieces: { count: 3 }, paper: { size: 'iso_a4_210x297mm' }, layout: { ...four } }, [mixed]);
    expect(plan.sheets).toHaveLength(1);
  });

  test('no pieces, nothing told of them', () => {
    expect(laid({}).tally).toMatchObject({ pieces: null, piecesOver: null });
  });

  test('a booklet, and more pages than can be laid, are refused', () => {
    expect(() => laid({ pieces: { count: 2 }, layout: { kind: 'booklet' } })).toThrow(
      /^pieces: only pages in a grid are cut/,
    );
    const pairs = { ...four, backs: 'behind' as const };
    expect(() => laid({ pieces: { count: 60_000 }, layout: pairs }, [documentOf(2, A6)])).toThrow(
      /^pieces\.count: 60000 pieces lay more than 100000 pages/,
    );
  });
});

test('law: the n-th piece is the n-th page, round after round; with fill, the last sheet is full and no sheet is added', () => {
  const jobs = fc.record({
    pages: fc.integer({ min: 1, max: 7 }),
    count: fc.integer({ min: 1, max: 60 }),
    fill: fc.boolean(),
    sides: fc.constantFrom('one-sided' as const, 'two-sided' as const),
    layout: fc.record({
      columns: fc.integer({ min: 1, max: 4 }),
      rows: fc.integer({ min: 1, max: 4 }),
      flow: fc.constantFrom(...FLOWS),
    }),
  });
  fc.assert(
    fc.property(jobs, ({ pages, count, fill, sides, layout }) => {
      const grid: GridLayout = { ...gridDefaults, ...layout };
      const plan = laid({ pieces: { count, fill }, sides, layout: grid }, [documentOf(pages, A6)]);
      const landed = plan.sheets.flatMap(({ front, back }) => [...front.cells, ...(back?.cells ?? [])]);
      const { pieces, piecesOver } = plan.tally;
      same(landed.length, pieces);
      same((pieces ?? 0) - (piecesOver ?? 0), count);
      same(
        landed.map(({ page }) => page),
        landed.map((_, at) => (at % pages) + 1),
      );
      const onSheet = layout.columns * layout.rows * (sides === 'two-sided' ? 2 : 1);
      same(plan.sheets.length, Math.ceil(count / onSheet));
      holds(fill ? landed.length === plan.sheets.length * onSheet : piecesOver === 0);
    }),
    RUNS,
  );
});
