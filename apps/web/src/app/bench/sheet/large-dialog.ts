import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import {
  MAT_DIALOG_DATA,
  MatDialogActions,
  MatDialogClose,
  MatDialogContent,
  MatDialogTitle,
} from '@angular/material/dialog';
import type { Plan, Sheet } from '@foglio/core';
import { SideView, type PageSource } from '../../pages/side-view';
import { sayCaption, type FaceWords } from './sheet-words';

/** A sheet as the plan has it, and how it is told. */
export interface LargeData extends FaceWords {
  readonly plan: Plan | null;
  readonly sheet: Sheet;
  /** Which side is seen first. */
  readonly back: boolean;
  readonly source: PageSource;
  readonly marginMm: number;
}

/** Zoom goes by this factor, from all of the side to five times that. */
const STEP = 1.25;
const MOST = 5;

/** Of the window, what is left for the sheet beside title and buttons. */
const ROOM = { width: 0.9, height: 0.72 };

/** A sheet as large as the window lets it be, to be turned over, turned round and looked at closely. */
@Component({
  selector: 'fo-large-dialog',
  imports: [MatButton, MatDialogActions, MatDialogClose, MatDialogContent, MatDialogTitle, SideView],
  template: `
    <h2 mat-dialog-title>{{ caption() }}</h2>
    <mat-dialog-content>
      <div class="desk" tabindex="0" [style.height.px]="room.height">
        <div class="place" [style]="place()">
          <fo-side-view
            [style.transform]="turned()"
            [sheet]="data.sheet"
            [side]="back() ? data.sheet.back : data.sheet.front"
            [source]="data.source"
            [finishedBy]="data.plan"
            [scale]="scale()"
            [marginMm]="data.marginMm"
            [folds]="true"
          />
        </div>
      </div>
    </mat-dialog-content>
    <mat-dialog-actions>
      <button mat-stroked-button (click)="back.set(!back())">Turn over</button>
      <button mat-stroked-button (click)="quarters.set((quarters() + 1) % 4)">Turn a quarter</button>
      <button mat-stroked-button [disabled]="zoom() <= 1" (click)="by(1 / step)">Smaller</button>
      <span role="status">{{ percent() }} % of its size</span>
      <button mat-stroked-button [disabled]="zoom() >= most" (click)="by(step)">Larger</button>
      <button mat-flat-button mat-dialog-close cdkFocusInitial>Close</button>
    </mat-dialog-actions>
  `,
  styles: `
    mat-dialog-content {
      max-height: none;
      overflow: hidden;
    }
    .desk {
      display: grid;
      overflow: auto;
      background: var(--shelf);
    }
    .place {
      position: relative;
      margin: auto;
    }
    fo-side-view {
      position: absolute;
      left: 50%;
      top: 50%;
      box-shadow: var(--shadow);
    }
    mat-dialog-actions {
      gap: 12px;
    }
    mat-dialog-actions :last-child {
      margin-left: auto;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LargeDialog {
  protected readonly data = inject<LargeData>(MAT_DIALOG_DATA);
  protected readonly step = STEP;
  protected readonly most = MOST;
  protected readonly room = { width: window.innerWidth * ROOM.width, height: window.innerHeight * ROOM.height };
  protected readonly back = signal(this.data.back);
  protected readonly quarters = signal(0);
  protected readonly zoom = signal(1);

  protected readonly caption = computed(
    () => `Sheet ${this.data.sheet.index}: ${sayCaption(this.data.sheet, this.back(), this.data)}`,
  );

  /** The side as it is read, in points. */
  private readonly size = computed(() => {
    const { paper, front, back } = this.data.sheet;
    const { orientation } = (this.back() ? back : front) ?? front;
    return orientation === 'landscape' ? { width: paper.height, height: paper.width } : paper;
  });

  private readonly extent = computed(() => {
    const { width, height } = this.size();
    return this.quarters() % 2 === 0 ? { width, height } : { width: height, height: width };
  });

  /** CSS pixels a point. */
  protected readonly scale = computed(() => {
    const { width, height } = this.extent();
    const fit = Math.min((this.room.width - 24) / width, (this.room.height - 24) / height);
    return fit * this.zoom();
  });

  /** A CSS pixel is a ninety-sixth of an inch, a point a seventy-second. */
  protected readonly percent = computed(() => Math.round((this.scale() * 7200) / 96));

  protected readonly place = computed(() => {
    const { width, height } = this.extent();
    return `width:${width * this.scale()}px;height:${height * this.scale()}px`;
  });

  protected readonly turned = computed(() => `translate(-50%, -50%) rotate(${this.quarters() * 90}deg)`);

  protected by(factor: number): void {
    this.zoom.update((zoom) => Math.min(MOST, Math.max(1, zoom * factor)));
  }
}
