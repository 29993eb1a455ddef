import presets from 'jest-preset-angular/presets/index.js';

const swc = [
  '@swc/jest',
  { jsc: { parser: { syntax: 'typescript' }, target: 'es2022' }, module: { type: 'commonjs' } },
];

/**
 * Rooms that run in Node; sources are mapped, so that nothing needs building first. Several to a project, since each project
 * compiles all that it runs for itself.
 */
const rooms = (name, ...folders) => ({
  displayName: name,
  rootDir: '.',
  testEnvironment: 'node',
  testMatch: folders.map((folder) => `<rootDir>/${folder}/**/*.test.ts`),
  setupFiles: ['<rootDir>/jest.seed.cjs'],
  transform: { '\\.[mc]?[jt]s$': swc },
  // Published as ES modules only.
  transformIgnorePatterns: ['/node_modules/(?!canonicalize/)'],
  moduleNameMapper: {
    '^@foglio/ipp/serving$': '<rootDir>/packages/ipp/src/serving/index.ts',
    '^@foglio/core/validate$': '<rootDir>/packages/core/src/validate.ts',
    // As the built programs have it: in one file and not in hundreds.
    '^@cantoo/pdf-lib$': '<rootDir>/node_modules/@cantoo/pdf-lib/dist/pdf-lib.min.js',
    '^@foglio/demo$': '<rootDir>/demo/src/index.ts',
    '^@foglio/pdf/error$': '<rootDir>/packages/pdf/src/pdf-error.ts',
    '^@foglio/(api|core|sentence|pdf|typeset|ipp)$': '<rootDir>/packages/$1/src/index.ts',
  },
});

const web = {
  ...presets.createCjsPreset({ tsconfig: '<rootDir>/apps/web/tsconfig.spec.json' }),
  displayName: 'web',
  rootDir: '.',
  testMatch: ['<rootDir>/apps/web/src/**/*.spec.ts'],
  // Published as ES modules only.
  transformIgnorePatterns: ['node_modules/(?!(.*\\.mjs$|canonicalize/))'],
  setupFilesAfterEnv: ['<rootDir>/apps/web/src/test-setup.ts'],
  moduleNameMapper: {
    '/workers/spawn$': '<rootDir>/apps/web/src/stubs/spawn.ts',
    '^\\./spawn$': '<rootDir>/apps/web/src/stubs/spawn.ts',
    '^pdfjs-dist$': '<rootDir>/apps/web/src/stubs/pdfjs.ts',
    '^@foglio/core/validate$': '<rootDir>/packages/core/src/validate.ts',
    '^@foglio/api$': '<rootDir>/packages/api/src/index.ts',
    '^@foglio/core$': '<rootDir>/packages/core/src/index.ts',
    '^@foglio/sentence$': '<rootDir>/packages/sentence/src/index.ts',
  },
};

export default {
  // Drawing and reading a manual's pages takes seconds, more where the machine is shared.
  testTimeout: 60_000,
  projects: [
    rooms('core', 'packages/core', 'packages/api', 'packages/sentence'),
    rooms('programs', 'packages/pdf', 'packages/typeset', 'packages/ipp', 'apps/printer', 'apps/cli', 'demo'),
    { ...rooms('server', 'apps/server'), globalSetup: '<rootDir>/apps/server/test/template.ts' },
    web,
  ],
  collectCoverageFrom: ['packages/core/src/**/*.ts', '!**/*.test.ts'],
};
