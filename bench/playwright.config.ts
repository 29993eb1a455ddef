import { defineConfig } from '@playwright/test';
import base from '../playwright.config';

/** Benchmarks run one after another, by hand, and print their figures. */
export default defineConfig({
  ...base,
  globalSetup: '../tests/e2e/template.ts',
  projects: [{ name: 'benchmarks' }],
  testDir: '.',
  testMatch: '*.bench.ts',
  workers: 1,
  fullyParallel: false,
  timeout: 300_000,
});
