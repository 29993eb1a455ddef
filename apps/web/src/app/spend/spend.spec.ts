import { HttpErrorResponse } from '@angular/common/http';
import { Component, input } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { RouterTestingHarness } from '@angular/router/testing';
import type { SpendRecord } from '@foglio/api';
import { EMPTY, map, merge, NEVER, of, Subject, throwError, timer, type Observable } from 'rxjs';
import { aSpend, figures } from '../../stubs/spend';
import { Api } from '../api/api';
import { News } from '../news/news';
import { PrintersNow } from '../news/printers-now';
import { Spend } from './spend';
import { SpendChart } from './spend-chart';

/** What is drawn on a canvas is seen in a browser. */
@Component({ selector: 'fo-spend-chart', template: '' })
class NoChart {
  readonly figures = input.required<unknown>();
}

type Which = { readonly from: string; readonly to: string; readonly printer?: string };

const LATE = 3_000;

const printed = (which: Which, sheets: number): SpendRecord =>
  aSpend({
    ...which,
    total: figures({ deliveries: 3, sheets, sides: 2 * sheets, paper: sheets / 100, printing: sheets / 20 }),
    printers: [{ id: 'p', name: 'Library', ...figures({ sheets }) }],
  });

/** Spend, asked at an address. */
async function begin(
  answer: (which: Which) => Observable<SpendRecord>,
  address = '/spend?from=2026-09-01&to=2026-09-20',
) {
  const news = new Subject<unknown>();
  const asked: Which[] = [];
  const spend = (which: Which): Observable<SpendRecord> => {
    asked.push(which);
    return answer(which);
  };
  TestBed.configureTestingModule({
    providers: [
      provideRouter([{ path: 'spend', component: Spend }]),
      { provide: Api, useValue: { spend } },
      { provide: News, useValue: { of: () => news, asking: (what: Observable<unknown>) => merge(of(null), what) } },
      { provide: PrintersNow, useValue: { all: () => [{ id: 'p', name: 'Library' }], keepListed: () => EMPTY } },
    ],
  }).overrideComponent(Spend, { remove: { imports: [SpendChart] }, add: { imports: [NoChart] } });
  const harness = await RouterTestingHarness.create();
  await harness.navigateByUrl(address);
  const element = harness.routeNativeElement!;
  const show = async (ms = 0): Promise<string> => {
    await jest.advanceTimersByTimeAsync(ms);
    harness.detectChanges();
    return element.textContent.replace(/\s+/g, ' ');
  };
  return { harness, element, show, asked, news };
}

beforeEach(() => jest.useFakeTimers({ now: new Date('2026-12-01T10:00') }));
afterEach(() => jest.useRealTimers());

test('what comes late is not told of before, and the figures are those of the days in the sentence', async () => {
  const { show, asked, element } = await begin((which) => timer(LATE).pipe(map(() => printed(which, 2_277))));
  expect(await show()).toContain('Adding up what was printed');
  const said = await show(LATE);
  expect(said).toContain('2,277');
  expect(said).toContain('€ 136.62');
  expect(said).toContain('From 1 September 2026 to 20 September 2026');
  expect(asked).toEqual([{ from: '2026-09-01', to: '2026-09-20' }]);
  expect(element.querySelector('a[download]')?.getAttribute('href')).toBe(
    '/api/spend.csv?from=2026-09-01&to=2026-09-20',
  );
});

test('of answers that cross, the one to what is asked now holds; what is shown meanwhile is told to be behind', async () => {
  let round = 0;
  const { harness, show, element } = await begin((which) => {
    round += 1;
    // The second question is answered long after the third.
    return timer(round === 2 ? 4 * LATE : LATE).pipe(
      map(() => printed(which, which.from === '2026-08-01' ? 111 : 999)),
    );
  });
  await show(LATE);
  const busy = () => element.querySelector('main')!.getAttribute('aria-busy');
  await harness.navigateByUrl('/spend?from=2026-07-01&to=2026-09-20');
  expect(await show(100)).toContain('999');
  expect(busy()).toBe('true');
  // How the days are told is not known before the answer.
  expect(await show()).not.toContain('week by week');
  await harness.navigateByUrl('/spend?from=2026-08-01&to=2026-09-20');
  expect(await show(LATE)).toContain('111');
  expect(busy()).toBe('false');
  expect(await show(10 * LATE)).toContain('111');
});

