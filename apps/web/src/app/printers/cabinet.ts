import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { saySize, trayName, type Tray } from '@foglio/core';
import type { PrinterRecord } from '../api/records';
import { countSheets } from '../bench/amounts';
import { sayType } from '../bench/paper-words';
import { trayColour, trayInk, trayMark } from '../bench/tray-mark';

/** A tray as it is drawn: a drawer filled as far as there is paper in it. */
interface Drawer {
  readonly tray: Tray;
  readonly place: number;
  readonly name: string;
  readonly paper: string;
  readonly amount: string;
  /** Percent of what it can hold; null where it is not known. */
  readonly filled: number | null;
}

/** Where the price of a sheet is given to a tenth of a cent. */
const PRICE_DIGITS = 3;

/** A printer's trays, drawn from the side: what lies in each, how much of it, and what a sheet costs. */
@Component({
  selector: 'fo-cabinet',
  template: `
    <div class="hood">
      <span class="lamp" [attr.data-state]="lamp()" aria-hidden="true"></span>
      <strong>{{ printer().name }}</strong>
      @if (printer().profile.sidesPerMinute; as speed) {
        <span class="speed">{{ speed }} sides a minute</span>
      }
    </div>
    <ol>
      @for (drawer of drawers(); track drawer.tray.id) {
        <li [attr.data-tray]="drawer.tray.id">
          <span class="mark" [style.background]="colour(drawer.place)" [style.color]="ink(drawer.place)">{{
            mark(drawer.place)
          }}</span>
          <div class="drawer" [style.border-left-color]="colour(drawer.place)">
            <p class="name">{{ drawer.name }}: {{ drawer.paper }}</p>
            <div class="pile" aria-hidden="true"><span [style.width.%]="drawer.filled ?? 0"></span></div>
          </div>
          <div class="amount">
            <p [class.empty]="drawer.tray.loaded === 0">{{ drawer.amount }}</p>
            <label>
              €
              <input
                type="number"
                class="field"
                min="0"
                max="1000"
                step="0.001"
                [value]="drawer.tray.price.toFixed(digits)"
                [attr.aria-label]="'Price of a sheet from ' + drawer.name + ', in euros'"
                (change)="reprice(drawer.tray, $any($event.target))"
              />
              a sheet
            </label>
          </div>
        </li>
      }
    </ol>
  `,
  styleUrl: './cabinet.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Cabinet {
  readonly printer = input.required<PrinterRecord>();
  readonly priced = output<{ readonly tray: string; readonly price: number }>();
  protected readonly digits = PRICE_DIGITS;
  protected readonly colour = trayColour;
  protected readonly ink = trayInk;
  protected readonly mark = trayMark;
  protected readonly lamp = computed(() => {
    const { answers, state } = this.printer();
    return answers ? state : 'away';
  });
  protected readonly drawers = computed(() => this.printer().profile.trays.map(drawerOf));

  protected reprice({ id, price }: Tray, field: HTMLInputElement): void {
    const typed = field.valueAsNumber;
    if (Number.isFinite(typed) && field.validity.valid) this.priced.emit({ tray: id, price: typed });
    else field.value = price.toFixed(PRICE_DIGITS);
  }
}

function drawerOf(tray: Tray, place: number): Drawer {
  const { loaded, capacity, type, weight, size } = tray;
  const kind = [...(type === null ? [] : [sayType(type)]), ...(weight === null ? [] : [`${weight} g/m²`])].join(' ');
  return {
    tray,
    place,
    name: trayName(tray),
    paper: kind === '' ? saySize(size) : `${saySize(size)}, ${kind}`,
    amount: amountOf(loaded, capacity),
    filled: loaded !== null && capacity ? Math.min(100, (100 * loaded) / capacity) : null,
  };
}

function amountOf(loaded: number | null, capacity: number | null): string {
  if (loaded === null) return 'amount not known';
  if (loaded === 0) return 'empty';
  return capacity === null ? countSheets(loaded) : `${loaded} of ${countSheets(capacity)}`;
}
