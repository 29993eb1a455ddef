import fc from 'fast-check';
import { plan, profileForTicket, routePages, type DocumentFacts, type Plan, type Ticket } from '../src';
import { readPlan, readTicket } from '../src/validate';
import { A3, A4, LETTER, turned } from './jobs';

const RUNS = { numRuns: 1000 };

const size = fc.constantFrom(A4, turned(A4), A3, turned(A3), LETTER, { width: 300, height: 300 });
const facts: fc.Arbitrary<DocumentFacts> = fc
  .array(size, { minLength: 1, maxLength: 24 })
  .map((pages) => ({ name: 'any.pdf', pages }));
const sides = fc.constantFrom('one-sided' as const, 'two-sided' as const);
const tray = fc.constantFrom('auto', 'tray-1', 'tray-2', 'tray-3');

/** A ticket over a document, with the pages its selections were made from. */
const job = facts.chain((document) => {
  const page = fc.integer({ min: 1, max: document.pages.length });
  const pages = fc.array(page, { minLength: 1, maxLength: 40 });
  const route = fc.record({ pages: pages.map((list) => list.join(',')), tray, sides, ownSheet: fc.boolean() });
  return fc.record({
    document: fc.constant(document),
    pages,
    copies: fc.integer({ min: 1, max: 50 }),
    sides,
    tray,
    bind: fc.constantFrom('left' as const, 'right' as const, 'top' as const),
    scale: fc.record({
      mode: fc.constantFrom('auto-fit', 'fit', 'fill', 'none', 'fit-width', 'percent'),
      percent: fc.integer({ min: 10, max: 400 }),
    }),
    margin: fc.integer({ min: 0, max: 30 }),
    routes: fc.array(route, { maxLength: 4 }),
  });
});

type Job = typeof job extends fc.Arbitrary<infer T> ? T : never;

function ticketOf({ document, pages, ...rest }: Job): Ticket {
  return readTicket({ version: 1, documents: [{ file: document.name, pages: pages.join(',') }], ...rest });
}

function planned(any: Job): Plan {
  const ticket = ticketOf(any);
  return plan(ticket, [any.document], profileForTicket(ticket, [any.document]));
}

/** The pages in the order a person reads them who leafs through one set: each sheet's front, then its back. */
const leafed = ({ sheets }: Plan): number[] =>
  sheets.flatMap(({ front, back }) => [...front.cells, ...(back?.cells ?? [])].map(({ page }) => page));

test('law: every selected page lands exactly as often as selected, in the order selected', () => {
  fc.assert(
    fc.property(job, (any) => {
      expect(leafed(planned(any))).toEqual(any.pages);
    }),
    RUNS,
  );
});

test('law: no page leaves its side, unless the scale mode allows it; then it is clipped', () => {
  fc.assert(
    fc.property(job, (any) => {
      for (const { paper, front, back } of planned(any).sheets) {
        for (const side of back ? [front, back] : [front]) {
          const [width, height] =
            side.orientation === 'portrait' ? [paper.width, paper.height] : [paper.height, paper.width];
          for (const { x, y, width: w, height: h, clip } of side.cells) {
            const [left, bottom, right, top] = clip
              ? [clip[0], clip[1], clip[0] + clip[2], clip[1] + clip[3]]
              : [x, y, x + w, y + h];
            expect(Math.min(left, bottom)).toBeGreaterThan(-1e-6);
            expect(right).toBeLessThan(width + 1e-6);
            expect(top).toBeLessThan(height + 1e-6);
          }
        }
      }
    }),
    RUNS,
  );
});

test('law: a sheet is of one run, one tray, one paper; a one-sided sheet has no back', () => {
  fc.assert(
    fc.property(job, (any) => {
      const made = planned(any);
      expect(readPlan(made)).toEqual(made);
      made.sheets.forEach(({ index, sides: how, back, front }, position) => {
        expect(index).toBe(position + 1);
        expect(front.cells).toHaveLength(1);
        expect(back === null).toBe(how === 'one-sided');
      });
    }),
    RUNS,
  );
});

test('law: a plan does not depend on the copies but in its totals', () => {
  fc.assert(
    fc.property(job, (any) => {
      const one = planned({ ...any, copies: 1 });
      const many = planned(any);
      expect(many.sheets).toEqual(one.sheets);
      expect(many.tally.sheets).toBe(one.tally.sheets * any.copies);
      expect(many.tally.sides).toBe(one.tally.sides * any.copies);
    }),
    RUNS,
  );
});

test('law: a plan against a printer made for the ticket has no stop', () => {
  fc.assert(
    fc.property(job, (any) => {
      // A tray named for pages of two sizes holds the first; that is the one stop there can be.
      const stops = planned(any).checks.filter(({ level, code }) => level === 'stop' && code !== 'tray-wrong-paper');
      expect(stops).toEqual([]);
    }),
    RUNS,
  );
});

test('law: routing pages changes the tray of these pages and of no other, and bringing them back undoes it', () => {
  const traysOf = (ticket: Ticket, document: DocumentFacts): (string | null)[] => {
    const whole = { ...ticket, documents: [{ ...ticket.documents[0]!, pages: 'all' }] };
    const made = plan(whole, [document], profileForTicket(whole, [document]));
    const trays = new Map(
      made.sheets.flatMap((sheet) =>
        [...sheet.front.cells, ...(sheet.back?.cells ?? [])].map((cell) => [cell.page, sheet.tray] as const),
      ),
    );
    return document.pages.map((_, index) => trays.get(index + 1) ?? null);
  };
  const texts = fc.constantFrom('1', 'odd', 'last', 'all', '1-', 'all but last');
  fc.assert(
    fc.property(
      facts,
      fc.array(fc.record({ pages: texts, tray: fc.constantFrom('tray-1', 'tray-2') }), { maxLength: 3 }),
      fc.nat(),
      (document, routes, seed) => {
        const ticket = readTicket({ version: 1, documents: [{ file: 'a' }], tray: 'tray-4', routes });
        const chosen = document.pages.flatMap((_, index) =>
          (seed >> (index % 16)) & 1 ? [{ document: 1, page: index + 1 }] : [],
        );
        const sent = routePages(ticket, [document], chosen, { tray: 'tray-3' });
        const before = traysOf(ticket, document);
        const isChosen = (index: number): boolean => chosen.some(({ page }) => page === index + 1);
        expect(traysOf(sent, document)).toEqual(before.map((one, index) => (isChosen(index) ? 'tray-3' : one)));
        const back = routePages(sent, [document], chosen, { tray: null });
        expect(traysOf(back, document)).toEqual(before.map((one, index) => (isChosen(index) ? 'tray-4' : one)));
        expect(readTicket(back)).toEqual(back);
      },
    ),
    RUNS,
  );
});
