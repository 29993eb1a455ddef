import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Plan, Printer, Sheet } from '@foglio/core';
import { trayColour } from '../bench/tray-mark';

/** CSS pixels that A4's longer edge takes. */
const LONG = 44;
const SCALE = LONG / 841.89;
const GAP = 7;
/** The back of a sheet shows at its lower right. */
const BACK = 3;
const SHOWN = 3;

interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

interface DrawnSheet {
  readonly paper: Box;
  readonly isTwoSided: boolean;
  readonly isPrintedOnBack: boolean;
  readonly cells: readonly Box[];
  readonly lines: readonly string[];
  readonly tab: Box;
  readonly colour: string;
  readonly isFolded: boolean;
}

/** What a set-up does, as a small picture: its first sheets with the places of the pages, their backs and their trays. */
@Component({
  selector: 'fo-setup-picture',
  template: `
    <svg [attr.width]="width()" [attr.height]="height()" aria-hidden="true">
      @for (sheet of sheets(); track $index) {
        @if (sheet.isTwoSided) {
          <rect
            class="paper"
            [class.printed]="sheet.isPrintedOnBack"
            [attr.x]="sheet.paper.x + 3"
            [attr.y]="sheet.paper.y + 3"
            [attr.width]="sheet.paper.width"
            [attr.height]="sheet.paper.height"
          />
        }
        <rect
          class="paper"
          [attr.x]="sheet.paper.x"
          [attr.y]="sheet.paper.y"
          [attr.width]="sheet.paper.width"
          [attr.height]="sheet.paper.height"
        />
        @for (cell of sheet.cells; track $index) {
          <rect
            class="cell"
            [class.grey]="grey()"
            [attr.x]="cell.x"
            [attr.y]="cell.y"
            [attr.width]="cell.width"
            [attr.height]="cell.height"
          />
        }
        @for (line of sheet.lines; track $index) {
          <path class="text" [attr.d]="line" />
        }
        @if (sheet.isFolded) {
          <path
            class="fold"
            [attr.d]="'M' + (sheet.paper.x + sheet.paper.width / 2) + ' ' + sheet.paper.y + 'v' + sheet.paper.height"
          />
        }
        <rect
          [attr.x]="sheet.tab.x"
          [attr.y]="sheet.tab.y"
          [attr.width]="sheet.tab.width"
          [attr.height]="sheet.tab.height"
          [attr.fill]="sheet.colour"
        />
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
      line-height: 0;
    }
    .paper {
      fill: var(--sheet);
      stroke: #b9b09d;
    }
    .cell {
      fill: #f0e3da;
      stroke: none;
    }
    .cell.grey {
      fill: #e6e6e4;
    }
    .text {
      fill: none;
      stroke: #9a958a;
      stroke-width: 0.75px;
    }
    .fold {
      fill: none;
      stroke: #8b8471;
      stroke-dasharray: 2 2;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SetupPicture {
  readonly plan = input.required<Plan | null>();
  readonly printer = input.required<Printer>();
  readonly grey = input(false);

  protected readonly sheets = computed<readonly DrawnSheet[]>(() => {
    let x = 1;
    return (this.plan()?.sheets ?? []).slice(0, SHOWN).map((sheet) => {
      const drawn = this.draw(sheet, x);
      x += drawn.paper.width + BACK + GAP;
      return drawn;
    });
  });
  protected readonly width = computed(() =>
    Math.max(0, ...this.sheets().map(({ paper }) => paper.x + paper.width + BACK + 1)),
  );
  protected readonly height = computed(() =>
    Math.max(LONG + BACK + 2, ...this.sheets().map(({ paper }) => paper.height + BACK + 2)),
  );

  private draw(sheet: Sheet, x: number): DrawnSheet {
    const isLandscape = sheet.front.orientation === 'landscape';
    const [width, height] = [sheet.paper.width * SCALE, sheet.paper.height * SCALE];
    const paper = { x, y: 1, width: isLandscape ? height : width, height: isLandscape ? width : height };
    const cells = sheet.front.cells.map((cell) => ({
      x: x + cell.x * SCALE,
      y: 1 + paper.height - (cell.y + cell.height) * SCALE,
      width: cell.width * SCALE,
      height: cell.height * SCALE,
    }));
    const place = this.printer().trays.findIndex(({ id }) => id === sheet.tray);
    return {
      paper,
      isTwoSided: sheet.back !== null,
      isPrintedOnBack: (sheet.back?.cells.length ?? 0) > 0,
      cells,
      lines: cells.map(textIn),
      tab: {
        x: x + paper.width - 2,
        y: 1 + paper.height * (0.04 + place * 0.15),
        width: 4,
        height: paper.height * 0.2,
      },
      colour: place < 0 ? 'transparent' : trayColour(place),
      isFolded: sheet.signature !== undefined,
    };
  }
}

/** A few lines as of text, so that one sees which way up a page stands and how small it gets. */
function textIn({ x, y, width, height }: Box): string {
  const inset = width * 0.16;
  const step = height / 9;
  return [2, 3, 4, 5, 6]
    .map((line) => `M${x + inset} ${y + line * step}h${(width - 2 * inset) * (line === 6 ? 0.6 : 1)}`)
    .join('');
}
