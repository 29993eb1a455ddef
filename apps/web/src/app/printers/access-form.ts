import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { PrinterAccess, PrinterRecord } from '@foglio/api';

/** What a printer wants before it is asked anything: its certificate trusted, or a name and a password. */
@Component({
  selector: 'fo-access-form',
  imports: [MatButton, MatFormField, MatInput],
  template: `
    @if (certificate(); as shown) {
      <p>
        It shows a certificate of “{{ shown.subject }}”, good until {{ shown.validTo }}, that nobody vouches for.
        Compare its fingerprint with the one at the printer’s own panel or page:
      </p>
      <p class="fingerprint">
        @for (line of lines(); track line) {
          <span>{{ line }}</span>
        }
      </p>
      <button
        mat-stroked-button
        type="button"
        disabledInteractive
        [disabled]="busy()"
        (click)="say({ fingerprint: shown.fingerprint })"
      >
        Trust it
      </button>
    } @else {
      <form (submit)="$event.preventDefault(); say({ login: { name: name.value, password: password.value } })">
        <label>
          Name
          <mat-form-field
            ><input matInput #name autocomplete="off" spellcheck="false" [value]="known()"
          /></mat-form-field>
        </label>
        <label>
          Password
          <mat-form-field><input matInput #password type="password" autocomplete="off" /></mat-form-field>
        </label>
        <button mat-stroked-button type="submit" disabledInteractive [disabled]="busy()">
          {{ busy() ? 'Asking it' : 'Ask it so' }}
        </button>
      </form>
    }
  `,
  styles: `
    :host {
      display: block;
      max-width: 640px;
      margin: 10px 0;
    }
    form {
      display: grid;
      gap: 8px;
      justify-items: start;
    }
    label {
      width: 100%;
      max-width: 280px;
      font-weight: 600;
    }
    .fingerprint {
      margin: 8px 0;
      padding: 8px 10px;
      border: 1px solid var(--line);
      border-radius: var(--radius);
      background: var(--card);
      font: 400 13px/1.5 monospace;
    }
    .fingerprint span {
      display: block;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AccessForm {
  readonly certificate = input<PrinterRecord['certificate']>(null);
  /** The name under which it was asked until now. */
  readonly known = input('');
  readonly busy = input(false);
  readonly said = output<PrinterAccess>();
  /** In rows that an eye can follow. */
  protected readonly lines = computed(() => (this.certificate()?.fingerprint ?? '').match(/.{1,24}/g) ?? []);

  /** Its buttons keep the focus while the printer is asked, and then do nothing. */
  protected say(access: PrinterAccess): void {
    if (!this.busy()) this.said.emit(access);
  }
}
