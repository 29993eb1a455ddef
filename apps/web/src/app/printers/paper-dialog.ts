import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButton } from '@angular/material/button';
import {
  MAT_DIALOG_DATA,
  MatDialogActions,
  MatDialogClose,
  MatDialogContent,
  MatDialogTitle,
} from '@angular/material/dialog';
import type { PrinterRecord } from '@foglio/api';
import { Api } from '../api/api';
import { PrintersNow } from '../news/printers-now';
import { Cabinet, type PaperSaid } from './cabinet';
import { PrinterWorks } from './printer-works';

/** Of which printer, and what a job needs of it. */
export interface PaperData {
  readonly printer: PrinterRecord;
  /** The tray that is asked about; null: whichever. */
  readonly tray: string | null;
  /** Sizes that the job needs and that may lie in no tray. */
  readonly sizes: readonly string[];
}

/** What lies in a printer's trays, said where one goes on with it. */
@Component({
  selector: 'fo-paper-dialog',
  imports: [Cabinet, MatButton, MatDialogActions, MatDialogClose, MatDialogContent, MatDialogTitle],
  template: `
    <h2 mat-dialog-title>What lies in the trays</h2>
    <mat-dialog-content>
      @if (works.message(); as said) {
        <p class="message" role="alert">{{ said }}</p>
      }
      <p class="hint">
        What you say counts for every job until the printer reports another paper there. The printer is not told.
      </p>
      <fo-cabinet
        [printer]="printer()"
        [asked]="data.tray"
        [sizes]="data.sizes"
        [refused]="works.refused()"
        (described)="describe($event)"
      />
    </mat-dialog-content>
    <mat-dialog-actions>
      <button mat-flat-button mat-dialog-close>Done</button>
    </mat-dialog-actions>
  `,
  styles: `
    .message {
      margin-bottom: 8px;
      color: var(--stop);
    }
    .hint {
      margin-bottom: 12px;
      letter-spacing: normal;
      color: var(--soft);
    }
  `,
  providers: [PrinterWorks],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PaperDialog {
  protected readonly data = inject<PaperData>(MAT_DIALOG_DATA);
  protected readonly works = inject(PrinterWorks);
  private readonly api = inject(Api);
  private readonly printersNow = inject(PrintersNow);
  protected readonly printer = computed(() => this.printersNow.of(this.data.printer.id) ?? this.data.printer);

  protected describe({ tray, said }: PaperSaid): void {
    this.works.do(this.api.describePaper(this.data.printer.id, tray, said));
  }
}
