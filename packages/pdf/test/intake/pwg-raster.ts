/** A page as a program sends it. */
export interface Drawn {
  readonly kind: 'black_1' | 'sgray_8' | 'srgb_8';
  readonly width: number;
  readonly height: number;
  readonly dpi: number;
  /** A byte a channel; of black_1 0 or 255. */
  readonly pixels: Uint8Array;
}

const SPACES = { black_1: [3, 1, 1], sgray_8: [18, 8, 8], srgb_8: [19, 8, 24] } as const;

/** Writes PWG Raster (PWG 5102.4), as programs do: lines that repeat said once, runs of a pixel, and the rest as it is. */
export function pwgRaster(pages: readonly Drawn[]): Uint8Array {
  const parts: Buffer[] = [Buffer.from('RaS2')];
  for (const page of pages) {
    const { kind, width, height, dpi, pixels } = page;
    const [space, bitsPerColor, bitsPerPixel] = SPACES[kind];
    const bytesPerLine = Math.ceil((width * bitsPerPixel) / 8);
    const header = Buffer.alloc(1796);
    header.write('PwgRaster', 0, 'latin1');
    const put = (at: number, value: number): void => void header.writeUInt32BE(value, at);
    put(276, dpi);
    put(280, dpi);
    put(340, 1);
    put(352, Math.round((width * 72) / dpi));
    put(356, Math.round((height * 72) / dpi));
    put(372, width);
    put(376, height);
    put(384, bitsPerColor);
    put(388, bitsPerPixel);
    put(392, bytesPerLine);
    put(400, space);
    put(420, kind === 'srgb_8' ? 3 : 1);
    put(452, pages.length);
    put(456, 1);
    put(460, 1);
    parts.push(header);
    const unit = Math.max(1, bitsPerPixel / 8);
    const lines = Array.from({ length: height }, (_, y) => lineOf(page, pixels, y, bytesPerLine));
    for (let y = 0; y < height;) {
      let times = 1;
      while (times < 256 && y + times < height && lines[y + times]!.equals(lines[y]!)) times += 1;
      parts.push(Buffer.from([times - 1]), packed(lines[y]!, unit));
      y += times;
    }
  }
  return new Uint8Array(Buffer.concat(parts));
}

function lineOf({ kind, width }: Drawn, pixels: Uint8Array, y: number, bytesPerLine: number): Buffer {
  if (kind !== 'black_1') return Buffer.from(pixels.subarray(y * bytesPerLine, (y + 1) * bytesPerLine));
  const line = Buffer.alloc(bytesPerLine);
  for (let x = 0; x < width; x += 1) if (pixels[y * width + x] === 0) line[x >> 3]! |= 0x80 >> (x & 7);
  return line;
}

function packed(line: Buffer, unit: number): Buffer {
  const pixels = Array.from({ length: line.length / unit }, (_, at) => line.subarray(at * unit, (at + 1) * unit));
  const out: Buffer[] = [];
  for (let at = 0; at < pixels.length;) {
    let run = 1;
    while (run < 128 && at + run < pixels.length && pixels[at + run]!.equals(pixels[at]!)) run += 1;
    if (run > 1) {
      out.push(Buffer.from([run - 1]), pixels[at]!);
      at += run;
      continue;
    }
    let plain = 1;
    while (plain < 129 && at + plain < pixels.length && !pixels[at + plain]!.equals(pixels[at + plain - 1]!))
      plain += 1;
    // One by itself is a run of one.
    if (plain === 1) out.push(Buffer.from([0]), pixels[at]!);
    else out.push(Buffer.from([257 - plain]), ...pixels.slice(at, at + plain));
    at += plain;
  }
  return Buffer.concat(out);
}
