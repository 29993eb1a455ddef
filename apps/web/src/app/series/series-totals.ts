import { ChangeDetectionStrategy, Component, computed, effect, input, output, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatProgressBar } from '@angular/material/progress-bar';
import type { SeriesRecord } from '@foglio/api';
import type { Printer } from '@foglio/core';
import { countSheets, sayHeight, sayMoney, sayTime } from '../bench/amounts';
import { progressOf, trayView, type Whole } from './series-view';
import { countFiles, saySeriesState } from './series-words';

/** What was seen before pressing Send. */
export interface ToSend {
  readonly sheets: number;
  readonly confirmed: readonly string[];
}

/** What a series comes to, the paper it needs and what is to be settled; once it is sent, how it goes. */
@Component({
  selector: 'fo-series-totals',
  imports: [MatButton, MatProgressBar],
  templateUrl: './series-totals.html',
  styleUrl: './series-totals.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'complementary', 'aria-label': 'Totals' },
})
export class SeriesTotals {
  readonly series = input.required<SeriesRecord>();
  readonly whole = input.required<Whole | null>();
  readonly profile = input.required<Printer | null>();
  readonly busy = input(false);
  /** Files are still being taken in, or looked through. */
  readonly isTaking = input(false);
  readonly isReading = input(false);
  readonly sent = output<ToSend>();
  readonly paused = output<void>();
  /** Whether the file that went wrong is printed once more. */
  readonly resumed = output<boolean>();
  readonly unfitWanted = output<void>();
  readonly unfitLeftOut = output<void>();

  protected readonly confirmed = signal(false);
  protected readonly progress = computed(() => progressOf(this.series()));
  protected readonly cautions = computed(() => (this.whole()?.checks ?? []).filter(({ level }) => level === 'caution'));
  private readonly stop = computed(() => this.whole()?.checks.find(({ level }) => level === 'stop') ?? null);
  private readonly codes = computed(() => this.cautions().map(({ code }) => code), {
    equal: (a, b) => a.join() === b.join(),
  });

  /** What keeps it from being sent, in words; null where nothing does. */
  protected readonly hindrance = computed(() => {
    const whole = this.whole();
    if (!whole) return 'The printer is not known yet';
    if (this.isTaking()) return 'Files are still being taken in';
    if (whole.planned < whole.toPrint) return `Planning: ${whole.planned} of ${countFiles(whole.toPrint)}`;
    if (this.isReading()) return `Looking through the pages: ${whole.readPages} of ${whole.allPages}`;
    if (whole.unfit === 1) return '1 file cannot be printed so: give it settings of its own, or leave it out';
    if (whole.unfit > 0)
      return `${countFiles(whole.unfit)} cannot be printed so: give them settings of their own, or leave them out`;
    if (whole.tally.files === 0) return 'There is no file to print';
    return this.stop()?.message ?? null;
  });

  protected readonly needs = computed(() =>
    (this.whole()?.tally.trays ?? []).map((need) => {
      const loaded = need.loaded === null ? ' sheets' : ` of ${need.loaded} loaded`;
      return {
        ...trayView(this.profile(), need.tray, `${need.name} takes ${need.needed}${loaded}`),
        isShort: need.shortAt !== null,
      };
    }),
  );

  /** Of checks that are about single files: how many have it. */
  protected readonly checks = computed(() =>
    (this.whole()?.checks ?? []).map((check) => ({
      ...check,
      many:
        check.files > 1 && !['tray-short', 'large-run'].includes(check.code)
          ? `So for ${countFiles(check.files)}.`
          : '',
    })),
  );

  protected readonly state = saySeriesState;
  protected readonly files = countFiles;
  protected readonly sheets = countSheets;
  protected readonly money = sayMoney;
  protected readonly time = sayTime;
  protected readonly height = sayHeight;

  constructor() {
    // What was confirmed is only what was there then.
    effect(() => {
      this.codes();
      this.confirmed.set(false);
    });
  }

  protected start(): void {
    this.sent.emit({ sheets: this.whole()?.tally.sheets ?? 0, confirmed: this.codes() });
  }
}
