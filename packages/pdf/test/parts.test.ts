import { mmToPoints, plan, profileForTicket, visibleBox, type Plan, type TicketInput } from '@foglio/core';
import { readTicket } from '@foglio/core/validate';
import { impose, readDetails, readFacts, type PageDetails } from '../src';
import { makePdf, stream } from './make-pdf';
import { qpdfComplaints, render, type Picture } from './poppler';

/** Parts of pages and pages over several sheets, as poppler draws them beside the page itself. */

const DPI = 72;
/** So that every point of the page is a pixel of the picture, also of its part. */
const SIZE = { width: 400, height: 300 };

/** A page on which no two places look alike: bars of growing width, and a frame at its edge. */
function barsPdf(entries = ''): Uint8Array {
  const bars = Array.from(
    { length: 18 },
    (_, index) => `${10 + index * 21} ${12 + index * 7} ${3 + (index % 7) * 2} ${40 + index * 6} re f`,
  );
  return makePdf({
    1: '<< /Type /Catalog /Pages 2 0 R >>',
    2: '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    3: `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 ${SIZE.width} ${SIZE.height}] /Contents 4 0 R ${entries} >>`,
    4: stream(`0 g ${bars.join(' ')} 2 w 1 1 ${SIZE.width - 2} ${SIZE.height - 2} re S`),
  });
}

async function made(source: Uint8Array, entry: object, settings: Omit<TicketInput, 'version' | 'documents'>) {
  const facts = await readFacts(source);
  const details: PageDetails[] = [];
  await readDetails(source, 'all', (page, found) => void (details[page - 1] = found));
  const pages = facts.pages.map((page, index) => ({ ...page, ...details[index] }));
  const documents = [{ name: 'a.pdf', bytes: source, ...facts, pages }];
  const ticket = readTicket({ version: 1, documents: [{ file: 'a.pdf', ...entry }], ...settings });
  const planned = plan(ticket, documents, profileForTicket(ticket, documents));
  const pdf = await impose({ plan: planned, ticket, documents, blanks: 'none' });
  expect(qpdfComplaints(pdf)).toBe('');
  return { planned, pdf };
}

type Box = ReturnType<typeof visibleBox>;

/** A rectangle of a picture, in points from its lower left corner. */
const cut = ({ width, height, pixels }: Picture, { x, y, ...box }: Box): number[][] =>
  Array.from({ length: Math.round(box.height) }, (_, row) => {
    const from = (height - Math.round(y + box.height) + row) * width + Math.round(x);
    return [...pixels.subarray(from, from + Math.round(box.width))];
  });

/** How many pixels of a picture are dark. */
const inkOf = ({ pixels }: Picture): number => pixels.reduce((sum, one) => sum + (one < 128 ? 1 : 0), 0);
const inkIn = (rows: number[][]): number => rows.flat().filter((one) => one < 128).length;

/** At most so many pixels differ, which lie on an edge. */
function expectAlike(found: number[][], expected: number[][]): void {
  expect([found.length, found[0]?.length]).toEqual([expected.length, expected[0]?.length]);
  const differing = found.flatMap((row, at) =>
    row.filter((one, column) => one < 128 !== (expected[at]?.[column] ?? 0) < 128),
  );
  expect(differing.length).toBeLessThan(0.02 * found.length * found[0]!.length);
  expect(inkIn(expected)).toBeGreaterThan(100);
}

/** In whole points, so that pixels lie on pixels. */
const inPoints = (left: number, top: number, width: number, height: number) =>
  Object.fromEntries(
    Object.entries({ left, top, width, height }).map(([name, value]) => [name, value / mmToPoints(1)]),
  );

test.each([
  ['as it lies', 0, SIZE],
  ['turned a quarter by the ticket', 90, { width: SIZE.height, height: SIZE.width }],
])('a part of a page %s is printed exactly, and nothing else', async (_what, rotate, size) => {
  const source = barsPdf();
  const part = inPoints(60, 150, 120, 90);
  const { planned, pdf } = await made(
    source,
    { part, rotate },
    { scale: { mode: 'none' }, paper: { orientation: 'portrait' } },
  );
  const [cell] = planned.sheets[0]!.front.cells;
  const page = render(
    rotate === 0 ? source : (await made(source, { rotate }, { scale: { mode: 'none' } })).pdf,
    1,
    DPI,
  );
  const printed = render(pdf, 1, DPI);
  const shown = { ...visibleBox(cell!) };
  expectAlike(cut(printed, shown), cut(page, { x: 60, y: size.height - 240, width: 120, height: 90 }));
  expect(inkOf(printed)).toBe(
    inkIn(cut(printed, { x: shown.x - 1, y: shown.y - 1, width: shown.width + 2, height: shown.height + 2 })),
  );
});

test('trimmed: the content grows until it fills the paper, and all of it is there', async () => {
  const source = makePdf({
    1: '<< /Type /Catalog /Pages 2 0 R >>',
    2: '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    3: '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 400 300] /Contents 4 0 R >>',
    4: stream('0 g 150 120 80 40 re f'),
  });
  const { planned, pdf } = await made(source, { part: 'content' }, { scale: { mode: 'fit' } });
  const [cell] = planned.sheets[0]!.front.cells;
  const wide = mmToPoints(3);
  expect(cell!.source).toEqual(
    [150 - wide, 120 - wide, 80 + 2 * wide, 40 + 2 * wide].map((one) => expect.closeTo(one, 1) as number),
  );
  expect(cell!.scale).toBeCloseTo(400 / (80 + 2 * wide), 1);
  expect(inkOf(render(pdf, 1, DPI))).toBeCloseTo(80 * 40 * cell!.scale ** 2, -3);
});

/** The sides laid on each other by hand: each where the plan says that the page lies on it. */
function joined(pdf: Uint8Array, { sheets }: Plan): number[][] {
  const [first] = sheets[0]!.front.cells;
  const [width, height] = [Math.round(first!.width), Math.round(first!.height)];
  const rows = Array.from({ length: height }, () => Array<number>(width).fill(255));
  sheets.forEach(({ front }, index) => {
    const [cell] = front.cells;
    const seen = visibleBox(cell!);
    const part = cut(render(pdf, index + 1, DPI), seen);
    part.forEach((line, row) => {
      const down = height - Math.round(seen.y - cell!.y + seen.height) + row;
      const across = Math.round(seen.x - cell!.x);
      line.forEach((one, column) => {
        if (rows[down]?.[across + column] !== undefined && one < 128) rows[down][across + column] = one;
      });
    });
  });
  return rows;
}

test.each([
  ['edge to edge', { overlap: 0 }],
  ['with an overlap', { overlap: 12 }],
  ['by columns and rows', { columns: 3, rows: 2, overlap: 5 }],
])('sides joined %s give the page back', async (_what, layout) => {
  const source = barsPdf();
  const settings = { paper: { size: 'iso_a6_105x148mm' }, scale: { mode: 'percent' as const, percent: 200 } };
  const { planned, pdf } = await made(source, {}, { ...settings, layout: { kind: 'tiles', ...layout }, margin: 5 });
  expect(planned.sheets.length).toBeGreaterThan(3);
  const { scale } = planned.sheets[0]!.front.cells[0]!;
  const page = render(source, 1, DPI * scale);
  const found = joined(pdf, planned);
  const whole = cut(page, { x: 0, y: 0, width: found[0]!.length, height: found.length });
  expectAlike(found, whole);
});
