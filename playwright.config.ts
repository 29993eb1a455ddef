import { defineConfig } from '@playwright/test';

/** Journeys that take long begin first, so that at the end none is waited for alone. */
const LONG = ['popovers', 'forms', 'start', 'faults', 'series', 'accessibility', 'cli-series', 'survival'].map(
  (name) => `${name}.spec.ts`,
);

export default defineConfig({
  testDir: 'tests/e2e',
  globalSetup: './tests/e2e/template.ts',
  // What does not come about is told late rather than by chance: nothing waits for these where all is well.
  timeout: 420_000,
  expect: { timeout: 45_000 },
  // Each keeps a processor busy: a third one on two processors makes all take longer.
  workers: 2,
  projects: [
    { name: 'long', testMatch: LONG },
    { name: 'others', testIgnore: LONG },
  ],
  fullyParallel: true,
  forbidOnly: true,
  reporter: [['list'], ['json', { outputFile: '.foglio/test/journeys.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    // A button that is not there is told by its name, and not by the end of the whole journey.
    actionTimeout: 120_000,
    video: 'off',
    screenshot: 'off',
    launchOptions: {
      // Debian's Chromium without windows of its own, which draws the same pages with a third less work.
      executablePath: '/usr/bin/chromium-headless-shell',
      // Chromium's sandbox cannot be set up by root; shared memory is small in containers.
      args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-background-networking', '--no-first-run'],
    },
  },
});
