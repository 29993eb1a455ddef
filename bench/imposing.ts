import { execFileSync, fork } from 'node:child_process';
import { mkdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import PDFKit from 'pdfkit';
import sharp from 'sharp';
import { median, report } from './figures';

/**
 * Imposing four a side, against a plain copy of the same file by qpdf and against the library's own embedding, side by side
 * in one run: each in a process of its own, wall time with its start, peak memory and size of the output; medians of five.
 */

const [folder, manual] = process.argv.slice(2) as [string, string];
const RUNS = 5;

interface Figures {
  readonly seconds: number;
  readonly memoryMb: number;
  readonly outputMb: number;
}

const MB = 1024 * 1024;

type Way = 'qpdf' | 'library' | 'facts' | 'ours';

const SAID: Readonly<Record<Way, string>> = {
  qpdf: 'a plain copy by qpdf',
  library: 'the library’s embedding',
  facts: 'reading the facts, once a file',
  ours: 'imposing',
};

/** Peak memory is what the kernel counted of the process (proc(5), VmHWM). */
async function run(way: Way, source: string): Promise<Figures> {
  const out = join(folder, 'out.pdf');
  const start = performance.now();
  let memoryMb = NaN;
  if (way === 'qpdf') execFileSync('qpdf', [source, out]);
  else
    await new Promise<void>((resolve, reject) => {
      const child = fork(join(folder, 'imposing-way.mjs'), [way, source, out]);
      child.on('message', (kilobytes: number) => (memoryMb = kilobytes / 1024));
      child.on('close', (code) => (code === 0 ? resolve() : reject(new Error(`${way} ended with ${code}`))));
    });
  return { seconds: (performance.now() - start) / 1000, memoryMb, outputMb: statSync(out).size / MB };
}

async function compare(what: string, source: string, ways: readonly Way[]): Promise<Record<Way, Figures>> {
  const runs: Record<Way, Figures[]> = { qpdf: [], library: [], facts: [], ours: [] };
  for (let round = 0; round < RUNS; round += 1) for (const way of ways) runs[way].push(await run(way, source));
  const middle = (way: Way): Figures => ({
    seconds: median(runs[way].map(({ seconds }) => seconds)),
    memoryMb: median(runs[way].map(({ memoryMb }) => memoryMb)),
    outputMb: median(runs[way].map(({ outputMb }) => outputMb)),
  });
  const figures = {
    qpdf: middle('qpdf'),
    library: middle('library'),
    facts: middle('facts'),
    ours: middle('ours'),
  };
  console.log(`${what}, ${(statSync(source).size / MB).toFixed(1)} MB:`);
  for (const way of ways) {
    const { seconds, memoryMb, outputMb } = figures[way];
    const memory = Number.isNaN(memoryMb) ? '' : `, peak memory ${memoryMb.toFixed(0)} MB`;
    const output = way === 'facts' ? '' : `, output ${outputMb.toFixed(1)} MB`;
    console.log(`  ${SAID[way]}: ${seconds.toFixed(2)} s${memory}${output}`);
  }
  const most = 160 + (3 * statSync(source).size) / MB;
  report('  peak memory', figures.ours.memoryMb, 'MB', `under ${most.toFixed(0)} MB: 160 and three times the input`);
  return figures;
}

function textPages(count: number): Promise<Buffer> {
  const document = new PDFKit({ autoFirstPage: false, size: 'A4' });
  const words = 'the quick brown fox jumps over the lazy dog '.repeat(60);
  for (let page = 1; page <= count; page += 1) document.addPage().fontSize(11).text(`Page ${page}. ${words}`);
  return finished(document);
}

/** As a camera makes them: every page another picture, about 400 kB each. */
async function photoPages(count: number): Promise<Buffer> {
  const document = new PDFKit({ autoFirstPage: false, size: 'A4' });
  for (let page = 1; page <= count; page += 1) {
    const noise = { type: 'gaussian', mean: 128, sigma: 20 + page / 10 } as const;
    const image = sharp({ create: { width: 1000, height: 1300, channels: 3, background: 'grey', noise } });
    document.addPage().image(await image.jpeg({ quality: 70 }).toBuffer(), 40, 40, { width: 500 });
  }
  return finished(document);
}

function finished(document: PDFKit.PDFDocument): Promise<Buffer> {
  const parts: Buffer[] = [];
  document.on('data', (part: Buffer) => parts.push(part));
  document.end();
  return new Promise((resolve) => document.on('end', () => resolve(Buffer.concat(parts))));
}

mkdirSync(folder, { recursive: true });
const at = (name: string): string => join(folder, name);
execFileSync('qpdf', [manual, '--pages', '.', '1-1000', '--', at('manual.pdf')]);
writeFileSync(at('text.pdf'), await textPages(1_000));
writeFileSync(at('long.pdf'), await textPages(10_000));
writeFileSync(at('photos.pdf'), await photoPages(200));

const ALL = ['qpdf', 'library', 'facts', 'ours'] as const;

function reportAgainstLibrary({ library, ours }: Record<Way, Figures>): void {
  report('  the library’s time over ours', library.seconds / ours.seconds, 'times', 'at least 2');
  report('  our output over the library’s', ours.outputMb / library.outputMb, 'times', 'at most 0.5');
}

const plain = await compare('1,000 plain pages of text, 4 a side', at('text.pdf'), ALL);
reportAgainstLibrary(plain);
reportAgainstLibrary(await compare('1,000 pages of a real manual, 4 a side', at('manual.pdf'), ALL));
const photos = await compare('200 photo pages, 4 a side', at('photos.pdf'), ALL);
report('  our time over the library’s', photos.ours.seconds / photos.library.seconds, 'times', 'at most 1');
const long = await compare('10,000 plain pages of text, 4 a side', at('long.pdf'), ['facts', 'ours']);
report('  10,000 pages over 1,000', long.ours.seconds / plain.ours.seconds, 'times', 'under 12');