test('while they cannot be had anew, the figures stay and it is said; they come by themselves', async () => {
  let fails = false;
  const away = new HttpErrorResponse({ status: 503, error: { detail: 'The database does not answer.' } });
  const { show, news, element } = await begin((which) =>
    fails ? timer(LATE).pipe(map(() => raise(away))) : of(printed(which, 5)),
  );
  await show();
  fails = true;
  news.next(null);
  const said = await show(LATE);
  expect(said).toContain('The database does not answer. It is asked again by itself.');
  expect(said).toContain('sheets, of 10 sides');
  fails = false;
  await show(3 * LATE);
  expect(element.querySelector('[role="alert"]')).toBeNull();
});

test('a refusal is said, and nothing stands there as nothing', async () => {
  const refusal = new HttpErrorResponse({ status: 400, error: { detail: 'Ask for days in their order.' } });
  const { show } = await begin(() => throwError(() => refusal));
  const said = await show();
  expect(said).toContain('Ask for days in their order.');
  expect(said).not.toContain('Nothing was printed');
});

test('a delivery that is counted is added while the screen stands open; after midnight it is of the new day', async () => {
  let sheets = 5;
  const { show, news, asked } = await begin((which) => of(printed(which, sheets)), '/spend?from=2026-11-01');
  expect(await show()).toContain('to today');
  sheets = 6;
  news.next(null);
  expect(await show()).toContain('sheets, of 12 sides');
  await show(15 * 3_600_000);
  expect(asked.at(-1)).toEqual({ from: '2026-11-01', to: '2026-12-02' });
  expect(await show()).toContain('to today');
});

test('where nothing was printed, that is said; of a printer that is gone, its name', async () => {
  const nothing = (which: Which) => of(aSpend({ ...which, total: figures({ deliveries: 0 }) }));
  const { show, element } = await begin(nothing, '/spend?from=2026-09-01&to=2026-09-20&printer=attic');
  expect(await show()).toContain('Nothing was printed in these days. Choose other days, or all printers.');
  const select = element.querySelector('select')!;
  expect([select.value, select.selectedOptions[0]?.textContent]).toEqual(['attic', 'attic']);
});

test('by printer, paper, kind and set-up; each line of what would have cost less leads to what to change', async () => {
  const spend = {
    ...printed({ from: '2026-09-01', to: '2026-09-20' }, 9),
    papers: [{ size: 'iso_a4_210x297mm', type: 'stationery-letterhead', sheets: 9, cost: 0.54 }],
    kinds: [{ kind: 'several-a-side' as const, ...figures({ sheets: 4, twoSidedSheets: 3 }) }],
    setups: [
      { id: 's', name: 'Minutes', ...figures() },
      { id: null, name: null, ...figures() },
    ],
    cheaper: [
      {
        title: 'Notes',
        jobId: 'j',
        setupId: null,
        way: '2-a-side' as const,
        times: 6,
        saves: 21.6,
        smallestTextPt: 8.41,
      },
      { title: 'Minutes', jobId: 'j', setupId: 's', way: 'two-sided' as const, times: 1, saves: 1, smallestTextPt: 9 },
    ],
    again: [
      { title: 'Plan', jobId: null, why: 'broken-off' as const, said: 'Paper jam.', times: 2, sheets: 12, cost: 1.5 },
    ],
  };
  const { show, element } = await begin(() => of(spend));
  const said = await show();
  expect(said).toContain('two pages a side, text still 8.4 pt; printed 6 times€ 21.60');
  expect(said).toContain('12 sheets, twice; it was broken off: Paper jam.€ 1.50');
  const links = [...element.querySelectorAll('fo-spend-lines a')].map((link) => link.getAttribute('href'));
  expect(links).toEqual(['/jobs/j', '/set-ups/s']);
  const by = async (name: string): Promise<string> => {
    const button = [...element.querySelectorAll('fo-spend-table button')].find((one) =>
      one.textContent?.includes(name),
    );
    (button as HTMLElement).click();
    await show();
    return element.querySelector('fo-spend-table tbody')!.textContent.replace(/\s+/g, ' ').trim();
  };
  expect(await by('By paper')).toBe('A4 letterhead 9€ 0.54');
  expect(await by('By kind')).toContain('several a side 475 %');
  expect(await by('By set-up')).toMatch(/^Minutes.*set up by hand/);
});

test('whoever leaves while an answer is on its way hears nothing of it', async () => {
  const { harness, show } = await begin(() => NEVER);
  await show();
  harness.fixture.destroy();
  await jest.advanceTimersByTimeAsync(LATE);
});

function raise(error: unknown): never {
  throw error;
}
