import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { SpendRecord } from '@foglio/api';
import { sayCheaper } from '@foglio/sentence';
import { countSheets, sayMoney } from '../bench/amounts';

interface Line {
  readonly key: string;
  readonly title: string;
  /** To what can be changed: the set-up that it was printed by, otherwise the job; null: both are gone. */
  readonly link: readonly string[] | null;
  readonly says: string;
  readonly cost: string;
}

const timesOf = (times: number): string => (times === 1 ? 'once' : times === 2 ? 'twice' : `${times} times`);

/** What would have cost less, and what was printed again, a line each. */
@Component({
  selector: 'fo-spend-lines',
  imports: [RouterLink],
  template: `
    @for (part of parts(); track part.title) {
      <h2>{{ part.title }}</h2>
      <ul>
        @for (line of part.lines; track line.key) {
          <li>
            <p class="title">
              @if (line.link; as link) {
                <a [routerLink]="link">{{ line.title }}</a>
              } @else {
                {{ line.title }}
              }
            </p>
            <p class="says">{{ line.says }}</p>
            <p class="cost">{{ line.cost }}</p>
          </li>
        } @empty {
          <li class="none">{{ part.none }}</li>
        }
      </ul>
    }
  `,
  styleUrl: './spend-lines.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SpendLines {
  readonly spend = input.required<SpendRecord>();

  protected readonly parts = computed(() => {
    const { cheaper, again } = this.spend();
    return [
      { title: 'What would have cost less', lines: cheaper.map(lineOfCheaper), none: 'Nothing that was printed.' },
      { title: 'Printed again', lines: again.map(lineOfAgain), none: 'Nothing.' },
    ];
  });
}

function lineOfCheaper(one: SpendRecord['cheaper'][number]): Line {
  const { title, way, times, saves, smallestTextPt, setupId, jobId } = one;
  return {
    key: `${title} ${way}`,
    title: title || 'Untitled job',
    link: setupId ? ['/set-ups', setupId] : jobId ? ['/jobs', jobId] : null,
    says: `${sayCheaper(way, smallestTextPt)}; printed ${timesOf(times)}`,
    cost: sayMoney(saves),
  };
}

function lineOfAgain({ title, jobId, why, said, times, sheets, cost }: SpendRecord['again'][number]): Line {
  const reason = why === 'wished' ? 'though it had come out' : `it was broken off${said ? `: ${said}` : ''}`;
  return {
    key: `${title} ${why} ${said}`,
    title: title || 'Untitled job',
    link: jobId ? ['/jobs', jobId] : null,
    says: `${countSheets(sheets)}, ${timesOf(times)}; ${reason}`,
    cost: sayMoney(cost),
  };
}
