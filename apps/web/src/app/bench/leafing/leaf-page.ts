import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Plan, ReadPage } from '@foglio/core';
import { SideView, type PageSource } from '../../pages/side-view';

/** A page of the stack as it lies in the hand: a side, or half of one, turned as it comes to lie. */
@Component({
  selector: 'fo-leaf-page',
  imports: [SideView],
  template: `
    <div class="paper" [style]="outer()">
      <div class="turned" [style]="inner()">
        <fo-side-view
          [sheet]="page().sheet"
          [side]="page().which === 'front' ? page().sheet.front : page().sheet.back"
          [source]="source()"
          [finishedBy]="finishedBy()"
          [scale]="scale()"
        />
      </div>
    </div>
  `,
  styles: `
    .paper {
      position: relative;
      overflow: hidden;
      background: var(--sheet);
      box-shadow: var(--shadow);
    }
    .turned {
      position: absolute;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LeafPage {
  readonly page = input.required<ReadPage>();
  readonly source = input.required<PageSource>();
  readonly finishedBy = input<Pick<Plan, 'finishing'> | null>(null);
  /** CSS pixels a point. */
  readonly scale = input.required<number>();

  private readonly side = computed(() => {
    const { sheet, which } = this.page();
    const { orientation } = (which === 'front' ? sheet.front : sheet.back) ?? sheet.front;
    const [width, height] =
      orientation === 'landscape' ? [sheet.paper.height, sheet.paper.width] : [sheet.paper.width, sheet.paper.height];
    return { width: width * this.scale(), height: height * this.scale() };
  });

  protected readonly outer = computed(() => {
    const { width, height } = this.side();
    const { half, turn } = this.page();
    if (half) return `width:${width / 2}px;height:${height}px`;
    const [across, up] = turn % 180 === 0 ? [width, height] : [height, width];
    return `width:${across}px;height:${up}px`;
  });

  /** The set would have to be turned clockwise for the page to read upright, so it is seen turned the other way. */
  protected readonly inner = computed(() => {
    const { width, height } = this.side();
    const { half, turn } = this.page();
    if (half) {
      // Turned upside down, the halves of a side change places.
      const left = (half === 'left') !== (turn === 180);
      return `left:${left ? 0 : -width / 2}px;top:0;transform:rotate(${-turn}deg)`;
    }
    const [across, up] = turn % 180 === 0 ? [width, height] : [height, width];
    return `left:${(across - width) / 2}px;top:${(up - height) / 2}px;transform:rotate(${-turn}deg)`;
  });
}
