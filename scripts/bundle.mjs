// Bundles what runs in Node: our own TypeScript becomes one file a program, packages of the registry stay outside.
import { build } from 'esbuild';

const programs = ['apps/server', 'apps/printer', 'demo'];
await Promise.all(
  programs.map((folder) =>
    build({
      entryPoints: [`${folder}/src/main.ts`],
      outfile: `${folder}/dist/main.js`,
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
