import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { OwnName } from '../api/own-name';

/** Where a person says the name under which printers show what is sent from here. */
@Component({
  selector: 'fo-own-name',
  imports: [MatFormField, MatInput],
  template: `
    <label>
      Your name at the printers
      <mat-form-field>
        <input
          matInput
          maxlength="100"
          autocomplete="off"
          spellcheck="false"
          placeholder="foglio"
          [value]="own.name()"
          (change)="own.say($any($event.target).value)"
        />
      </mat-form-field>
    </label>
    <p>Their panels show it with what you send from now on.</p>
  `,
  styles: `
    :host {
      display: block;
      margin-top: 20px;
      padding: 0 12px;
    }
    label {
      font-weight: 600;
    }
    mat-form-field {
      width: 100%;
      margin-top: 4px;
    }
    p {
      margin-top: 4px;
      color: var(--soft);
      font-size: 13px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OwnNameField {
  protected readonly own = inject(OwnName);
}
