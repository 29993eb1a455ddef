import sharp, { type Metadata, type SharpOptions } from 'sharp';
import { damagedImage, tooMuch } from '../pdf-error';
import { finish, newDocument, type MadePages } from './made-pages';

/** Pixels an inch where an image does not say: a pixel of the web (CSS Values and Units 4, 6.2, absolute lengths). */
const UNSTATED = 96;

/** More than any camera or scanner of an office gives; a small file may claim any size. */
const MOST_PIXELS = 300_000_000;

/** The longest edge a page may have, in points (ISO 32000-1, annex C.2). */
const LONGEST = 14_400;

/** Points an inch. */
const INCH = 72;

/** Pixels an inch that the decoder assumes of a TIFF that does not say: one a millimetre. */
const ASSUMED = 25;

/** Of colours of a scan, in which nobody sees a loss (common practice). */
const SCAN_QUALITY = 92;

/** A picture of one of these forms. */
export interface Picture {
  readonly bytes: Uint8Array;
  readonly kind: 'png' | 'jpeg' | 'tiff';
}

/**
 * Pictures as one PDF, in their order: each page of its printed size, upright as its EXIF orientation says. A JPEG goes in as it
 * is, without loss; a PNG in 8 bits a channel on white; of a TIFF each of its pages, black, white and grey without loss, colours
 * as JPEG.
 *
 * @throws PdfError `damaged` where one cannot be decoded to its end, `too-much` where one has too many pixels
 */
export async function picturePages(pictures: readonly Picture[]): Promise<MadePages> {
  const document = await newDocument();
  let isStated = true;
  for (const picture of pictures) isStated = (await drawPages(document, picture)) && isStated;
  const of = pictures.length === 1 ? 'It does not say its' : 'Not all of them say their';
  const remarks = isStated ? [] : [`${of} resolution; ${UNSTATED} pixels an inch are taken.`];
  return { bytes: await finish(document), remarks };
}

/** @returns whether it says its resolution */
async function drawPages(document: PDFKit.PDFDocument, { bytes, kind }: Picture): Promise<boolean> {
  const first = await look(bytes);
  if (kind !== 'tiff') {
    const stated = statedDensity(bytes, kind, first);
    draw(document, first, stated, kind === 'jpeg' ? Buffer.from(bytes) : await onWhite(bytes, first));
    return stated !== null;
  }
  let isStated = true;
  for (let page = 0; page < (first.pages ?? 1); page += 1) {
    const seen = await look(bytes, { page });
    const stated = seen.density === undefined || Math.round(seen.density) <= ASSUMED ? null : seen.density;
    isStated &&= stated !== null;
    draw(document, seen, stated, await scanned(bytes, page, seen));
  }
  return isStated;
}

/** A page of a picture's printed size. */
function draw(document: PDFKit.PDFDocument, { autoOrient }: Metadata, stated: number | null, picture: Buffer): void {
  const { width, height } = autoOrient;
  const density = Math.max(stated ?? UNSTATED, (Math.max(width, height) * INCH) / LONGEST);
  const size: [number, number] = [(width * INCH) / density, (height * INCH) / density];
  document.addPage({ size, margin: 0 });
  document.image(picture, 0, 0, { width: size[0], height: size[1] });
}

/** Greys stay greys, and letters without a loss. */
function scanned(bytes: Uint8Array, page: number, { channels }: Metadata): Promise<Buffer> {
  const upright = sharp(bytes, { page, limitInputPixels: MOST_PIXELS }).autoOrient().flatten({ background: '#ffffff' });
  if (channels >= 3) return upright.toColourspace('srgb').jpeg({ quality: SCAN_QUALITY }).toBuffer();
  return upright.toColourspace('b-w').png().toBuffer();
}

async function look(bytes: Uint8Array, part: Pick<SharpOptions, 'page'> = {}): Promise<Metadata> {
  try {
    const image = sharp(bytes, { ...part, limitInputPixels: MOST_PIXELS, failOn: 'error' });
    const seen = await image.metadata();
    // Decodes all of it: where the file breaks off, the paper would stay grey.
    await image.stats();
    return seen;
  } catch (error) {
    const reason = (error as Error).message.split('\n')[0] ?? '';
    if (/pixel limit/i.test(reason)) throw tooMuch('memory');
    throw damagedImage(reason);
  }
}

/** Pixels an inch as the file states them; null where it does not, since the decoder then assumes a number of its own. */
function statedDensity(bytes: Uint8Array, kind: 'png' | 'jpeg', { density, exif }: Metadata): number | null {
  if (density === undefined || density < 1) return null;
  if (kind === 'png') return has(bytes, 'pHYs') ? density : null;
  return exif !== undefined || jfifUnits(bytes) !== 0 ? density : null;
}

/** Units of the densities in a JFIF header (JFIF 1.02, page 5): 0 says only the shape of a pixel, or that there is no header. */
function jfifUnits(bytes: Uint8Array): number {
  const at = indexOf(bytes, 'JFIF\0');
  return at < 0 ? 0 : (bytes[at + 7] ?? 0);
}

/** Headers stand before the picture. */
const HEADERS = 4096;
const indexOf = (bytes: Uint8Array, text: string): number =>
  Buffer.from(bytes.buffer, bytes.byteOffset, Math.min(bytes.length, HEADERS)).indexOf(text, 0, 'latin1');
const has = (bytes: Uint8Array, text: string): boolean => indexOf(bytes, text) >= 0;

/** Greys stay greys, so that they are not paid for as colour. */
function onWhite(bytes: Uint8Array, { channels }: Metadata): Promise<Buffer> {
  const flat = sharp(bytes, { limitInputPixels: MOST_PIXELS }).autoOrient().flatten({ background: '#ffffff' });
  return (channels < 3 ? flat.toColourspace('b-w') : flat.toColourspace('srgb')).png().toBuffer();
}
