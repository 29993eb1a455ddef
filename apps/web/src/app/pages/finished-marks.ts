import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { finishedSide, HOLE_WIDTH, type Plan, type Sheet } from '@foglio/core';

/** What a finisher leaves on a side of a sheet: staples, holes, folds. */
@Component({
  selector: 'fo-finished-marks',
  template: `
    @if (marks().length > 0) {
      <svg [attr.viewBox]="viewBox()" aria-hidden="true">
        @for (one of marks(); track $index) {
          @if (one.kind === 'hole') {
            <circle [attr.cx]="one.x1" [attr.cy]="one.y1" [attr.r]="one.wide / 2" />
          } @else {
            <line
              [class]="one.kind"
              [attr.x1]="one.x1"
              [attr.y1]="one.y1"
              [attr.x2]="one.x2"
              [attr.y2]="one.y2"
              [attr.stroke-width]="one.wide"
            />
          }
        }
      </svg>
    }
  `,
  styles: `
    :host,
    svg {
      position: absolute;
      inset: 0;
      pointer-events: none;
    }
    circle {
      fill: var(--desk);
      stroke: #6b6557;
      stroke-width: 0.75px;
    }
    .staple {
      stroke: #3d4a52;
      stroke-linecap: round;
    }
    .fold {
      stroke: #8b8471;
      stroke-dasharray: 6 4;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FinishedMarks {
  readonly plan = input.required<Pick<Plan, 'finishing'>>();
  readonly sheet = input.required<Sheet>();
  readonly which = input.required<'front' | 'back'>();
  /** CSS pixels a point. */
  readonly scale = input.required<number>();
  /** Of the side, in CSS pixels. */
  readonly width = input.required<number>();
  readonly height = input.required<number>();

  protected readonly viewBox = computed(() => `0 0 ${this.width()} ${this.height()}`);
  protected readonly marks = computed(() => {
    const [k, height] = [this.scale(), this.height()];
    return finishedSide(this.plan(), this.sheet(), this.which()).map(({ kind, from, to }) => ({
      kind,
      x1: from[0] * k,
      y1: height - from[1] * k,
      x2: to[0] * k,
      y2: height - to[1] * k,
      // Thicker than a staple is, or it would not be seen on a small sheet.
      wide: kind === 'hole' ? HOLE_WIDTH * k : kind === 'fold' ? 1 : Math.max(2, 3 * k),
    }));
  });
}
