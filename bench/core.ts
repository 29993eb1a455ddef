import {
  plan,
  profileForTicket,
  SelectionError,
  selectPages,
  type Cell,
  type DocumentFacts,
  type Plan,
  type TicketInput,
} from '@foglio/core';
import { collect, median, ratio, report, reportRatio, timed } from './figures';
import { documentOf, ticketOf } from './jobs';

/** The planning core in Node, without anything round it. */

const FOUR_A_SIDE = { layout: { kind: 'grid', pagesPerSide: 4 } } as const;

/** The work of planning so many pages, ready to run again and again. */
function planning(pages: number, routes: number, settings: Partial<TicketInput>): () => Plan {
  const facts = [documentOf(pages)];
  const ticket = ticketOf(pages, routes, settings);
  const printer = profileForTicket(ticket, facts);
  return () => plan(ticket, facts, printer);
}

/** Where four pages lie on a side: numbers as a plan has them, with fractions, which take memory of their own. */
const PLACES = [12.34, 297.6, 12.34, 297.6].map((x, index) => ({
  x,
  y: index < 2 ? 432.1 : 14.2,
  width: 285.5,
  height: 403.8,
  scale: 0.4796,
}));

/** As many cells as a plan has, allocated and nothing else: a plain loop, the least that can be asked of the engine. */
function bareCells(count: number): Cell[] {
  const cells: Cell[] = [];
  for (let page = 1; page <= count; page += 1) {
    const { x, y, width, height, scale } = PLACES[page % 4] as (typeof PLACES)[number];
    cells.push({ document: 1, page, x, y, width, height, scale, turn: 0, clip: null, source: null });
  }
  return cells;
}

function planningInNode(): void {
  const small = median(timed(planning(2_000, 20, {})));
  const work = planning(10_000, 200, FOUR_A_SIDE);
  const large = median(timed(work));
  const huge = planning(100_000, 200, FOUR_A_SIDE);
  const manySets = planning(10_000, 200, { ...FOUR_A_SIDE, copies: 10_000 });
  report('plan of 2,000 pages, 20 routes, one a side', small, 'ms');
  report('plan of 10,000 pages, 200 routes, 4 a side, two-sided', large, 'ms', 'under 60 ms');
  // Allocating costs most when it is collected again, which falls on few runs: medians would leave it out on one side.
  reportRatio(
    '  over a bare pass that allocates as many cells',
    ratio(work, () => bareCells(10_000)),
    'under 8',
  );
  reportRatio('  100,000 pages over 10,000', ratio(huge, work, 60), 'under 10: linear');
  reportRatio('  10,000 sets over one', ratio(manySets, work), 'under 1.2');
  const footed: Partial<TicketInput> = { lines: [{ at: 'bottom-center', text: '{page} of {pages}, {section}' }] };
  reportRatio(
    '  with a line at the foot, 16,000 over 4,000 pages',
    ratio(planning(16_000, 20, footed), planning(4_000, 20, footed), 10),
    'under 5: linear',
  );
  report('  memory a planned page', heapOf(work) / 10_000 / 1024, 'KB', 'under 1 KB');
}

/** Bytes that what the work returns holds. */
function heapOf(work: () => unknown): number {
  collect();
  const before = process.memoryUsage().heapUsed;
  const kept = [work(), work(), work(), work()];
  collect();
  return (process.memoryUsage().heapUsed - before) / kept.length;
}

/** Texts of 10,000 characters that ask for as much work as they can; most end in an error, which counts as an answer. */
const NASTY: Readonly<Record<string, string>> = {
  'many ranges': '1-2,'.repeat(2_499) + '1',
  'the most pages that may be named': '1-10x9999',
  'leaving out page by page': `all but ${'7,'.repeat(4_990)}8`,
  'nested as deep as may be': `${'('.repeat(20)}1-9999${')'.repeat(20)} x10`,
  'nested too deep': '('.repeat(10_000),
  'filters on filters': `all ${'odd '.repeat(2_498)}`,
  'counts on counts': `1 ${'x9 '.repeat(3_332)}`,
  'sections one by one': '1:,'.repeat(3_333),
  'a heading that never ends': `"${'a'.repeat(9_999)}`,
  headings: '"Fees",'.repeat(1_428),
  'ranges of the whole document': 'all,'.repeat(2_500),
};

function readingSelections(): void {
  const facts: DocumentFacts = {
    ...documentOf(10_000),
    outline: Array.from({ length: 2_000 }, (_, index) => ({
      title: index % 2 ? 'Fees' : `Part ${index}`,
      level: (index % 3) + 1,
      page: index * 5 + 1,
      top: 0,
    })),
  };
  const read = (text: string): void => {
    try {
      selectPages(text.slice(0, 10_000), { facts, rotate: 0, forgiving: false });
    } catch (error) {
      if (!(error instanceof SelectionError)) throw error;
    }
  };
  const times = Object.entries(NASTY).map(([what, text]) => ({ what, time: median(timed(() => read(text))) }));
  const slowest = times.reduce((most, one) => (one.time > most.time ? one : most));
  report(
    `slowest of ${times.length} selections of 10,000 characters (${slowest.what})`,
    slowest.time,
    'ms',
    'under 50 ms',
  );
}

planningInNode();
readingSelections();
