import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatDialogActions, MatDialogClose, MatDialogContent, MatDialogTitle } from '@angular/material/dialog';

/** The keys of the Bench. */
@Component({
  selector: 'fo-keys-dialog',
  imports: [MatButton, MatDialogActions, MatDialogClose, MatDialogContent, MatDialogTitle],
  template: `
    <h2 mat-dialog-title>Keys</h2>
    <mat-dialog-content>
      <dl>
        @for (key of keys; track key[0]) {
          <div>
            <dt>{{ key[0] }}</dt>
            <dd>{{ key[1] }}</dd>
          </div>
        }
      </dl>
    </mat-dialog-content>
    <mat-dialog-actions align="end"><button mat-button mat-dialog-close>Close</button></mat-dialog-actions>
  `,
  styles: `
    div {
      display: flex;
      gap: 16px;
      padding: 4px 0;
    }
    dt {
      width: 150px;
      font-weight: 700;
      color: var(--ink);
    }
    dd {
      flex: 1;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KeysDialog {
  protected readonly keys = [
    ['1 to 9', 'take the chosen pages or sheets from that tray'],
    ['0', 'take them from the tray of the rest again'],
    ['← and →', 'go to the sheet before or after; with Shift, choose several'],
    ['b', 'print them on both sides, or on one side again'],
    ['f', 'turn the sheet over'],
    ['o', 'open the sheet large'],
    ['p', 'leaf through the whole job as it will lie in the tray'],
    ['/', 'go to the selection text'],
    ['Ctrl+Z', 'undo the last change'],
    ['Ctrl+Shift+Z', 'redo it'],
    ['Ctrl+Enter', 'send, after the checks'],
    ['?', 'show these keys'],
  ] as const;
}
