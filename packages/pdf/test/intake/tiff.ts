/** A page of a scan in grey. */
export interface ScannedPage {
  readonly width: number;
  readonly height: number;
  readonly dpi: number;
  /** Of every pixel, 0 black. */
  readonly grey: number;
  /** Whether a pixel is one bit: black or white alone. */
  readonly isTwoTone?: boolean;
}

const [SHORT, LONG, RATIONAL] = [3, 4, 5];

/** A TIFF of several pages, uncompressed (TIFF 6.0, sections 2 and 4 to 6). */
export function tiff(pages: readonly ScannedPage[]): Uint8Array {
  const parts: Buffer[] = [Buffer.from([0x49, 0x49, 42, 0, 0, 0, 0, 0])];
  let length = 8;
  let link = 4;
  const whole: { at: number; value: number }[] = [];
  const add = (part: Buffer): number => {
    const at = length;
    parts.push(part);
    length += part.length;
    return at;
  };
  for (const { width, height, dpi, grey, isTwoTone = false } of pages) {
    const row = isTwoTone ? Math.ceil(width / 8) : width;
    const strip = add(Buffer.alloc(row * height + ((row * height) % 2), isTwoTone ? (grey < 128 ? 0 : 255) : grey));
    const resolution = Buffer.alloc(8);
    resolution.writeUInt32LE(dpi, 0);
    resolution.writeUInt32LE(1, 4);
    const dense = add(resolution);
    const fields: [number, number, number][] = [
      [256, LONG, width],
      [257, LONG, height],
      [258, SHORT, isTwoTone ? 1 : 8],
      [259, SHORT, 1],
      [262, SHORT, 1],
      [273, LONG, strip],
      [277, SHORT, 1],
      [278, LONG, height],
      [279, LONG, row * height],
      [282, RATIONAL, dense],
      [283, RATIONAL, dense],
      [296, SHORT, 2],
    ];
    const directory = Buffer.alloc(2 + fields.length * 12 + 4);
    directory.writeUInt16LE(fields.length, 0);
    fields.forEach(([tag, type, value], at) => {
      directory.writeUInt16LE(tag, 2 + at * 12);
      directory.writeUInt16LE(type, 4 + at * 12);
      directory.writeUInt32LE(1, 6 + at * 12);
      directory.writeUInt32LE(value, 10 + at * 12);
    });
    const at = add(directory);
    whole.push({ at: link, value: at });
    link = at + directory.length - 4;
  }
  const file = Buffer.concat(parts);
  for (const { at, value } of whole) file.writeUInt32LE(value, at);
  return new Uint8Array(file);
}
