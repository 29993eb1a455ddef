import fc from 'fast-check';
import { deliver, leaf, mmToPoints, type Plan, type TicketInput } from '../src';
import { readPrinter } from '../src/validate';
import { A3, A4, documentOf, OFFICE, planOf } from './jobs';

type Booklet = Partial<Extract<NonNullable<TicketInput['layout']>, { kind: 'booklet' }>>;
type Settings = Omit<TicketInput, 'version' | 'documents'>;

const onA4 = { paper: { size: 'iso_a4_210x297mm' }, tray: 'tray-1' };

const booklet = (pages: number, layout: Booklet = {}, more: Settings = {}): Plan =>
  planOf({ ...onA4, ...more, layout: { kind: 'booklet', ...layout } }, [documentOf(pages)]);

/** Each sheet as "left right / left right", front before back; a blank half is "-". */
function spreads({ sheets }: Plan): string[] {
  return sheets.map(({ front, back, paper }) =>
    [front, back!]
      .map(({ cells }) => {
        const half = (left: boolean): string =>
          String(cells.find(({ x, width }) => x + width / 2 < paper.height / 2 === left)?.page ?? '-');
        return `${half(true)} ${half(false)}`;
      })
      .join(' / '),
  );
}

/**
 * Imposition of a saddle-stitched booklet, two pages a side, as the tables of bookbinding handbooks give it (common
 * practice; typed from memory): outermost sheet first, front / back.
 */
const TABLES: Record<number, string[]> = {
  4: ['4 1 / 2 3'],
  8: ['8 1 / 2 7', '6 3 / 4 5'],
  12: ['12 1 / 2 11', '10 3 / 4 9', '8 5 / 6 7'],
  16: ['16 1 / 2 15', '14 3 / 4 13', '12 5 / 6 11', '10 7 / 8 9'],
  32: [
    '32 1 / 2 31',
    '30 3 / 4 29',
    '28 5 / 6 27',
    '26 7 / 8 25',
    '24 9 / 10 23',
    '22 11 / 12 21',
    '20 13 / 14 19',
    '18 15 / 16 17',
  ],
};

test.each(Object.keys(TABLES).map(Number))('a booklet of %i pages is imposed as in the handbook', (pages) => {
  expect(spreads(booklet(pages))).toEqual(TABLES[pages]);
});

test('law: facing pages of a sheet add up to one more than the pages (the printer’s rule, common practice)', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 40 }), (quarters) => {
      for (const side of spreads(booklet(4 * quarters)).flatMap((sheet) => sheet.split(' / '))) {
        const [left, right] = side.split(' ').map(Number) as [number, number];
        expect(left + right).toBe(4 * quarters + 1);
      }
    }),
    { numRuns: 40 },
  );
});

test('in signatures, each is a booklet of its own, the last one as short as it may be', () => {
  // Handbook table for signatures of two sheets (eight pages): common practice, from memory.
  const plan = booklet(20, { sheetsPerSignature: 2 });
  expect(spreads(plan)).toEqual(['8 1 / 2 7', '6 3 / 4 5', '16 9 / 10 15', '14 11 / 12 13', '20 17 / 18 19']);
  expect(plan.sheets.map(({ signature }) => signature)).toEqual([1, 1, 2, 2, 3]);
});

test('bound right, each pair is swapped; bound top counts as left', () => {
  expect(spreads(booklet(8, {}, { bind: 'right' }))).toEqual(['1 8 / 7 2', '3 6 / 5 4']);
  expect(spreads(booklet(8, {}, { bind: 'top' }))).toEqual(TABLES[8]);
});

test('blanks fill the last sheet, and are told', () => {
  const plan = booklet(6);
  expect(spreads(plan)).toEqual(['- 1 / 2 -', '6 3 / 4 5']);
  expect(plan.checks).toEqual([
    expect.objectContaining({
      code: 'booklet-padded',
      level: 'note',
      message: '2 blank pages added, so that every sheet of the booklet is full.',
      sheets: [1],
    }),
  ]);
  expect(booklet(8).checks).toEqual([]);
  expect(spreads(booklet(1))).toEqual(['- 1 / - -']);
});

