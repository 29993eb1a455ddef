import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButton } from '@angular/material/button';
import {
  MAT_DIALOG_DATA,
  MatDialogActions,
  MatDialogClose,
  MatDialogContent,
  MatDialogTitle,
} from '@angular/material/dialog';
import type { Caution } from '@foglio/api';
import { countSheets } from './amounts';

export interface ConfirmData {
  readonly cautions: readonly Caution[];
  readonly sheets: number;
}

/** What a person must have seen before paper moves. Closes with true to send. */
@Component({
  selector: 'fo-confirm-dialog',
  imports: [MatButton, MatDialogActions, MatDialogClose, MatDialogContent, MatDialogTitle],
  template: `
    <h2 mat-dialog-title>Before {{ sheets }} are printed</h2>
    <mat-dialog-content>
      <ul>
        @for (caution of data.cautions; track $index) {
          <li>{{ caution.message }}</li>
        }
      </ul>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button [mat-dialog-close]="false" cdkFocusInitial>Look again</button>
      <button mat-flat-button [mat-dialog-close]="true">Send {{ sheets }} all the same</button>
    </mat-dialog-actions>
  `,
  styles: `
    li {
      margin-bottom: 8px;
      padding: 8px 12px;
      border-left: 4px solid var(--caution);
      background: var(--caution-soft);
      color: var(--ink);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ConfirmDialog {
  protected readonly data = inject<ConfirmData>(MAT_DIALOG_DATA);
  protected readonly sheets = countSheets(this.data.sheets);
}
