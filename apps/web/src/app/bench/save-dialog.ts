import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import {
  MAT_DIALOG_DATA,
  MatDialogActions,
  MatDialogClose,
  MatDialogContent,
  MatDialogRef,
  MatDialogTitle,
} from '@angular/material/dialog';
import { MatRadioButton, MatRadioGroup } from '@angular/material/radio';

export type Saved = 'pdf' | 'sheets' | 'set-up';

/** What to save of a job, and under which name, without its kind. */
export interface Saving {
  readonly what: Saved;
  readonly name: string;
}

export interface SaveData {
  readonly name: string;
  readonly sets: number;
}

/** Asks what to save under which name; closes with a {@link Saving}, or with nothing where it was left. */
@Component({
  selector: 'fo-save-dialog',
  imports: [
    FormsModule,
    MatButton,
    MatDialogActions,
    MatDialogClose,
    MatDialogContent,
    MatDialogTitle,
    MatFormField,
    MatInput,
    MatRadioButton,
    MatRadioGroup,
  ],
  template: `
    <form (submit)="$event.preventDefault(); save()">
      <h2 mat-dialog-title>Save as a file</h2>
      <mat-dialog-content>
        <label>
          Name
          <mat-form-field
            ><input
              matInput
              name="name"
              maxlength="200"
              autocomplete="off"
              spellcheck="false"
              [(ngModel)]="name"
              cdkFocusInitial
          /></mat-form-field>
        </label>
        <mat-radio-group name="what" aria-label="What to save" [(ngModel)]="what">
          <mat-radio-button value="pdf">The sheets as PDF{{ data.sets > 1 ? ', one set' : '' }}</mat-radio-button>
          <mat-radio-button value="sheets">A list of the sheets, for a spreadsheet (CSV)</mat-radio-button>
          <mat-radio-button value="set-up">The set-up, to be dropped on the Desk again</mat-radio-button>
        </mat-radio-group>
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button mat-button type="button" mat-dialog-close>Cancel</button>
        <button mat-flat-button type="submit" [disabled]="name().trim() === ''">Save</button>
      </mat-dialog-actions>
    </form>
  `,
  styles: `
    label {
      display: block;
      margin-bottom: 8px;
      color: var(--ink);
    }
    mat-form-field {
      margin-top: 4px;
    }
    mat-radio-group {
      display: grid;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SaveDialog {
  protected readonly data = inject<SaveData>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<SaveDialog, Saving>>(MatDialogRef);
  protected readonly name = signal(this.data.name);
  protected readonly what = signal<Saved>('pdf');

  protected save(): void {
    const name = this.name().trim();
    if (name !== '') this.dialog.close({ what: this.what(), name });
  }
}
