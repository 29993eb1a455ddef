import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  inject,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import {
  MAT_DIALOG_DATA,
  MatDialogActions,
  MatDialogClose,
  MatDialogContent,
  MatDialogRef,
  MatDialogTitle,
} from '@angular/material/dialog';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatRadioButton, MatRadioGroup } from '@angular/material/radio';
import { FormsModule } from '@angular/forms';
import { pointsToMm } from '@foglio/core';
import { PageImage } from '../../pages/page-image';
import { byKey, drawn, GRIPS, moved, resized, type Grip, type Point, type Rectangle } from './rectangle';

/** A page on which the part is shown: where its file is, and its size as read, in points. */
export interface PartPage {
  readonly page: number;
  readonly url: string;
  readonly turn: number;
  readonly width: number;
  readonly height: number;
}

/** Whose part it may be: "all 14 pages of Season contract", "pages 6 and 9 alone"; of one page at least. */
export interface PartScope {
  readonly said: string;
  readonly pages: readonly PartPage[];
}

export interface PartData {
  /** One or more, of which one is chosen. */
  readonly scopes: readonly PartScope[];
  readonly rectangle: Rectangle;
}

/** What was drawn, and for which of the scopes. */
export interface DrawnPart {
  readonly rectangle: Rectangle;
  readonly scope: number;
}

/** Room for the page, in CSS pixels. */
const ROOM = { width: 520, height: 470 };

const FIELDS = [
  ['left', 'From the left'],
  ['top', 'From the top'],
  ['width', 'Width'],
  ['height', 'Height'],
] as const;

/** A rectangle drawn over a page, by hand, by keys or by numbers; closes with it, or with nothing where it was left. */
@Component({
  selector: 'fo-part-dialog',
  imports: [
    MatButton,
    MatDialogActions,
    MatDialogClose,
    MatDialogContent,
    MatDialogTitle,
    MatFormField,
    FormsModule,
    MatInput,
    MatRadioButton,
    MatRadioGroup,
    PageImage,
  ],
  templateUrl: './part-dialog.html',
  styleUrl: './part-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PartDialog {
  protected readonly data = inject<PartData>(MAT_DIALOG_DATA);
  private readonly dialog = inject(MatDialogRef<PartDialog, DrawnPart>);
  private readonly sheet = viewChild.required<ElementRef<HTMLElement>>('sheet');
  protected readonly grips = GRIPS;
  protected readonly fields = FIELDS;
  protected readonly scope = signal(0);
  protected readonly pages = computed(() => (this.data.scopes[this.scope()] as PartScope).pages);
  protected readonly at = linkedSignal({ source: this.scope, computation: () => 0 });
  protected readonly rectangle = signal(this.data.rectangle);
  protected readonly page = computed(() => this.pages()[this.at()] as PartPage);
  private readonly measure = computed(() => {
    const { width, height } = this.page();
    return { width: pointsToMm(width), height: pointsToMm(height) };
  });
  /** CSS pixels a millimetre. */
  private readonly scale = computed(() => {
    const { width, height } = this.measure();
    return Math.min(ROOM.width / width, ROOM.height / height);
  });
  protected readonly size = computed(() => {
    const { width, height } = this.measure();
    return { width: width * this.scale(), height: height * this.scale() };
  });
  protected readonly box = computed(() => {
    const { left, top, width, height } = this.rectangle();
    const k = this.scale();
    return `left:${left * k}px;top:${top * k}px;width:${width * k}px;height:${height * k}px`;
  });
  protected readonly said = computed(() => {
    const { left, top, width, height } = this.rectangle();
    return `${width} × ${height} mm, ${left} mm from the left and ${top} mm from the top`;
  });

  /** What the pointer does from where it was pressed on. */
  private pulled: ((to: Point) => Rectangle) | null = null;

  protected press(event: PointerEvent, grip: Grip | 'page' | 'part'): void {
    event.preventDefault();
    event.stopPropagation();
    const [from, start, page] = [this.pointOf(event), this.rectangle(), this.measure()];
    const isWhole = start.width >= Math.floor(page.width) && start.height >= Math.floor(page.height);
    const by = (to: Point): Point => ({ x: to.x - from.x, y: to.y - from.y });
    this.pulled = (to) => {
      // Where all of the page is in it there is nothing to be moved.
      if (grip === 'page' || (grip === 'part' && isWhole)) return drawn(from, to, page);
      return grip === 'part' ? moved(start, by(to), page) : resized(start, grip, by(to), page);
    };
    this.sheet().nativeElement.setPointerCapture(event.pointerId);
  }

  protected pull(event: PointerEvent): void {
    if (this.pulled) this.rectangle.set(this.pulled(this.pointOf(event)));
  }

  protected letGo(): void {
    this.pulled = null;
  }

  protected onKey(event: KeyboardEvent): void {
    const changed = byKey(this.rectangle(), event, this.measure());
    if (!changed) return;
    event.preventDefault();
    this.rectangle.set(changed);
  }

  /** What cannot be is put back; the field says what holds. */
  protected type(name: keyof Rectangle, field: HTMLInputElement): void {
    const value = Math.round(Number(field.value));
    const least = name === 'left' || name === 'top' ? 0 : 1;
    if (field.value !== '' && value >= least && value <= 10_000) {
      this.rectangle.update((one) => ({ ...one, [name]: value }));
    }
    field.value = String(this.rectangle()[name]);
  }

  protected step(by: number): void {
    this.at.update((at) => Math.max(0, Math.min(this.pages().length - 1, at + by)));
  }

  protected take(): void {
    this.dialog.close({ rectangle: this.rectangle(), scope: this.scope() });
  }

  private pointOf({ clientX, clientY }: PointerEvent): Point {
    const { left, top } = this.sheet().nativeElement.getBoundingClientRect();
    return { x: (clientX - left) / this.scale(), y: (clientY - top) / this.scale() };
  }
}
