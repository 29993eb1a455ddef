import { deepStrictEqual as same, ok as holds } from 'node:assert/strict';
import fc from 'fast-check';
import {
  mmToPoints,
  pageRules,
  plan,
  profileForTicket,
  routePages,
  type Cell,
  type DocumentFacts,
  type Plan,
  type Sheet,
  type Side,
  type Ticket,
} from '../src';
import { readPlan, readTicket } from '../src/validate';
import { facts, job, nameOf, planned, RUNS, selected } from './any-job';

const cellsOf = ({ front, back }: Sheet): Cell[] => [...front.cells, ...(back?.cells ?? [])];
const SLACK = 1e-6;

/** Left, bottom, right and top of what can be seen of a cell. */
function seen({ x, y, width, height, clip }: Cell): [number, number, number, number] {
  if (!clip) return [x, y, x + width, y + height];
  const [cx, cy, cw, ch] = clip;
  return [Math.max(x, cx), Math.max(y, cy), Math.min(x + width, cx + cw), Math.min(y + height, cy + ch)];
}

function eachSide({ sheets }: Plan, look: (side: Side, sheet: Sheet, width: number, height: number) => void): void {
  for (const sheet of sheets) {
    for (const side of sheet.back ? [sheet.front, sheet.back] : [sheet.front]) {
      const { width, height } = sheet.paper;
      if (side.orientation === 'portrait') look(side, sheet, width, height);
      else look(side, sheet, height, width);
    }
  }
}

test('law: every selected page lands exactly as often as selected', () => {
  fc.assert(
    fc.property(job, (any) => {
      const landed = planned(any).plan.sheets.flatMap(cellsOf).map(nameOf);
      same(landed.sort(), selected(any).sort());
    }),
    RUNS,
  );
});

test('law: no two cells of a side overlap', () => {
  fc.assert(
    fc.property(job, (any) => {
      eachSide(planned(any).plan, ({ cells }) => {
        cells.forEach((one, index) => {
          const [left, bottom, right, top] = seen(one);
          for (const other of cells.slice(index + 1)) {
            const [l, b, r, t] = seen(other);
            const apart = right <= l + SLACK || r <= left + SLACK || top <= b + SLACK || t <= bottom + SLACK;
            holds(apart, 'two cells overlap');
          }
        });
      });
    }),
    RUNS,
  );
});

test('law: what is seen of a page never leaves the paper, and leaves the margin only at its own size on a side alone', () => {
  fc.assert(
    fc.property(job, fc.constantFrom(0, 5), (any, margin) => {
      const { plan: made, ticket } = planned(any, { margin });
      const rules = pageRules(ticket, any.documents);
      eachSide(made, ({ cells }, _sheet, width, height) => {
        for (const cell of cells) {
          const [left, bottom, right, top] = seen(cell);
          const { scale, margin: own } = rules.settingsOf(cell.document, cell.page);
          // One page a side at its own size, or under auto-fit where it needs no shrinking, may reach to the edge.
          const free = cells.length === 1 && !['fit', 'fill', 'fit-width'].includes(scale.mode);
          const kept = free ? 0 : mmToPoints(Math.max(own, margin));
          holds(Math.min(left, bottom) > kept - SLACK, 'beyond the left or lower margin');
          holds(right < width - kept + SLACK, 'beyond the right margin');
          holds(top < height - kept + SLACK, 'beyond the upper margin');
        }
      });
    }),
    RUNS,
  );
});

test('law: a plan is valid; a sheet is of one tray and one paper; a one-sided sheet has no back', () => {
  fc.assert(
    fc.property(job, (any) => {
      const { plan: made } = planned(any);
      same(readPlan(made), made);
      made.sheets.forEach(({ index, sides, back, slip, front }, position) => {
        same(index, position + 1);
        same(back === null, sides === 'one-sided');
        if (slip) same(front.cells, []);
      });
      const counted = Object.values(made.tally.byPaper).reduce((sum, count) => sum + count, 0);
      same(counted, made.sheets.length * made.sets);
    }),
    RUNS,
  );
});

test('law: a plan does not depend on the copies but in its totals and the checks on amounts', () => {
  const amounts = ['tray-short', 'large-run', 'uncollated'];
  const others = ({ checks }: Plan): Plan['checks'] => checks.filter(({ code }) => !amounts.includes(code));
  fc.assert(
    fc.property(job, (any) => {
      const one = planned({ ...any, copies: 1 }).plan;
      const many = planned(any).plan;
      const slips = many.slipBetweenSets ? any.copies - 1 : 0;
      same({ ...many, sets: 1, tally: null, checks: others(many) }, { ...one, tally: null, checks: others(one) });
      same(many.tally.sheets, one.tally.sheets * any.copies + slips);
      same(many.tally.sides, one.tally.sides * any.copies);
      same(many.tally.blankSides, one.tally.blankSides * any.copies);
    }),
    RUNS,
  );
});

test('law: a plan against a printer made for the ticket has no stop', () => {
  fc.assert(
    fc.property(job, (any) => {
      // A tray named for pages of two sizes holds the first; that is the one stop there can be.
      const stops = planned(any).plan.checks.filter(({ level }) => level === 'stop');
      same(
        stops.filter(({ code }) => code !== 'tray-wrong-paper'),
        [],
      );
    }),
    RUNS,
  );
});

test('law: routing pages changes the tray of these pages and of no other, and bringing them back undoes it', () => {
  const traysOf = (ticket: Ticket, document: DocumentFacts): (string | null)[] => {
    const whole = { ...ticket, documents: [{ ...ticket.documents[0]!, pages: 'all' }] };
    const made = plan(whole, [document], profileForTicket(whole, [document]));
    const trays = new Map(
      made.sheets.flatMap((sheet) => cellsOf(sheet).map((cell) => [cell.page, sheet.tray] as const)),
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
        const expected = (tray: string) => before.map((one, index) => (isChosen(index) ? tray : one));
        same(traysOf(sent, document), expected('tray-3'));
        const back = routePages(sent, [document], chosen, { tray: null });
        same(traysOf(back, document), expected('tray-4'));
        same(readTicket(back), back);
      },
    ),
    RUNS,
  );
});
