import { open, readFile, rm, type FileHandle } from 'node:fs/promises';
import type { Raster, Sheet } from '@foglio/core';
import { damaged, programMissing } from '../pdf-error';
import { runProgram } from '../program';
import { inScratchFolder } from '../scratch';
import { rasterHeader, SYNC } from './header';
import { pack } from './packing';
import { SHEET_BACK } from './sheet-back';

/** Pages that are drawn at once: a page in colour at 600 dots an inch takes 100 MB of disk. */
const AT_ONCE = 8;

/**
 * Draws an imposed file as pictures for a printer: PWG Raster (PWG 5102.4), by Debian's Ghostscript, a picture a side. Sides
 * that are read across are turned as RFC 8011, 5.2.10 (landscape) has it, since a picture lies on the paper as it is.
 *
 * Ghostscript writes such files itself too, but can neither mirror a back nor tell of each page whether it has one.
 * A picture of one side alone is a JPEG (ITU-T T.81).
 *
 * @param sheets those of the file, in order: a one-sided sheet is one page, a two-sided sheet two
 * @throws PdfError `program-missing` where Ghostscript is not installed, `damaged` where it cannot draw a page
 */
export async function writeRaster(
  source: string,
  target: string,
  sheets: readonly Sheet[],
  how: Raster,
): Promise<void> {
  if (how.format === 'image/jpeg') return writeJpeg(source, target, how);
  const sides = sheets.flatMap(({ back, sides: kind }) =>
    (back ? [false, true] : [false]).map((isBack) => ({
      isBack,
      duplex: back !== null,
      tumble: kind === 'two-sided-short-edge',
    })),
  );
  const file = await open(target, 'w');
  try {
    await file.write(SYNC);
    for (let first = 0; first < sides.length; first += AT_ONCE) {
      await inScratchFolder(async (path) => {
        const some = sides.slice(first, first + AT_ONCE);
        await draw(source, path('%d.pnm'), first + 1, some.length, how);
        for (const [at, side] of some.entries()) {
          const picture = path(`${at + 1}.pnm`);
          await writePage(file, await readFile(picture), { ...side, pages: sides.length }, how);
          await rm(picture);
        }
      });
    }
  } finally {
    await file.close();
  }
}

/** Of which eyes see no loss (common practice). */
const JPEG = { quality: 92, chromaSubsampling: '4:4:4' };

function writeJpeg(source: string, target: string, how: Raster): Promise<void> {
  return inScratchFolder(async (path) => {
    await draw(source, path('%d.pnm'), 1, 1, how);
    const picture = await turn(readPnm(await readFile(path('1.pnm'))), { cross: 1, feed: 1 });
    const { width, height, channels, pixels } = picture;
    const { default: sharp } = await import('sharp');
    const drawn = sharp(pixels, { raw: { width, height, channels }, limitInputPixels: false });
    // It has the form of the paper, so whoever prints it fits it to that.
    await (channels === 1 ? drawn.toColourspace('b-w') : drawn).jpeg(JPEG).toFile(target);
  });
}

async function draw(
  source: string,
  targets: string,
  first: number,
  count: number,
  { dpi, inColor }: Raster,
): Promise<void> {
  const end = await runProgram('gs', [
    '-q',
    '-dBATCH',
    '-dNOPAUSE',
    '-dSAFER',
    `-sDEVICE=${inColor ? 'ppmraw' : 'pgmraw'}`,
    '-dTextAlphaBits=4',
    '-dGraphicsAlphaBits=4',
    `-r${dpi}`,
    `-dFirstPage=${first}`,
    `-dLastPage=${first + count - 1}`,
    `-sOutputFile=${targets}`,
    source,
  ]);
  if (end === 'missing')
    throw programMissing('Drawing pages for this printer', 'ghostscript', 'choose another printer');
  if (end.status !== 0) throw damaged(`a page from ${first} on cannot be drawn`);
}

interface WrittenSide {
  readonly isBack: boolean;
  readonly duplex: boolean;
  readonly tumble: boolean;
  readonly pages: number;
}

async function writePage(
  file: FileHandle,
  pnm: Uint8Array,
  side: WrittenSide,
  { dpi, sheetBack }: Raster,
): Promise<void> {
  const picture = readPnm(pnm);
  const turned = side.isBack ? SHEET_BACK[sheetBack].turns(side.tumble) : ({ cross: 1, feed: 1 } as const);
  const { width, height, channels, pixels } = await turn(picture, turned);
  await file.write(
    rasterHeader({ width, height, dpi, channels, duplex: side.duplex, tumble: side.tumble, turned, pages: side.pages }),
  );
  await file.write(pack(pixels, width * channels, channels));
}

interface Picture {
  readonly width: number;
  readonly height: number;
  readonly channels: 1 | 3;
  readonly pixels: Uint8Array;
}

/** A picture as Ghostscript writes it: "P5" or "P6", its measures and 255, then its pixels (pgm(5), ppm(5)). */
function readPnm(bytes: Uint8Array): Picture {
  const words: string[] = [];
  let at = 0;
  while (words.length < 4) {
    while (isSpace(bytes[at]!)) at += 1;
    const from = at;
    // A comment goes to the end of its line.
    if (bytes[at] === 0x23) {
      while (bytes[at] !== 0x0a) at += 1;
      continue;
    }
    while (!isSpace(bytes[at]!)) at += 1;
    words.push(String.fromCharCode(...bytes.subarray(from, at)));
  }
  const [kind, width, height] = words;
  return {
    width: Number(width),
    height: Number(height),
    channels: kind === 'P6' ? 3 : 1,
    pixels: bytes.subarray(at + 1),
  };
}

const isSpace = (byte: number): boolean => byte === 0x20 || (byte >= 0x09 && byte <= 0x0d);

async function turn(
  picture: Picture,
  { cross, feed }: { readonly cross: 1 | -1; readonly feed: 1 | -1 },
): Promise<Picture> {
  const { width, height, channels, pixels } = picture;
  const isAcross = width > height;
  if (!isAcross && cross === 1 && feed === 1) return picture;
  // Within one pipeline turning comes before mirroring, whatever stands first.
  const { default: sharp } = await import('sharp');
  let pipeline = sharp(pixels, { raw: { width, height, channels }, limitInputPixels: false });
  if (isAcross) pipeline = pipeline.rotate(-90);
  if (feed === -1) pipeline = pipeline.flip();
  if (cross === -1) pipeline = pipeline.flop();
  if (channels === 1) pipeline = pipeline.toColourspace('b-w');
  const { data, info } = await pipeline.raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, channels, pixels: data };
}
