import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { PrinterRecord } from '@foglio/api';

/** How much is left of what a printer prints with, each drawn as a bar in its colour. */
@Component({
  selector: 'fo-supplies',
  template: `
    <h3>Toner and ink</h3>
    <ul>
      @for (supply of supplies(); track $index) {
        <li>
          <span class="name">{{ supply.name }}</span>
          <span class="left">{{ supply.percent === null ? 'not measured' : supply.percent + ' %' }}</span>
          @if (supply.percent !== null) {
            <svg viewBox="0 0 100 6" preserveAspectRatio="none" aria-hidden="true">
              <rect width="100" height="6" class="whole" />
              <rect [attr.width]="supply.percent" height="6" [attr.fill]="supply.colour ?? '#4d5a62'" />
            </svg>
          }
        </li>
      }
    </ul>
  `,
  styles: `
    :host {
      display: block;
      margin: 20px 0;
    }
    h3 {
      margin-bottom: 4px;
      font-size: 15px;
    }
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      gap: 2px 8px;
      padding: 5px 0;
    }
    .name {
      overflow-wrap: anywhere;
    }
    .left {
      color: #4d5a62;
      font-variant-numeric: tabular-nums;
    }
    svg {
      grid-column: 1 / 3;
      width: 100%;
      height: 6px;
      border-radius: 3px;
    }
    .whole {
      fill: var(--line);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Supplies {
  readonly supplies = input.required<PrinterRecord['supplies']>();
}
