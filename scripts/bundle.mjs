// Bundles what runs in Node: our own TypeScript becomes one file a program, packages of the registry stay outside.
import { build } from 'esbuild';

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
      sourcemap: true,
      tsconfig: 'tsconfig.base.json',
      logLevel: 'warning',
    }),
  ),
);
