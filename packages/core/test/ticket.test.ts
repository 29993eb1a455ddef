import { byPosition, routePages, TicketError } from '../src';
import { readPrinter, readTicket } from '../src/validate';
import { documentOf, documentWith } from './jobs';

const least = { version: 1, documents: [{ file: 'a.pdf' }] };

test('everything but version and documents may be left out (model, Ticket, defaults)', () => {
  expect(readTicket(least)).toEqual({
    version: 1,
    title: '',
    documents: [{ file: 'a.pdf', pages: 'all', numbering: 'position', rotate: 0, part: 'whole', form: {} }],
    pieces: null,
    copies: 1,
    inTurn: false,
    proof: false,
    collate: true,
    delivery: 'first-to-last',
    sides: 'one-sided',
    faces: 'both',
    bind: 'left',
    bindingMargin: 0,
    layout: {
      kind: 'grid',
      pagesPerSide: 1,
      columns: null,
      rows: null,
      flow: 'toright-tobottom',
      repeat: 'none',
      turn: 'upright',
      gutter: 0,
      backs: 'next',
      stack: 'sheets',
      frame: false,
      marks: 'none',
    },
    paper: { size: 'as-page', orientation: 'auto', type: null },
    scale: { mode: 'auto-fit', percent: 100 },
    margin: 0,
    color: 'auto',
    quality: 'normal',
    newSheet: { documents: true, sections: false },
    lines: [],
    slips: { between: 'nothing', tray: null },
    informationSheet: { print: false, by: '', tray: null },
    tray: 'auto',
    finishings: [],
    finishEach: 'set',
    outputBin: 'auto',
    routes: [],
  });
});

test('parts given are completed; what was given is left alone', () => {
  const given = { ...least, layout: { kind: 'booklet' }, scale: { percent: 70 } };
  const read = readTicket(given);
  expect(read.layout).toEqual({ kind: 'booklet', sheetsPerSignature: 0, creep: 0, cover: null, marks: 'none' });
  expect(read.scale).toEqual({ mode: 'auto-fit', percent: 70 });
  expect(given.scale).toEqual({ percent: 70 });
});

test.each<[string, unknown, string]>([
  [
    'an unknown field',
    { ...least, colour: 'auto' },
    'the ticket: unknown field "colour"; remove it or correct its name',
  ],
  ['an unknown field inside', { ...least, scale: { percentage: 3 } }, 'scale: unknown field "percentage"'],
  ['no documents', { version: 1 }, 'the ticket: "documents" is missing; add it'],
  ['an empty list of documents', { version: 1, documents: [] }, 'documents: there are too few; give at least 1'],
  ['another version', { ...least, version: 2 }, 'version: another value is needed; write 1'],
  ['copies 0', { ...least, copies: 0 }, 'copies: out of range; write a number >= 1'],
  ['copies as text', { ...least, copies: '2' }, 'copies: wrong type; write a value of type integer'],
  ['nine rows', { ...least, layout: { kind: 'grid', rows: 9 } }, 'layout.rows: out of range; write a number <= 8'],
  ['a layout of no kind', { ...least, layout: { kind: 'heap' } }, 'layout: "heap" is no known kind'],
  [
    'percent 0',
    { ...least, scale: { mode: 'percent', percent: 0 } },
    'scale.percent: out of range; write a number > 0',
  ],
  [
    'sides of another kind',
    { ...least, sides: 'both' },
    'sides: not one of the possible values; write "one-sided", "two-sided"',
  ],
  ['a route that changes nothing', { ...least, routes: [{ pages: '1' }] }, 'routes[0]: a route must change something'],
  ['a route with a wrong tray', { ...least, routes: [{ pages: '1', tray: 3 }] }, 'routes[0].tray: wrong type'],
  ['no object', 'all', 'the ticket: wrong type'],
  ['nothing', undefined, 'the ticket: wrong type'],
])('%s gives one clear line', (_what, data, message) => {
  expect(() => readTicket(data)).toThrow(TicketError);
  expect(() => readTicket(data)).toThrow(message);
});

test('a printer needs a name and trays with id and size', () => {
  const printer = readPrinter({ name: 'P', trays: [{ id: 'tray-1', size: 'iso_a4_210x297mm' }] });
  expect(printer).toMatchObject({
    duplex: true,
    color: true,
    margin: 0,
    prices: { mono: 0, color: 0 },
    jobs: { overrides: [], documents: false },
  });
  expect(() => readPrinter({ name: 'P', trays: [] })).toThrow('trays: there are too few; give at least 1');
  expect(() => readPrinter({ name: 'P', trays: [{ id: 'tray-1', size: 'A4' }] })).toThrow('trays[0].size');
});

