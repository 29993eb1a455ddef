import angular from 'angular-eslint';
import tseslint from 'typescript-eslint';

/** Rooms of the house, and what each may import of ours: arrows point down only (docs/architecture.md). */
const ROOMS = {
  core: { folder: 'packages/core', may: [] },
  api: { folder: 'packages/api', may: ['core'] },
  sentence: { folder: 'packages/sentence', may: ['core'] },
  pdf: { folder: 'packages/pdf', may: ['core'] },
  ipp: { folder: 'packages/ipp', may: ['core'] },
  cli: { folder: 'apps/cli', may: ['core', 'sentence', 'pdf', 'ipp'] },
  server: { folder: 'apps/server', may: ['api', 'core', 'sentence', 'pdf', 'ipp'] },
  printer: { folder: 'apps/printer', may: ['core', 'pdf', 'ipp'] },
  web: { folder: 'apps/web', may: ['api', 'core', 'sentence'] },
  demo: { folder: 'demo', may: [] },
};

const importsOf = ({ may }) => {
  const others = Object.keys(ROOMS).filter((name) => !may.includes(name));
  return {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
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
    ignores: [
      '**/dist/',
      '**/node_modules/',
      '.foglio/',
      '.angular/',
      'coverage/',
      'test-results/',
      'playwright-report/',
    ],
  },
  {
    files: ['**/*.ts'],
    extends: [...tseslint.configs.recommendedTypeChecked],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/explicit-module-boundary-types': 'off',
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', argsIgnorePattern: '^_' }],
      '@typescript-eslint/no-unnecessary-condition': 'off',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-console': 'off',
    },
  },
  ...Object.values(ROOMS).map((room) => ({
    files: [`${room.folder}/src/**/*.ts`],
    ignores: ['**/*.test.ts', '**/*.spec.ts'],
    rules: importsOf(room),
  })),
  {
    // The core is pure: no DOM, no Node, no clock, no chance.
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
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
