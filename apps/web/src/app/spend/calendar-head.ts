import { ChangeDetectionStrategy, ChangeDetectorRef, Component, inject } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatIconButton } from '@angular/material/button';
import { DateAdapter } from '@angular/material/core';
import { MatCalendar } from '@angular/material/datepicker';
import { MatIcon } from '@angular/material/icon';

/** The month that a calendar shows, with a step of a month and of a year each way. */
@Component({
  selector: 'fo-calendar-head',
  imports: [MatIcon, MatIconButton],
  template: `
    @for (step of steps; track step.name) {
      @if (step.months === 1) {
        <p aria-live="polite">{{ month() }}</p>
      }
      <button mat-icon-button type="button" [attr.aria-label]="step.name" (click)="go(step.months)">
        <mat-icon aria-hidden="true">{{ step.icon }}</mat-icon>
      </button>
    }
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      margin-top: 4px;
    }
    p {
      flex: 1;
      font-weight: 600;
      text-align: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CalendarHead {
  private readonly calendar = inject<MatCalendar<Date>>(MatCalendar);
  private readonly dates = inject<DateAdapter<Date>>(DateAdapter);
  protected readonly steps = [
    { name: 'A year earlier', icon: 'keyboard_double_arrow_left', months: -12 },
    { name: 'A month earlier', icon: 'chevron_left', months: -1 },
    { name: 'A month later', icon: 'chevron_right', months: 1 },
    { name: 'A year later', icon: 'keyboard_double_arrow_right', months: 12 },
  ] as const;

  constructor() {
    const changes = inject(ChangeDetectorRef);
    this.calendar.stateChanges.pipe(takeUntilDestroyed()).subscribe(() => changes.markForCheck());
  }

  protected month(): string {
    return this.calendar.activeDate.toLocaleDateString('en-GB', { month: 'long', year: 'numeric' });
  }

  /** As far as there are days to choose from. */
  protected go(months: number): void {
    const { minDate, maxDate, activeDate } = this.calendar;
    this.calendar.activeDate = this.dates.clampDate(this.dates.addCalendarMonths(activeDate, months), minDate, maxDate);
  }
}
