import { deepStrictEqual as same, ok as holds } from 'node:assert/strict';
import fc from 'fast-check';
import { mmToPoints, visibleBox, wholePage, type Plan, type TicketInput } from '../src';
import { readPrinter, readTicket } from '../src/validate';
import { plan } from '../src';
import { job, planned, RUNS, ticketOf } from './any-job';
import { A3, A4, documentOf, documentWith, OFFICE, turned, type Settings } from './jobs';

type Part = NonNullable<TicketInput['documents'][number]['part']>;

function partly(part: Part, settings: Settings = {}, document = documentOf(1), more: object = {}): Plan {
  const entries = [{ file: 'a.pdf', part, ...more }];
  const ticket = readTicket({ version: 1, documents: entries, tray: 'tray-1', ...settings });
  return plan(ticket, [document], readPrinter(OFFICE));
}
const cells = (made: Plan) => made.sheets.flatMap(({ front, back }) => [...front.cells, ...(back?.cells ?? [])]);
const near = (numbers: readonly number[]) => numbers.map((one) => expect.closeTo(one, 3) as number);
const TABLE = { left: 20, top: 30, width: 105, height: 50 };

describe('part of a page (model, Pages and pieces)', () => {
  test('a rectangle from the upper left corner stands in for the page, on the paper of the whole page', () => {
    const [cell] = cells(partly(TABLE, { scale: { mode: 'fit' } }));
    const source = [mmToPoints(20), A4.height - mmToPoints(80), mmToPoints(105), mmToPoints(50)];
    expect(cell!.source).toEqual(near(source));
    // The part is landscape, and so is the side; 297 mm wide paper less 0 over 105 mm.
    expect([cell!.scale, partly(TABLE).sheets[0]!.front.orientation]).toEqual([
      expect.closeTo(297 / 105, 3),
      'landscape',
    ]);
    expect(partly(TABLE).sheets[0]!.paper.size).toBe('iso_a4_210x297mm');
  });

  test('it is cut to the page; all of the page outside it is an error that names the page', () => {
    const [cell] = cells(partly({ left: 100, top: 0, width: 500, height: 500 }));
    expect(cell!.source).toEqual(near([mmToPoints(100), 0, A4.width - mmToPoints(100), A4.height]));
    expect(() => partly({ left: 250, top: 0, width: 10, height: 10 })).toThrow(
      /^documents\[0\]\.part: nothing of page 1 of document 1/,
    );
    const routes = [{ pages: '1', part: { left: 0, top: 300, width: 10, height: 10 } }];
    expect(() => partly('whole', { routes })).toThrow(/^routes\[0\]\.part: nothing of page 1/);
  });

  test('it is measured on the page as read: after its Rotate entry and the ticket’s', () => {
    const [cell] = cells(partly(TABLE, {}, documentOf(1), { rotate: 90 }));
    expect(cell!.source).toEqual(near([mmToPoints(20), A4.width - mmToPoints(80), mmToPoints(105), mmToPoints(50)]));
  });

  test('a route has a part of its own, and breaks no run', () => {
    const made = partly('whole', { sides: 'two-sided', routes: [{ pages: '2', part: TABLE }] }, documentOf(3));
    expect(made.sheets).toHaveLength(2);
    expect(cells(made).map(({ source }) => source !== null)).toEqual([false, true, false]);
  });

  const content = (...boxes: ([number, number, number, number] | null)[]) =>
    documentWith(boxes.map((box) => ({ content: box })));

  test('trimmed: what holds the content of all its pages, rounded outwards to a point and 3 mm wider', () => {
    const wide = mmToPoints(3);
    const document = content([100.4, 200, 50, 60.2], [90, 300.9, 100, 10], null);
    const expected = [90 - wide, 200 - wide, 100 + 2 * wide, 111 + 2 * wide];
    expect(cells(partly('content', {}, document)).map(({ source }) => source)).toEqual(Array(3).fill(near(expected)));
  });

  test('trimmed to the page’s edge at most; blank pages alone stay whole', () => {
    const [cell] = cells(partly('content', {}, content([1, 2, 500, 800])));
    expect(cell!.source).toEqual(near([0, 0, 501 + mmToPoints(3), 802 + mmToPoints(3)]));
    expect(cells(partly('content', {}, content(null, null))).map(({ source }) => source)).toEqual([null, null]);
  });

  test('pages of another size, and those of a route, are groups of their own', () => {
    const document = documentWith([
      { content: [100, 100, 100, 100] },
      { ...turned(A4), content: [200, 200, 100, 100] },
      { content: [300, 300, 100, 100] },
    ]);
    const made = partly('content', { routes: [{ pages: '3', part: 'content' }] }, document);
    expect(cells(made).map(({ source }) => Math.round(source![0] + mmToPoints(3)))).toEqual([100, 200, 300]);
  });

  test('only chosen pages count, and one that is not looked through yet is an error that says so', () => {
    const document = documentWith([{ content: [100, 100, 100, 100] }, {}]);
    expect(cells(partly('content', {}, document, { pages: '1' }))).toHaveLength(1);
    expect(() => partly('content', {}, document)).toThrow(
      /^documents\[0\]\.part: what is on page 2 of document 1 is not known yet; wait until the pages are looked through/,
    );
  });

  test('what is outside the part is not cut off: it is not printed', () => {
    const document = content([0, 0, A4.width, A4.height]);
    const printer = readPrinter({ ...OFFICE, margin: 5 });
    const codes = (part: Part): string[] => {
      const entries = [{ file: 'a.pdf', part }];
      const ticket = readTicket({
        version: 1,
        documents: entries,
        scale: { mode: 'none' },
        paper: { orientation: 'portrait' },
      });
      return plan(ticket, [document], printer).checks.map(({ code }) => code);
    };
    expect(codes('whole')).toEqual(['outside-printable']);
    expect(codes({ left: 20, top: 20, width: 100, height: 100 })).toEqual([]);
  });

  test('the commonest size of a grid is that of the parts', () => {
    const document = documentWith([A4, A3]);
    const made = partly(
      TABLE,
      { paper: { size: 'iso_a4_210x297mm' }, layout: { kind: 'grid', pagesPerSide: 2 }, scale: { mode: 'fit' } },
      document,
    );
    // Landscape, one above the other: 105 mm high cells over a part of 50.
    expect(cells(made).map(({ scale }) => scale)).toEqual(near([2.1, 2.1]));
  });
});

