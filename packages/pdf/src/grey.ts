import { spawn } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { damaged, PdfError } from './pdf-error';

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
export async function convertToGrey(bytes: Uint8Array, program = PROGRAM): Promise<Uint8Array> {
  const folder = await mkdtemp(join(tmpdir(), 'foglio-grey-'));
  try {
    const [coloured, grey] = [join(folder, 'coloured.pdf'), join(folder, 'grey.pdf')];
    await writeFile(coloured, bytes);
    await run(program, [...OPTIONS, `-sOutputFile=${grey}`, '-c', LITTLE_LOSS, '-f', coloured]);
    return new Uint8Array(await readFile(grey));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

function run(name: string, options: readonly string[]): Promise<void> {
  return new Promise((resolve, reject) => {
    const program = spawn(name, options, { stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    for (const stream of [program.stdout, program.stderr]) stream.on('data', (part: Buffer) => (said += String(part)));
    program.on('error', (error: NodeJS.ErrnoException) => {
      reject(error.code === 'ENOENT' ? new PdfError('program-missing', MISSING) : error);
    });
    program.on('close', (code) => {
      if (code === 0) resolve();
      else reject(damaged(`it cannot be turned to grey (${said.trim().split('\n')[0] ?? `status ${code}`})`));
    });
  });
}

const MISSING = 'Saving in grey needs Ghostscript; install the Debian package ghostscript, or save in colour.';
