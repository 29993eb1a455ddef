import angular from 'angular-eslint';
import tseslint from 'typescript-eslint';

// Only what is our own or Angular's is asked here: the rooms, the core's purity, components and templates. What holds for
// TypeScript anywhere, types included, oxlint asks in a tenth of the time (.oxlintrc.json).

/** Rooms of the house, and what each may import of ours: arrows point down only (docs/architecture.md). */
const ROOMS = {
  core: { folder: 'packages/core', may: [] },
  api: { folder: 'packages/api', may: ['core'] },
  sentence: { folder: 'packages/sentence', may: ['core'] },
  pdf: { folder: 'packages/pdf', may: ['core'] },
  typeset: { folder: 'packages/typeset', may: ['core', 'pdf'] },
  ipp: { folder: 'packages/ipp', may: ['core'] },
  cli: { folder: 'apps/cli', may: ['core', 'sentence', 'pdf', 'typeset', 'ipp'] },
  server: { folder: 'apps/server', may: ['api', 'core', 'sentence', 'pdf', 'typeset', 'ipp'] },
  printer: { folder: 'apps/printer', may: ['core', 'pdf', 'ipp'] },
  web: { folder: 'apps/web', may: ['api', 'core', 'sentence'] },
  demo: { folder: 'demo', may: ['core'] },
};

/** The folders of the core from the ground up: each may import what stands before it, and itself. */
const CORE = [
  'paper',
  'pages',
  'settings',
  'printer',
  'ticket',
  'plan',
  'marks',
  'tally',
  'planning',
  'sending',
  'checks',
  'planner',
  'compare',
  'spend',
  'series',
  'hand',
];

const importsOf = ({ may }, above = []) => {
  const others = Object.keys(ROOMS).filter((name) => !may.includes(name));
  return {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          ...(above.length > 0
            ? [
                {
                  group: above.map((folder) => `../${folder}/**`),
                  message: 'Arrows point down only: it stands above this folder.',
                },
              ]
            : []),
          {
            group: others.flatMap((name) => [`@foglio/${name}`, `@foglio/${name}/*`]),
            message: 'Arrows point down only; see docs/architecture.md.',
          },
          {
            group: ['**/packages/*', '**/apps/*', '@foglio/*/src/**'],
            message: 'Other rooms are imported by name, through their index.',
          },
        ],
      },
    ],
  };
};

export default tseslint.config(
  {
    // Words that turn a rule off are for oxlint too; it says so where one turns off nothing.
    linterOptions: { reportUnusedDisableDirectives: 'off' },
  },
  {
    ignores: [
      '**/dist/',
      '**/node_modules/',
      '.foglio/',
      '.angular/',
      'coverage/',
      'test-results/',
      'playwright-report/',
      // Tests stand beside the house: they may look into every room.
      '**/*.test.ts',
      '**/*.spec.ts',
      '**/test/',
      'tests/',
      'bench/',
    ],
  },
  { files: ['**/*.ts'], languageOptions: { parser: tseslint.parser } },
  ...Object.values(ROOMS).map((room) => ({
    files: [`${room.folder}/src/**/*.ts`],
    rules: importsOf(room),
  })),
  ...CORE.map((folder, at) => ({
    files: [`packages/core/src/${folder}/**/*.ts`],
    rules: importsOf(ROOMS.core, CORE.slice(at + 1)),
  })),
  {
    // The core is pure: no DOM, no Node, no clock, no chance.
    files: ['packages/core/src/**/*.ts'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'Buffer', 'console', 'fetch', 'setTimeout'],
      'no-restricted-syntax': [
        'error',
        { selector: "MemberExpression[object.name='Date']", message: 'The core has no clock.' },
        { selector: "NewExpression[callee.name='Date']", message: 'The core has no clock.' },
        {
          selector: "MemberExpression[object.name='Math'][property.name='random']",
          message: 'The core has no chance.',
        },
      ],
    },
  },
  {
    files: ['apps/web/src/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'fo', style: 'kebab-case' }],
      '@angular-eslint/component-class-suffix': 'off',
    },
  },
  {
    files: ['apps/web/src/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
  },
);
