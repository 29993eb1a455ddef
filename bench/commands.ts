import { execFileSync } from 'node:child_process';
import {
  createWriteStream,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join, resolve } from 'node:path';
import PDFKit from 'pdfkit';
import sharp from 'sharp';
import { CONTRACT } from '../packages/core/test/jobs';
import { median, report } from './figures';

/**
 * The command line as a person waits for it: whole processes, side by side with other programs in one run. Medians of five that
 * alternate; processor time and peak memory as the kernel counts them, of a process and all that it starts.
 */

const [folder, manual, demo] = process.argv.slice(2).map((path) => resolve(path)) as [string, string, string];
const RUNS = 5;
const MB = 1024 * 1024;

interface Figures {
  /** By the clock, and of processors, in seconds. */
  readonly clock: number;
  readonly cpu: number;
  readonly memoryMb: number;
  readonly outputMb: number;
}

interface Program {
  readonly command: readonly string[];
  /** What it writes. */
  readonly output?: string;
  /** What is done before it, and not measured. */
  readonly before?: () => void;
}

const at = (name: string): string => join(folder, name);
const CACHE = at('cache');
const forget = (): void => rmSync(CACHE, { recursive: true, force: true });

function run({ command, output, before }: Program): Figures {
  before?.();
  const figures = at('time.txt');
  execFileSync('/usr/bin/time', ['-o', figures, '-f', '%e %U %S %M', ...command], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, XDG_CACHE_HOME: CACHE },
    maxBuffer: 64 * MB,
  });
  const [clock, user, system, kilobytes] = readFileSync(figures, 'utf8').trim().split(' ').map(Number) as [
    number,
    number,
    number,
    number,
  ];
  const outputMb = output && existsSync(output) ? statSync(output).size / MB : NaN;
  return { clock, cpu: user + system, memoryMb: kilobytes / 1024, outputMb };
}

/** Runs programs in turn. */
function compare<Name extends string>(what: string, programs: Readonly<Record<Name, Program>>): Record<Name, Figures> {
  const names = Object.keys(programs) as Name[];
  const runs = names.map(() => [] as Figures[]);
  for (let round = 0; round < RUNS; round += 1) {
    names.forEach((name, index) => runs[index]!.push(run(programs[name])));
  }
  console.log(`${what}:`);
  const middles = names.map((name, index) => {
    const middle = (figure: keyof Figures): number => median(runs[index]!.map((one) => one[figure]));
    const figures = {
      clock: middle('clock'),
      cpu: middle('cpu'),
      memoryMb: middle('memoryMb'),
      outputMb: middle('outputMb'),
    };
    const output = Number.isNaN(figures.outputMb) ? '' : `, output ${figures.outputMb.toFixed(2)} MB`;
    console.log(
      `  ${name}: ${figures.cpu.toFixed(2)} s of processors, ${figures.clock.toFixed(2)} s by the clock, ${figures.memoryMb.toFixed(0)} MB${output}`,
    );
    return [name, figures] as const;
  });
  return Object.fromEntries(middles) as Record<Name, Figures>;
}

const foglio = (...args: string[]): string[] => [process.execPath, 'apps/cli/bin/foglio.mjs', ...args];

/** A ticket of one document, four pages a side. */
function fourASide(name: string, source: string): string {
  const ticket = {
    version: 1,
    documents: [{ file: source }],
    sides: 'two-sided',
    layout: { kind: 'grid', pagesPerSide: 4 },
  };
  writeFileSync(at(`${name}.json`), JSON.stringify(ticket));
  return at(`${name}.json`);
}

const imposing = (name: string, source: string, before?: () => void): Program => ({
  command: foglio('impose', fourASide(name, source), '-o', at(`${name}-ours.pdf`)),
  output: at(`${name}-ours.pdf`),
  ...(before ? { before } : {}),
});

const nUp = (name: string, source: string): Program => ({
  command: [process.execPath, 'bench/pdfium-n-up.mjs', source, at(`${name}-pdfium.pdf`)],
  output: at(`${name}-pdfium.pdf`),
});

