import { plan, type Plan } from '@foglio/core';
import { readPrinter, readTicket } from '@foglio/core/validate';
import { shownSheets } from '../shown-sheets';
import { columnOf, foldColumns } from './columns';
import {
  documentNames,
  numbersOn,
  passLines,
  runOuts,
  sayBlock,
  sayFace,
  sayMaking,
  saySets,
  saySheet,
} from './lane-words';
import { layOutLanes, PASS_LINE, visibleRange } from './lanes-layout';

const PRINTER = readPrinter({
  name: 'Upper office',
  trays: ['tray-1', 'tray-2', 'tray-3'].map((id) => ({ id, size: 'iso_a4_210x297mm', loaded: 40 })),
});

function planOf(pages: number, settings: object = {}, printer = PRINTER): Plan {
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
    printer,
  );
}

const A4 = { width: 595.276, height: 841.89 };

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
  expect(short.edges.at(-1)).toBeLessThanOrEqual(560.001);
  expect(short.columns).toHaveLength(7);
  const long = layOutLanes(planOf(2000), PRINTER, 520, 560);
  expect(long.columns).toEqual([
    { from: 1, to: 1 },
    { from: 2, to: 999 },
    { from: 1000, to: 1000 },
  ]);
  expect(long.scale * 841.89).toBeGreaterThanOrEqual(52);
});

test('a tray the printer lacks has a lane of its own', () => {
  const { lanes } = layOutLanes(planOf(2, { tray: 'tray-9' }), PRINTER, 520, 560);
  expect(lanes.at(-1)).toMatchObject({ id: 'tray-9', tray: null, place: -1, needed: 1 });
});

test('only the columns in sight, and a few beside them, are drawn', () => {
  const { edges } = layOutLanes(planOf(2000), PRINTER, 520, 560, new Set([2]));
  expect(edges).toHaveLength(1001);
  const [from, to] = visibleRange(edges, edges[500]!, 560);
  expect(from).toBeLessThanOrEqual(500);
  expect(from).toBeGreaterThan(490);
  expect(edges[to]!).toBeGreaterThanOrEqual(edges[500]! + 560);
  expect(to - from).toBeLessThan(30);
  expect(visibleRange(edges, 0, 560)[0]).toBe(0);
  expect(visibleRange(edges, edges.at(-1)!, 560)[1]).toBe(1000);
});

test('a long stretch folds between its first and its last sheet, and no sheet is lost by it', () => {
  const made = planOf(100, { sides: 'one-sided', routes: [{ pages: '40', tray: 'tray-2' }] });
  const columns = foldColumns(made, new Set());
  expect(columns.map(({ from, to }) => (from === to ? from : `${from}-${to}`))).toEqual([
    1,
    '2-38',
    39,
    40,
    41,
    '42-99',
    100,
  ]);
  expect(foldColumns(made, new Set([42])).length).toBe(5 + 59);
  for (const opened of [new Set<number>(), new Set([2]), new Set([2, 42])]) {
    const all = foldColumns(made, opened).flatMap(({ from, to }) =>
      Array.from({ length: to - from + 1 }, (_, index) => from + index),
    );
    expect(all).toEqual(made.sheets.map(({ index }) => index));
  }
  expect([1, 2, 20, 38, 39, 100].map((sheet) => columnOf(columns, sheet))).toEqual([0, 1, 1, 1, 2, 6]);
  expect(sayBlock(made.sheets.slice(1, 38))).toEqual({ sheets: '37 sheets, one side', pages: 'pages 2–38' });
});

test('what stands over the sheets: sets, slips, folding, passes', () => {
  expect(saySets(planOf(4))).toBeNull();
  expect(saySets(planOf(4, { copies: 24 }))).toBe('one set of 24');
  expect(saySets(planOf(4, { copies: 24, collate: false }))).toBe('each sheet 24 times before the next');
  const slips = { copies: 3, slips: { between: 'sets' } };
  expect(saySets(planOf(4, slips))).toBe('one set of 3, a blank slip after each but the last');
  expect(sayMaking(planOf(4))).toBeNull();
  const booklet = { kind: 'booklet' };
  expect(sayMaking(planOf(8, { layout: booklet }))).toBe('folded together in the middle');
  expect(sayMaking(planOf(16, { layout: { ...booklet, sheetsPerSignature: 2 } }))).toBe('folded in 2 signatures');
});

