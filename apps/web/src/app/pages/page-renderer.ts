import { Injectable } from '@angular/core';
import type { PDFDocumentProxy } from 'pdfjs-dist';
import type * as PdfJs from 'pdfjs-dist';
import { spawnPdfWorker } from '../workers/spawn';

/** Which picture: the page of a PDF at an address, turned, at a width in device pixels. */
export interface PictureWish {
  readonly url: string;
  /** Counted from 1. */
  readonly page: number;
  /** Degrees clockwise beyond the page's own Rotate. */
  readonly turn: number;
  readonly width: number;
}

/** A page as an image: its address, which holds as long as the picture is kept, and its size in device pixels. */
export interface Drawn {
  readonly address: string;
  readonly width: number;
  readonly height: number;
}

interface Picture {
  readonly drawn: Promise<Drawn>;
  /** Those who wait for it. */
  readonly wishes: AbortSignal[];
}

/** Pictures kept; a thumbnail is about 10 kB, a page drawn large about 1 MB. */
const MOST_KEPT = 400;
const AT_ONCE = 2;

/** Widths are rounded up to these, so that a picture serves all places of about its size. */
const WIDTHS = [96, 160, 320, 640];
const LARGEST = 1280;

/** Pictures of real pages by pdf.js, drawn one after another in a worker of its own and kept for a while. */
@Injectable({ providedIn: 'root' })
export class PageRenderer {
  private library: Promise<typeof PdfJs> | null = null;
  private readonly documents = new Map<string, Promise<PDFDocumentProxy>>();
  private readonly pictures = new Map<string, Picture>();
  private readonly waiting: (() => void)[] = [];
  private busy = 0;

  /**
   * A picture of a page. A wish withdrawn through the signal before its turn is not drawn.
   *
   * @throws Error where the PDF cannot be fetched or read, or the wish was withdrawn
   */
  picture(wish: PictureWish, signal: AbortSignal): Promise<Drawn> {
    const width = WIDTHS.find((one) => one >= wish.width) ?? LARGEST;
    const key = `${wish.url} ${wish.page} ${wish.turn} ${width}`;
    const known = this.pictures.get(key);
    if (known) {
      known.wishes.push(signal);
      // Set again, it counts as the latest used.
      this.pictures.delete(key);
      this.pictures.set(key, known);
      return known.drawn;
    }
    const wishes = [signal];
    const drawn = this.inTurn(() => this.draw({ ...wish, width }), wishes);
    this.pictures.set(key, { drawn, wishes });
    drawn.then(
      () => wishes.splice(0),
      () => this.pictures.delete(key),
    );
    this.forgetOldest();
    return drawn;
  }

  /** Gets ready for what will be wished for. @throws Error where the library cannot be fetched */
  async begin(): Promise<void> {
    await this.load();
  }

  private async draw({ url, page, turn, width }: PictureWish): Promise<Drawn> {
    const document = await this.open(url);
    const proxy = await document.getPage(page);
    const rotation = (proxy.rotate + turn) % 360;
    const natural = proxy.getViewport({ scale: 1, rotation });
    const viewport = proxy.getViewport({ scale: width / natural.width, rotation });
    const canvas = window.document.createElement('canvas');
    canvas.width = Math.ceil(viewport.width);
    canvas.height = Math.ceil(viewport.height);
    await proxy.render({ canvas, viewport }).promise;
    proxy.cleanup();
    const image = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve));
    if (image === null) throw new Error(`page ${page} cannot be made an image`);
    return { address: URL.createObjectURL(image), width: canvas.width, height: canvas.height };
  }

  private open(url: string): Promise<PDFDocumentProxy> {
    let opening = this.documents.get(url);
    if (!opening) {
      opening = this.load().then(
        ({ getDocument }) =>
          getDocument({
            url,
            cMapUrl: '/pdfjs/cmaps/',
            cMapPacked: true,
            standardFontDataUrl: '/pdfjs/standard_fonts/',
            wasmUrl: '/pdfjs/wasm/',
            iccUrl: '/pdfjs/iccs/',
            disableAutoFetch: true,
            isEvalSupported: false,
          }).promise,
      );
      this.documents.set(url, opening);
      opening.catch(() => this.documents.delete(url));
    }
    return opening;
  }

  private load(): Promise<typeof PdfJs> {
    this.library ??= import('pdfjs-dist').then((library) => {
      library.GlobalWorkerOptions.workerPort = spawnPdfWorker();
      return library;
    });
    return this.library;
  }

  /** Several places may wish for one picture; it is left undrawn only when all have gone before its turn. */
  private async inTurn<T>(work: () => Promise<T>, wishes: readonly AbortSignal[]): Promise<T> {
    if (this.busy >= AT_ONCE) await new Promise<void>((resolve) => this.waiting.push(resolve));
    else this.busy += 1;
    try {
      if (wishes.every(({ aborted }) => aborted)) throw new Error('nobody waits for this picture any more');
      return await work();
    } finally {
      // The place is handed on; only with nobody waiting does it become free.
      const next = this.waiting.shift();
      if (next) next();
      else this.busy -= 1;
    }
  }

  private forgetOldest(): void {
    for (const [key, { drawn }] of this.pictures) {
      if (this.pictures.size <= MOST_KEPT) return;
      this.pictures.delete(key);
      drawn.then(
        ({ address }) => URL.revokeObjectURL(address),
        () => undefined,
      );
    }
  }
}
