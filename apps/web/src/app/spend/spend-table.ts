import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import type { SpendFigures, SpendRecord } from '@foglio/api';
import { saySpentKind, saySpentPaper } from '@foglio/sentence';
import { sayMoney } from '../bench/amounts';
import { sayCount } from './chart-series';

const WAYS = ['printer', 'paper', 'kind', 'set-up'] as const;
type By = (typeof WAYS)[number];

interface Row {
  readonly name: string;
  /** Where it is seen or changed; null: nowhere. */
  readonly link: readonly string[] | null;
  readonly cells: readonly string[];
}

const HEADS = ['Sheets', 'Two-sided', 'Sides', 'In colour', 'Paper', 'Printing', 'In all', 'Saved', 'Again'];

/** What was spent, by one thing or another. */
@Component({
  selector: 'fo-spend-table',
  imports: [MatButton, RouterLink],
  template: `
    <div class="views" role="group" aria-label="What was spent, by">
      @for (way of WAYS; track way) {
        <button mat-stroked-button type="button" class="small" [attr.aria-pressed]="way === by()" (click)="by.set(way)">
          By {{ way }}
        </button>
      }
    </div>
    <div class="scrolls" tabindex="0" role="group" [attr.aria-label]="'What was spent by ' + by()">
      <table>
        <thead>
          <tr>
            <th scope="col">{{ by() === 'set-up' ? 'Set-up' : by()[0]!.toUpperCase() + by().slice(1) }}</th>
            @for (head of heads(); track head) {
              <th scope="col" class="amount">{{ head }}</th>
            }
          </tr>
        </thead>
        <tbody>
          @for (row of rows(); track row.name) {
            <tr>
              <th scope="row">
                @if (row.link; as link) {
                  <a [routerLink]="link">{{ row.name }}</a>
                } @else {
                  {{ row.name }}
                }
              </th>
              @for (cell of row.cells; track $index) {
                <td class="amount">{{ cell }}</td>
              }
            </tr>
          }
        </tbody>
      </table>
    </div>
  `,
  styleUrl: './spend-table.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SpendTable {
  readonly spend = input.required<SpendRecord>();
  protected readonly WAYS = WAYS;
  protected readonly by = signal<By>('printer');
  protected readonly heads = computed(() => (this.by() === 'paper' ? ['Sheets', 'Paper'] : HEADS));
  protected readonly rows = computed<readonly Row[]>(() => rowsOf(this.spend(), this.by()));
}

function rowsOf({ printers, papers, kinds, setups }: SpendRecord, by: By): Row[] {
  switch (by) {
    case 'printer':
      return printers.map((one) => ({ name: one.name, link: ['/printers', one.id], cells: cellsOf(one) }));
    case 'kind':
      return kinds.map((one) => ({ name: saySpentKind(one.kind), link: null, cells: cellsOf(one) }));
    case 'set-up':
      return setups.map((one) => ({
        name: one.name ?? 'set up by hand',
        link: one.id === null ? null : ['/set-ups', one.id],
        cells: cellsOf(one),
      }));
    case 'paper':
      return papers.map((one) => ({
        name: saySpentPaper(one),
        link: null,
        cells: [sayCount(one.sheets), sayMoney(one.cost)],
      }));
  }
}

const cellsOf = (one: SpendFigures): string[] => [
  sayCount(one.sheets),
  one.sheets === 0 ? '0 %' : `${Math.round((100 * one.twoSidedSheets) / one.sheets)} %`,
  sayCount(one.sides),
  sayCount(one.colorSides),
  sayMoney(one.paper),
  sayMoney(one.printing),
  sayMoney(one.paper + one.printing),
  sayMoney(one.saved),
  sayCount(one.againSheets),
];