test('law: a part is placed like a page of its size, and shows exactly its rectangle of the page', () => {
  const parts = fc.record({
    left: fc.integer({ min: 0, max: 60 }),
    top: fc.integer({ min: 0, max: 60 }),
    width: fc.integer({ min: 20, max: 400 }),
    height: fc.integer({ min: 20, max: 400 }),
  });
  fc.assert(
    fc.property(job, parts, (any, part) => {
      fc.pre(any.routes.every((route) => route.rotate === undefined));
      const ticket = ticketOf(any);
      const inPart = { ...ticket, documents: ticket.documents.map((one) => ({ ...one, part })) };
      const { printer } = planned(any);
      const made = plan(inPart, any.documents, printer);
      for (const cell of cells(made)) {
        const page = any.documents[cell.document - 1]!.pages[cell.page - 1]!;
        const [x, y, width, height] = cell.source!;
        holds(x >= 0 && y >= 0 && x + width <= page.width + 1e-6 && y + height <= page.height + 1e-6);
        const sideways = cell.turn % 180 !== 0;
        holds(Math.abs((sideways ? height : width) * cell.scale - cell.width) < 1e-6, 'as wide as its part');
        holds(Math.abs((sideways ? width : height) * cell.scale - cell.height) < 1e-6, 'as high as its part');
        const whole = wholePage(cell, page);
        const seen = visibleBox(cell);
        const within = seen.x >= whole.x - 1e-6 && seen.x + seen.width <= whole.x + whole.width + 1e-6;
        holds(within && seen.y >= whole.y - 1e-6 && seen.y + seen.height <= whole.y + whole.height + 1e-6);
      }
      same(cells(made).length, cells(plan(ticket, any.documents, printer)).length);
    }),
    RUNS,
  );
});
