import type { SpendFigures, SpendRecord } from '@foglio/api';

/** Sums of nothing, but for what a test says. */
export const figures = (known: Partial<SpendFigures> = {}): SpendFigures => ({
  ...{ deliveries: 1, sheets: 0, twoSidedSheets: 0, sides: 0, colorSides: 0, graySides: 0 },
  ...{ paper: 0, printing: 0, gray: 0, savedSheets: 0, saved: 0, againSheets: 0, again: 0 },
  ...known,
});

export const aSpend = (known: Partial<SpendRecord> = {}): SpendRecord => ({
  ...{ from: '2026-09-01', to: '2026-09-20', since: '2026-08-01', step: 'week', total: figures() },
  ...{ periods: [], printers: [], papers: [], kinds: [], setups: [], again: [], cheaper: [] },
  ...known,
});
