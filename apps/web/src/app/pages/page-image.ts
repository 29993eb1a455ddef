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
import { PageRenderer, type PictureWish } from './page-renderer';

/**
 * A page of a PDF, drawn as wide as the place it is in. An image and no canvas: Chromium gives each canvas, and whatever
 * lies over it, a layer of its own, and with some ninety of them no frame is drawn in time.
 */
@Component({
  selector: 'fo-page-image',
  template: `
    <img #image alt="" decoding="sync" draggable="false" [class.drawn]="state() === 'drawn'" />
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
    img {
      display: block;
      width: 100%;
      height: 100%;
      visibility: hidden;
    }
    img.drawn {
      visibility: inherit;
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
  private readonly image = viewChild.required<ElementRef<HTMLImageElement>>('image');
  private readonly renderer = inject(PageRenderer);

  constructor() {
    effect((onCleanup) => {
      const wish = {
        url: this.url(),
        page: this.page(),
        turn: this.turn(),
        width: Math.ceil(this.width() * window.devicePixelRatio),
      };
      const image = this.image().nativeElement;
      const abort = new AbortController();
      onCleanup(() => abort.abort());
      this.show(wish, image, abort.signal).catch(() => {
        if (!abort.signal.aborted) this.state.set('failed');
      });
    });
  }

  private async show(wish: PictureWish, image: HTMLImageElement, signal: AbortSignal): Promise<void> {
    const { address, width, height } = await this.renderer.picture(wish, signal);
    if (signal.aborted) return;
    image.src = address;
    await image.decode();
    if (signal.aborted) return;
    this.state.set('drawn');
    this.ratio.emit(width / height);
  }
}
