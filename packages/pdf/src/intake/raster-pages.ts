import sharp from 'sharp';
import { damagedImage, tooMuch } from '../pdf-error';
import { finish, newDocument, type MadePages } from './made-pages';
import { readPages, type RasterPage } from './raster';

/** Points an inch. */
const INCH = 72;

/** More than the largest sheet of an office at the finest resolution it prints at. */
const MOST_PIXELS = 300_000_000;

/**
 * Pages that a program drew as pictures for a printer, in PWG Raster (PWG 5102.4): each a page of its measure, without loss.
 *
 * @throws PdfError `damaged` where they do not come to their end, or are in colours that are not known; `too-much`
 */
export async function rasterPages(bytes: Uint8Array): Promise<MadePages> {
  const document = await newDocument();
  let count = 0;
  for (const page of readPages(bytes, MOST_PIXELS, { damaged: damagedImage, tooMuch: () => tooMuch('memory') })) {
    const size: [number, number] = [(page.width * INCH) / page.dpi[0], (page.height * INCH) / page.dpi[1]];
    document.addPage({ size, margin: 0 });
    document.image(await pictureOf(page), 0, 0, { width: size[0], height: size[1] });
    count += 1;
  }
  if (count === 0) throw damagedImage('it has no page');
  return { bytes: await finish(document), remarks: [] };
}

/** Greys stay greys, so that they are not paid for as colour. */
function pictureOf({ width, height, channels, pixels }: RasterPage): Promise<Buffer> {
  const picture = sharp(pixels, { raw: { width, height, channels }, limitInputPixels: MOST_PIXELS });
  return (channels === 1 ? picture.toColourspace('b-w') : picture).png({ compressionLevel: 6 }).toBuffer();
}
