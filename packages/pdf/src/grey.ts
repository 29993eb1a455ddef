import { readFile, writeFile } from 'node:fs/promises';
import { damaged, programMissing } from './pdf-error';
import { runProgram, type ProgramEnd } from './program';
import { inScratchFolder } from './scratch';

/** Debian's Ghostscript, a program of its own. */
const PROGRAM = 'gs';

/**
 * Every colour becomes a grey, text stays text, pictures keep their resolution and are packed again with little loss
 * (QFactor 0.15 is what prepress takes; Ghostscript's own default is made for screens). The older of its two readers is
 * taken, since the newer leaves some colour operators.
 */
const OPTIONS = [
  '-q',
  '-dBATCH',
  '-dNOPAUSE',
  '-dSAFER',
  '-sDEVICE=pdfwrite',
  '-sColorConversionStrategy=Gray',
  '-sProcessColorModel=DeviceGray',
  '-dNEWPDF=false',
  '-dCompatibilityLevel=1.7',
  '-dAutoRotatePages=/None',
  '-dDownsampleColorImages=false',
  '-dDownsampleGrayImages=false',
  '-dDownsampleMonoImages=false',
];
const LITTLE_LOSS =
  '<< /GrayACSImageDict << /QFactor 0.15 /Blend 1 /HSamples [1 1 1 1] /VSamples [1 1 1 1] >> >> setdistillerparams';

/**
 * A PDF with no colour left in it.
 *
 * @throws PdfError `program-missing` where Ghostscript is not installed, `damaged` where it cannot read the file
 */
export const convertToGrey = (bytes: Uint8Array, program = PROGRAM): Promise<Uint8Array> =>
  inGrey(bytes, program, [...OPTIONS, '-c', LITTLE_LOSS, '-f']);

/** Dots an inch at which letters that have become pictures are still sharp (common practice). */
const DPI = 300;

/**
 * Pages as grey pictures: whatever they do with colours, nothing of it is left.
 *
 * @param pages counted from 1, rising
 * @throws PdfError like {@link convertToGrey}
 */
export const drawInGrey = (bytes: Uint8Array, pages: readonly number[]): Promise<Uint8Array> =>
  inGrey(bytes, PROGRAM, [
    '-q',
    '-dBATCH',
    '-dNOPAUSE',
    '-dSAFER',
    '-sDEVICE=pdfimage8',
    '-dTextAlphaBits=4',
    '-dGraphicsAlphaBits=4',
    `-r${DPI}`,
    `-sPageList=${pages.join(',')}`,
  ]);

function inGrey(bytes: Uint8Array, program: string, options: readonly string[]): Promise<Uint8Array> {
  return inScratchFolder(async (path) => {
    const [coloured, grey] = [path('coloured.pdf'), path('grey.pdf')];
    await writeFile(coloured, bytes);
    const end = await runProgram(program, [`-sOutputFile=${grey}`, ...options, coloured]);
    if (end === 'missing') throw programMissing('Saving in grey', 'ghostscript', 'save in colour');
    if (end.status !== 0) throw damaged(`it cannot be turned to grey (${reasonOf(end) ?? `status ${end.status}`})`);
    return new Uint8Array(await readFile(grey));
  });
}

const reasonOf = ({ said, complained }: ProgramEnd): string | undefined =>
  `${said}\n${complained}`.trim().split('\n')[0] || undefined;
