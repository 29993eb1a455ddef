import type { TicketInput } from '../src';
import { A3, A4, documentOf, OFFICE, planOf, turned } from './jobs';

type Settings = Omit<TicketInput, 'version' | 'documents'>;

const MARGIN = (4.2 * 72) / 25.4;

function cellOf(ticket: Settings, size: { width: number; height: number }, margin = 0) {
  const plan = planOf({ tray: 'tray-1', ...ticket }, [documentOf(1, size)], { ...OFFICE, margin });
  const front = plan.sheets[0]!.front;
  return { ...front.cells[0]!, orientation: front.orientation };
}

const onA4 = { paper: { size: 'iso_a4_210x297mm' } };

describe('one page a side (model, Geometry)', () => {
  test('auto-fit leaves a page at actual size on its own paper, in the middle, whatever the printer keeps free', () => {
    const cell = cellOf({}, A4, 4.2);
    expect(cell.scale).toBe(1);
    expect(cell.x).toBeCloseTo(0, 2);
    expect(cell.y).toBeCloseTo(0, 2);
    // The page is larger than its cell, the printable area, and is clipped to that.
    expect(cell.clip).toEqual([
      MARGIN,
      MARGIN,
      expect.closeTo(A4.width - 2 * MARGIN, 2),
      expect.closeTo(A4.height - 2 * MARGIN, 2),
    ]);
  });

  test('auto-fit makes a larger page fit inside the printable area', () => {
    const cell = cellOf(onA4, A3, 4.2);
    expect(cell.scale).toBeCloseTo((A4.width - 2 * MARGIN) / A3.width, 4);
    expect(cell.clip).toBeNull();
  });

  test("the ticket's own margin counts against actual size", () => {
    expect(cellOf({ margin: 10 }, A4).scale).toBeLessThan(1);
    expect(cellOf({ ...onA4, margin: 10 }, { width: 400, height: 600 }).scale).toBe(1);
  });

  test('of the ticket’s and the printer’s margin the larger counts, not their sum', () => {
    const kept = (10 * 72) / 25.4;
    const narrow = { ...onA4, margin: 10, scale: { mode: 'fit-width' as const } };
    expect(cellOf(narrow, A4, 4.2).x).toBeCloseTo(kept, 3);
    expect(cellOf({ ...narrow, margin: 4.2 }, A4, 10).x).toBeCloseTo(kept, 3);
  });

  test('a page up to 1 pt larger is still printed at actual size', () => {
    expect(cellOf(onA4, { width: 596.2, height: 842.8 }).scale).toBe(1);
    expect(cellOf(onA4, { width: 596.4, height: 842.8 }).scale).toBeLessThan(1);
  });

  test('none and percent: the whole side is the area, larger pages are clipped to it', () => {
    const none = cellOf({ ...onA4, scale: { mode: 'none' } }, A3, 4.2);
    expect(none.scale).toBe(1);
    expect(none.clip).toEqual([0, 0, expect.closeTo(A4.width, 2), expect.closeTo(A4.height, 2)]);
    expect(cellOf({ ...onA4, scale: { mode: 'percent', percent: 50 } }, A3).width).toBeCloseTo(A3.width / 2, 3);
    expect(cellOf({ ...onA4, scale: { mode: 'percent', percent: 90 } }, A3, 4.2).clip).toEqual(none.clip);
  });

  test('fit enlarges, fill covers and is clipped, fit-width stands at the top', () => {
    const small = { width: 200, height: 400 };
    expect(cellOf({ ...onA4, scale: { mode: 'fit' } }, small).scale).toBeCloseTo(A4.height / 400, 3);
    const fill = cellOf({ ...onA4, scale: { mode: 'fill' } }, small);
    expect(fill.scale).toBeCloseTo(A4.width / 200, 3);
    expect(fill.clip).not.toBeNull();
    const wide = cellOf({ ...onA4, scale: { mode: 'fit-width' } }, { width: 400, height: 200 });
    expect(wide.orientation).toBe('landscape');
    expect(wide.y + wide.height).toBeCloseTo(A4.width, 2);
  });

  test('orientation: the page’s own unless fixed; a square is portrait; best turns a quarter where that is larger', () => {
    expect(cellOf(onA4, turned(A4)).orientation).toBe('landscape');
    expect(cellOf(onA4, { width: 300, height: 300 }).orientation).toBe('portrait');
    const fixed = { paper: { size: 'iso_a4_210x297mm', orientation: 'portrait' as const } };
    expect(cellOf(fixed, turned(A4))).toMatchObject({ orientation: 'portrait', turn: 0 });
    const best = cellOf({ ...fixed, layout: { kind: 'grid', turn: 'best' } }, turned(A4));
    expect(best).toMatchObject({ turn: 270, scale: 1 });
    expect(best.width).toBeCloseTo(A4.width, 2);
    // Turning gains nothing here.
    expect(cellOf({ layout: { kind: 'grid', turn: 'best' } }, { width: 300, height: 300 }).turn).toBe(0);
  });

  test('the ticket’s rotate turns the page before all else', () => {
    const plan = planOf({ routes: [{ pages: '1', rotate: 90 }], tray: 'tray-1' }, [documentOf(1)]);
    expect(plan.sheets[0]!.front.orientation).toBe('landscape');
  });

  test('a margin that leaves nothing of the paper is an error that names its place', () => {
    const small = { paper: { size: 'iso_a7_74x105mm' } };
    expect(() => cellOf({ ...small, margin: 37 }, A4)).toThrow('margin: a margin of 37 mm leaves nothing of A7');
    const routes = [{ pages: '1', margin: 40 }];
    expect(() => cellOf({ ...small, routes }, A4)).toThrow('routes[0].margin: a margin of 40 mm leaves nothing');
  });

  test('a printer’s margin larger than a small paper shows as a tiny page, not as a crash', () => {
    const cell = cellOf({ paper: { size: 'iso_a7_74x105mm' } }, A4, 60);
    expect(cell.scale).toBeGreaterThan(0);
    expect(cell.scale).toBeLessThan(0.01);
  });
});
