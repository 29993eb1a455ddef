import { DecimalPipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, input, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api, sayError } from '../../api/api';
import { BenchActions } from '../../state/bench.actions';
import { benchFeature } from '../../state/bench.state';

/** How far a long document is that is still being laid out, and what ends it. */
@Component({
  selector: 'fo-laying-line',
  imports: [DecimalPipe, MatButton],
  template: `
    @if (unfinished(); as far) {
      <p role="status">
        {{
          far.done === undefined
            ? 'Its first pages are here'
            : (far.done | number) + ' of ' + (far.of | number) + ' pages'
        }}
      </p>
      <button mat-stroked-button type="button" class="small" [disabled]="stopping()" (click)="stop()">
        Stop<span class="heard"> laying it out</span>
      </button>
    }
  `,
  styles: `
    :host:not(:empty) {
      display: flex;
      align-items: center;
      justify-content: space-between;
      gap: 8px;
      margin-bottom: 6px;
      font-size: 13px;
    }
    p {
      margin: 0;
      color: var(--soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LayingLine {
  /** The document, from 0. */
  readonly at = input.required<number>();
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly documents = this.store.selectSignal(benchFeature.selectDocuments);
  protected readonly stopping = signal(false);
  private isLeft = false;

  constructor() {
    inject(DestroyRef).onDestroy(() => (this.isLeft = true));
  }

  /** Null where nothing of it is still to come. */
  protected readonly unfinished = computed(() => {
    const unfinished = this.documents()[this.at()]?.laid?.unfinished;
    return unfinished?.trouble === null ? unfinished : null;
  });

  /** What became of it is told as everything else of the file is. */
  protected async stop(): Promise<void> {
    const { id } = this.documents()[this.at()]!;
    this.stopping.set(true);
    try {
      await firstValueFrom(this.api.stopLayingOut(id));
    } catch (error) {
      if (!this.isLeft) this.store.dispatch(BenchActions.refused({ message: sayError(error) }));
    } finally {
      this.stopping.set(false);
    }
  }
}
