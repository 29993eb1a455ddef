import { A11yModule } from '@angular/cdk/a11y';
import { CdkConnectedOverlay, CdkOverlayOrigin } from '@angular/cdk/overlay';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  Injectable,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatCalendar } from '@angular/material/datepicker';
import { DateAdapter, MAT_DATE_LOCALE, NativeDateAdapter, provideNativeDateAdapter } from '@angular/material/core';
import { CalendarHead } from './calendar-head';
import { commonSpans, type Day, localDate, localDay, sayDay } from './days';

/** Weeks begin on Monday (ISO 8601). */
@Injectable()
class IsoDates extends NativeDateAdapter {
  override getFirstDayOfWeek(): number {
    return 1;
  }
}

/** A day in the sentence: pressed, it shows a calendar, and spans that people ask for. */
@Component({
  selector: 'fo-day-phrase',
  imports: [A11yModule, CdkConnectedOverlay, CdkOverlayOrigin, MatButton, MatCalendar],
  template: `
    <button
      type="button"
      class="phrase"
      cdkOverlayOrigin
      #origin="cdkOverlayOrigin"
      #phrase
      [attr.aria-expanded]="isOpen()"
      [title]="label()"
      (click)="isOpen.set(!isOpen())"
      [textContent]="said()"
    ></button>
    <ng-template
      cdkConnectedOverlay
      [cdkConnectedOverlayOrigin]="origin"
      [cdkConnectedOverlayOpen]="isOpen()"
      [cdkConnectedOverlayViewportMargin]="8"
      [cdkConnectedOverlayPush]="true"
      [cdkConnectedOverlayOffsetY]="6"
      (overlayOutsideClick)="isOpen.set(false)"
      (overlayKeydown)="$event.key === 'Escape' && close()"
      (detach)="isOpen.set(false)"
    >
      <div class="popover days" role="dialog" [attr.aria-label]="label()" cdkTrapFocus cdkTrapFocusAutoCapture>
        <div class="spans" role="group" aria-label="Often asked for">
          @for (span of spans(); track span.name) {
            <button mat-stroked-button type="button" class="small" (click)="takeSpan(span)">{{ span.name }}</button>
          }
        </div>
        <mat-calendar
          [headerComponent]="head"
          [selected]="date()"
          [startAt]="date()"
          [minDate]="least()"
          [maxDate]="most()"
          (selectedChange)="take($event)"
        />
      </div>
    </ng-template>
  `,
  styles: `
    .phrase {
      padding: 0;
      border: 0;
      border-bottom: 1px solid currentcolor;
      background: none;
      color: var(--accent);
      font: inherit;
      cursor: pointer;
    }
    .days {
      width: 320px;
    }
    .spans {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      margin-bottom: 8px;
    }
  `,
  providers: [
    provideNativeDateAdapter(),
    { provide: MAT_DATE_LOCALE, useValue: 'en-GB' },
    { provide: DateAdapter, useClass: IsoDates },
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DayPhrase {
  readonly day = input.required<Day>();
  readonly today = input.required<Day>();
  /** The day of the first delivery of all; null where none is known. */
  readonly since = input.required<Day | null>();
  /** What the day is: "The first day". */
  readonly label = input.required<string>();
  /** Between which it may lie; without them every day until today. */
  readonly min = input<Day | null>(null);
  readonly max = input<Day | null>(null);
  readonly chosen = output<Day>();
  readonly spanChosen = output<{ readonly from: Day; readonly to: Day }>();
  private readonly phrase = viewChild.required<ElementRef<HTMLButtonElement>>('phrase');
  protected readonly head = CalendarHead;
  protected readonly isOpen = signal(false);
  protected readonly said = computed(() => sayDay(this.day(), this.today()));
  protected readonly date = computed(() => localDate(this.day()));
  protected readonly least = computed(() => dateOrNull(this.min()));
  protected readonly most = computed(() => localDate(this.max() ?? this.today()));
  protected readonly spans = computed(() => commonSpans(this.today(), this.since()));

  protected take(date: Date | null): void {
    this.close();
    if (date) this.chosen.emit(localDay(date));
  }

  protected takeSpan({ from, to }: { readonly from: Day; readonly to: Day }): void {
    this.close();
    this.spanChosen.emit({ from, to });
  }

  protected close(): void {
    this.isOpen.set(false);
    this.phrase().nativeElement.focus();
  }
}

const dateOrNull = (day: Day | null): Date | null => (day === null ? null : localDate(day));
