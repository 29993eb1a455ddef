import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { Store } from '@ngrx/store';
import { OFFERED, type Situation } from '@foglio/sentence';
import { benchFeature } from '../../state/bench.state';

/** What the sentence does not say yet and could: each leads to its own popover. */
@Component({
  selector: 'fo-also-list',
  template: `
    <h2>And also</h2>
    <ul>
      @for (aspect of offered(); track aspect.name) {
        <li>
          <button type="button" (click)="chosen.emit(aspect.name)">{{ aspect.offer }}</button>
        </li>
      }
      <li><button type="button" (click)="chosen.emit('routes')">Pages with paper or settings of their own</button></li>
    </ul>
  `,
  styles: `
    ul {
      columns: 2;
      column-gap: 16px;
      margin-top: 8px;
    }
    li {
      break-inside: avoid;
    }
    button {
      width: 100%;
      min-height: 32px;
      padding: 4px 8px;
      border: 0;
      border-radius: var(--radius);
      background: none;
      color: var(--ink);
      font: inherit;
      text-align: left;
      cursor: pointer;
    }
    button:hover {
      background: var(--accent-soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'popover', role: 'dialog', 'aria-label': 'And also' },
})
export class AlsoList {
  readonly chosen = output<string>();
  private readonly situation = inject(Store).selectSignal(benchFeature.selectSituation);
  protected readonly offered = computed(() => {
    const situation = this.situation() as Situation;
    return OFFERED.filter(({ fits, say }) => (fits?.(situation) ?? true) && say(situation) === null);
  });
}
