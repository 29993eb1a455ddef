import { HUE, PAPER } from './look';
import { multiply, type Matrix } from './page-box';
import type { Pdfium } from './pdfium';

/** Left, bottom, right, top. */
export type Corners = readonly [number, number, number, number];

/** What is seen of a page whose objects are letters and areas alone. */
export interface PlainObjects {
  readonly hasHue: boolean;
  /** In user space. */
  readonly box: Corners;
}

/** What the objects of a page tell of it without its being drawn. */
export interface ObjectsSeen {
  /** Height of the smallest text that is seen, in user space units; null where there is none. */
  readonly smallest: number | null;
  /** Null: something hides, cuts off or shines through something else, so that the page has to be drawn to know. */
  readonly plain: PlainObjects | null;
}

/** Kinds of page objects, and modes of text, as PDFium numbers them. */
const TEXT = 1;
const PATH = 2;
const FORM = 5;
const FILLED_TEXT = 0;
const INVISIBLE_TEXT = 3;

/** Forms within forms deeper than this are not looked into. */
const DEEPEST = 12;

/** Text this small is not written with an ordinary font, but with one of pictures whose size says nothing, or not to be read. */
const SUSPICIOUS = 3;

/** Bytes of the numbers that PDFium writes: six, of four bytes each. */
const NUMBERS = 24;

const UNCHANGED: Matrix = [1, 0, 0, 1, 0, 0];

/** Looks through the objects of a page. */
export function seeObjects(pdfium: Pdfium, page: number): ObjectsSeen {
  const reading = new Reading(pdfium);
  try {
    const { raw } = pdfium;
    const count = raw.FPDFPage_CountObjects(page);
    for (let index = 0; index < count; index += 1) reading.object(raw.FPDFPage_GetObject(page, index), UNCHANGED, 0);
    return reading.seen();
  } finally {
    reading.end();
  }
}

class Reading {
  private smallest = Infinity;
  private isPlain = true;
  private hasHue = false;
  private left = Infinity;
  private bottom = Infinity;
  private right = -Infinity;
  private top = -Infinity;
  /** Where PDFium writes numbers. */
  private readonly at: number;
  private view: Float32Array = new Float32Array(0);
  /** Whether a font has a name, which fonts of pictures have not. */
  private readonly named = new Map<number, boolean>();

  constructor(private readonly pdfium: Pdfium) {
    this.at = pdfium.allocate(NUMBERS);
  }

  seen(): ObjectsSeen {
    const { hasHue, left, bottom, right, top } = this;
    const isSomething = this.isPlain && right > left && top > bottom;
    return {
      smallest: this.smallest === Infinity ? null : this.smallest,
      plain: isSomething ? { hasHue, box: [left, bottom, right, top] } : null,
    };
  }

  end(): void {
    this.pdfium.free(this.at);
  }

  object(object: number, outer: Matrix, depth: number): void {
    const { raw } = this.pdfium;
    const kind = raw.FPDFPageObj_GetType(object);
    if (kind === TEXT) this.text(object, outer);
    else if (kind === PATH) this.path(object);
    else this.isPlain = false;
    if (kind !== FORM || depth > DEEPEST) return;
    const inner = multiply(this.matrixOf(object), outer);
    const count = raw.FPDFFormObj_CountObjects(object);
    for (let index = 0; index < count; index += 1) {
      this.object(raw.FPDFFormObj_GetObject(object, index), inner, depth + 1);
    }
  }

