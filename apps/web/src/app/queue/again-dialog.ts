import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButton } from '@angular/material/button';
import {
  MAT_DIALOG_DATA,
  MatDialogActions,
  MatDialogClose,
  MatDialogContent,
  MatDialogTitle,
} from '@angular/material/dialog';
import { countSheets } from '../bench/amounts';

export interface AgainData {
  readonly title: string;
  readonly sheets: number;
  /** Its name. */
  readonly printer: string;
}

/** Before all of a job is printed once more. Closes with true to print it. */
@Component({
  selector: 'fo-again-dialog',
  imports: [MatButton, MatDialogActions, MatDialogClose, MatDialogContent, MatDialogTitle],
  template: `
    <h2 mat-dialog-title>Print all of it again?</h2>
    <mat-dialog-content>
      “{{ data.title || 'Untitled job' }}” comes out at {{ data.printer }} once more, {{ sheets }}. For some of its
      sheets there is “Print sheets again”.
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button [mat-dialog-close]="false" cdkFocusInitial>Leave it</button>
      <button mat-flat-button [mat-dialog-close]="true">Print {{ sheets }} again</button>
    </mat-dialog-actions>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AgainDialog {
  protected readonly data = inject<AgainData>(MAT_DIALOG_DATA);
  protected readonly sheets = countSheets(this.data.sheets);
}
