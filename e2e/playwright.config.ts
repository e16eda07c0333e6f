import { defineConfig } from '@playwright/test';
import { browserOptions } from './support/browser';

export default defineConfig({
  testDir: '.',
  outputDir: '../.data/test-results',
  // Two side by side take turns on two processors: what is waited for comes later, not never.
  timeout: 120_000,
  expect: { timeout: 30_000 },
  workers: 2,
  // What fails is run once more and named if it passes then: docs/decisions/0033-run-again.md.
  retries: 1,
  forbidOnly: true,
  reporter: [['list'], ['json']],
  use: {
    launchOptions: browserOptions,
    // What moves as it comes is tapped where it was: nobody taps as early as a test does.
    contextOptions: { reducedMotion: 'reduce' },
    screenshot: 'only-on-failure',
  },
});
