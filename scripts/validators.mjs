// Validators as code, made when programs are bundled: compiling schemas at every start took longer than reading a ticket.
import { Ajv } from 'ajv';
import standalone from 'ajv/dist/standalone/index.js';
import { build } from 'esbuild';

const NAMESPACE = 'validators';

/** The schemas as plain data, by running the module that has them. */
async function schemas() {
  const { outputFiles } = await build({
    entryPoints: ['packages/core/src/readable.ts'],
    bundle: true,
    write: false,
    format: 'esm',
    tsconfig: 'tsconfig.base.json',
  });
  return import(`data:text/javascript;base64,${Buffer.from(outputFiles[0].contents).toString('base64')}`);
}

/** The module `validators` of the core, with what it would compile already compiled. */
async function compiled() {
  const { readable, validating } = await schemas();
  const ajv = new Ajv({ ...validating, code: { source: true, esm: true } });
  const names = Object.keys(readable);
  for (const name of names) ajv.addSchema(readable[name], name);
  const code = standalone.default(ajv, Object.fromEntries(names.map((name) => [name, name])));
  const asked = names.map((name) => `export const ${name}Validator = () => ${name};`);
  // What Ajv has at hand for lengths of text it asks for in the older way.
  const asking = `import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);`;
  return [asking, code.replaceAll(/export const (\w+) = /g, 'const $1 = '), ...asked].join('\n');
}

let made;

export const validators = {
  name: NAMESPACE,
  setup({ onResolve, onLoad }) {
    onResolve({ filter: /^\.\/validators$/ }, ({ importer }) =>
      importer.endsWith('packages/core/src/validate.ts') ? { path: 'validators', namespace: NAMESPACE } : undefined,
    );
    onLoad({ filter: /^validators$/, namespace: NAMESPACE }, async () => ({
      contents: await (made ??= compiled()),
      resolveDir: process.cwd(),
    }));
  },
};
