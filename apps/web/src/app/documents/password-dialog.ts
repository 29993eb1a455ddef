import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButton } from '@angular/material/button';
import {
  MAT_DIALOG_DATA,
  MatDialogActions,
  MatDialogClose,
  MatDialogContent,
  MatDialogRef,
  MatDialogTitle,
} from '@angular/material/dialog';
import { MatFormField, MatLabel } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';

export interface PasswordData {
  readonly name: string;
  /** What the server said, in sentences. */
  readonly why: string;
}

/** Asks for the password of a file. Closes with it, or with nothing where the file is left out. */
@Component({
  selector: 'fo-password-dialog',
  imports: [
    MatButton,
    MatDialogActions,
    MatDialogClose,
    MatDialogContent,
    MatDialogTitle,
    MatFormField,
    MatInput,
    MatLabel,
  ],
  template: `
    <h2 mat-dialog-title>“{{ data.name }}” is locked</h2>
    <form (submit)="open($event, field.value)">
      <mat-dialog-content>
        <p>{{ data.why }}</p>
        <mat-form-field appearance="outline">
          <mat-label>Password</mat-label>
          <input #field matInput type="password" autocomplete="off" required cdkFocusInitial />
        </mat-form-field>
        <p class="once">It opens the file this once and is not kept.</p>
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button type="button" mat-button mat-dialog-close>Leave the file out</button>
        <button type="submit" mat-flat-button>Open it</button>
      </mat-dialog-actions>
    </form>
  `,
  styles: `
    h2 {
      overflow-wrap: anywhere;
    }
    p {
      margin: 0;
    }
    mat-form-field {
      width: 100%;
      margin-top: 16px;
    }
    .once {
      color: var(--soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PasswordDialog {
  protected readonly data = inject<PasswordData>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<PasswordDialog, string>>(MatDialogRef);

  protected open(event: Event, password: string): void {
    event.preventDefault();
    if (password !== '') this.dialog.close(password);
  }
}
