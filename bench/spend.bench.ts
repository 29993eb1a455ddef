import { query } from '../tests/e2e/databases';
import { expect, test } from '../tests/e2e/world';
import { median, report } from './figures';

/** Adding up what was spent, over as many deliveries as a busy office has in some years. */

const DELIVERIES = 50_000;
const RUNS = 21;

test.use({ ownWorld: true });

/** Deliveries of two years, each of one paper and every fifth of two; every twentieth printed again, every third could cost less. */
const ENTERED = `
  insert into spent
  select gen_random_uuid(), date '2025-01-01' + n % 730, 'printer-' || n % 5, 'Printer ' || n % 5, null, 'Job ' || n % 400,
    case when n % 4 = 0 then ('00000000-0000-0000-0000-' || lpad((n % 40)::text, 12, '0'))::uuid end, 'Set-up ' || n % 40,
    (array['one-sided', 'two-sided', 'several-a-side', 'booklet'])[1 + n % 4], 1 + n % 60, n % 50, 2 + n % 100, n % 30, n % 7,
    (1 + n % 60) * 0.0123, (2 + n % 100) * 0.0117, (n % 7) * 0.05, n % 40, (n % 40) * 0.0123,
    case when n % 20 = 0 then 'broken-off' end, case when n % 20 = 0 then 'Paper jam.' end,
    case when n % 3 = 0 then 'two-sided' end, case when n % 3 = 0 then 0.2 else 0 end, 9
  from generate_series(1, ${DELIVERIES}) as n`;

const PAPERS = `
  insert into spent_papers
  select id, day, printer_id, 'iso_a4_210x297mm', type, sheets, paper from spent, unnest(array['stationery', 'stationery-letterhead']) as type
  where type = 'stationery' or sheets % 5 = 0`;

test(`what ${DELIVERIES} deliveries came to`, async ({ page, world }) => {
  await query(
    world.database,
    'alter table spent disable trigger tell',
    ENTERED,
    PAPERS,
    'alter table spent enable trigger tell',
    'analyze',
  );
  for (const [what, from, to] of [
    ['two years of them, by month', '2025-01-01', '2026-12-31'],
    ['a quarter, by week', '2026-07-01', '2026-09-30'],
  ] as const) {
    const took: number[] = [];
    for (let run = 0; run < RUNS; run += 1) {
      const begun = performance.now();
      const answer = await fetch(`${world.base}/api/spend?from=${from}&to=${to}`);
      const { total } = (await answer.json()) as { total: { deliveries: number } };
      took.push(performance.now() - begun);
      expect(total.deliveries).toBeGreaterThan(DELIVERIES / 10);
    }
    report(`what ${DELIVERIES} deliveries came to, ${what}`, median(took), 'ms', '300 ms');
    report('  the slowest', Math.max(...took), 'ms');
  }
  const begun = performance.now();
  await page.goto(`${world.base}/spend?from=2025-01-01&to=2026-12-31`);
  await expect(page.locator('fo-spend-table tbody tr').first()).toBeVisible();
  report('the screen of it, from its address to its tables', performance.now() - begun, 'ms');
});
