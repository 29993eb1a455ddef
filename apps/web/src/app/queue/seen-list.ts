import { ScrollingModule } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, inject, input, resource } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { trayName } from '@foglio/core';
import { Api, sayError } from '../api/api';
import type { SendingRecord, PrinterRecord, SheetAsSeen } from '@foglio/api';
import { trayColour, trayInk, trayMark } from '../bench/tray-mark';

interface Row {
  readonly sheet: string;
  readonly place: number;
  readonly tray: string;
  readonly sides: string;
  readonly orientation: string;
  readonly because: string;
}

/** A job as its printer sees it: each sheet with its tray, sides and orientation, and the attribute that brings it about. */
@Component({
  selector: 'fo-seen-list',
  imports: [ScrollingModule],
  template: `
    @if (rows(); as rows) {
      <div role="table" aria-label="As the printer sees it" [attr.aria-rowcount]="rows.length + 1">
        <div role="row" class="row head">
          @for (name of ['Sheet', 'Tray', 'Sides', 'Read', 'Where that is set']; track name) {
            <span role="columnheader">{{ name }}</span>
          }
        </div>
        <cdk-virtual-scroll-viewport itemSize="34" role="rowgroup" tabindex="0" aria-label="Sheets">
          <div *cdkVirtualFor="let row of rows" role="row" class="row">
            <span role="cell">{{ row.sheet }}</span>
            <span role="cell" class="from">
              @if (row.place >= 0) {
                <span class="mark" [style.background]="colour(row.place)" [style.color]="ink(row.place)">{{
                  mark(row.place)
                }}</span>
              }
              {{ row.tray }}
            </span>
            <span role="cell">{{ row.sides }}</span>
            <span role="cell">{{ row.orientation }}</span>
            <span role="cell">{{ row.because }}</span>
          </div>
        </cdk-virtual-scroll-viewport>
      </div>
    } @else {
      <p role="status">{{ trouble() ?? 'Reading what the printer was told' }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
      min-height: 0;
      padding: 8px 0 16px;
    }
    [role='table'] {
      display: flex;
      flex-direction: column;
      height: 100%;
      border: 1px solid var(--line);
      border-radius: var(--radius);
      background: var(--card);
    }
    cdk-virtual-scroll-viewport {
      flex: 1;
    }
    .row {
      display: grid;
      grid-template-columns: 90px minmax(150px, 1fr) 160px 90px minmax(220px, 2fr);
      gap: 12px;
      align-items: center;
      height: 34px;
      padding: 0 14px;
      border-bottom: 1px solid var(--line);
    }
    .head {
      flex: none;
      font-weight: 600;
    }
    .from {
      display: flex;
      gap: 8px;
      align-items: center;
    }
    .mark {
      display: grid;
      place-items: center;
      width: 20px;
      height: 20px;
      border-radius: 4px;
      font: 700 12px var(--sans);
    }
    p {
      color: var(--soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SeenList {
  readonly sending = input.required<SendingRecord>();
  readonly printer = input.required<PrinterRecord | null>();
  private readonly api = inject(Api);
  private readonly id = computed(() => this.sending().id);
  private readonly seen = resource({
    params: () => this.id(),
    loader: ({ params }) => firstValueFrom(this.api.seen(params)),
  });
  protected readonly trouble = computed(() => {
    const error = this.seen.error();
    return error ? sayError(error) : null;
  });
  protected readonly rows = computed<readonly Row[] | null>(() => {
    if (this.trouble() !== null) return null;
    const seen = this.seen.value();
    return seen ? seen.sheets.map((sheet) => this.row(sheet, seen.jobs)) : null;
  });
  protected readonly colour = trayColour;
  protected readonly ink = trayInk;
  protected readonly mark = trayMark;

  private row(sheet: SheetAsSeen, jobs: number): Row {
    const trays = this.printer()?.profile.trays ?? [];
    const place = trays.findIndex(({ id }) => id === sheet.source);
    const tray = trays[place];
    const which = jobs > 1 ? `, job ${sheet.job}` : '';
    return {
      sheet: sheet.kind === 'sheet' ? `${sheet.sheet}${which}` : KINDS[sheet.kind],
      place,
      tray: sheet.source === null ? 'the one with its size' : tray ? trayName(tray) : sheet.source,
      sides: SIDES[sheet.sides] ?? sheet.sides,
      orientation: sheet.orientation,
      because: sheet.because,
    };
  }
}

const KINDS = { slip: 'slip', information: 'info' } as const;

const SIDES: Readonly<Record<string, string>> = {
  'one-sided': 'one side',
  'two-sided-long-edge': 'both, on the long edge',
  'two-sided-short-edge': 'both, on the short edge',
};
