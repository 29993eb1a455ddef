import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { findTray, trayName } from '@foglio/core';
import type { SendingAct, SendingRecord, PrinterRecord } from '@foglio/api';
import { countSheets } from '../bench/amounts';

/** Between the two passes: how the stack goes back in, in words and drawn, and what is done when it is in. */
@Component({
  selector: 'fo-turn-guide',
  imports: [MatButton],
  template: `
    <h3>Put the stack back for its backs</h3>
    <ol>
      <li>Take all {{ sheets() }} from the output as one stack, in the order they lie.</li>
      <li class="how">{{ how() }}</li>
      <li>
        Put it into {{ tray() }} on top of the paper there, with the same edge going in first that came out first.
      </li>
    </ol>
    <svg viewBox="0 0 560 170" role="img" [attr.aria-label]="drawn()">
      <defs>
        <marker id="head" viewBox="0 0 10 10" refX="9" refY="5" markerWidth="7" markerHeight="7" orient="auto">
          <path d="M0 0 10 5 0 10z" fill="#4d5a62" />
        </marker>
      </defs>
      <!-- A stack seen from above; the thick line is the edge that goes in first. -->
      <g class="stack">
        <rect x="46" y="26" width="84" height="118" />
        <rect x="40" y="20" width="84" height="118" />
        <line x1="40" y1="20" x2="124" y2="20" class="lead" />
        @if (printedUp()) {
          <path d="M52 44h60M52 58h60M52 72h60M52 86h40" class="text" />
        }
        <text x="82" y="164">as it came out</text>
      </g>
      @if (turns()) {
        <path d="M150 96C190 40 240 40 280 96" class="arrow" marker-end="url(#head)" />
        <text x="215" y="40">turn it over like a page</text>
      } @else {
        <path d="M150 80H280" class="arrow" marker-end="url(#head)" />
        <text x="215" y="66">just as it lies</text>
      }
      <g class="stack">
        <path d="M296 20h120v130h-120z" class="tray" />
        <rect x="314" y="26" width="84" height="118" />
        <line x1="314" y1="26" x2="398" y2="26" class="lead" />
        @if (printedUp() !== turns()) {
          <path d="M326 50h60M326 64h60M326 78h60M326 92h40" class="text" />
        }
        <text x="356" y="164">in {{ tray() }}</text>
      </g>
      <path d="M356 19V4" class="arrow" marker-end="url(#head)" />
      <text x="440" y="32" class="key">this edge</text>
      <text x="440" y="48" class="key">goes in first</text>
    </svg>
    <div class="acts">
      <button mat-flat-button (click)="acted.emit('second-pass')">It is in: print the backs</button>
      <button mat-button (click)="acted.emit('first-pass')">Something went wrong: print the fronts again</button>
    </div>
  `,
  styles: `
    :host {
      display: block;
      max-width: 640px;
      padding: 12px 0 20px;
      overflow: auto;
    }
    h3 {
      font: 600 19px/1.4 var(--serif);
    }
    ol {
      margin: 8px 0 12px;
      padding-left: 22px;
      list-style: decimal;
    }
    li {
      padding: 3px 0;
    }
    .how {
      font-weight: 600;
    }
    svg {
      width: 100%;
      margin-bottom: 12px;
      border-radius: var(--radius);
      background: #e0d9ca;
    }
    rect {
      fill: #fff;
      stroke: #8b8471;
    }
    .tray {
      fill: #c9c0ae;
      stroke: #8b8471;
    }
    .lead {
      stroke: var(--accent);
      stroke-width: 5;
    }
    .text {
      fill: none;
      stroke: #4d5a62;
      stroke-width: 3;
    }
    .arrow {
      fill: none;
      stroke: #4d5a62;
      stroke-width: 2;
    }
    text {
      fill: var(--ink);
      font: 400 13px var(--sans);
      text-anchor: middle;
    }
    .key {
      fill: var(--accent);
      text-anchor: start;
    }
    .acts {
      display: flex;
      flex-wrap: wrap;
      gap: 12px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TurnGuide {
  readonly sending = input.required<SendingRecord>();
  readonly printer = input.required<PrinterRecord>();
  readonly acted = output<SendingAct>();
  protected readonly turns = computed(() => this.sending().handling === 'turn-over');
  /** Whether the fronts can be seen on the stack as it came out. */
  protected readonly printedUp = computed(() => this.printer().profile.delivers === 'face-up');
  protected readonly sheets = computed(() => countSheets(this.sending().sheets));
  protected readonly tray = computed(() => {
    const { profile } = this.printer();
    const tray = profile.refeedTray === null ? null : findTray(profile, profile.refeedTray);
    return tray ? `the ${trayName(tray).toLowerCase()}` : 'the tray';
  });
  protected readonly how = computed(() =>
    this.turns()
      ? 'Turn the whole stack over, once, like a page: what lay up now lies down.'
      : 'Do not turn it over: what lies up stays up.',
  );
  protected readonly drawn = computed(() => {
    const way = this.turns() ? 'is turned over like a page' : 'is moved just as it lies';
    return `The stack ${way} and goes into ${this.tray()}; the edge that came out first goes in first.`;
  });
}
