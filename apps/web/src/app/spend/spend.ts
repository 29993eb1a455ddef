import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import { MatButton } from '@angular/material/button';
import { ActivatedRoute, Router } from '@angular/router';
import type { SpendRecord } from '@foglio/api';
import { addressOf, OPERATIONS } from '@foglio/api';
import { distinctUntilChanged, interval, map, switchMap } from 'rxjs';
import { Api, sayError } from '../api/api';
import { sayMoney } from '../bench/amounts';
import { keepAsking } from '../news/keep-asking';
import { News } from '../news/news';
import { PrintersNow } from '../news/printers-now';
import { overTime, sayCount, type View, VIEWS } from './chart-series';
import { DayPhrase } from './day-phrase';
import { type Day, daysFrom, localDay } from './days';
import { SpendChart } from './spend-chart';
import { SpendLines } from './spend-lines';
import { SpendTable } from './spend-table';
import { SWATCHES, swatchStyle } from './swatches';

/** Of which deliveries the figures are. */
interface Wanted {
  readonly from: Day;
  readonly to: Day;
  /** Empty: all. */
  readonly printer: string;
}

const isSame = (one: Wanted, other: Wanted): boolean =>
  one.from === other.from && one.to === other.to && one.printer === other.printer;

/** After midnight it is another day for a screen that stands open. */
const LOOK_AT_CLOCK_MS = 60_000;

const VIEW_NAMES: Readonly<Record<View, string>> = { money: 'Money', sheets: 'Sheets', sides: 'Sides' };

const STEPS = { day: ', day by day', week: ', week by week', month: ', month by month' } as const;
const PERIODS = { day: 'Day', week: 'Week from', month: 'Month' } as const;

/** What was printed and paid for, over time. */
@Component({
  selector: 'fo-spend',
  imports: [DayPhrase, MatButton, SpendChart, SpendLines, SpendTable],
  templateUrl: './spend.html',
  styleUrl: './spend.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Spend {
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly route = inject(ActivatedRoute);
  private readonly news = inject(News);
  private readonly printersNow = inject(PrintersNow);
  protected readonly today = signal(localDay(new Date()));
  private readonly asked = toSignal(this.route.queryParamMap, { initialValue: this.route.snapshot.queryParamMap });
  /** As the address says, so that it can be kept, sent and gone back to. */
  protected readonly wanted = computed<Wanted>(
    () => {
      const asked = this.asked();
      return { ...daysFrom(asked.get('from'), asked.get('to'), this.today()), printer: asked.get('printer') ?? '' };
    },
    { equal: isSame },
  );
  /** The figures, with what they are of; null before any came. */
  protected readonly found = signal<{ readonly of: Wanted; readonly spend: SpendRecord } | null>(null);
  /** Why they could not be had, or not anew; they are asked for again by themselves. */
  protected readonly trouble = signal<string | null>(null);
  /** Whether what is shown is of other days or printers than the sentence says. */
  protected readonly isBehind = computed(() => {
    const found = this.found();
    return found !== null && !isSame(found.of, this.wanted());
  });
  protected readonly printers = computed(() => this.printersNow.all() ?? []);
  /** Whether the printer that is asked for is none of those that are here. */
  protected readonly isGone = computed(() => {
    const [all, { printer }] = [this.printersNow.all(), this.wanted()];
    return printer !== '' && !all?.some(({ id }) => id === printer);
  });
  protected readonly printerName = computed(() => {
    const { printer } = this.wanted();
    const spent = this.found()?.spend.printers.find(({ id }) => id === printer);
    return this.printers().find(({ id }) => id === printer)?.name ?? spent?.name ?? printer;
  });
  protected readonly since = computed(() => this.found()?.spend.since ?? null);
  protected readonly view = signal<View>('money');
  protected readonly asTable = signal(false);
  protected readonly views = VIEWS.map((view) => ({ view, name: VIEW_NAMES[view] }));
  protected readonly figures = computed(() => {
    const found = this.found();
    return found && overTime(found.spend, this.view());
  });
  protected readonly swatches = SWATCHES.map(swatchStyle);
  protected readonly totals = computed(() => {
    const total = this.found()?.spend.total;
    if (!total) return [];
    const { sheets, sides, paper, printing, saved, savedSheets, gray, graySides, againSheets, again } = total;
    const saving = savedSheets < 0 ? 'more than one page a side' : 'saved by two sides and several a side';
    return [
      { amount: sayCount(sheets), says: `sheets, of ${sayCount(sides)} sides` },
      { amount: sayMoney(paper + printing), says: 'paper and printing' },
      { amount: sayMoney(Math.abs(saved)), says: `${saving}, ${sayCount(Math.abs(savedSheets))} sheets` },
      {
        amount: sayMoney(gray),
        says: `paid for colour on ${graySides === 1 ? '1 side' : `${sayCount(graySides)} sides`} that look grey`,
        isBad: gray > 0,
      },
      { amount: sayCount(againSheets), says: `sheets printed again, ${sayMoney(again)}` },
    ];
  });
  /** How the sentence ends, once it is known. */
  protected readonly steps = computed(() => {
    const found = this.found();
    return found && !this.isBehind() ? STEPS[found.spend.step] : '';
  });
  protected readonly periodName = computed(() => PERIODS[this.found()?.spend.step ?? 'day']);
  protected readonly rows = computed(() => {
    const figures = this.figures();
    if (!figures) return [];
    const { periods, series, say } = figures;
    return periods.map((period, at) => {
      const amounts = series.map(({ amounts: each }) => each[at]!);
      return { period, cells: [...amounts, amounts.reduce((sum, one) => sum + one, 0)].map(say) };
    });
  });
  protected readonly listAddress = computed(() => {
    const { from, to, printer } = this.wanted();
    const query = new URLSearchParams({ from, to, ...(printer === '' ? {} : { printer }) });
    return `${addressOf(OPERATIONS.spendList, {})}?${query.toString()}`;
  });

  constructor() {
    interval(LOOK_AT_CLOCK_MS)
      .pipe(
        map(() => localDay(new Date())),
        distinctUntilChanged(),
        takeUntilDestroyed(),
      )
      .subscribe((day) => this.today.set(day));
    toObservable(this.wanted)
      .pipe(
        // Of other days that were asked for, the answer is not waited for any more.
        switchMap((wanted) => {
          const query = {
            from: wanted.from,
            to: wanted.to,
            ...(wanted.printer === '' ? {} : { printer: wanted.printer }),
          };
          const failed = (error: unknown): void => this.trouble.set(sayError(error));
          return keepAsking(this.news.asking(this.news.of('spend')), () => this.api.spend(query), failed).pipe(
            map((spend) => ({ of: wanted, spend })),
          );
        }),
        takeUntilDestroyed(inject(DestroyRef)),
      )
      .subscribe((found) => {
        this.found.set(found);
        this.trouble.set(null);
      });
    this.printersNow.keepListed().pipe(takeUntilDestroyed()).subscribe();
  }

  protected ask(change: Partial<Wanted>): void {
    const { from, to, printer } = { ...this.wanted(), ...change };
    // Until today stays until today, tomorrow too.
    const until = to === this.today() ? {} : { to };
    const queryParams = { from, ...until, ...(printer === '' ? {} : { printer }) };
    void this.router.navigate([], { relativeTo: this.route, queryParams });
  }
}
