import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { FormsModule } from '@angular/forms';
import { saySize, trayName } from '@foglio/core';
import { paperSizes } from '@foglio/sentence';
import type { PrinterRecord } from '@foglio/api';
import type { PanelWork } from '../api/api';

/** The front panel of a simulated printer: what a person standing before it would do. */
@Component({
  selector: 'fo-front-panel',
  imports: [FormsModule, MatButton, MatFormField, MatInput],
  template: `
    <div class="head">
      <h2>Front panel</h2>
      <span>simulated printer</span>
    </div>
    <div class="panel">
      <label>
        Tray
        <mat-form-field
          ><select matNativeControl aria-label="Tray" [ngModel]="tray()?.id" (ngModelChange)="chosen.set($event)">
            @for (tray of printer().profile.trays; track tray.id) {
              <option [value]="tray.id">{{ nameOf(tray) }}</option>
            }
          </select></mat-form-field
        >
      </label>
      <label>
        Paper
        <mat-form-field
          ><select matNativeControl [ngModel]="tray()?.size" (ngModelChange)="load(tray()?.loaded ?? 0, $event)">
            @for (size of sizes(); track size) {
              <option [value]="size">{{ saySize(size) }}</option>
            }
          </select></mat-form-field
        >
      </label>
      <button
        mat-stroked-button
        class="small"
        type="button"
        [disabled]="tray()?.capacity === null"
        (click)="load(tray()?.capacity ?? 0)"
      >
        Load it full
      </button>
      <button mat-stroked-button class="small" type="button" (click)="load(0)">Run it empty</button>
      <button mat-stroked-button class="small" type="button" (click)="pull(true)">Pull it out</button>
      <button mat-stroked-button class="small" type="button" (click)="pull(false)">Push it in</button>
      <hr />
      <!-- Each undoes itself: a button that went away would take the focus with it. -->
      <button mat-stroked-button class="small" type="button" (click)="fault(has('media-jam') ? null : 'media-jam')">
        {{ has('media-jam') ? 'Clear the jam' : 'Jam' }}
      </button>
      <button mat-stroked-button class="small" type="button" (click)="fault(has('door-open') ? null : 'door-open')">
        {{ has('door-open') ? 'Close the door' : 'Open the door' }}
      </button>
      <button mat-stroked-button class="small" type="button" (click)="pause(!has('paused'))">
        {{ has('paused') ? 'Go on' : 'Pause' }}
      </button>
      @if (!printer().profile.duplex) {
        <hr />
        <button mat-stroked-button class="small" type="button" (click)="refeed(false)">
          Put the last stack back as it lies
        </button>
        <button mat-stroked-button class="small" type="button" (click)="refeed(true)">Put it back turned over</button>
      }
    </div>
  `,
  styles: `
    .head {
      display: flex;
      justify-content: space-between;
      margin-bottom: 8px;
      color: #4d5a62;
      font-size: 13px;
    }
    h2 {
      color: var(--ink);
    }
    .panel {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      padding: 12px;
      border: 1px solid var(--line);
      border-radius: var(--radius);
      background: var(--shelf);
    }
    label {
      display: flex;
      gap: 8px;
      align-items: center;
      width: 100%;
    }
    hr {
      width: 100%;
      margin: 4px 0;
      border: 0;
      border-top: 1px solid var(--line);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FrontPanel {
  readonly printer = input.required<PrinterRecord>();
  readonly worked = output<PanelWork>();
  protected readonly chosen = signal<string | null>(null);
  protected readonly tray = computed(() => {
    const { trays } = this.printer().profile;
    return trays.find(({ id }) => id === this.chosen()) ?? trays[0] ?? null;
  });
  protected readonly sizes = computed(() => paperSizes(this.printer().profile, []));
  protected readonly nameOf = trayName;
  protected readonly saySize = saySize;

  protected has(reason: string): boolean {
    return this.printer().reasons.includes(reason);
  }

  /** @param size of the paper that is put in, where it is another than lies there */
  protected load(loaded: number, size?: string): void {
    const tray = this.tray();
    if (!tray) return;
    this.worked.emit({ name: 'loadTray', tray: tray.id, body: { loaded, ...(size === undefined ? {} : { size }) } });
  }

  protected pull(pulled: boolean): void {
    const tray = this.tray();
    if (tray) this.worked.emit({ name: 'pullTray', tray: tray.id, body: { pulled } });
  }

  protected fault(fault: 'media-jam' | 'door-open' | null): void {
    this.worked.emit({ name: 'setFault', body: { fault } });
  }

  protected pause(paused: boolean): void {
    this.worked.emit({ name: 'pausePrinter', body: { paused } });
  }

  /** What came out last goes into the tray again, for its backs. */
  protected refeed(turned: boolean): void {
    this.worked.emit({ name: 'refeed', body: { turned } });
  }
}
