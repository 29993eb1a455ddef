import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButton } from '@angular/material/button';
import {
  MAT_DIALOG_DATA,
  MatDialogActions,
  MatDialogClose,
  MatDialogContent,
  MatDialogTitle,
} from '@angular/material/dialog';
import { sayTrouble } from '@foglio/core';
import { Store } from '@ngrx/store';
import { countSheets, sayMoney } from '../bench/amounts';
import { Lanes } from '../bench/lanes/lanes';
import { SentenceBar } from '../bench/sentence/sentence-bar';
import { SelectionField } from '../bench/shelf/selection-field';
import { BenchActions } from '../state/bench.actions';
import { benchFeature } from '../state/bench.state';

export interface RowBenchData {
  readonly jobId: string;
  readonly name: string;
}

/** A small Bench for one file of a series: settings of its own, and its sheets. */
@Component({
  selector: 'fo-row-bench',
  imports: [
    Lanes,
    MatButton,
    MatDialogActions,
    MatDialogClose,
    MatDialogContent,
    MatDialogTitle,
    SelectionField,
    SentenceBar,
  ],
  template: `
    <h2 mat-dialog-title>{{ data.name }}, with settings of its own</h2>
    <mat-dialog-content>
      @if (bench().loadError; as message) {
        <p role="alert">{{ message }}</p>
      } @else if (bench().ticket) {
        <fo-sentence-bar [isSmall]="true" />
        <div class="regions">
          <div class="pages">
            <h2>Pages</h2>
            @if (bench().documents[0]; as facts) {
              <fo-selection-field
                [text]="entry()?.pages ?? 'all'"
                [facts]="facts"
                [rotate]="entry()?.rotate ?? 0"
                [numbering]="entry()?.numbering ?? 'position'"
                (textChange)="setPages($event)"
              />
            }
            @if (trouble(); as said) {
              <p class="trouble" role="alert">{{ said }}</p>
            }
            <p class="said">{{ said() }}</p>
            @for (check of bench().plan?.checks ?? []; track $index) {
              <p class="check" [attr.data-level]="check.level">{{ check.message }}</p>
            }
          </div>
          <fo-lanes [isSample]="true" />
        </div>
      } @else {
        <p role="status">Opening the file</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <span class="state" role="status">{{ bench().saving === 'unsaved' ? 'Saving' : (bench().message ?? '') }}</span>
      <button mat-button [disabled]="bench().past.length === 0" (click)="undo()">Undo</button>
      <button mat-flat-button mat-dialog-close>Done</button>
    </mat-dialog-actions>
  `,
  styles: `
    mat-dialog-content {
      color: var(--ink);
    }
    .regions {
      display: grid;
      grid-template-columns: 240px minmax(0, 1fr);
      gap: 16px;
      height: 340px;
      margin-top: 12px;
    }
    .pages {
      overflow: auto;
    }
    .pages h2 {
      margin-bottom: 6px;
      font: 600 14px/1.3 var(--sans);
    }
    fo-lanes {
      min-height: 0;
      border: 1px solid var(--line);
      border-radius: var(--radius);
      background: var(--desk);
    }
    .said,
    .check,
    .trouble {
      margin-top: 10px;
    }
    .check,
    .trouble {
      padding: 6px 10px;
      border-left: 4px solid var(--note);
      background: var(--note-soft);
    }
    .check[data-level='caution'] {
      border-color: var(--caution);
      background: var(--caution-soft);
    }
    .check[data-level='stop'],
    .trouble {
      border-color: var(--stop);
      background: var(--stop-soft);
    }
    .state {
      flex: 1;
      padding-left: 12px;
      color: var(--soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RowBench {
  protected readonly data = inject<RowBenchData>(MAT_DIALOG_DATA);
  private readonly store = inject(Store);
  protected readonly bench = this.store.selectSignal(benchFeature.selectBenchState);
  protected readonly entry = computed(() => this.bench().ticket?.documents[0]);
  protected readonly said = computed(() => {
    const tally = this.bench().plan?.tally;
    return tally ? `${countSheets(tally.sheets)}${tally.cost > 0 ? `, ${sayMoney(tally.cost)}` : ''}` : '';
  });

  protected readonly trouble = computed(() => {
    const { trouble, ticket } = this.bench();
    return trouble && ticket ? sayTrouble(trouble, ticket) : null;
  });

  constructor() {
    this.store.dispatch(BenchActions.opened({ jobId: this.data.jobId }));
  }

  protected setPages(pages: string): void {
    const ticket = this.bench().ticket;
    if (!ticket) return;
    // However often the file is printed, it is the same pages of it.
    const documents = ticket.documents.map((one) => ({ ...one, pages }));
    this.store.dispatch(BenchActions.ticketChanged({ ticket: { ...ticket, documents }, typing: 'pages' }));
  }

  protected undo(): void {
    this.store.dispatch(BenchActions.undone());
  }
}
