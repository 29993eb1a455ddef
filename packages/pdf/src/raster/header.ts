import type { SheetBack } from './sheet-back';

/** What is told of a page before its pixels. */
export interface RasterHeader {
  readonly width: number;
  readonly height: number;
  readonly dpi: number;
  readonly channels: 1 | 3;
  /** On both sides of the paper, and turned on its short edge. */
  readonly duplex: boolean;
  readonly tumble: boolean;
  /** Of a back: how it was turned for the printer; 1: not, -1: mirrored, across and along the way of the paper. */
  readonly turned: ReturnType<SheetBack['turns']>;
  readonly pages: number;
}

/** What a file begins with (PWG 5102.4, 4.1). */
export const SYNC = new TextEncoder().encode('RaS2');

const LENGTH = 1796;

/** Where what stands (PWG 5102.4, 4.3, table 1; the places are from memory, and held against another writer's files in the tests). */
const AT = {
  kind: 0,
  duplex: 272,
  dpi: 276,
  copies: 340,
  points: 352,
  tumble: 368,
  width: 372,
  height: 376,
  bitsPerColor: 384,
  bitsPerPixel: 388,
  bytesPerLine: 392,
  colorSpace: 400,
  colors: 420,
  pages: 452,
  crossFeed: 456,
  feed: 460,
} as const;

/** cupsColorSpace of sGray and sRGB. */
const SPACES = { 1: 18, 3: 19 } as const;
const WHITE = 0xffffff;
const AT_WHITE = 480;

/** The header of a page (PWG 5102.4, 4.3). */
export function rasterHeader({
  width,
  height,
  dpi,
  channels,
  duplex,
  tumble,
  turned,
  pages,
}: RasterHeader): Uint8Array {
  const bytes = new Uint8Array(LENGTH);
  bytes.set(new TextEncoder().encode('PwgRaster'), AT.kind);
  const view = new DataView(bytes.buffer);
  const points = (pixels: number): number => Math.round((pixels * 72) / dpi);
  view.setUint32(AT.duplex, duplex ? 1 : 0);
  view.setUint32(AT.dpi, dpi);
  view.setUint32(AT.dpi + 4, dpi);
  view.setUint32(AT.copies, 1);
  view.setUint32(AT.points, points(width));
  view.setUint32(AT.points + 4, points(height));
  view.setUint32(AT.tumble, tumble ? 1 : 0);
  view.setUint32(AT.width, width);
  view.setUint32(AT.height, height);
  view.setUint32(AT.bitsPerColor, 8);
  view.setUint32(AT.bitsPerPixel, 8 * channels);
  view.setUint32(AT.bytesPerLine, width * channels);
  view.setUint32(AT.colorSpace, SPACES[channels]);
  view.setUint32(AT.colors, channels);
  view.setUint32(AT.pages, pages);
  view.setInt32(AT.crossFeed, turned.cross);
  view.setInt32(AT.feed, turned.feed);
  view.setUint32(AT_WHITE, WHITE);
  return bytes;
}