/** As a camera makes them: every page another picture, about 370 kB each. */
async function photoPages(count: number, path: string): Promise<void> {
  const document = new PDFKit({ autoFirstPage: false, size: 'A4' });
  const file = createWriteStream(path);
  document.pipe(file);
  for (let page = 1; page <= count; page += 1) {
    const noise = { type: 'gaussian', mean: 128, sigma: 20 + page / 10 } as const;
    const image = sharp({ create: { width: 1000, height: 1300, channels: 3, background: 'grey', noise } });
    document.addPage().image(await image.jpeg({ quality: 70 }).toBuffer(), 40, 40, { width: 500 });
  }
  document.end();
  await new Promise<void>((resolve) => file.on('finish', () => resolve()));
}

mkdirSync(folder, { recursive: true });
await photoPages(200, at('photos.pdf'));
execFileSync('qpdf', ['--empty', '--pages', ...Array<string>(9).fill(manual), '--', at('long.pdf')]);

const one = compare('1,158 pages of a manual, four a side', {
  'foglio impose': imposing('manual', manual, forget),
  'the same again': imposing('manual', manual),
  'PDFium’s n-up': nUp('manual', manual),
});
report('  over PDFium', one['foglio impose'].cpu / one['PDFium’s n-up'].cpu, 'times its time', 'at most 2, in 200 MB');
report('  the second time', one['the same again'].cpu / one['PDFium’s n-up'].cpu, 'times its time', 'at most 1.5');

const long = compare('10,422 pages of it', {
  'foglio impose': imposing('long', at('long.pdf'), forget),
  'PDFium’s n-up': nUp('long', at('long.pdf')),
});
report(
  '  over PDFium',
  long['foglio impose'].cpu / long['PDFium’s n-up'].cpu,
  'times its time',
  'at most 2, in 300 MB',
);

const photos = compare('200 photo pages, four a side', {
  'foglio impose': imposing('photos', at('photos.pdf'), forget),
  'PDFium’s n-up': nUp('photos', at('photos.pdf')),
  'a copy by qpdf': { command: ['qpdf', at('photos.pdf'), at('copy.pdf')], output: at('copy.pdf') },
});
report(
  '  over PDFium',
  photos['foglio impose'].cpu / photos['PDFium’s n-up'].cpu,
  'times its time',
  'at most 1, in 300 MB',
);
report('  over qpdf', photos['foglio impose'].cpu / photos['a copy by qpdf'].cpu, 'times its time', 'at most 3');

const facts = compare('page facts of the manual', {
  'foglio pages': { command: foglio('pages', manual), before: forget },
  'Ghostscript’s inkcov': { command: ['gs', '-q', '-o', '/dev/null', '-sDEVICE=inkcov', manual] },
});
const [ours, ghostscript] = [facts['foglio pages'], facts['Ghostscript’s inkcov']];
report('  over Ghostscript', ours.cpu / ghostscript.cpu, 'times its time', 'at most 1, in 300 MB');
report('  by the clock', ours.clock / ghostscript.clock, 'times its time', 'at most 0.5');

const { pages, ...routing } = CONTRACT;
const documents = [{ file: join(demo, 'seasonContract.pdf'), pages }];
writeFileSync(at('contract.json'), JSON.stringify({ version: 1, title: 'Season contract', documents, ...routing }));
const small = compare('small commands', {
  'foglio --help': { command: foglio('--help') },
  'foglio plan of the season contract': { command: foglio('plan', at('contract.json')), before: forget },
});
report('  foglio --help', small['foglio --help'].clock, 's', 'under 0.25');
report('  foglio plan', small['foglio plan of the season contract'].clock, 's', 'under 0.6');

// No file of ours is larger than what PDFium makes of the same.
for (const name of readdirSync(demo).filter((file) => file.endsWith('.pdf'))) {
  const [mine, theirs] = [imposing(name, join(demo, name)), nUp(name, join(demo, name))].map((program) => {
    run(program);
    return statSync(program.output!).size;
  }) as [number, number];
  report(`${name}, our output over PDFium’s`, mine / theirs, 'times', 'at most 1');
}