  private text(object: number, outer: Matrix): void {
    const { raw } = this.pdfium;
    const mode = raw.FPDFTextObj_GetTextRenderMode(object);
    // What recognition of letters lays over a picture is not seen. Spaces cover nothing.
    if (mode === INVISIBLE_TEXT || !this.bounds(object)) return;
    const [left, bottom, right, top] = this.corners();
    if (!this.hasNamedFont(object)) this.isPlain = false;
    else if (!(top > bottom)) return;
    raw.FPDFTextObj_GetFontSize(object, this.at);
    const size = this.floats()[0] as number;
    const own = this.matrixOf(object);
    const [, , c, d] = outer === UNCHANGED ? own : multiply(own, outer);
    const across = Math.hypot(outer[2], outer[3]);
    let height = Math.abs(size) * Math.hypot(c, d);
    // Fonts of pictures (ISO 32000-1, 9.6.5) may have any size, commonly 1, and draw letters as large as they are to be.
    if (height < SUSPICIOUS) height = Math.max(height, (top - bottom) * across);
    if (height > 0 && height < this.smallest) this.smallest = height;
    if (!this.isPlain) return;
    if (mode === FILLED_TEXT) this.covers(object, [left, bottom, right, top], true, false);
    else this.isPlain = false;
  }

  private path(object: number): void {
    if (!this.isPlain) return;
    const { raw } = this.pdfium;
    raw.FPDFPath_GetDrawMode(object, this.at, this.at + 4);
    const [fill, stroke] = new Int32Array(this.pdfium.memory().buffer, this.at, 2) as unknown as [number, number];
    if (fill === 0 && stroke === 0) return;
    if (!this.bounds(object)) return;
    const box = this.corners();
    this.covers(object, box, fill !== 0, stroke !== 0);
  }

  /** Adds what an object covers, unless it has to be drawn to know what of it is seen. */
  private covers(object: number, [left, bottom, right, top]: Corners, isFilled: boolean, isStroked: boolean): void {
    const { raw } = this.pdfium;
    const clip = raw.FPDFPageObj_GetClipPath(object);
    if ((clip !== 0 && raw.FPDFClipPath_CountPaths(clip) > 0) || raw.FPDFPageObj_HasTransparency(object) !== 0) {
      this.isPlain = false;
      return;
    }
    if (isFilled) this.colour(raw.FPDFPageObj_GetFillColor, object);
    if (isStroked) this.colour(raw.FPDFPageObj_GetStrokeColor, object);
    if (left < this.left) this.left = left;
    if (bottom < this.bottom) this.bottom = bottom;
    if (right > this.right) this.right = right;
    if (top > this.top) this.top = top;
  }

  private colour(get: Pdfium['raw']['FPDFPageObj_GetFillColor'], object: number): void {
    const { at } = this;
    if (get(object, at, at + 4, at + 8, at + 12) === 0) {
      this.isPlain = false;
      return;
    }
    const colours = new Uint32Array(this.pdfium.memory().buffer, at, 4);
    const [red, green, blue, opacity] = colours as unknown as readonly [number, number, number, number];
    const darkest = Math.min(red, green, blue);
    if (opacity !== 255 || darkest >= PAPER) this.isPlain = false;
    if (Math.max(red, green, blue) - darkest > HUE) this.hasHue = true;
  }

  private hasNamedFont(object: number): boolean {
    const { raw } = this.pdfium;
    const font = raw.FPDFTextObj_GetFont(object);
    const known = this.named.get(font);
    if (known !== undefined) return known;
    // What it takes to write the name, the end of it too.
    const isNamed = raw.FPDFFont_GetBaseFontName(font, 0, 0) > 1;
    this.named.set(font, isNamed);
    return isNamed;
  }

  private bounds(object: number): boolean {
    const { at, pdfium } = this;
    return pdfium.raw.FPDFPageObj_GetBounds(object, at, at + 4, at + 8, at + 12) !== 0;
  }

  private matrixOf(object: number): Matrix {
    if (this.pdfium.raw.FPDFPageObj_GetMatrix(object, this.at) === 0) return UNCHANGED;
    const [a, b, c, d, e, f] = this.floats();
    return [a, b, c, d, e, f] as Matrix;
  }

  private corners(): Corners {
    const [left, bottom, right, top] = this.floats();
    return [left, bottom, right, top] as Corners;
  }

  /** What PDFium wrote. The view is made anew where the memory has grown. */
  private floats(): Float32Array {
    const { buffer } = this.pdfium.memory();
    if (this.view.buffer !== buffer) this.view = new Float32Array(buffer, this.at, NUMBERS / 4);
    return this.view;
  }
}
