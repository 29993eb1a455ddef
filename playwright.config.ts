import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: 'tests/e2e',
  globalSetup: './tests/e2e/template.ts',
  timeout: 120_000,
  expect: { timeout: 10_000 },
  workers: 2,
  fullyParallel: true,
  forbidOnly: true,
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    video: 'off',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      // Chromium's sandbox cannot be set up by root; shared memory is small in containers.
      args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-background-networking', '--no-first-run'],
    },
  },
});
