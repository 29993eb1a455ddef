import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, signal } from '@angular/core';
import type { Sheet, Side } from '@foglio/core';
import { SideView, type PageSource } from '../../pages/side-view';

/** A place on a side, as parts of its width and height from the upper left corner. */
export interface PlaceOnSide {
  readonly x: number;
  readonly y: number;
}

/** CSS pixels a point at printed size: 96 pixels an inch (CSS Values and Units, 5.2), 72 points an inch. */
const PRINTED_SIZE = 96 / 72;

const ZOOMS = [1, 2, 4] as const;

const WIDTH = 284;
const HEIGHT = 150;

/** A step of an arrow key, in CSS pixels. */
const STEP = 24;

const between = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, value));

/** A part of a side at the size it is printed, or larger; moved by pointing at the side or by arrow keys. */
@Component({
  selector: 'fo-loupe',
  imports: [SideView],
  template: `
    <div
      class="glass"
      role="img"
      tabindex="0"
      aria-label="A part of the sheet, enlarged; arrows move it"
      (keydown)="move($event)"
    >
      <div class="at" [style.transform]="'translate(' + -offset().left + 'px,' + -offset().top + 'px)'">
        <fo-side-view [sheet]="sheet()" [side]="side()" [source]="source()" [scale]="scale()" />
      </div>
    </div>
    <div class="zooms" role="group" aria-label="How much larger than printed">
      @for (zoom of zooms; track zoom) {
        <button type="button" [attr.aria-pressed]="zoom === chosen()" (click)="chosen.set(zoom)">
          {{ zoom * 100 }} %
        </button>
      }
      <span>{{ chosen() === 1 ? 'printed size' : 'of printed size' }}{{ smallest() }}</span>
    </div>
  `,
  styles: `
    .glass {
      position: relative;
      width: ${WIDTH}px;
      height: ${HEIGHT}px;
      overflow: hidden;
      border: 2px solid var(--ink);
      border-radius: var(--radius);
      background: var(--desk);
    }
    .at {
      position: absolute;
      inset: 0 auto auto 0;
    }
    .zooms {
      margin-top: 4px;
      color: var(--soft);
      font-size: 13px;
    }
    button {
      min-height: 24px;
      margin-right: 4px;
      padding: 0 6px;
      border: 1px solid var(--line);
      border-radius: var(--radius);
      background: var(--card);
      color: inherit;
      font: inherit;
      cursor: pointer;
    }
    [aria-pressed='true'] {
      border-color: var(--ink);
      color: var(--ink);
      font-weight: 600;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Loupe {
  readonly sheet = input.required<Sheet>();
  readonly side = input.required<Side | null>();
  readonly source = input.required<PageSource>();
  /** Where the pointer last was. */
  readonly pointed = input.required<PlaceOnSide>();
  /** In points; null where no text is printed or it is not known yet. */
  readonly smallestTextPt = input.required<number | null>();
  protected readonly zooms = ZOOMS;
  /** Times the printed size. */
  protected readonly chosen = signal<number>(1);
  protected readonly scale = computed(() => PRINTED_SIZE * this.chosen());
  protected readonly smallest = computed(() => {
    const points = this.smallestTextPt();
    return points === null ? '' : `; smallest text ${points.toFixed(1)} pt`;
  });

  private readonly size = computed(() => {
    const { paper, front } = this.sheet();
    const landscape = (this.side() ?? front).orientation === 'landscape';
    const [width, height] = landscape ? [paper.height, paper.width] : [paper.width, paper.height];
    return { width: width * this.scale(), height: height * this.scale() };
  });

  private readonly centre = linkedSignal<PlaceOnSide>(() => this.pointed());

  /** What of the side lies to the left of the glass and above it. */
  protected readonly offset = computed(() => {
    const { width, height } = this.size();
    const { x, y } = this.centre();
    return {
      left: between(x * width - WIDTH / 2, 0, Math.max(0, width - WIDTH)),
      top: between(y * height - HEIGHT / 2, 0, Math.max(0, height - HEIGHT)),
    };
  });

  protected move(event: KeyboardEvent): void {
    const steps: Record<string, readonly [number, number]> = {
      ArrowRight: [STEP, 0],
      ArrowLeft: [-STEP, 0],
      ArrowDown: [0, STEP],
      ArrowUp: [0, -STEP],
    };
    const step = steps[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    const { width, height } = this.size();
    const { left, top } = this.offset();
    this.centre.set({ x: (left + WIDTH / 2 + step[0]) / width, y: (top + HEIGHT / 2 + step[1]) / height });
  }
}
