import { plan, type Plan } from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { layOutLanes, saySheet, visibleRange } from './lanes-layout';

const PRINTER = readPrinter({
  name: 'Upper office',
  trays: ['tray-1', 'tray-2', 'tray-3'].map((id) => ({ id, size: 'iso_a4_210x297mm', loaded: 40 })),
});

function planOf(pages: number, settings: object = {}): Plan {
  const ticket = readTicket({
    version: 1,
    documents: [{ file: 'a.pdf' }],
    tray: 'tray-1',
    sides: 'two-sided',
    ...settings,
  });
  return plan(
    ticket,
    [{ name: 'a.pdf', pages: Array.from({ length: pages }, () => ({ width: 595.276, height: 841.89 })) }],
    PRINTER,
  );
}

const ROUTED = { copies: 3, routes: [{ pages: '1', tray: 'tray-2', sides: 'one-sided' }] };

test('lanes fill the height there is; a tray that is not used is one thin line', () => {
  const { lanes, height } = layOutLanes(planOf(9, ROUTED), PRINTER, 520, 600);
  expect(height).toBeCloseTo(520, 6);
  expect(lanes.map(({ id, needed }) => [id, needed])).toEqual([
    ['tray-1', 12],
    ['tray-2', 3],
    ['tray-3', 0],
  ]);
  expect(lanes[2]!.height).toBe(36);
  expect(lanes[0]!.height).toBeGreaterThan(lanes[1]!.height);
});

test('slips between sets count for their tray, which has room to say so', () => {
  const settings = { copies: 3, slips: { between: 'sets', tray: 'tray-3' } };
  const { lanes } = layOutLanes(planOf(2, settings), PRINTER, 520, 600);
  expect(lanes.map(({ needed }) => needed)).toEqual([3, 0, 2]);
  expect(lanes[2]!.height).toBeGreaterThan(lanes[1]!.height);
});

test('a short job is seen whole; a long one keeps its sheets large enough to tell apart', () => {
  const short = layOutLanes(planOf(14), PRINTER, 520, 560);
  expect(short.columns.at(-1)).toBeLessThanOrEqual(560.001);
  const long = layOutLanes(planOf(2000), PRINTER, 520, 560);
  expect(long.columns).toHaveLength(1001);
  expect(long.scale * 841.89).toBeGreaterThanOrEqual(52);
});

test('a tray the printer lacks has a lane of its own', () => {
  const { lanes } = layOutLanes(planOf(2, { tray: 'tray-9' }), PRINTER, 520, 560);
  expect(lanes.at(-1)).toMatchObject({ id: 'tray-9', tray: null, place: -1, needed: 1 });
});

test('only the columns in sight, and a few beside them, are drawn', () => {
  const { columns } = layOutLanes(planOf(2000), PRINTER, 520, 560);
  const [from, to] = visibleRange(columns, columns[500]!, 560);
  expect(from).toBeLessThanOrEqual(500);
  expect(from).toBeGreaterThan(490);
  expect(columns[to]!).toBeGreaterThanOrEqual(columns[500]! + 560);
  expect(to - from).toBeLessThan(30);
  expect(visibleRange(columns, 0, 560)[0]).toBe(0);
  expect(visibleRange(columns, columns.at(-1)!, 560)[1]).toBe(1000);
});

test('a sheet in words', () => {
  const { sheets } = planOf(4, ROUTED);
  expect(saySheet(sheets[0]!, 3, 'Tray 2')).toBe('Sheet 1 of 3, Tray 2, front page 1, back not printed');
  expect(saySheet(sheets[2]!, 3, 'Tray 1')).toBe('Sheet 3 of 3, Tray 1, front page 4, back blank');
});
