import { defineConfig } from '@playwright/test';
import { CHROMIUM_ARGS, PORT } from './constants';

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: '../test-results',
  timeout: 240_000,
  expect: { timeout: 10_000 },
  fullyParallel: true,
  workers: 2,
  // What passes only the second time is counted apart, and may not be more than one.
  retries: 1,
  reporter: [['list'], ['json', { outputFile: '../test-results/browser.json' }]],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    trace: 'on-first-retry',
    launchOptions: { executablePath: '/usr/bin/chromium', args: CHROMIUM_ARGS },
  },
  webServer: {
    command: 'node server/dist/demo.js --fresh',
    cwd: '..',
    url: `http://127.0.0.1:${PORT}/api/welcome`,
    timeout: 180_000,
    reuseExistingServer: false,
    env: {
      AVRELLE_PORT: String(PORT),
      AVRELLE_DATA: 'var/e2e.db',
      AVRELLE_DEMO_WEB_PORT: String(PORT + 1),
      AVRELLE_PROXY: 'yes',
    },
  },
});
