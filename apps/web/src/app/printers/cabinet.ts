import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { PrinterRecord, SaidOfPaper } from '@foglio/api';
import { saySize, trayName, type Tray } from '@foglio/core';
import { paperSizes, sayType } from '@foglio/sentence';
import { countSheets } from '../bench/amounts';
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

/** What a person said of a tray's paper. */
export interface PaperSaid {
  readonly tray: string;
  readonly said: SaidOfPaper;
}

/** Media types of PWG 5101.1, section 3, that an office has. */
const PAPER_TYPES: readonly string[] = [
  'stationery',
  'stationery-letterhead',
  'stationery-preprinted',
  'stationery-coated',
  'cardstock',
  'labels',
  'envelope',
  'transparency',
];

/** Where the price of a sheet is given to a tenth of a cent. */
const PRICE_DIGITS = 3;

/** A printer's trays, drawn from the side: what lies in each, how much of it, and what a sheet costs. */
@Component({
  selector: 'fo-cabinet',
  imports: [MatButton, MatFormField, MatInput],
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
            <p class="price">€ {{ drawer.tray.price.toFixed(digits) }} a sheet</p>
          </div>
          <button
            mat-stroked-button
            type="button"
            class="small"
            [attr.aria-expanded]="changing() === drawer.tray.id"
            (click)="changing.set(changing() === drawer.tray.id ? null : drawer.tray.id)"
          >
            {{ changing() === drawer.tray.id ? 'Done' : 'Change' }}
            <span class="heard">what is said of the paper in {{ drawer.name }}</span>
          </button>
          @if (changing() === drawer.tray.id) {
            <div class="said" role="group" [attr.aria-label]="'Paper in ' + drawer.name">
              @if (printer().reportedSizes[drawer.tray.id]; as reported) {
                <p class="reported">
                  The printer reports {{ saySize(reported) }} here.
                  <button mat-button type="button" class="small" (click)="say(drawer.tray, { size: null })">
                    Take its word
                  </button>
                </p>
              }
              <label>
                Size
                <mat-form-field
                  ><select
                    matNativeControl
                    [attr.data-known]="drawer.tray.size"
                    (change)="say(drawer.tray, { size: $any($event.target).value })"
                  >
                    @for (size of sizesFor(drawer.tray); track size) {
                      <option [value]="size" [selected]="size === drawer.tray.size">{{ saySize(size) }}</option>
                    }
                  </select></mat-form-field
                >
              </label>
              <label>
                Paper
                <mat-form-field
                  ><select
                    matNativeControl
                    [attr.data-known]="drawer.tray.type"
                    (change)="say(drawer.tray, { type: $any($event.target).value })"
                  >
                    @for (type of typesFor(drawer.tray); track type) {
                      <option [value]="type" [selected]="type === drawer.tray.type">{{ sayType(type) }}</option>
                    }
                  </select></mat-form-field
                >
              </label>
              <label>
                Weight
                <mat-form-field
                  ><input
                    matInput
                    type="number"
                    min="20"
                    max="600"
                    [attr.data-known]="drawer.tray.weight ?? ''"
                    [value]="drawer.tray.weight"
                    (change)="sayNumber(drawer.tray, 'weight', $any($event.target))"
                /></mat-form-field>
                g/m²
              </label>
              <label>
                Price €
                <mat-form-field
                  ><input
                    matInput
                    type="number"
                    min="0"
                    max="1000"
                    step="0.001"
                    [attr.data-known]="drawer.tray.price.toFixed(digits)"
                    [value]="drawer.tray.price.toFixed(digits)"
                    (change)="sayNumber(drawer.tray, 'price', $any($event.target))"
                /></mat-form-field>
                a sheet
              </label>
            </div>
          }
        </li>
      }
    </ol>
  `,
  styleUrl: './cabinet.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Cabinet {
  readonly printer = input.required<PrinterRecord>();
  /** The tray of which something is to be said from the beginning. */
  readonly asked = input<string | null>(null);
  /** Sizes to choose from beside the usual ones. */
  readonly sizes = input<readonly string[]>([]);
  /** How often what was said was not taken: fields then show again what is known. */
  readonly refused = input(0);
  readonly described = output<PaperSaid>();
  /** The tray of whose paper something is being said. */
  protected readonly changing = linkedSignal(() => this.asked());
  protected readonly digits = PRICE_DIGITS;
  protected readonly colour = trayColour;
  protected readonly ink = trayInk;
  protected readonly mark = trayMark;
  protected readonly lamp = computed(() => {
    const { answers, state } = this.printer();
    return answers ? state : 'away';
  });
  protected readonly drawers = computed(() => this.printer().profile.trays.map(drawerOf));

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  constructor() {
    effect(() => {
      if (this.refused() === 0) return;
      // A binding whose value stays the same leaves what a person chose.
      for (const field of this.host.nativeElement.querySelectorAll<HTMLInputElement>('[data-known]'))
        field.value = field.dataset['known'] ?? '';
    });
  }

  protected readonly sayType = sayType;
  protected readonly saySize = saySize;

  /** The types to choose from, with the tray's own, which may be another. */
  protected typesFor({ type }: Tray): readonly string[] {
    return type === null || PAPER_TYPES.includes(type) ? PAPER_TYPES : [type, ...PAPER_TYPES];
  }

  protected sizesFor({ id }: Tray): readonly string[] {
    const { profile, reportedSizes } = this.printer();
    const reported = reportedSizes[id];
    return paperSizes(profile, [...(reported === undefined ? [] : [reported]), ...this.sizes()]);
  }

  protected say({ id }: Tray, said: SaidOfPaper): void {
    this.described.emit({ tray: id, said });
  }

  /** What cannot be a weight or a price is put back to what it was. */
  protected sayNumber(tray: Tray, what: 'weight' | 'price', field: HTMLInputElement): void {
    const typed = field.valueAsNumber;
    if (Number.isFinite(typed) && field.validity.valid) this.say(tray, { [what]: typed });
    else field.value = field.dataset['known'] ?? '';
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