test('a booklet is landscape, two-sided and turned on its short edge whatever else is asked', () => {
  const plan = booklet(8, {}, { sides: 'one-sided', paper: { ...onA4.paper, orientation: 'portrait' } });
  for (const { sides, front, back } of plan.sheets) {
    expect([sides, front.orientation, back!.orientation]).toEqual(['two-sided-short-edge', 'landscape', 'landscape']);
  }
  expect(plan.sheets[0]!.front.cells[0]!.scale).toBeCloseTo(Math.SQRT1_2, 2);
});

test('A4 pages at their size on A3: no shrinking', () => {
  const plan = booklet(4, {}, { paper: { size: 'iso_a3_297x420mm' }, tray: 'tray-4' });
  const [left, right] = plan.sheets[0]!.front.cells;
  expect([left!.scale, right!.scale]).toEqual([1, 1]);
  expect(right!.x).toBeCloseTo(A3.height / 2, 1);
  expect(left!.width).toBeCloseTo(A4.width, 3);
});

test('creep moves the pages of inner sheets toward the spine, and cuts off there what would cross it', () => {
  const plan = booklet(16, { creep: 0.3 }, { margin: 10 });
  const still = booklet(16, {}, { margin: 10 });
  plan.sheets.forEach((sheet, index) => {
    const moved = (side: 'front' | 'back'): number[] =>
      sheet[side]!.cells.map(({ x }, cell) => x - still.sheets[index]![side]!.cells[cell]!.x);
    for (const side of ['front', 'back'] as const) {
      expect(moved(side)[0]).toBeCloseTo(mmToPoints(0.3) * index, 6);
      expect(moved(side)[1]).toBeCloseTo(-mmToPoints(0.3) * index, 6);
    }
  });
  const filling = booklet(8, { creep: 1 }, { scale: { mode: 'fill' } }).sheets[1]!.front.cells;
  expect(filling[0]!.clip).toEqual([0, 0, expect.closeTo(A4.height / 2, 2), expect.closeTo(A4.width, 2)]);
});

test('the cover comes from its own tray: the outermost sheet of the first signature, without splitting the booklet', () => {
  const plan = booklet(20, { sheetsPerSignature: 2, cover: 'tray-3' });
  expect(plan.sheets.map(({ tray }) => tray)).toEqual(['tray-3', 'tray-1', 'tray-1', 'tray-1', 'tray-1']);
  expect(plan.checks.map(({ code }) => code)).toEqual([]);
  const chosen = booklet(4, { cover: 'auto' }, { tray: 'tray-2' });
  expect(chosen.sheets[0]!.tray).toBe('tray-1');
});

test('each document is a booklet of its own, unless documents may share sheets', () => {
  const two = [documentOf(4), documentOf(4)];
  const layout = { kind: 'booklet' as const };
  expect(spreads(planOf({ ...onA4, layout }, two))).toEqual(['4 1 / 2 3', '4 1 / 2 3']);
  const shared = planOf({ ...onA4, layout, newSheet: { documents: false } }, two);
  expect(shared.sheets).toHaveLength(2);
  expect(shared.sheets[0]!.front.cells.map(({ document, page }) => `${document}/${page}`)).toEqual(['2/4', '1/1']);
});

test('the pages of a booklet that is folded are read in order, with blanks where they fall', () => {
  const plan = booklet(6, {}, { copies: 2 });
  const pages = [...leaf(deliver(plan, readPrinter(OFFICE)), 'left')];
  const read = pages.map(({ set, half, cells }) => `${set} ${half} ${cells[0]?.page ?? '-'}`);
  expect(read.slice(0, 8)).toEqual([
    '1 right 1',
    '1 left 2',
    '1 right 3',
    '1 left 4',
    '1 right 5',
    '1 left 6',
    '1 right -',
    '1 left -',
  ]);
  expect(read).toHaveLength(16);
});
