import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { findTray, trayName, type Check } from '@foglio/core';
import { Store } from '@ngrx/store';
import { benchFeature } from '../state/bench.state';
import { BenchDialogs } from './bench-dialogs';
import { sheetAt } from './shown-sheets';

/** Beside what is said of missing paper: perhaps it lies there, and only the printer does not know. */
@Component({
  selector: 'fo-paper-offer',
  imports: [MatButton],
  template: `
    @if (label(); as said) {
      <button mat-button type="button" [class.inline]="inline()" (click)="say()">{{ said }}</button>
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PaperOffer {
  readonly check = input.required<Check>();
  /** Within a text. */
  readonly inline = input(false);
  /** It goes on in a dialog. */
  readonly taken = output<void>();
  private readonly bench = inject(Store).selectSignal(benchFeature.selectBenchState);
  /** Not where a set-up is changed: it is drawn over a sample. */
  private readonly dialogs = inject(BenchDialogs, { optional: true });

  /** The tray in question; null: whichever; undefined: it is not about paper. */
  private readonly tray = computed(() => {
    const { code, sheets } = this.check();
    if (code === 'no-tray-for-paper') return null;
    if (code !== 'tray-wrong-paper') return undefined;
    const { plan } = this.bench();
    return (plan && sheetAt(plan, sheets[0] ?? 1)?.tray) ?? null;
  });

  protected readonly label = computed(() => {
    const [tray, profile] = [this.tray(), this.bench().printer?.profile];
    if (tray === undefined || !profile || !this.dialogs) return null;
    const found = tray === null ? null : findTray(profile, tray);
    return `Say what is in ${found ? trayName(found) : 'the trays'}`;
  });

  protected say(): void {
    this.taken.emit();
    void this.dialogs?.sayPaper(this.tray() ?? null);
  }
}
