// Bundles what runs in Node: our own TypeScript becomes one file a program, packages of the registry stay outside. All but
// the PDF library: as one file of its own it is read in a fifth of the time its hundreds of modules take, at every start of
// a worker.
import { rm } from 'node:fs/promises';
import { build } from 'esbuild';

const PDF_LIBRARY = './node_modules/@cantoo/pdf-lib/dist/pdf-lib.esm.min.js';

// What several programs of an app share, and what is loaded only when it is needed, becomes files of its own.
const apps = [
  [
    'apps/server/dist',
    [
      'apps/server/src/main.ts',
      'apps/server/src/pdf/pdf-worker.ts',
      'apps/server/src/pdf/browser-process.ts',
      'apps/server/src/plans/plan-worker.ts',
    ],
  ],
  ['apps/printer/dist', ['apps/printer/src/main.ts']],
  ['apps/cli/dist', ['apps/cli/src/foglio.ts', 'apps/cli/src/look-through-thread.ts']],
  ['demo/dist', ['demo/src/main.ts']],
];
await Promise.all(
  apps.map(async ([outdir, entryPoints]) => {
    // Pieces of the build before have other names.
    await rm(outdir, { recursive: true, force: true });
    await build({
      entryPoints,
      outdir,
      entryNames: '[name]',
      bundle: true,
      splitting: true,
      platform: 'node',
      format: 'esm',
      target: 'node20',
      packages: 'external',
      alias: { '@cantoo/pdf-lib': PDF_LIBRARY },
      sourcemap: true,
      tsconfig: 'tsconfig.base.json',
      logLevel: 'warning',
    });
  }),
);
