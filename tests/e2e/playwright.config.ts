import { defineConfig } from '@playwright/test';
import { chromium } from './machine';

/** Drives Debian's Chromium against the built server, a server and a database of its own for each worker (test.ts). */
export default defineConfig({
  testDir: '.',
  // Pictures for the documentation are made on purpose: ./test --pictures.
  testIgnore: process.env.BLUE_DAWN_PICTURES ? [] : ['pictures.spec.ts'],
  outputDir: 'test-results',
  fullyParallel: true,
  workers: 2,
  retries: 0,
  // Only what hangs is ended: nothing here measures how fast a machine is.
  timeout: 120_000,
  expect: { timeout: 20_000 },
  reporter: [['list'], ['json', { outputFile: '../../artifacts/tests/playwright.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    timezoneId: 'UTC',
    locale: 'en-GB',
    launchOptions: chromium,
    screenshot: 'only-on-failure',
    // What is intercepted by a test would be answered by the worker; offline.spec.ts has one.
    serviceWorkers: 'block',
  },
});
