import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Sheet } from '@foglio/core';
import { SideView, type PageSource } from '../../pages/side-view';
import { placeOnPage, tileOf } from './joined';

/** The sheets of one page as they are once they are joined: each where the page lies on it. */
@Component({
  selector: 'fo-joined-page',
  imports: [SideView],
  template: `
    <div class="page" [style]="outer()">
      @for (piece of pieces(); track piece.sheet.index) {
        <div class="piece" [style]="piece.place">
          <fo-side-view
            [style]="piece.shift"
            [sheet]="piece.sheet"
            [side]="piece.sheet.front"
            [source]="source()"
            [scale]="scale()"
          />
        </div>
      }
    </div>
  `,
  styles: `
    .page {
      position: relative;
      box-shadow: var(--shadow);
    }
    .piece {
      position: absolute;
      overflow: hidden;
      outline: 1px dashed #c98d93;
    }
    fo-side-view {
      position: absolute;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JoinedPage {
  readonly sheets = input.required<readonly Sheet[]>();
  readonly source = input.required<PageSource>();
  /** What it may take up, in CSS pixels. */
  readonly room = input.required<{ readonly width: number; readonly height: number }>();

  /** All that the sheets hold of the page, in points from its lower left corner. */
  private readonly extent = computed(() => {
    const places = this.sheets().flatMap((sheet) => {
      const tile = tileOf(sheet);
      return tile ? [placeOnPage(tile)] : [];
    });
    const [left, bottom] = [Math.min(...places.map(({ x }) => x)), Math.min(...places.map(({ y }) => y))];
    const right = Math.max(...places.map(({ x, width }) => x + width));
    const top = Math.max(...places.map(({ y, height }) => y + height));
    return { left, bottom, width: right - left, height: top - bottom };
  });

  /** CSS pixels a point. */
  protected readonly scale = computed(() => {
    const { width, height } = this.extent();
    return Math.min(this.room().width / width, this.room().height / height);
  });

  protected readonly outer = computed(() => {
    const { width, height } = this.extent();
    return `width:${width * this.scale()}px;height:${height * this.scale()}px`;
  });

  protected readonly pieces = computed(() => {
    const k = this.scale();
    const { left, bottom } = this.extent();
    return this.sheets().flatMap((sheet) => {
      const tile = tileOf(sheet);
      if (!tile) return [];
      const { x, y, width, height } = placeOnPage(tile);
      const place = `left:${(x - left) * k}px;bottom:${(y - bottom) * k}px;width:${width * k}px;height:${height * k}px`;
      const shift = `left:${-tile.clip[0] * k}px;bottom:${-tile.clip[1] * k}px`;
      return [{ sheet, place, shift }];
    });
  });
}
