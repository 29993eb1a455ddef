import fc from 'fast-check';
import { arrangeDocuments, plan, printTwice, routeCatches, type Route, type TicketInput } from '../src';
import { readPrinter, readTicket } from '../src/validate';
import { documentOf, OFFICE } from './jobs';

/** Documents in another order with their routes, and what routes catch and take from each other. */

const DOCUMENTS = [
  documentOf(3, undefined, 'a.pdf'),
  documentOf(5, undefined, 'b.pdf'),
  documentOf(2, undefined, 'c.pdf'),
];

const ticketOf = (settings: Partial<TicketInput> = {}) =>
  readTicket({ version: 1, documents: DOCUMENTS.map(({ name }) => ({ file: name })), ...settings });

const ROUTES: Route[] = [
  { document: 1, pages: '1', tray: 'tray-2' },
  { document: 2, pages: '4-5', tray: 'tray-3' },
  { pages: 'last', sides: 'two-sided' },
];

describe('arrangeDocuments', () => {
  const ticket = ticketOf({ routes: ROUTES });

  test('routes go with their documents', () => {
    const swapped = arrangeDocuments(ticket, [2, 1, 3]);
    expect(swapped.documents.map(({ file }) => file)).toEqual(['b.pdf', 'a.pdf', 'c.pdf']);
    expect(swapped.routes.map(({ document, pages }) => [document, pages])).toEqual([
      [2, '1'],
      [1, '4-5'],
      [undefined, 'last'],
    ]);
  });

  test('one left out takes its routes away, one there twice has them twice', () => {
    expect(arrangeDocuments(ticket, [2, 3]).routes.map(({ document }) => document)).toEqual([1, undefined]);
    expect(arrangeDocuments(ticket, [1, 2, 3, 1]).routes.map(({ document }) => document)).toEqual([1, 4, 2, undefined]);
  });

  test.each([[[]], [[4]], [[0]]])('an order of %j is refused', (order) => {
    expect(() => arrangeDocuments(ticket, order)).toThrow(RangeError);
  });

  test('law: every page keeps its tray, wherever its document goes', () => {
    const printer = readPrinter(OFFICE);
    const traysOf = (order: readonly number[]): string[] => {
      const arranged = arrangeDocuments(ticket, order);
      const documents = order.map((from) => DOCUMENTS[from - 1]!);
      return plan(arranged, documents, printer)
        .sheets.flatMap(({ tray, front, back }) =>
          [...front.cells, ...(back?.cells ?? [])].map(
            ({ document, page }) => `${documents[document - 1]!.name} ${page} ${tray}`,
          ),
        )
        .sort();
    };
    const usual = traysOf([1, 2, 3]);
    fc.assert(
      fc.property(fc.shuffledSubarray([1, 2, 3], { minLength: 3 }), (order) => {
        expect(traysOf(order)).toEqual(usual);
      }),
    );
  });
});

describe('routeCatches', () => {
  const caught = (routes: Route[], settings: Partial<TicketInput> = {}) =>
    routeCatches(ticketOf({ routes, ...settings }), DOCUMENTS);

  test('what each rules, and what an earlier one took from it', () => {
    expect(
      caught([
        { document: 2, pages: '1-3', tray: 'tray-2' },
        { pages: '1', tray: 'tray-3' },
        { document: 2, pages: '1, 3-4', tray: 'tray-1' },
        { document: 3, pages: '1', tray: 'tray-1' },
      ]),
    ).toEqual([
      { rules: 3, taken: [] },
      { rules: 2, taken: [{ by: 0, pages: 1 }] },
      { rules: 1, taken: [{ by: 0, pages: 2 }] },
      { rules: 0, taken: [{ by: 1, pages: 1 }] },
    ]);
  });

  test('only what is printed counts, and each page once', () => {
    const documents = [{ file: 'a.pdf', pages: '2, 2, 3' }, { file: 'b.pdf', pages: '5' }, { file: 'c.pdf' }];
    expect(caught([{ document: 1, pages: '1-2', tray: 'tray-2' }], { documents })).toEqual([{ rules: 1, taken: [] }]);
  });

  test('law: the routes together rule every page that one of them names', () => {
    const selection = fc.constantFrom('1', 'last', 'odd', 'even', '1-2', 'all', '2-');
    fc.assert(
      fc.property(fc.array(selection, { minLength: 1, maxLength: 5 }), (texts) => {
        const ruled = caught(texts.map((pages) => ({ pages, tray: 'tray-2' }))).reduce(
          (sum, { rules }) => sum + rules,
          0,
        );
        const named = DOCUMENTS.flatMap(({ pages }, document) =>
          pages.filter((_, index) => texts.some((text) => names(text, index + 1, DOCUMENTS[document]!.pages.length))),
        );
        expect(ruled).toBe(named.length);
      }),
    );
  });
});

/** Whether a page is among those of a text, worked out without the selection language. */
function names(text: string, page: number, last: number): boolean {
  const rules: Record<string, boolean> = {
    '1': page === 1,
    last: page === last,
    odd: page % 2 === 1,
    even: page % 2 === 0,
    '1-2': page <= 2,
    all: true,
    '2-': page >= 2,
  };
  return rules[text] ?? false;
}

test('a document printed twice: single pages as before in both, all else of the second in a way of its own', () => {
  const ticket = readTicket({
    version: 1,
    documents: [{ file: 'invoice.pdf' }, { file: 'terms.pdf' }],
    routes: [{ document: 1, pages: '1', tray: 'tray-2' }],
  });
  const twice = printTwice(ticket, 1);
  expect(twice.documents.map(({ file }) => file)).toEqual(['invoice.pdf', 'invoice.pdf', 'terms.pdf']);
  // Until it is said what is different, it prints the same again.
  const facts = [documentOf(3), documentOf(3), documentOf(1)];
  const before = plan(twice, facts, readPrinter(OFFICE)).sheets.map(({ tray }) => tray);
  expect(before).toEqual(['tray-2', 'tray-1', 'tray-1', 'tray-2', 'tray-1', 'tray-1', 'tray-1']);
  const yellow = twice.routes.map((route) => (route.pages === 'all' ? { ...route, tray: 'tray-3' } : route));
  const sheets = plan({ ...twice, routes: yellow }, facts, readPrinter(OFFICE)).sheets;
  expect(sheets.map(({ tray }) => tray)).toEqual([
    ...['tray-2', 'tray-1', 'tray-1'],
    ...['tray-2', 'tray-3', 'tray-3'],
    'tray-1',
  ]);
});