describe('routing pages by hand', () => {
  const facts = [documentOf(14)];
  const page = (number: number) => ({ document: 1, page: number });

  test('pages of like routes are gathered into one, in order', () => {
    let ticket = readTicket({ ...least, tray: 'tray-1' });
    ticket = routePages(ticket, facts, [page(6)], { tray: 'tray-2' });
    ticket = routePages(ticket, facts, [page(1)], { tray: 'tray-2' });
    expect(ticket.routes).toEqual([{ document: 1, pages: '1, 6', tray: 'tray-2' }]);
  });

  test('what else a route says of a page stays with it', () => {
    let ticket = readTicket({ ...least, routes: [{ pages: '1, 6', tray: 'tray-2', sides: 'one-sided' }] });
    ticket = routePages(ticket, facts, [page(6)], { tray: 'tray-3' });
    expect(ticket.routes).toEqual([
      { pages: '1', tray: 'tray-2', sides: 'one-sided' },
      { document: 1, pages: '6', tray: 'tray-3', sides: 'one-sided' },
    ]);
    expect(routePages(ticket, facts, [page(6)], { tray: null, sides: null }).routes).toHaveLength(1);
  });

  test('a rule stays a rule, with the pages left out of it', () => {
    const ticket = readTicket({ ...least, routes: [{ pages: 'last', tray: 'tray-2' }] });
    const routed = routePages(ticket, facts, [page(14)], { tray: 'tray-3' });
    expect(routed.routes.map(({ pages }) => pages)).toEqual(['(last) but 14', '14']);
  });

  test('a route for all documents becomes one for each before it loses a page of one', () => {
    const two = [documentOf(2), documentOf(2)];
    const ticket = readTicket({
      version: 1,
      documents: [{ file: 'a' }, { file: 'b' }],
      routes: [{ pages: '1', tray: 'tray-2' }],
    });
    const routed = routePages(ticket, two, [{ document: 2, page: 1 }], { tray: null });
    expect(routed.routes).toEqual([{ document: 1, pages: '1', tray: 'tray-2' }]);
  });

  test('parts of paper and scale that a change leaves out stay as they were', () => {
    const routes = [{ pages: '1', paper: { type: 'labels' }, scale: { mode: 'percent' as const, percent: 50 } }];
    const ticket = readTicket({ ...least, routes });
    const change = { paper: { size: 'iso_a5_148x210mm' }, scale: { percent: 70 } };
    expect(routePages(ticket, facts, [page(1)], change).routes).toEqual([
      {
        document: 1,
        pages: '1',
        paper: { type: 'labels', size: 'iso_a5_148x210mm' },
        scale: { mode: 'percent', percent: 70 },
      },
    ]);
  });

  test('a document numbered by labels is numbered by position after it, with the same pages', () => {
    const labelled = documentWith(['i', 'ii', '1', '2', '1'].map((label) => ({ label })));
    const ticket = readTicket({
      version: 1,
      documents: [{ file: 'a', pages: 'ii-2', numbering: 'labels' }],
      routes: [
        { pages: '1', tray: 'tray-2' },
        { document: 1, pages: 'ii, ii', tray: 'tray-3' },
      ],
    });
    const routed = routePages(ticket, [labelled], [{ document: 1, page: 5 }], { tray: 'tray-2' });
    expect(routed.documents[0]).toMatchObject({ pages: '2-4', numbering: 'position' });
    expect(routed.routes).toEqual([
      { pages: '3, 5', tray: 'tray-2' },
      { document: 1, pages: '2', tray: 'tray-3' },
    ]);
    expect(byPosition(routed, [labelled], 1)).toBe(routed);
    // A text that cannot be read, and a route for all of several documents, stay as they are.
    const wrong = readTicket({
      ...ticket,
      documents: [
        { file: 'a', pages: 'xx', numbering: 'labels' },
        { file: 'b', pages: '1', numbering: 'labels' },
      ],
    });
    const placed = byPosition(byPosition(wrong, [labelled, labelled], 1), [labelled, labelled], 2);
    expect(placed.documents.map(({ pages }) => pages)).toEqual(['xx', '3']);
    expect(placed.routes.map(({ pages }) => pages)).toEqual(['1', '2']);
  });

  test('a route that cannot be read is left for the planner to name', () => {
    const ticket = readTicket({ ...least, routes: [{ pages: '1,', tray: 'tray-2' }] });
    expect(routePages(ticket, facts, [page(3)], { tray: 'tray-3' }).routes[0]).toEqual({ pages: '1,', tray: 'tray-2' });
  });
});
