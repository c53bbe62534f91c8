import { defineConfig } from '@playwright/test';
import { chromium, serverCommand } from './machine';

const port = Number(process.env.BLUE_DAWN_PORT ?? 5180);

/** Drives Debian's Chromium against the built server with the demo scenario, on a database of its own. */
export default defineConfig({
  testDir: '.',
  // Pictures for the documentation are made on purpose: npm run pictures.
  testIgnore: process.env.BLUE_DAWN_PICTURES ? [] : ['pictures.spec.ts'],
  outputDir: 'test-results',
  fullyParallel: true,
  workers: 2,
  retries: 0,
  timeout: 60_000,
  expect: { timeout: 10_000 },
  reporter: [['list'], ['json', { outputFile: '../../artifacts/tests/playwright.json' }]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    timezoneId: 'UTC',
    locale: 'en-GB',
    launchOptions: chromium,
    screenshot: 'only-on-failure',
  },
  webServer: {
    command: serverCommand(port),
    url: `http://127.0.0.1:${port}/health/ready`,
    env: { BLUE_DAWN_DEMO: 'true', ASPNETCORE_ENVIRONMENT: 'Production' },
    timeout: 60_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 },
  },
});
