import type { Pdfium } from './pdfium';

/** A box on a page as read: [x, y, width, height], the origin at its lower left corner. */
export type ContentBox = readonly [number, number, number, number];

/** What can be seen of a page on white paper, before UserUnit. */
export interface Look {
  /** Whether anything seen has a hue. */
  readonly hasHue: boolean;
  /** What is seen, in points to the nearest; null where nothing is. */
  readonly content: ContentBox | null;
}

/** Longest edge of the bitmap, so that a page of a building's size takes no more memory than one of paper's. */
const LONGEST_EDGE = 3_000;

/** Channels further apart than this, of 255, are seen as a hue; what is lighter than this is seen as paper. */
export const HUE = 8;
export const PAPER = 250;

/** Flags of FPDF_RenderPageBitmap: annotations too, as on paper. */
const ANNOTATIONS = 0x01;
const PRINTING = 0x800;

/** A page as it looks at 72 dpi, a pixel a point; null where it cannot be drawn. */
export function lookAt(pdfium: Pdfium, page: number): Look | null {
  const pageWidth = pdfium.FPDF_GetPageWidthF(page);
  const pageHeight = pdfium.FPDF_GetPageHeightF(page);
  const scale = Math.min(1, LONGEST_EDGE / Math.max(pageWidth, pageHeight, 1));
  const width = Math.max(1, Math.ceil(pageWidth * scale));
  const height = Math.max(1, Math.ceil(pageHeight * scale));
  const bitmap = pdfium.FPDFBitmap_Create(width, height, 0);
  if (bitmap === 0) return null;
  try {
    pdfium.FPDFBitmap_FillRect(bitmap, 0, 0, width, height, 0xffffffff);
    pdfium.FPDF_RenderPageBitmap(bitmap, page, 0, 0, width, height, 0, ANNOTATIONS | PRINTING);
    const start = pdfium.FPDFBitmap_GetBuffer(bitmap);
    const stride = pdfium.FPDFBitmap_GetStride(bitmap);
    const pixels = pdfium.memory().subarray(start, start + stride * height);
    return scan(pixels, { width, height, stride, scale });
  } finally {
    pdfium.FPDFBitmap_Destroy(bitmap);
  }
}

interface Bitmap {
  readonly width: number;
  readonly height: number;
  /** Bytes a row. */
  readonly stride: number;
  /** Pixels a point. */
  readonly scale: number;
}

/** Half a million of these are asked of a page, and Math.min takes many times as long. */
const least = (a: number, b: number, c: number): number => (a < b ? (a < c ? a : c) : b < c ? b : c);

/** Four bytes a pixel: blue, green, red and one unused. */
function scan(pixels: Uint8Array, { width, height, stride, scale }: Bitmap): Look {
  let [left, right, top, bottom] = [width, -1, height, -1];
  let hasHue = false;
  // Most of a page is paper, so pixels are first compared whole.
  const whole = new Uint32Array(pixels.buffer, pixels.byteOffset, pixels.length / 4);
  for (let y = 0; y < height; y += 1) {
    const row = (y * stride) >> 2;
    for (let x = 0; x < width; x += 1) {
      const pixel = whole[row + x] as number;
      if (pixel === 0xffffffff) continue;
      const blue = pixel & 0xff;
      const green = (pixel >> 8) & 0xff;
      const red = (pixel >> 16) & 0xff;
      const darkest = least(blue, green, red);
      if (darkest >= PAPER) continue;
      if (!hasHue) hasHue = 255 - least(255 - blue, 255 - green, 255 - red) - darkest > HUE;
      if (x < left) left = x;
      if (x > right) right = x;
      if (y < top) top = y;
      if (y > bottom) bottom = y;
    }
  }
  if (right < 0) return { hasHue, content: null };
  const box = [left, height - 1 - bottom, right - left + 1, bottom - top + 1] as const;
  return { hasHue, content: box.map((pixel) => pixel / scale) as unknown as ContentBox };
}
