import {
  ChangeDetectionStrategy,
  Component,
  effect,
  type ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { PageRenderer } from './page-renderer';

/** A page of a PDF, drawn as wide as the place it is in. */
@Component({
  selector: 'fo-page-image',
  template: `
    <canvas #canvas aria-hidden="true" [class.drawn]="state() === 'drawn'"></canvas>
    @if (state() === 'failed') {
      <span class="failed">cannot be shown</span>
    }
  `,
  styles: `
    :host {
      display: block;
      position: relative;
      width: 100%;
      height: 100%;
      overflow: hidden;
    }
    canvas {
      display: block;
      width: 100%;
      height: 100%;
      opacity: 0;
    }
    canvas.drawn {
      opacity: 1;
    }
    .failed {
      position: absolute;
      inset: 0;
      display: grid;
      place-items: center;
      font: 400 12px var(--sans);
      color: var(--soft);
      text-align: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[attr.data-state]': 'state()' },
})
export class PageImage {
  readonly url = input.required<string>();
  readonly page = input.required<number>();
  readonly turn = input(0);
  /** CSS pixels; the picture is drawn at the screen's own density. */
  readonly width = input.required<number>();
  /** Width over height, once it is known. */
  readonly ratio = output<number>();
  protected readonly state = signal<'waiting' | 'drawn' | 'failed'>('waiting');
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly renderer = inject(PageRenderer);

  constructor() {
    effect((onCleanup) => {
      const wish = {
        url: this.url(),
        page: this.page(),
        turn: this.turn(),
        width: Math.ceil(this.width() * window.devicePixelRatio),
      };
      const canvas = this.canvas().nativeElement;
      const abort = new AbortController();
      onCleanup(() => abort.abort());
      this.renderer.picture(wish, abort.signal).then(
        (picture) => {
          if (abort.signal.aborted) return;
          canvas.width = picture.width;
          canvas.height = picture.height;
          canvas.getContext('2d')?.drawImage(picture, 0, 0);
          this.state.set('drawn');
          this.ratio.emit(picture.width / picture.height);
        },
        () => {
          if (!abort.signal.aborted) this.state.set('failed');
        },
      );
    });
  }
}
