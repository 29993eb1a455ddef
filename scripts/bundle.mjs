// Bundles what runs in Node: our own TypeScript becomes one file a program, packages of the registry stay outside. All but
// the PDF library: as one file of its own it is read in a fifth of the time its hundreds of modules take, at every start of
// a worker.
import { build } from 'esbuild';

const PDF_LIBRARY = './node_modules/@cantoo/pdf-lib/dist/pdf-lib.esm.min.js';

const programs = [
  ['apps/server/src/main.ts', 'apps/server/dist/main.js'],
  ['apps/server/src/pdf/pdf-worker.ts', 'apps/server/dist/pdf-worker.js'],
  ['apps/printer/src/main.ts', 'apps/printer/dist/main.js'],
  ['demo/src/main.ts', 'demo/dist/main.js'],
];
await Promise.all(
  programs.map(([source, outfile]) =>
    build({
      entryPoints: [source],
      outfile,
      bundle: true,
      platform: 'node',
      format: 'esm',
      target: 'node20',
      packages: 'external',
      alias: { '@cantoo/pdf-lib': PDF_LIBRARY },
      sourcemap: true,
      tsconfig: 'tsconfig.base.json',
      logLevel: 'warning',
    }),
  ),
);
