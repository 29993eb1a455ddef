import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatIcon } from '@angular/material/icon';
import type { PrinterRecord, SetupRecord } from '@foglio/api';
import { isMonochrome, type Plan, type Printer } from '@foglio/core';
import { FileDrop } from '../documents/file-drop';
import { SetupPicture } from '../setups/setup-picture';
import { SetupPlans } from '../setups/setup-plans';

/** What a new series is begun with. */
export interface Beginning {
  readonly setup: SetupRecord;
  readonly printer: PrinterRecord;
  readonly files: readonly File[];
}

/** The choice of a set-up and a printer for a new series, and the place for its files. */
@Component({
  selector: 'fo-series-begin',
  imports: [FileDrop, MatFormField, MatIcon, MatInput, SetupPicture],
  template: `
    <h2>A new series</h2>
    <h3 id="set-up-as">Set up as</h3>
    <ul aria-labelledby="set-up-as">
      @for (setup of setups(); track setup.id) {
        <li>
          <button
            type="button"
            class="setup"
            [class.taken]="setup === chosen()"
            [attr.aria-pressed]="setup === chosen()"
            (click)="choose(setup)"
          >
            <span class="title">{{ setup.name }}</span>
            @if (pictures().get(setup.id); as plan) {
              <fo-setup-picture [plan]="plan" [printer]="profileOf(setup)" [grey]="inGrey(setup)" />
            }
          </button>
        </li>
      }
    </ul>
    <label>
      Printed at
      <mat-form-field
        ><select matNativeControl #place (change)="printerId.set(place.value)">
          @for (one of printers(); track one.id) {
            <option [value]="one.id" [selected]="one.id === printer()?.id">{{ one.name }}</option>
          }
        </select></mat-form-field
      >
    </label>
    <fo-file-drop label="Drop the files or a folder here" (files)="begin($event)">
      <mat-icon aria-hidden="true">folder_open</mat-icon>
      <p class="invitation">Drop the files or a folder here</p>
      <p class="second">or choose files; each is planned by itself, and nothing is printed before you have seen all</p>
    </fo-file-drop>
  `,
  styleUrl: './series-begin.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SeriesBegin {
  readonly setups = input.required<readonly SetupRecord[]>();
  readonly printers = input.required<readonly PrinterRecord[]>();
  readonly begun = output<Beginning>();
  private readonly plans = inject(SetupPlans);
  private readonly setupId = signal<string | null>(null);
  protected readonly printerId = signal<string | null>(null);
  protected readonly pictures = signal<ReadonlyMap<string, Plan | null>>(new Map());
  /** The house set-up, which comes first, until another is chosen. */
  protected readonly chosen = computed(() => {
    const all = this.setups();
    return all.find(({ id }) => id === this.setupId()) ?? all[0] ?? null;
  });
  protected readonly printer = computed(() => {
    const wanted = this.printerId() ?? this.chosen()?.printerId;
    return this.printers().find(({ id }) => id === wanted) ?? this.printers()[0] ?? null;
  });
  protected readonly inGrey = ({ ticket }: SetupRecord): boolean => isMonochrome(ticket);

  constructor() {
    effect(() => {
      const [setups, printers] = [this.setups(), this.printers()];
      if (printers.length === 0) return;
      untracked(
        () => void this.plans.ofAll(setups, (one) => this.profileOf(one)).then((plans) => this.pictures.set(plans)),
      );
    });
  }

  protected profileOf(setup: SetupRecord): Printer {
    const printers = this.printers();
    return (printers.find(({ id }) => id === setup.printerId) ?? printers[0])!.profile;
  }

  protected choose(setup: SetupRecord): void {
    this.setupId.set(setup.id);
    this.printerId.set(setup.printerId);
  }

  protected begin(files: readonly File[]): void {
    const [setup, printer] = [this.chosen(), this.printer()];
    if (setup && printer) this.begun.emit({ setup, printer, files });
  }
}
