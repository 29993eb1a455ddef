import { readFile, writeFile } from 'node:fs/promises';
import type { Raster, Sheet } from '@foglio/core';
import { writeRaster } from './write-raster';
import { inScratchFolder } from '../scratch';

/**
 * An imposed file in the format that a printer takes.
 *
 * @param sheets those of the file, in order
 * @param raster how pictures are drawn; null: it is sent as it is
 * @throws PdfError like `writeRaster`
 */
export async function inFormat(pdf: Uint8Array, sheets: readonly Sheet[], raster: Raster | null): Promise<Uint8Array> {
  if (!raster) return pdf;
  return inScratchFolder(async (path) => {
    await writeFile(path('sides.pdf'), pdf);
    await writeRaster(path('sides.pdf'), path('sides.pwg'), sheets, raster);
    return new Uint8Array(await readFile(path('sides.pwg')));
  });
}
