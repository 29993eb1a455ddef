import fc from 'fast-check';
import { plan, profileForTicket, type DocumentFacts, type Plan, type Printer, type Ticket } from '../src';
import { grid as gridSettings } from '../src/settings/grid';
import { readTicket } from '../src/validate';
import { A3, A4, LETTER, turned } from './jobs';

/**
 * The laws are tried on this many jobs each, which finds what a thousand find; `npm run laws` tries twenty times as many.
 * In them node:assert asks, since Jest's matchers cost more than the planning does.
 */
export const RUNS = { numRuns: 250 * Number(process.env['FOGLIO_TIMES'] ?? 1) };

const size = fc.constantFrom(A4, A4, turned(A4), A3, turned(A3), LETTER, { width: 300, height: 300 });
export const facts: fc.Arbitrary<DocumentFacts> = fc
  .array(size, { minLength: 1, maxLength: 24 })
  .map((pages) => ({ name: 'any.pdf', pages }));

const sides = fc.constantFrom('one-sided' as const, 'two-sided' as const);
const tray = fc.constantFrom('auto', 'tray-1', 'tray-2', 'tray-3');

export const FLOWS = gridSettings.flow.enum;

const grid = fc.record({
  kind: fc.constant('grid' as const),
  pagesPerSide: fc.constantFrom(1, 1, 2, 4, 6, 8, 9, 16),
  flow: fc.constantFrom(...FLOWS),
  turn: fc.constantFrom('upright' as const, 'best' as const),
  gutter: fc.integer({ min: 0, max: 8 }),
  frame: fc.boolean(),
  marks: fc.constantFrom('none' as const, 'cut' as const),
});
const givenGrid = fc.record({
  kind: fc.constant('grid' as const),
  columns: fc.integer({ min: 1, max: 4 }),
  rows: fc.integer({ min: 1, max: 4 }),
});
const booklet = fc.record({
  kind: fc.constant('booklet' as const),
  sheetsPerSignature: fc.integer({ min: 0, max: 3 }),
  creep: fc.constantFrom(0, 0.2),
  cover: fc.constantFrom(null, 'tray-3'),
  marks: fc.constantFrom('none' as const, 'fold' as const),
});
const layout = fc.oneof(grid, grid, givenGrid, booklet);

const scale = fc.record({
  mode: fc.constantFrom('auto-fit', 'fit', 'fill', 'none', 'fit-width', 'percent'),
  percent: fc.integer({ min: 10, max: 400 }),
});

const cards = fc
  .record({
    backs: fc.constant('behind' as const),
    stack: fc.constantFrom('sheets' as const, 'cut' as const),
  })
  .chain((behind) => grid.map((one) => ({ ...one, ...behind })));

/** A ticket over one or two documents, with the pages its selections were made from. */
const jobWith = <T extends { readonly kind: 'grid' | 'booklet' }>(layout: fc.Arbitrary<T>) =>
  fc.array(facts, { minLength: 1, maxLength: 2 }).chain((documents) => {
    const pagesOf = (document: DocumentFacts) =>
      fc.array(fc.integer({ min: 1, max: document.pages.length }), { minLength: 1, maxLength: 30 });
    const route = fc.record(
      {
        pages: fc.array(fc.integer({ min: 1, max: 24 }), { minLength: 1, maxLength: 8 }).map((list) => list.join(',')),
        tray,
        sides,
        layout,
        rotate: fc.constantFrom(0, 90, 180, 270),
        ownSheet: fc.boolean(),
      },
      { requiredKeys: ['pages', 'tray'] },
    );
    return fc.record({
      documents: fc.constant(documents),
      pages: fc.tuple(...documents.map(pagesOf)),
      copies: fc.integer({ min: 1, max: 4 }),
      collate: fc.boolean(),
      sides,
      tray,
      layout,
      bind: fc.constantFrom('left' as const, 'right' as const, 'top' as const),
      scale,
      margin: fc.integer({ min: 0, max: 30 }),
      bindingMargin: fc.constantFrom(0, 0, 6),
      newSheet: fc.record({ documents: fc.boolean(), sections: fc.constant(false) }),
      slips: fc.record({
        between: fc.constantFrom('nothing', 'nothing', 'sets', 'documents'),
        tray: fc.constant(null),
      }),
      routes: fc.array(route, { maxLength: 4 }),
    });
  });

export const job = jobWith(layout);

/** The same, of whose pages some are pairs, fronts and backs of pieces. */
export const cardJob = jobWith(fc.oneof(cards, cards, layout));

export type Job = typeof job extends fc.Arbitrary<infer T> ? T : never;

export function ticketOf({ documents, pages, ...rest }: Job): Ticket {
  const entries = documents.map((document, index) => ({ file: document.name, pages: pages[index]?.join(',') }));
  return readTicket({ version: 1, documents: entries, ...rest });
}

/** The job planned against a printer that has all it asks for, changed as given. */
export function planned(any: Job, change: Partial<Printer> = {}): { plan: Plan; printer: Printer; ticket: Ticket } {
  const ticket = ticketOf(any);
  const printer = { ...profileForTicket(ticket, any.documents), ...change };
  return { plan: plan(ticket, any.documents, printer), printer, ticket };
}

/** "document/page" of every page in the order selected. */
export const selected = ({ pages }: Job): string[] =>
  pages.flatMap((list, index) => list.map((page) => `${index + 1}/${page}`));

export const nameOf = ({ document, page }: { document: number; page: number }): string => `${document}/${page}`;
