import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { boxOfText, visibleBox, wholePage, type Cell, type Plan, type Sheet, type Side } from '@foglio/core';
import { FinishedMarks } from './finished-marks';
import { PageImage } from './page-image';

/**
 * Where a page of the plan is fetched from, how the ticket turns it, whether it comes out in grey, and how large it is as
 * read, in points; null where there is no file.
 */
export type PageSource = (
  document: number,
  page: number,
) => {
  readonly url: string;
  readonly turn: number;
  readonly grey: boolean;
  readonly size: { readonly width: number; readonly height: number } | null;
};

interface PlacedCell {
  readonly key: string;
  readonly url: string;
  readonly page: number;
  readonly turn: number;
  readonly grey: boolean;
  readonly width: number;
  readonly frame: string;
  readonly image: string;
}

/** One side of a sheet as it is read, with the real pages where the plan puts them. */
@Component({
  selector: 'fo-side-view',
  imports: [FinishedMarks, PageImage],
  template: `
    @for (cell of cells(); track cell.key) {
      <div class="cell" [style]="cell.frame">
        <div class="image" [class.grey]="cell.grey" [style]="cell.image">
          @if (cell.url === '') {
            <div class="sample" [class.sideways]="cell.turn % 180 !== 0"></div>
          } @else {
            <fo-page-image [url]="cell.url" [page]="cell.page" [turn]="cell.turn" [width]="cell.width" />
          }
        </div>
      </div>
    }
    @if (marks(); as path) {
      <svg class="marks" [attr.viewBox]="viewBox()" aria-hidden="true"><path [attr.d]="path" /></svg>
    }
    @if (texts().length > 0) {
      <svg class="texts" [attr.viewBox]="viewBox()" aria-hidden="true">
        @for (one of texts(); track $index) {
          <text
            [attr.x]="one.x"
            [attr.y]="one.y"
            [attr.font-size]="one.size"
            [attr.textLength]="one.width"
            lengthAdjust="spacingAndGlyphs"
            [attr.transform]="one.turn"
          >
            {{ one.text }}
          </text>
        }
      </svg>
    }
    @if (finishedBy()?.finishing && finishedBy(); as plan) {
      <fo-finished-marks
        [plan]="plan"
        [sheet]="sheet()"
        [which]="side() === sheet().front ? 'front' : 'back'"
        [scale]="scale()"
        [width]="width()"
        [height]="height()"
      />
    }
    @if (folds() && sheet().signature) {
      <div class="fold"></div>
    }
    @if (printable(); as inset) {
      <div class="printable" [style.inset]="inset"></div>
    }
  `,
  styles: `
    :host {
      display: block;
      position: relative;
      overflow: hidden;
      background: var(--sheet);
    }
    :host(.blank) {
      background: repeating-linear-gradient(135deg, #efeae0 0 6px, #fbf9f4 6px 12px);
    }
    .cell,
    .image,
    .marks,
    .texts,
    .printable {
      position: absolute;
    }
    .cell {
      overflow: hidden;
    }
    /* Defined in app.ts. */
    .image.grey {
      filter: url(#as-printed-in-grey);
    }
    /* In the place of a page that there is no file for: lines as of text. */
    .sample {
      position: absolute;
      inset: 14% 14% 22%;
      background: repeating-linear-gradient(#d9d3c6 0 1px, transparent 1px 12%);
    }
    .sample.sideways {
      background: repeating-linear-gradient(90deg, #d9d3c6 0 1px, transparent 1px 12%);
    }
    .marks {
      inset: 0;
      fill: none;
      stroke: #000;
      stroke-width: 0.5px;
    }
    .texts {
      inset: 0;
      fill: #000;
    }
    .fold {
      position: absolute;
      inset: 0 auto 0 50%;
      border-left: 1px dashed #8b8471;
      pointer-events: none;
    }
    .printable {
      border: 1px dashed #c98d93;
      pointer-events: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[style.width.px]': 'width()', '[style.height.px]': 'height()', '[class.blank]': 'blank()' },
})
export class SideView {
  readonly sheet = input.required<Sheet>();
  /** Null: the blank face of a one-sided sheet. */
  readonly side = input.required<Side | null>();
  readonly source = input.required<PageSource>();
  /** CSS pixels a point. */
  readonly scale = input.required<number>();
  /** Millimetres along each edge that the printer keeps free; null hides the line. */
  readonly marginMm = input<number | null>(null);

  /** The plan that the sheet is of, to show what is stapled, punched or folded; null hides that. */
  readonly finishedBy = input<Pick<Plan, 'finishing'> | null>(null);

  /** Shows where the sheet of a booklet is folded. */
  readonly folds = input(false);

  protected readonly blank = computed(() => (this.side()?.cells.length ?? 0) === 0 && this.texts().length === 0);
  private readonly size = computed(() => {
    const { width, height } = this.sheet().paper;
    const landscape = (this.side() ?? this.sheet().front).orientation === 'landscape';
    return landscape ? { width: height, height: width } : { width, height };
  });
  protected readonly width = computed(() => this.size().width * this.scale());
  protected readonly height = computed(() => this.size().height * this.scale());
  protected readonly cells = computed(() => (this.side()?.cells ?? []).map((cell, index) => this.place(cell, index)));
  protected readonly viewBox = computed(() => `0 0 ${this.width()} ${this.height()}`);
  /** Frames and cut marks. */
  protected readonly marks = computed(() => {
    const k = this.scale();
    const point = (x: number, y: number): string => `${x * k} ${this.height() - y * k}`;
    return (this.side()?.marks ?? []).map(([x1, y1, x2, y2]) => `M${point(x1, y1)}L${point(x2, y2)}`).join('');
  });
  /** Lines of text at head and foot, as wide as they are printed, whatever font the screen has. */
  protected readonly texts = computed(() => {
    const k = this.scale();
    return (this.side()?.texts ?? []).map((text) => {
      const [x, y] = [text.x * k, this.height() - text.y * k];
      const turn = text.turn === 0 ? null : `rotate(180 ${x} ${y})`;
      return { text: text.text, x, y, size: text.size * k, width: boxOfText(text).width * k, turn };
    });
  });
  protected readonly printable = computed(() => {
    const margin = this.marginMm();
    return margin === null || margin === 0 || this.blank() ? null : `${(margin * 72 * this.scale()) / 25.4}px`;
  });

  /** The plan's y grows upward from the lower edge, so boxes are hung by `bottom`. */
  private place(cell: Cell, index: number): PlacedCell {
    const { url, turn, grey, size } = this.source()(cell.document, cell.page);
    const k = this.scale();
    const whole = size ? wholePage(cell, size) : cell;
    const seen = visibleBox(cell);
    const box = (x: number, y: number, width: number, height: number): string =>
      `left:${x * k}px;bottom:${y * k}px;width:${width * k}px;height:${height * k}px`;
    return {
      key: `${index} ${cell.document} ${cell.page}`,
      url,
      page: cell.page,
      turn: turn + cell.turn,
      grey,
      width: whole.width * k,
      frame: box(seen.x, seen.y, seen.width, seen.height),
      image: box(whole.x - seen.x, whole.y - seen.y, whole.width, whole.height),
    };
  }
}
