import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import type { WrappedPdfiumModule } from '@embedpdf/pdfium';

/** A box on a page as read: [x, y, width, height], the origin at its lower left corner. */
export type ContentBox = readonly [number, number, number, number];

/** What can be seen of a page on white paper, before UserUnit. */
export interface Look {
  /** Whether anything seen has a hue. */
  readonly hasHue: boolean;
  /** What is seen, in points to the nearest; null where nothing is. */
  readonly content: ContentBox | null;
}

/** The pages of one file, ready to be looked at. */
export interface Looks {
  /** @param page counted from 1; null where it cannot be drawn */
  readonly look: (page: number) => Look | null;
  readonly close: () => void;
}

/** Longest edge of the bitmap, so that a page of a building's size takes no more memory than one of paper's. */
const LONGEST_EDGE = 3_000;

/** Channels further apart than this, of 255, are seen as a hue; what is lighter than this is seen as paper. */
const HUE = 8;
const PAPER = 250;

/** Flags of FPDF_RenderPageBitmap: annotations too, as on paper. */
const ANNOTATIONS = 0x01;
const PRINTING = 0x800;

let engine: Promise<WrappedPdfiumModule> | null = null;

/** PDFium, once a process; it takes a tenth of a second. */
function startEngine(): Promise<WrappedPdfiumModule> {
  engine ??= (async () => {
    const { init } = await import('@embedpdf/pdfium');
    const path = createRequire(import.meta.url).resolve('@embedpdf/pdfium/pdfium.wasm');
    const wasm = await readFile(path);
    const started = await init({ wasmBinary: new Uint8Array(wasm).buffer });
    started.PDFiumExt_Init();
    return started;
  })();
  return engine;
}

/** Opens a file to look at its pages at 72 dpi, a pixel a point; null where PDFium cannot open it. */
export async function openLooks(bytes: Uint8Array): Promise<Looks | null> {
  const pdfium = await startEngine();
  const { malloc, free } = memoryOf(pdfium).wasmExports;
  const file = malloc(bytes.length);
  memoryOf(pdfium).HEAPU8.set(bytes, file);
  const document = pdfium.FPDF_LoadMemDocument(file, bytes.length, '');
  if (document === 0) {
    free(file);
    return null;
  }
  return {
    look: (page) => lookAt(pdfium, document, page - 1),
    close: () => {
      pdfium.FPDF_CloseDocument(document);
      free(file);
    },
  };
}

/** What the module has beside its typed functions: its memory, a new view of which is made whenever it grows. */
interface Memory {
  readonly HEAPU8: Uint8Array;
  readonly wasmExports: {
    readonly malloc: (bytes: number) => number;
    readonly free: (address: number) => void;
  };
}
const memoryOf = (module: WrappedPdfiumModule): Memory => module.pdfium as unknown as Memory;

function lookAt(pdfium: WrappedPdfiumModule, document: number, index: number): Look | null {
  const page = pdfium.FPDF_LoadPage(document, index);
  if (page === 0) return null;
  try {
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
      const pixels = memoryOf(pdfium).HEAPU8.subarray(start, start + stride * height);
      return scan(pixels, { width, height, stride, scale });
    } finally {
      pdfium.FPDFBitmap_Destroy(bitmap);
    }
  } finally {
    pdfium.FPDF_ClosePage(page);
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