test('two passes: which way each goes, and what becomes of the stack between them', () => {
  expect(passLines(planOf(8))).toBeNull();
  const oneSided = { ...PRINTER, duplex: false, printsOn: 'upper', delivers: 'face-up' } as const;
  const made = planOf(8, {}, oneSided);
  expect(passLines(made)).toEqual({
    front: { said: '1st pass, sheet 1 first', rightward: true },
    back: { said: '2nd pass, the stack turned over, sheet 1 first', rightward: true },
  });
  const faceDown = planOf(8, {}, { ...oneSided, delivers: 'face-down' });
  expect(passLines(faceDown)?.back).toEqual({
    said: '2nd pass, the stack as it lies, sheet 4 first',
    rightward: false,
  });
  const { inPasses, lanes, scale } = layOutLanes(made, oneSided, 300, 4000);
  expect(inPasses).toBe(true);
  expect(2 * 841.89 * scale + 2 * PASS_LINE).toBeLessThan(lanes[0]!.height);
});

test('where a tray runs out, and in which set', () => {
  const made = planOf(30, { copies: 3, sides: 'one-sided' });
  expect([...runOuts(made.checks)]).toEqual([[11, 2]]);
});

test('a sheet in words', () => {
  const { sheets } = planOf(4, ROUTED);
  expect(saySheet(sheets[0]!, { sheets, passes: null }, 'Tray 2')).toBe(
    'Sheet 1 of 3, Tray 2, front page 1, back not printed',
  );
  expect(saySheet(sheets[2]!, { sheets, passes: null }, 'Tray 1')).toBe(
    'Sheet 3 of 3, Tray 1, front page 4, back blank',
  );
});

test('of several documents each side says which it is from', () => {
  const files = ['flyer.pdf', 'letter.pdf', 'flyer.pdf'].map((name) => ({ name, pages: [A4, A4] }));
  const names = documentNames(files);
  expect(names).toEqual(['flyer (1)', 'letter', 'flyer (3)']);
  const four = { kind: 'grid', pagesPerSide: 4 } as const;
  const settings = { tray: 'tray-1', inTurn: true, layout: four };
  const ticket = readTicket({ version: 1, documents: files.map(({ name: file }) => ({ file })), ...settings });
  const [first] = plan(ticket, files, PRINTER).sheets;
  expect(sayFace(first!.front, names)).toBe(
    'page 1 of flyer (1), page 1 of letter, page 1 of flyer (3) and page 2 of flyer (1)',
  );
  expect(numbersOn(first!.front, names)).toBe('1. 1 · 2. 1 · 3. 1 · 1. 2');
  // Of one document the numbers alone are enough.
  expect(documentNames([{ name: 'flyer.pdf' }])).toEqual([]);
  expect([sayFace(first!.front), numbersOn(first!.front)]).toEqual(['pages 1 (3 times) and 2', '1 x3, 2']);
});

test('a sheet with a portrait front and a landscape back has room for both', () => {
  const ticket = readTicket({ version: 1, documents: [{ file: 'a.pdf' }], tray: 'tray-1', sides: 'two-sided' });
  const pages = [
    { width: 595.276, height: 841.89 },
    { width: 841.89, height: 595.276 },
  ];
  const { edges, scale } = layOutLanes(plan(ticket, [{ name: 'a.pdf', pages }], PRINTER), PRINTER, 520, 600);
  expect(edges[1]! / scale).toBeGreaterThan(841.89);
});

test('the information sheet has a column of its own before sheet 1, in its own lane', () => {
  const made = planOf(40, { copies: 2, informationSheet: { print: true, tray: 'tray-3' } });
  const { lanes, columns, edges } = layOutLanes(made, PRINTER, 520, 600);
  expect(columns.slice(0, 2)).toEqual([
    { from: 0, to: 0 },
    { from: 1, to: 1 },
  ]);
  expect(columns.at(-1)).toEqual({ from: 20, to: 20 });
  expect(edges).toHaveLength(columns.length + 1);
  expect(lanes.map(({ needed }) => needed)).toEqual([40, 0, 1]);
  expect(columnOf(columns, 0)).toBe(0);
  const [before] = shownSheets(made);
  expect(saySheet(before!, made, 'Tray 3')).toBe('Information sheet before the job, Tray 3, back blank');
});
