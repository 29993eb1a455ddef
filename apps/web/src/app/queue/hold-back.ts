import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import type { PrinterRecord } from '@foglio/api';
import { Api, sayError } from '../api/api';
import { PrintersNow } from '../news/printers-now';

/** Where what is to be sent to a printer, or to all, is held back here and sent on. */
@Component({
  selector: 'fo-hold-back',
  imports: [MatButton],
  template: `
    <details>
      <summary>{{ summary() }}</summary>
      <ul>
        @for (printer of printers(); track printer.id) {
          <li>
            <span [title]="printer.name">{{ printer.name }}{{ printer.heldBack ? ', paused' : '' }}</span>
            <button
              mat-button
              type="button"
              class="inline"
              [attr.aria-disabled]="asked().has(printer.id) || null"
              [attr.aria-label]="(printer.heldBack ? 'Send on to ' : 'Pause sending to ') + printer.name"
              (click)="hold([printer], !printer.heldBack)"
            >
              {{ printer.heldBack ? 'Send on' : 'Pause' }}
            </button>
          </li>
        }
      </ul>
      @if (printers().length > 1) {
        <button mat-button type="button" class="inline" (click)="hold(printers(), !isAllHeld())">
          {{ isAllHeld() ? 'Send on to all' : 'Pause all' }}
        </button>
      }
      @if (trouble(); as said) {
        <p class="trouble" role="alert">{{ said }}</p>
      }
    </details>
  `,
  styles: `
    :host {
      display: block;
      margin: 8px 0;
    }
    summary {
      cursor: pointer;
      font-size: 13px;
    }
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: flex;
      align-items: center;
      justify-content: space-between;
      gap: 8px;
    }
    span {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .trouble {
      color: var(--stop);
      font-size: 13px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HoldBack {
  private readonly api = inject(Api);
  private readonly printersNow = inject(PrintersNow);
  protected readonly printers = computed(() => this.printersNow.all() ?? []);
  protected readonly isAllHeld = computed(() => this.printers().every(({ heldBack }) => heldBack));
  /** Seen while the list is closed too. */
  protected readonly summary = computed(() => {
    const held = this.printers().filter(({ heldBack }) => heldBack);
    if (held.length === 0) return 'Sending to every printer';
    return this.isAllHeld() ? 'Sending is paused' : `Paused: ${held.map(({ name }) => name).join(', ')}`;
  });
  /** Printers of which the answer is on its way. */
  protected readonly asked = signal<ReadonlySet<string>>(new Set());
  protected readonly trouble = signal<string | null>(null);

  protected hold(printers: readonly PrinterRecord[], held: boolean): void {
    this.trouble.set(null);
    const those = printers.filter((one) => one.heldBack !== held && !this.asked().has(one.id));
    this.asked.update((asked) => new Set([...asked, ...those.map(({ id }) => id)]));
    const answered = (id: string): void =>
      this.asked.update((asked) => new Set([...asked].filter((one) => one !== id)));
    for (const { id } of those) {
      this.api.holdBack(id, held).subscribe({
        next: (printer) => {
          this.printersNow.see(printer);
          answered(id);
        },
        error: (error: unknown) => {
          this.trouble.set(sayError(error));
          answered(id);
        },
      });
    }
  }
}
