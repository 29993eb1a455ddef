/** A page as a picture: a byte a channel and pixel, from the upper left, row by row. */
export interface RasterPage {
  readonly width: number;
  readonly height: number;
  /** Pixels an inch, across and down. */
  readonly dpi: readonly [number, number];
  /** 1: greys, 0 is black; 3: red, green and blue (sRGB). */
  readonly channels: 1 | 3;
  readonly pixels: Uint8Array;
}

/** What is wrong with a file. */
export interface RasterTrouble {
  readonly damaged: (why: string) => Error;
  readonly tooMuch: () => Error;
}

/** Bytes before the first page, and of each page's header (PWG 5102.4, 4.1 and 4.3). */
const SYNC = 4;
const HEADER = 1796;

/** Where in the header what is told (PWG 5102.4, 4.3, table 1; the places are from memory). */
const AT = { dpi: 276, width: 372, height: 376, bitsPerPixel: 388, bytesPerLine: 392, colorSpace: 400 } as const;

/** Kinds of pixels that are taken, by colour space and bits (PWG 5102.4, 4.3.1): black, grey and colour. */
const KINDS: Readonly<Record<string, { readonly channels: 1 | 3; readonly isBits?: true }>> = {
  '3 1': { channels: 1, isBits: true },
  '18 8': { channels: 1 },
  '19 24': { channels: 3 },
};

/**
 * The pages of a PWG Raster file, one after the other.
 *
 * @throws what `trouble` makes
 */
export function* readPages(bytes: Uint8Array, mostPixels: number, trouble: RasterTrouble): Generator<RasterPage> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = SYNC;
  while (at < bytes.length) {
    if (at + HEADER > bytes.length) throw trouble.damaged('it ends within a page');
    const told = (place: number): number => view.getUint32(at + place);
    const [width, height, bytesPerLine] = [told(AT.width), told(AT.height), told(AT.bytesPerLine)];
    const kind = KINDS[`${told(AT.colorSpace)} ${told(AT.bitsPerPixel)}`];
    if (!kind) throw trouble.damaged('its colours are of a kind that is not taken');
    if (width === 0 || height === 0 || told(AT.dpi) === 0 || told(AT.dpi + 4) === 0)
      throw trouble.damaged('a page has no size');
    if (width * height > mostPixels) throw trouble.tooMuch();
    const unit = kind.isBits ? 1 : kind.channels;
    if (bytesPerLine !== (kind.isBits ? Math.ceil(width / 8) : width * unit))
      throw trouble.damaged('a page has no lines');
    const lines = new Uint8Array(bytesPerLine * height);
    const dpi = [told(AT.dpi), told(AT.dpi + 4)] as const;
    at = unpack(bytes, at + HEADER, lines, { bytesPerLine, unit }, trouble);
    const pixels = kind.isBits ? greysOf(lines, width, height, bytesPerLine) : lines;
    yield { width, height, dpi, channels: kind.channels, pixels };
  }
}

/**
 * Undoes the packing of a page (PWG 5102.4, 4.4): of each line how often it comes, then pixels that repeat or stand for
 * themselves.
 *
 * @returns where the page ends
 */
function unpack(
  bytes: Uint8Array,
  start: number,
  lines: Uint8Array,
  { bytesPerLine, unit }: { readonly bytesPerLine: number; readonly unit: number },
  { damaged }: RasterTrouble,
): number {
  let at = start;
  let line = 0;
  const next = (): number => {
    if (at >= bytes.length) throw damaged('it ends within a page');
    return bytes[at++] as number;
  };
  while (line < lines.length) {
    const times = next() + 1;
    const end = line + bytesPerLine;
    for (let put = line; put < end;) {
      const code = next();
      const repeated = code < 128;
      const length = (repeated ? code + 1 : 257 - code) * unit;
      const given = repeated ? unit : length;
      if (put + length > end || at + given > bytes.length) throw damaged('a line is longer than its page is wide');
      if (repeated) for (let to = put; to < put + length; to += unit) lines.set(bytes.subarray(at, at + unit), to);
      else lines.set(bytes.subarray(at, at + length), put);
      at += given;
      put += length;
    }
    if (line + times * bytesPerLine > lines.length) throw damaged('it has more lines than its page is high');
    for (let copy = 1; copy < times; copy += 1) lines.copyWithin(line + copy * bytesPerLine, line, end);
    line += times * bytesPerLine;
  }
  return at;
}

/** Bits, of which 1 is black, as greys. */
function greysOf(bits: Uint8Array, width: number, height: number, bytesPerLine: number): Uint8Array {
  const greys = new Uint8Array(width * height);
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const isBlack = ((bits[y * bytesPerLine + (x >> 3)] as number) >> (7 - (x & 7))) & 1;
      greys[y * width + x] = isBlack ? 0 : 255;
    }
  }
  return greys;
}
