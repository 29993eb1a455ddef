// Bundles what runs in Node: our own TypeScript becomes one file a program, packages of the registry stay outside. All but the
// PDF library, which as one file of its own is read in a fifth of the time its hundreds of modules take, at every start of a
// worker; and what every command of the command line loads before it does anything.
import { rm } from 'node:fs/promises';
import { build } from 'esbuild';
import { validators } from './validators.mjs';

const PDF_LIBRARY = './node_modules/@cantoo/pdf-lib/dist/pdf-lib.esm.min.js';

/** Loaded by every command, file by file unless they are within the program. */
const WITHIN_COMMANDS = [
  'ajv',
  'fast-deep-equal',
  'json-schema-traverse',
  'fast-uri',
  'commander',
  'canonicalize',
  '@noble/hashes',
];

// What several programs of an app share, and what is loaded only when it is needed, becomes files of its own.
const apps = [
  {
    outdir: 'apps/server/dist',
    entryPoints: [
      'apps/server/src/main.ts',
      'apps/server/src/pdf/pdf-worker.ts',
      'apps/server/src/pdf/browser-process.ts',
      'apps/server/src/plans/plan-worker.ts',
    ],
    within: [],
  },
  { outdir: 'apps/printer/dist', entryPoints: ['apps/printer/src/main.ts'], within: [] },
  {
    outdir: 'apps/cli/dist',
    entryPoints: ['apps/cli/src/foglio.ts', 'apps/cli/src/look-through-thread.ts'],
    within: WITHIN_COMMANDS,
  },
  { outdir: 'demo/dist', entryPoints: ['demo/src/main.ts', 'demo/src/past.ts'], within: [] },
];

/** Leaves packages outside but for these and our own. */
const outside = (within) => ({
  name: 'outside',
  setup({ onResolve }) {
    onResolve({ filter: /^[^./]/ }, ({ path, kind }) => {
      if (kind === 'entry-point' || path.startsWith('@foglio/') || path === '@cantoo/pdf-lib') return undefined;
      return within.some((name) => path === name || path.startsWith(`${name}/`)) ? undefined : { path, external: true };
    });
  },
});

await Promise.all(
  apps.map(async ({ outdir, entryPoints, within }) => {
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
      plugins: [validators, outside(within)],
      alias: { '@cantoo/pdf-lib': PDF_LIBRARY },
      sourcemap: true,
      tsconfig: 'tsconfig.base.json',
      logLevel: 'warning',
      // Packages of the older kind ask for the engine's own modules so.
      ...(within.length > 0
        ? {
            banner: {
              js: "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);",
            },
          }
        : {}),
    });
  }),
);
