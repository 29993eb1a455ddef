import { readFile, writeFile } from 'node:fs/promises';
import { damaged, programMissing } from './pdf-error';
import { runProgram } from './program';
import { inScratchFolder } from './scratch';

/**
 * A page as it comes out on paper: a PNG drawn by Debian's Ghostscript.
 *
 * @param page counted from 1
 * @param dpi dots an inch
 * @throws PdfError `program-missing` where Ghostscript is not installed, `damaged` where it cannot draw the page
 */
export function renderPage(bytes: Uint8Array, page: number, dpi: number, inColor: boolean): Promise<Uint8Array> {
  return inScratchFolder(async (path) => {
    const [source, target] = [path('source.pdf'), path('page.png')];
    await writeFile(source, bytes);
    const end = await runProgram('gs', [
      '-q',
      '-dBATCH',
      '-dNOPAUSE',
      '-dSAFER',
      `-sDEVICE=${inColor ? 'png16m' : 'pnggray'}`,
      '-dTextAlphaBits=4',
      '-dGraphicsAlphaBits=4',
      `-r${dpi}`,
      `-dFirstPage=${page}`,
      `-dLastPage=${page}`,
      `-sOutputFile=${target}`,
      source,
    ]);
    if (end === 'missing') throw programMissing('Drawing a page', 'ghostscript', 'look at the file instead');
    if (end.status !== 0) throw damaged(`page ${page} cannot be drawn`);
    return new Uint8Array(await readFile(target));
  });
}
