import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatButton } from '@angular/material/button';
import type { NearbyPrinter } from '@foglio/api';
import { catchError, of, Subject, switchMap, tap } from 'rxjs';
import { Api, sayError } from '../api/api';

/** Printers that announce themselves on the net, to be taken up without writing an address. */
@Component({
  selector: 'fo-nearby-printers',
  imports: [MatButton],
  template: `
    <button mat-stroked-button type="button" disabledInteractive [disabled]="looking()" (click)="look()">
      {{ looking() ? 'Listening for printers' : found() ? 'Look again' : 'Look for printers on the net' }}
    </button>
    @if (trouble(); as said) {
      <p role="alert">{{ said }}</p>
    } @else if (found(); as printers) {
      <ul aria-label="Printers on the net">
        @for (printer of printers; track printer.uri) {
          <li>
            <span class="name">{{ printer.name }}</span>
            <span class="about">{{ about(printer) }}</span>
            @if (printer.printerId === null && !listed().includes(printer.uri)) {
              <button
                mat-button
                type="button"
                [attr.aria-label]="'Add ' + printer.name"
                disabledInteractive
                [disabled]="busy()"
                (click)="choose(printer)"
              >
                Add
              </button>
            } @else {
              <span class="known">in the list</span>
            }
          </li>
        }
      </ul>
      @if (printers.length === 0) {
        <p role="status">None announces itself. One that does not can be added by its address.</p>
      }
    }
  `,
  styles: `
    :host {
      display: block;
      margin-top: 16px;
      padding: 0 12px;
    }
    ul {
      margin: 8px 0 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      align-items: center;
      padding: 6px 0;
      border-bottom: 1px solid var(--line);
    }
    .name {
      font-weight: 600;
      overflow-wrap: anywhere;
    }
    .about {
      grid-row: 2;
      color: var(--soft);
      font-size: 13px;
      overflow-wrap: anywhere;
    }
    li button,
    .known {
      grid-area: 1 / 2 / 3;
    }
    .known {
      color: var(--soft);
      font-size: 13px;
    }
    p {
      margin-top: 8px;
      color: var(--soft);
      font-size: 13px;
    }
    p[role='alert'] {
      color: var(--stop);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NearbyPrinters {
  private readonly api = inject(Api);
  /** Addresses of those that are in the list. */
  readonly listed = input.required<readonly string[]>();
  /** Whether one is just being asked. */
  readonly busy = input(false);
  /** The address of one that is to be taken up. */
  readonly chosen = output<string>();
  protected readonly found = signal<readonly NearbyPrinter[] | null>(null);
  protected readonly looking = signal(false);
  protected readonly trouble = signal<string | null>(null);
  private readonly asked = new Subject<void>();

  constructor() {
    this.asked
      .pipe(
        tap(() => this.looking.set(true)),
        switchMap(() => this.api.nearbyPrinters().pipe(catchError((error: unknown) => of(sayError(error))))),
        takeUntilDestroyed(),
      )
      .subscribe((answer) => {
        this.looking.set(false);
        this.trouble.set(typeof answer === 'string' ? answer : null);
        if (typeof answer !== 'string') this.found.set(answer);
      });
  }

  /** Its buttons keep the focus while something is on its way, and then do nothing. */
  protected look(): void {
    if (!this.looking()) this.asked.next();
  }

  protected choose({ uri }: NearbyPrinter): void {
    if (!this.busy()) this.chosen.emit(uri);
  }

  protected about({ model, place, uri }: NearbyPrinter): string {
    return [model, place].filter(Boolean).join(', ') || uri;
  }
}
